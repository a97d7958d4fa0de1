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
  /** Whether whoever follows still may. */
  readonly mayFollow: () => Promise<boolean>;
  readonly send: (news: SessionNews) => void;
  /** The line is to end: by an error, or null where it simply ends. */
  readonly failed: (error: unknown) => void;
  /** Whether a look is under way, and whether something happened meanwhile. */
  looking: boolean;
  again: boolean;
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
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly days: ReturnType<typeof setInterval>;

  constructor(private readonly store: Store) {
    store.events.onSaved((sessions) => {
      for (const follower of this.followers) if (sessions.has(follower.session)) void this.look(follower);
    });
    store.writer.onFacts(() => {
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

  private lookAll(): void {
    for (const follower of this.followers) void this.look(follower);
  }

  /**
   * Follows a session from a position on, counted since a restore. @returns how to stop.
   * @throws NotFoundError where there is no such session.
   */
  async follow(
    id: string,
    after: number,
    send: Follower["send"],
    failed: Follower["failed"],
    mayFollow: Follower["mayFollow"] = async () => true,
    epoch: string | null = null,
  ): Promise<() => void> {
    // A session in the bin is followed too: who works it hears where it lies.
    const { id: session, horse_id: horse } = await getSessionOrBinned(this.store, id);
    // Positions of a store that went back to a copy are given anew: whoever counted them before it begins from the first.
    const wentBack = (epoch !== null && epoch !== this.store.epoch) || after > (await eventReach(this.store.models));
    const follower: Follower = {
      session,
      horse,
      position: wentBack ? 0 : after,
      care: "",
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
    const { events, position } = await eventsOfSession(store, follower.session, follower.position);
    const { allowance, sentences } = await horseCare(store, await getHorseOrBinned(store, follower.horse));
    const care = { allowance, cautions: sentences, wordSettings: await getSettings(store) };
    const { binned_ms } = await getSessionOrBinned(store, follower.session);
    const binned = binned_ms != null;
    const text = JSON.stringify({ care, binned });
    const first = follower.care === "";
    if (events.length === 0 && text === follower.care) return null;
    const changed = text !== follower.care;
    follower.position = position;
    follower.care = text;
    const clocks = Object.fromEntries(await clockOffsets(store, events));
    return { events, position, epoch: store.epoch, clocks, ...(changed || first ? { care, binned } : {}) };
  }
}
