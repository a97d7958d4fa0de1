import { CLOCK_JUMP_MS } from "@/core/clock-jump";
import { isWrittenLoad } from "@/core/entry/written";
import { type ServerClock, serverClock } from "../server-clock";
import type { Keeping } from "./keeping";

/** Of so many askings the quickest counts. */
const CLOCK_ASKINGS = 5;

/** The server's clock minus this device's, by page load: times are sent with it. */
export class Clocks {
  private readonly ownLoads = new Set<string>();
  private readonly offsets = new Map<string, number>();
  private readonly tellOffset = new Map<string, (offsetMs: number) => void>();
  private newest: ServerClock | null = null;

  constructor(private readonly keeping: Keeping) {}

  /** A load of this page. @returns whether it was not known yet. */
  own(load: string, told?: (offsetMs: number) => void): boolean {
    if (told !== undefined) this.tellOffset.set(load, told);
    const fresh = !this.ownLoads.has(load);
    this.ownLoads.add(load);
    return fresh;
  }

  /** Asks the server's clock: with care where taps of this page go by it. */
  async ask(): Promise<ServerClock> {
    this.newest = await serverClock(this.ownLoads.size > 0 ? CLOCK_ASKINGS : 1);
    return this.newest;
  }

  /** Ties every load of this page to a clock that was asked. */
  async tieOwn(clock: ServerClock): Promise<void> {
    for (const load of this.ownLoads) await this.keepOffset(load, clock);
  }

  /** Asks anew and ties these loads: the server's clock was wrong when they were tied, or one of the two has been set since. */
  async askAgain(loads: readonly string[]): Promise<void> {
    const clock = await serverClock(CLOCK_ASKINGS);
    this.newest = clock;
    for (const load of loads) await this.keepOffset(load, clock);
  }

  /** The server's clock as it was asked last. */
  async last(): Promise<ServerClock> {
    this.newest ??= await serverClock(1);
    return this.newest;
  }

  /** The server's clock minus the device's under a page load. */
  async offsetOf(load: string): Promise<number> {
    if (isWrittenLoad(load)) return 0;
    const known = await this.knownOffset(load);
    if (known !== null) return known;
    const clock = await serverClock(CLOCK_ASKINGS);
    await this.keepOffset(load, clock);
    return clock.offsetMs;
  }

  /** The offsets of page loads as far as this device knows them; of one it was never tied in, the one it was tied with last. */
  async kept(loads: readonly string[]): Promise<Map<string, number>> {
    const last = await this.keeping.offsets.last();
    const found = new Map<string, number>();
    for (const load of loads) {
      const offset = (await this.knownOffset(load)) ?? last;
      if (offset !== null) found.set(load, offset);
    }
    return found;
  }

  /** Whether a jump ahead was this device's clock being set: held as it is meanwhile, it then still stands to the server's as before. */
  async wasSet(): Promise<boolean> {
    const before = this.newest?.offsetMs;
    if (before === undefined) return false;
    const { offsetMs, roundTripMs } = await serverClock(1);
    return Math.abs(before - offsetMs) <= CLOCK_JUMP_MS + roundTripMs;
  }

  /** Keeps a load's offset; one that the asking cannot tell from the old one changes nothing. */
  private async keepOffset(load: string, { offsetMs, roundTripMs }: ServerClock): Promise<void> {
    const known = await this.knownOffset(load);
    if (known !== null && Math.abs(known - offsetMs) <= roundTripMs) return;
    this.offsets.set(load, offsetMs);
    this.tellOffset.get(load)?.(offsetMs);
    this.keeping.offsets.keep(load, offsetMs);
  }

  private async knownOffset(load: string): Promise<number | null> {
    return this.offsets.get(load) ?? (await this.keeping.offsets.of(load));
  }
}
