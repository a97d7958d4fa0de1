import { finished, seedFromText } from "../chance";
import type { TrialRow } from "./trial-row";

type SeenTrial = Pick<TrialRow, "session" | "trial" | "askSeconds" | "behaviour" | "rung">;

/** The trials of a session as they were seen, by a number for each, in the order of the file. */
export type SeenState = readonly (readonly [session: string, keys: Float64Array])[];

/** Room for each part of a key: together with 2³¹ ms, 24 days, they fill a number that counts whole. */
const TRIALS_APART = 4096;
const RUNGS_APART = 1024;
/** A trial of a session, by its moment to the millisecond, its number and what was asked. */
const keyOf = (trial: number, askSeconds: number, asked: number): number =>
  (Math.round(askSeconds * 1000) * TRIALS_APART + (trial % TRIALS_APART)) * RUNGS_APART + asked;

/**
 * Tells a row of trials.csv that stands there twice: the same trial of the same
 * session, behaviour and rung, asked at the same moment. Eight bytes a row are held, and a set for
 * the session that is being read.
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
      this.asked = finished(seedFromText(JSON.stringify([behaviour, rung]))) % RUNGS_APART;
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
