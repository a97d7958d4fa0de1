import { type ChainRun, chainRunsOf } from "../behaviour";
import { cellsOfSession, type SideSession } from "../compare";
import { type ActCounts, actCountsOf, ownTimesOf, wrongChoicesOf } from "../conversation";
import { REST_BEHAVIOUR } from "../events/session-kind";
import type { Waiting } from "../evidence";
import type { OwnTimeKind } from "../ladder";
import { endOfWorkMs, type SessionRecord, until, workSeconds } from "../record";
import { isOneOf } from "../typed";
import { type BreathSums, breathSums, HEART_STRAND } from "../welfare";
import { CONNECTION_QUESTION, type Sample } from "./connection";
import { FIRST_LOOK_BEHAVIOUR, type FirstLook, firstLookOf } from "./first-look";
import { reliefOfSession, type SessionRelief } from "./relief";
import { noNames, type SignClass, type SignCounts } from "./signs";
import { TOUCH_TOOLS, TOUCH_ZONES, type Touch, type TouchTool, type TouchZone } from "./touch-map";

/** What knowing the horse needs of one session: small enough to keep beside each. */
export interface KnowDigest {
  readonly touches: readonly Touch[];
  readonly relief: SessionRelief;
  readonly signs: SignCounts;
  /** Signs seen while the horse was only watched, at rest. */
  readonly atRest: boolean;
  readonly samples: readonly Sample[];
  readonly beepSeconds: number | null;
  readonly breaths: readonly (BreathSums & { readonly wallMs: number })[];
  readonly heart: readonly { readonly wallMs: number; readonly perMinute: number }[];
  /** Null where the session holds no block of the battery. */
  readonly firstLook: FirstLook | null;
  readonly sides: SideSession;
  readonly trials: number;
  /** Wrong choices while work went on, and those that met pressure; left out where there was none. */
  readonly wrongs?: { readonly count: number; readonly pressed: number; readonly seconds: number };
  /** What the handler did, where it was counted, with who that was. */
  readonly acts?: ActCounts & { readonly handler: string };
  /** The horse's own time, where it was measured. */
  readonly own?: Readonly<Partial<Record<OwnTimeKind, readonly Waiting[]>>>;
  readonly runs?: readonly ChainRun[];
}

const isZone = (value: unknown): value is TouchZone => isOneOf(TOUCH_ZONES, value);
const isTool = (value: unknown): value is TouchTool => isOneOf(TOUCH_TOOLS, value);

/**
 * Digests a session. Facts that are not of the product's own zones, tools or classes are passed over.
 * @example knowDigest(record) // { atRest: false, beepSeconds: null, trials: 44, … }
 */
export function knowDigest(record: SessionRecord): KnowDigest {
  const start = record.startWallMs ?? 0;
  const touches: Touch[] = [];
  const samples: Sample[] = [];
  const breaths: (BreathSums & { wallMs: number })[] = [];
  const heart: { wallMs: number; perMinute: number }[] = [];
  const byClass: Record<SignClass, number> = { ease: 0, tension: 0, danger: 0, pain: 0 };
  const byName = noNames();
  let beepSeconds: number | null = null;
  const endMs = endOfWorkMs(record);
  const breaks = until(record.timeLine.breaks, endMs);
  const atWork = (ms: number) => ms >= 0 && ms <= endMs && !breaks.some((pause) => pause.startMs <= ms && ms < pause.endMs);
  for (const { type, payload, ms } of record.facts) {
    const wallMs = start + ms;
    switch (type) {
      case "touch": {
        const { zone, side, tool, grade } = payload;
        if (isZone(zone) && isTool(tool) && (side === "L" || side === "R")) touches.push({ wallMs, zone, side, tool, grade });
        break;
      }
      case "sample":
        if (payload.question === CONNECTION_QUESTION && payload.beep !== undefined) {
          samples.push({ beep: payload.beep, answer: payload.answer, observer: payload.observer ?? "" });
          beepSeconds = payload.interval_s ?? beepSeconds;
        }
        break;
      case "signal":
        // The minutes are those of work, so the signs are too.
        if (!atWork(ms)) break;
        if (payload.class !== "count") byClass[payload.class]++;
        if (payload.name !== payload.class) byName[payload.class][payload.name] = (byName[payload.class][payload.name] ?? 0) + 1;
        break;
      case "breath": {
        const sums = breathSums(payload.taps_ms);
        if (sums !== null) breaths.push({ wallMs, ...sums });
        break;
      }
      case "measure":
        if (payload.strand === HEART_STRAND) heart.push({ wallMs, perMinute: payload.value });
        break;
    }
  }
  const wrong = wrongChoicesOf(record);
  const acts = actCountsOf(record);
  const own = ownTimesOf(record);
  const { runs } = chainRunsOf(record);
  const behaviours = new Set(record.blocks.map((block) => block.behaviour));
  return {
    touches,
    relief: reliefOfSession(record),
    signs: { minutes: workSeconds(record) / 60, byClass, byName },
    atRest: behaviours.has(REST_BEHAVIOUR),
    samples,
    beepSeconds,
    breaths,
    heart,
    firstLook: behaviours.has(FIRST_LOOK_BEHAVIOUR) ? firstLookOf(record) : null,
    sides: cellsOfSession(record),
    trials: record.trials.length,
    ...(wrong === null ? {} : { wrongs: { count: wrong.count, pressed: wrong.pressed, seconds: wrong.seconds } }),
    ...(acts === null ? {} : { acts: { ...acts, handler: record.header?.handler ?? "" } }),
    ...(own.length === 0 ? {} : { own: Object.fromEntries(own.map(({ what, times }) => [what, times])) }),
    ...(runs.length === 0 ? {} : { runs }),
  };
}
