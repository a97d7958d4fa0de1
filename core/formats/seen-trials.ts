import { finished, seedFromText } from "../chance";
import type { TrialRow } from "./trial-row";

type SeenTrial = Pick<TrialRow, "session" | "trial" | "askSeconds" | "behaviour" | "rung">;

/** The trials of a session as they were seen, by a number for each, in the order of the file. */
export type SeenState = readonly (readonly [session: string, keys: Float64Array])[];

/**
 * A number for a trial by its moment to the millisecond, its number and what
 * was asked: 53 bits of two hashes, so that two of a session of a thousand
 * trials are taken for one in less than one of ten thousand million sessions.
 */
function keyOf(trial: number, askSeconds: number, asked: number): number {
  const ms = Math.round(askSeconds * 1000);
  const high = finished(ms ^ Math.imul(trial, 0x9e3779b1) ^ Math.imul(asked, 0x27d4eb2f));
  const low = finished(Math.imul(ms, 0x85ebca6b) + Math.imul(trial, 0xc2b2ae35) + asked);
  return (high & 0x1fffff) * 2 ** 32 + low;
}

/**
 * Tells a row of trials.csv that stands there twice: the same trial of the same
 * session, behaviour and rung, asked at the same moment. Eight bytes a row are
 * held, and a set for the session that is being read.
 */
export class SeenTrials {
  private readonly bySession = new Map<string, number[]>();
  private session = "";
  private keys: number[] | null = null;
  private set = new Set<number>();
  private behaviour: string | null = null;
  private rung: string | null = null;
  private asked = 0;

  /** Takes a trial; false where it was taken before. */
  take({ session, trial, askSeconds, behaviour, rung }: SeenTrial): boolean {
    if (behaviour !== this.behaviour || rung !== this.rung) {
      this.behaviour = behaviour;
      this.rung = rung;
      this.asked = seedFromText(JSON.stringify([behaviour, rung]));
    }
    if (this.keys === null || session !== this.session) {
      this.keys = this.bySession.get(session) ?? null;
      this.set = new Set(this.keys);
      if (this.keys === null) {
        this.keys = [];
        this.bySession.set(session, this.keys);
      }
      this.session = session;
    }
    const key = keyOf(trial, askSeconds, this.asked);
    if (this.set.has(key)) return false;
    this.set.add(key);
    this.keys.push(key);
    return true;
  }

  state(): SeenState {
    return [...this.bySession].map(([session, keys]) => [session, Float64Array.from(keys)]);
  }

  /** Whether a trial of another part of the file was taken here as well. */
  sharesWith(part: SeenState): boolean {
    return part.some(([session, keys]) => {
      const own = this.bySession.get(session);
      if (own === undefined) return false;
      const known = new Set(own);
      return keys.some((key) => known.has(key));
    });
  }
}
