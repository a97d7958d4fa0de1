import { NO_FACTS, type Past, type PastFacts, type PastSession, type PastTrial } from "@/core/past";

const DAY_MS = 86_400_000;

const PLAIN: Omit<PastTrial, "session" | "number" | "outcome"> = {
  block: 0,
  handler: "ana",
  ladder: "ladder",
  version: 1,
  rung: 1,
  side: null,
  kind: "work",
  phase: 1,
  ease: null,
  movement: null,
  value: null,
  unit: null,
  askMs: 0,
  endMs: 0,
  answerMs: null,
  latencySeconds: null,
  waitedSeconds: null,
  releaseLagSeconds: null,
  markLagSeconds: null,
  feedDelaySeconds: null,
  wrongBefore: 0,
  released: null,
  marked: null,
  reinforced: true,
  reinforcers: null,
  zone: null,
  endedBy: null,
  logged: "tally",
  comparable: true,
  clean: false,
  novel: false,
};

/** Outcomes as a row of letters: m met, t try, x something else, r no answer. */
const OUTCOMES = { m: "met", t: "try", x: "miss", r: "refused" } as const;

/** One session of a past that is made up for a test: a day, its trials as letters or with what they hold. */
export interface WrittenSession {
  readonly day: number;
  readonly id?: string;
  readonly minutes?: number;
  readonly handler?: string;
  readonly place?: string;
  readonly kit?: readonly string[];
  readonly facts?: Partial<PastFacts>;
  /** Every trial holds this. */
  readonly all?: Partial<PastTrial>;
  readonly trials: string | readonly (Partial<PastTrial> & { readonly outcome: PastTrial["outcome"] })[];
}

/** A past made up for a test: an ask every ten seconds, one block a session. */
export function writePast(sessions: readonly WrittenSession[]): Past {
  const made = sessions.map((written, i) => {
    const { day, minutes = 10, handler = "ana", place = null, kit = [], all = {}, trials } = written;
    const session: PastSession = {
      id: written.id ?? `session-${i}`,
      horse: "horse",
      startedMs: day * DAY_MS,
      workSeconds: minutes * 60,
      handler,
      place,
      kit,
      facts: {
        ...NO_FACTS,
        endMs: minutes * 60_000,
        blocks: [{ seconds: minutes * 60, planned: 10, startMs: 0, endMs: minutes * 60_000 }],
        ...written.facts,
      },
    };
    const list =
      typeof trials === "string" ? [...trials].map((letter) => ({ outcome: OUTCOMES[letter as keyof typeof OUTCOMES] })) : trials;
    const own = list.map(
      (trial, at): PastTrial => ({
        ...PLAIN,
        handler,
        askMs: at * 10_000,
        endMs: at * 10_000 + 5000,
        answerMs: at * 10_000 + 2000,
        ...all,
        ...trial,
        session: i,
        number: at + 1,
      }),
    );
    return { session, own };
  });
  return { sessions: made.map(({ session }) => session), trials: made.flatMap(({ own }) => own) };
}
