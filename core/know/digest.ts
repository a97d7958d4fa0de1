import { cellsOfSession, type SideSession } from "../compare";
import { endOfWorkMs, type SessionRecord, until, workSeconds } from "../record";
import { type BreathSums, breathSums, HEART_STRAND } from "../welfare";
import { CONNECTION_QUESTION, type Sample } from "./connection";
import { FIRST_LOOK_BEHAVIOUR, type FirstLook, firstLookOf } from "./first-look";
import { reliefOfSession, type SessionRelief } from "./relief";
import { REST_BEHAVIOUR, type SignClass, type SignCounts } from "./signs";
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
}

const isZone = (value: unknown): value is TouchZone => (TOUCH_ZONES as readonly unknown[]).includes(value);
const isTool = (value: unknown): value is TouchTool => (TOUCH_TOOLS as readonly unknown[]).includes(value);

/** Digests a session. Facts that are not of the product's own zones, tools or classes are passed over. */
export function knowDigest(record: SessionRecord): KnowDigest {
  const start = record.startWallMs ?? 0;
  const touches: Touch[] = [];
  const samples: Sample[] = [];
  const breaths: (BreathSums & { wallMs: number })[] = [];
  const heart: { wallMs: number; perMinute: number }[] = [];
  const byClass: Record<SignClass, number> = { ease: 0, tension: 0, danger: 0 };
  const byName: Record<string, number> = {};
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
        byClass[payload.class]++;
        if (payload.name !== payload.class) byName[payload.name] = (byName[payload.name] ?? 0) + 1;
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
  };
}
