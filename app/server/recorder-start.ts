import "server-only";
import { startOfDayIn } from "@/core/day";
import { FIRST_LOOK_BEHAVIOUR, firstLookPlan } from "@/core/know";
import { starterPlan, wayCautions } from "@/core/ladder";
import { standingDoNext } from "@/core/record";
import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { type Allowance, asUsed, kitCautions, usedSentences } from "@/core/welfare";
import type { LadderPart } from "@/features/work/types";
import { templateOf } from "@/library";
import { asBehaviour, asKit, carriedRungsOf, involvesOf, listKit, listLadders, listSessions, type Store, type StoredLadder } from "@/store";
import { kitUse } from "./kit-use";
import { type LadderState, ladderStates } from "./ladder-state";

/** A ladder as the recorder needs it. */
function partOf(
  { ladder, trials, next }: LadderState,
  carried: ReadonlyMap<number, ReadonlyMap<number, number>>,
  sessionId: string,
  kit: readonly Parameters<typeof asKit>[0][],
  leaves: boolean,
  allowance: Allowance,
): LadderPart {
  return {
    ladderId: ladder.id,
    version: ladder.version,
    revision: ladder.revision,
    behaviour: ladder.behaviour.name,
    behaviourInput: asBehaviour(ladder.behaviour),
    plan: ladder.plan,
    next,
    earlier: trials.filter((trial) => trial.session !== sessionId),
    carried: [...carried].map(([version, rungs]) => [version, [...rungs]] as const),
    planCautions: [
      ...kitCautions(kit.map(asKit), kitUse(ladder, next.rung, leaves, allowance)),
      ...(templateOf(ladder.behaviour.template ?? "")?.cautions ?? []),
      ...wayCautions(ladder.plan, ladder.behaviour.free),
    ],
  };
}

/** Every ladder of a horse for the recorder: the session's own first. */
export async function ladderParts(
  store: Store,
  session: { readonly id: string; readonly horse_id: string; readonly ladder_id: string | null; readonly kit: string },
  allowance: Allowance,
  leaves: boolean,
): Promise<LadderPart[]> {
  const [states, allKit] = await Promise.all([ladderStates(store, session.horse_id, allowance, "all"), listKit(store)]);
  const taken = new Set(JSON.parse(session.kit) as string[]);
  const kit = allKit.filter(({ id }) => taken.has(id));
  const carried = await carriedRungsOf(
    store,
    states.map(({ ladder }) => ladder),
  );
  const parts = states.map((state) => partOf(state, carried.get(state.ladder.id) ?? new Map(), session.id, kit, leaves, allowance));
  return parts.sort((a, b) => Number(b.ladderId === session.ladder_id) - Number(a.ladderId === session.ladder_id));
}

const NOTHING = {
  ladderId: null,
  version: null,
  revision: null,
  behaviourInput: EMPTY_BEHAVIOUR,
  earlier: [],
  carried: [],
  planCautions: [],
} as const;

/** The first look's battery in place of a ladder. */
export const batteryPart = (): LadderPart => ({
  ...NOTHING,
  behaviour: FIRST_LOOK_BEHAVIOUR,
  plan: firstLookPlan(),
  next: {
    rung: 1,
    kind: "probe",
    headline: "First look",
    reason: "One to three asks an item, the lightest cue first. Nothing is taught yet.",
    barred: null,
  },
});

/** A free start: nothing is planned; a ladder is chosen or named in the recorder. */
export const freePart = (): LadderPart => ({
  ...NOTHING,
  behaviour: "Free start",
  plan: starterPlan(null),
  next: { rung: 1, kind: "work", headline: "Free start", reason: "Choose a ladder, or name something new.", barred: null },
});

/** How far back a line for next time is looked for, in sessions. */
const DO_NEXT_SESSIONS = 30;

/** What was written for next time and still stands; see core's standingDoNext. */
export async function lastDoNext(store: Store, horseId: string, before: string | null, ladderId: string | null = null) {
  const sessions = await listSessions(store, horseId, { limit: DO_NEXT_SESSIONS, kind: "work" });
  return standingDoNext(
    sessions.map(({ session, summary, blocks }) => ({
      id: session.id,
      startedMs: summary.started_ms,
      doNext: summary.do_next,
      ladders: [...new Set(blocks.flatMap(({ ladder }) => ladder ?? []))],
    })),
    before,
    ladderId,
  );
}

/** More than anybody works with one horse in a week. */
const WEEK_SESSIONS = 60;

/** What is used up of the last seven days and of today, in sentences. */
export async function usedUp(store: Store, horseId: string, allowance: Allowance, plan: StoredLadder["plan"] | null, but: string | null) {
  const nowMs = store.now();
  const weekAgo = nowMs - 7 * MILLISECONDS_PER_DAY;
  // A session written down later was made after it began, and never before; its time may have been put right by a day.
  const recent = await listSessions(store, horseId, { limit: WEEK_SESSIONS, sinceMs: weekAgo - MILLISECONDS_PER_DAY });
  const ladders = new Map((await listLadders(store, horseId)).map((ladder) => [ladder.id, ladder]));
  const sessions = recent
    .filter(({ session, summary }) => session.id !== but && (summary.started_ms ?? 0) >= weekAgo)
    .map(({ summary, blocks }) =>
      asUsed({
        startMs: summary.started_ms ?? 0,
        workSeconds: summary.work_s,
        trials: summary.n,
        pieces: summary.pieces,
        weighedGrams: summary.food_g,
        ladders: [...new Set(blocks.flatMap(({ ladder }) => ladders.get(ladder ?? "") ?? []))].map((ladder) => ({
          circles: involvesOf(ladder).includes("circling"),
          pieceGrams: ladder.plan.feeding.pieceGrams,
        })),
      }),
    );
  return usedSentences(sessions, nowMs, startOfDayIn(nowMs, store.timeZone), allowance, plan?.feeding.dayLimitGrams ?? null);
}
