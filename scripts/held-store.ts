import { randomUUID as newId } from "node:crypto";
import { LiveSessions } from "@/app/server/live";
import {
  closeStore,
  MIGRATION_NAMES,
  openStore,
  ownCopy,
  type Restored,
  restoreStore,
  type SignedIn,
  SignIns,
  type Store,
  StoreFileError,
} from "@/store";
import { type Handler, sendProblem } from "./gate";

/** Requests under way are waited for so long before the store is closed under them. */
const SETTLE_MS = 4000;

/**
 * The one open store of the process, with what hangs on it. It can be
 * exchanged for another while the program runs: whoever asks meanwhile is told
 * to come back, and nobody reads from two.
 */
export class HeldStore {
  live: LiveSessions;
  signIns: SignIns;
  private underWay = 0;
  private swapping = false;

  constructor(
    public store: Store,
    private readonly options: { readonly say: (text: string) => void },
  ) {
    this.live = new LiveSessions(store);
    this.signIns = new SignIns(store);
    this.publish();
  }

  /** The pages use this same open store, so that the process has one writer. */
  private publish(): void {
    Object.assign(globalThis, { deftStore: Promise.resolve(this.store) });
  }

  whoHas(token: string, device: string): Promise<SignedIn | null> {
    return this.signIns.whoHas(token, device);
  }

  /** Lets a request through unless the store is being exchanged, and knows how many are under way. */
  during(handle: Handler): Handler {
    return async (request, response) => {
      if (this.swapping)
        return sendProblem(response, {
          status: 503,
          title: "A moment",
          detail: "The data is being exchanged for a copy. Taps stay on the device; it goes on by itself.",
          code: "swapping",
        });
      this.underWay++;
      response.once("close", () => {
        this.underWay--;
      });
      return handle(request, response);
    };
  }

  /**
   * Puts a copy in place of the store and opens it. Where that fails the store
   * as it was is opened again.
   * @throws StoreFileError where there is no such copy, or it is no sound store of this version or an older one.
   */
  async goBackTo(name: string): Promise<Restored> {
    if (this.swapping) throw new StoreFileError("The data is being exchanged already.");
    // From here on, before anything is waited for: two may ask at once.
    this.swapping = true;
    try {
      const { file, now } = this.store;
      const copy = await ownCopy(this.store, name);
      this.live.close();
      // Every other request under way; the one that asks for this is one of them.
      const until = Date.now() + SETTLE_MS;
      while (this.underWay > 1 && Date.now() < until) await new Promise((resolve) => setTimeout(resolve, 25));
      await closeStore(this.store);
      try {
        const stamp = new Date(now()).toISOString().replace(/[:.]/g, "-");
        return await restoreStore(file, copy, MIGRATION_NAMES, stamp, newId);
      } finally {
        this.store = await openStore(file, now, { say: this.options.say });
        this.live = new LiveSessions(this.store);
        this.signIns = new SignIns(this.store);
        this.publish();
        this.store.caches.catchUp();
      }
    } finally {
      this.swapping = false;
    }
  }
}
