import { isWrittenLoad } from "@/core/entry/written";
import type { SessionEvent } from "@/core/schemas";
import { type Mark, readMark } from "../mark";
import type { KeptSession } from "../queue";
import { bodyOf, NO_ANSWER, reach } from "../reach";
import type { Clocks } from "./clocks";
import type { Keeping } from "./keeping";
import type { SendingStatus } from "./status";

/** Refusals, by code, in words of our own. A tap refused for one of them is sent again with each new connection: a clock may be put right, and the device that began a session may give it yet. */
export const MAY_BE_TAKEN_YET: ReadonlyMap<string | null, string> = new Map([
  ["clock", "The server's clock says otherwise."],
  ["unknown-session", "The server does not have this session."],
]);

/** What the server answers a batch with, as far as the sender acts on it. */
interface Answer {
  readonly detail?: string;
  readonly code?: string;
  readonly position?: number;
  readonly epoch?: string;
  readonly store?: string;
  readonly saved?: number;
  readonly known?: number;
  readonly id?: string;
}

/** Refusals of what is in a batch; any other is the server's own trouble, and the batch is sent again. */
const OF_THE_BATCH = [400, 404, 409, 413, 422];

/** Brings what is kept to the server, session by session and batch by batch, and settles each by its answer. What it throws means: later. */
export class Delivery {
  /** Page loads for which the clock was asked in this run because the server disliked a time: once each is enough. */
  private readonly clockAsked = new Set<string>();
  /** Sessions given again in this run: once is enough. */
  private readonly given = new Set<string>();
  private ended = false;

  constructor(
    private readonly storeId: string,
    private readonly parts: { readonly keeping: Keeping; readonly clocks: Clocks; readonly status: SendingStatus },
    /** Told how far the store reached before a batch was sent and after. */
    private readonly heardReach: (before: Mark | null, now: Mark) => Promise<void>,
  ) {}

  /** Nothing is sent from here any more, also where a run is in the middle of it. */
  end(): void {
    this.ended = true;
  }

  /** Posts something, unless the sending has ended. */
  private post(url: string, body: unknown): Promise<Response> {
    if (this.ended) throw new Error("The sending of this page has ended.");
    return reach(url, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
  }

  /** A new run begins. */
  begin(): void {
    this.clockAsked.clear();
    this.given.clear();
  }

  /** Sessions may be given once more: the store went back. */
  giveAnew(): void {
    this.given.clear();
  }

  async sendAll(): Promise<void> {
    const { keeping, status } = this.parts;
    for (let batch = await keeping.nextBatch(); batch.length > 0; batch = await keeping.nextBatch()) {
      await this.sendBatch(batch);
      status.say({ held: null, stuckSinceMs: null });
      await keeping.count();
    }
  }

  /** Gives the server the sessions made here that it does not have, oldest first; sent again, each is still one. */
  async sendSessions(): Promise<void> {
    for (const session of await this.parts.keeping.readableSessions()) if (session.standing === "waiting") await this.sendSession(session);
  }

  private async sendSession({ id, begun, madeMs, startedMs }: KeptSession): Promise<void> {
    const { keeping, clocks } = this.parts;
    const { offsetMs } = await clocks.last();
    const began = startedMs === null ? {} : { started_ms: startedMs };
    const response = await this.post("/api/sessions", { ...begun, made_ms: Math.round(madeMs + offsetMs), ...began });
    const answer = await bodyOf<Answer>(response);
    if (response.ok && answer?.id === id) return void (await keeping.settleSession(id, "saved"));
    if (response.ok) throw new Error(NO_ANSWER);
    const detail = answer?.detail ?? "The server does not take it.";
    if (!OF_THE_BATCH.includes(response.status) || answer === null) throw new Error(detail);
    await keeping.settleSession(id, "refused", detail);
  }

  /** Sessions of a batch the store does not have, where this device can give them: to be sent before it is tried again. */
  private async giveSessions(batch: readonly SessionEvent[]): Promise<boolean> {
    const wanted = new Set(batch.map(({ session }) => session));
    const kept = await this.parts.keeping.readableSessions();
    const fresh = kept.filter(({ id, standing }) => wanted.has(id) && standing !== "refused" && !this.given.has(id));
    for (const session of fresh) {
      this.given.add(session.id);
      await this.sendSession(session);
    }
    return fresh.length > 0;
  }

  /** Whether an answer is of this store and counts what was sent: a page in between may answer anything with 200. */
  private confirms({ store, saved, known, position }: Answer, sent: number): boolean {
    return (
      store === this.storeId && typeof saved === "number" && typeof known === "number" && saved + known === sent && position !== undefined
    );
  }

  private async sendBatch(batch: readonly SessionEvent[]): Promise<void> {
    const { keeping, clocks: offsets } = this.parts;
    const clocks: Record<string, number> = {};
    for (const load of new Set(batch.map((event) => event.load))) clocks[load] = await offsets.offsetOf(load);
    const before = readMark(this.storeId);
    const response = await this.post("/api/events", { store: this.storeId, recorder: batch[0]?.recorder, clocks, events: batch });
    const answer = await bodyOf<Answer>(response);
    if (response.ok) {
      // A confirmation that did not come through whole, or is not this store's and of these taps, is none: they are sent again.
      if (answer === null || !this.confirms(answer, batch.length)) throw new Error(NO_ANSWER);
      await keeping.settle(batch, "saved");
      await this.heardReach(before, { epoch: answer.epoch ?? "", position: answer.position ?? 0 });
      return;
    }
    const detail = answer?.detail ?? "The server does not take them.";
    if (!OF_THE_BATCH.includes(response.status) || answer === null || answer.code === "another-store") throw new Error(detail);
    const toAsk = Object.keys(clocks).filter((load) => !isWrittenLoad(load) && !this.clockAsked.has(load));
    if (answer.code === "clock" && toAsk.length > 0) {
      for (const load of toAsk) this.clockAsked.add(load);
      await offsets.askAgain(toAsk);
      return this.sendBatch(batch);
    }
    // A store put back to before this session has it again from here.
    if (answer.code === "unknown-session" && (await this.giveSessions(batch))) return this.sendBatch(batch);
    await this.refuse(batch, { reason: MAY_BE_TAKEN_YET.get(answer.code ?? null) ?? detail, code: answer.code ?? null });
  }

  /** One bad event must not hold up the rest: it is found, kept aside, and said. */
  private async refuse(batch: readonly SessionEvent[], refusal: { readonly reason: string; readonly code: string | null }): Promise<void> {
    if (batch.length === 1) return this.parts.keeping.settle(batch, "refused", refusal);
    const middle = batch.length >> 1;
    await this.sendBatch(batch.slice(0, middle));
    await this.sendBatch(batch.slice(middle));
  }
}
