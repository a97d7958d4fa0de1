import type { SessionNews } from "@/core/pack";
import { clockOffsets, eventReach, eventsOfSession, getHorseOrBinned, getSessionOrBinned, getSettings, type Store } from "@/store";
import { horseCare } from "./horse-care";

/** Whoever follows a session. */
interface Follower {
  readonly session: string;
  readonly horse: string;
  position: number;
  /** What was sent last of what is allowed, as text. */
  care: string;
  /** By which sign-in; null on the machine itself. */
  readonly signIn: string | null;
  /** Whether whoever follows still may. */
  readonly mayFollow: () => Promise<boolean>;
  readonly send: (news: SessionNews) => void;
  /** The line is to end: by an error, or null where it simply ends. */
  readonly failed: (error: unknown) => void;
  /** Whether a look is under way, and whether something happened meanwhile. */
  looking: boolean;
  again: boolean;
}

/** Lines held open in all, and by one who signed in: a page has one. */
export const MOST_LINES = 400;
export const MOST_LINES_OF_ONE = 20;

/** Thrown where no more lines are held open; whoever asked comes back later. */
export class TooManyLinesError extends Error {
  readonly code = "too-many-lines";
  constructor() {
    super("Too many pages follow a session just now.");
  }
}

/** Facts of the yard are often written several at once. */
const FACTS_SETTLE_MS = 150;
/** A restriction may begin or end with the day. */
const DAY_LOOK_MS = 60_000;

/**
 * Tells everybody who follows a session what is new in it, right after the
 * commit, and what is allowed today whenever that changes. Each follower is
 * told in order and nothing twice; one that is slow waits for itself alone.
 */
export class LiveSessions {
  private readonly followers = new Set<Follower>();
  /** What was read since the last thing that happened, by what was asked: followers of one session read it once. */
  private readonly readings = new Map<string, Promise<unknown>>();
  private happened = 0;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly days: ReturnType<typeof setInterval>;

  constructor(private readonly store: Store) {
    store.events.onSaved((sessions) => {
      this.goOn();
      for (const follower of this.followers) if (sessions.has(follower.session)) void this.look(follower);
    });
    store.writer.onFacts(() => {
      // At once, also where nobody follows: whoever comes next must not be told what was so before.
      this.goOn();
      if (this.followers.size === 0) return;
      this.timer ??= setTimeout(() => {
        this.timer = null;
        this.lookAll();
      }, FACTS_SETTLE_MS);
    });
    this.days = setInterval(() => this.lookAll(), DAY_LOOK_MS);
    this.days.unref();
  }

  /** Ends every line: who followed comes back and catches up. */
  close(): void {
    clearInterval(this.days);
    if (this.timer !== null) clearTimeout(this.timer);
    for (const follower of [...this.followers]) {
      this.followers.delete(follower);
      follower.failed(null);
    }
  }

  /** Something happened: what was read before is behind. */
  private goOn(): void {
    this.happened++;
    this.readings.clear();
  }

  /** Reads once for everybody who asks the same since the last thing that happened. */
  private once<T>(asked: string, read: () => Promise<T>): Promise<T> {
    const key = `${this.happened} ${asked}`;
    const under = this.readings.get(key) as Promise<T> | undefined;
    if (under !== undefined) return under;
    const reading = read();
    this.readings.set(key, reading);
    // One that failed is tried again by the next who asks.
    reading.catch(() => this.readings.delete(key));
    return reading;
  }

  private lookAll(): void {
    this.goOn();
    for (const follower of this.followers) void this.look(follower);
  }

  /**
   * Follows a session from a position on, counted since a restore. @returns how to stop.
   * @throws NotFoundError where there is no such session, TooManyLinesError where too many follow.
   */
  async follow(
    id: string,
    after: number,
    send: Follower["send"],
    failed: Follower["failed"],
    mayFollow: Follower["mayFollow"] = async () => true,
    { epoch = null, signIn = null }: { readonly epoch?: string | null; readonly signIn?: string | null } = {},
  ): Promise<() => void> {
    const own = [...this.followers].filter((one) => one.signIn === signIn).length;
    if (this.followers.size >= MOST_LINES || (signIn !== null && own >= MOST_LINES_OF_ONE)) throw new TooManyLinesError();
    // A session in the bin is followed too: who works it hears where it lies.
    const { id: session, horse_id: horse } = await getSessionOrBinned(this.store, id);
    // Positions of a store that went back to a copy are given anew: whoever counted them before it begins from the first.
    const wentBack = (epoch !== null && epoch !== this.store.epoch) || after > (await eventReach(this.store.models));
    const follower: Follower = {
      session,
      horse,
      position: wentBack ? 0 : after,
      care: "",
      signIn,
      mayFollow,
      send,
      failed,
      looking: false,
      again: false,
    };
    this.followers.add(follower);
    void this.look(follower);
    return () => {
      this.followers.delete(follower);
    };
  }

  private async look(follower: Follower): Promise<void> {
    follower.again = true;
    if (follower.looking) return;
    follower.looking = true;
    try {
      while (follower.again && this.followers.has(follower)) {
        follower.again = false;
        // A sign-in that was ended is a fact like any other: the line ends with it.
        if (!(await follower.mayFollow())) {
          this.followers.delete(follower);
          follower.failed(null);
          break;
        }
        const news = await this.newsOf(follower);
        if (news !== null && this.followers.has(follower)) follower.send(news);
      }
    } catch (error) {
      this.followers.delete(follower);
      follower.failed(error);
    } finally {
      follower.looking = false;
    }
  }

  private async newsOf(follower: Follower): Promise<SessionNews | null> {
    const { store } = this;
    const { session, horse } = follower;
    const { events, position, clocks } = await this.once(`events ${session} ${follower.position}`, async () => {
      const read = await eventsOfSession(store, session, follower.position);
      return { ...read, clocks: Object.fromEntries(await clockOffsets(store, read.events)) };
    });
    const { care, binned, text } = await this.once(`care ${session}`, async () => {
      const { allowance, sentences } = await horseCare(store, await getHorseOrBinned(store, horse));
      const care = { allowance, cautions: sentences, wordSettings: await getSettings(store) };
      const binned = (await getSessionOrBinned(store, session)).binned_ms != null;
      return { care, binned, text: JSON.stringify({ care, binned }) };
    });
    const first = follower.care === "";
    if (events.length === 0 && text === follower.care) return null;
    const changed = text !== follower.care;
    follower.position = position;
    follower.care = text;
    return { events, position, epoch: store.epoch, clocks, ...(changed || first ? { care, binned } : {}) };
  }
}
