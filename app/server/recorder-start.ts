import "server-only";
import { FIRST_LOOK_BEHAVIOUR, firstLookPlan } from "@/core/know";
import { starterPlan, wayCautions } from "@/core/ladder";
import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { piecesUsed, type SessionRecord, workSeconds } from "@/core/session";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { type Allowance, kitCautions, type UsedSession, usedSentences } from "@/core/welfare";
import type { LadderPart } from "@/features/work/types";
import { templateOf } from "@/library";
import { asBehaviour, asKit, carriedRungs, involvesOf, listKit, listSessions, loadSession, type Store, type StoredLadder } from "@/store";
import { kitUse } from "./kit-use";
import { ladderOrNone } from "./ladder-or-none";
import { type LadderState, ladderStates } from "./ladder-state";

/** A ladder as the recorder needs it. */
async function partOf(
  store: Store,
  { ladder, trials, next }: LadderState,
  sessionId: string,
  kit: readonly Parameters<typeof asKit>[0][],
  leaves: boolean,
  allowance: Allowance,
): Promise<LadderPart> {
  const carried = await carriedRungs(store, ladder.id);
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
  const [states, allKit] = await Promise.all([ladderStates(store, session.horse_id, allowance), listKit(store)]);
  const taken = new Set(JSON.parse(session.kit) as string[]);
  const kit = allKit.filter(({ id }) => taken.has(id));
  const parts = await Promise.all(states.map((state) => partOf(store, state, session.id, kit, leaves, allowance)));
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

/**
 * What was written for next time and still stands: until its ladder has been
 * worked again. Of several, the one of this ladder, otherwise the newest.
 */
export async function lastDoNext(store: Store, horseId: string, before: string | null, ladderId: string | null = null) {
  const workedSince = new Set<string>();
  const standing: { text: string; dayMs: number; ladders: readonly string[] }[] = [];
  for (const { session, summary } of await listSessions(store, horseId, DO_NEXT_SESSIONS, "work")) {
    if (session.id === before || summary.started_ms === null) continue;
    const { blocks, facts } = JSON.parse(summary.record) as SessionRecord;
    const ladders = [...new Set(blocks.flatMap(({ ladder }) => (ladder === null ? [] : [ladder])))];
    const note = facts.findLast(({ type, payload }) => type === "note" && payload.about === "next");
    const again = ladders.length === 0 ? workedSince.size > 0 : ladders.some((id) => workedSince.has(id));
    if (note !== undefined && !again) standing.push({ text: String(note.payload.text), dayMs: summary.started_ms, ladders });
    for (const id of ladders) workedSince.add(id);
  }
  const found = standing.find(({ ladders }) => ladderId !== null && ladders.includes(ladderId)) ?? standing[0];
  return found === undefined ? null : { text: found.text, dayMs: found.dayMs };
}

/** What is used up of the last seven days and of today, in sentences. */
export async function usedUp(store: Store, horseId: string, allowance: Allowance, plan: StoredLadder["plan"] | null, but: string | null) {
  const nowMs = store.now();
  const weekAgo = nowMs - 7 * MILLISECONDS_PER_DAY;
  const recent = (await listSessions(store, horseId, 60)).filter(
    ({ session, summary }) => session.id !== but && (summary.started_ms ?? 0) >= weekAgo,
  );
  const known = new Map<string, StoredLadder | null>();
  const sessions: UsedSession[] = [];
  for (const { session, summary } of recent) {
    const { record } = await loadSession(store, session.id);
    const ladders = new Set(record.blocks.flatMap(({ ladder }) => (ladder === null ? [] : [ladder])));
    for (const id of ladders) if (!known.has(id)) known.set(id, await ladderOrNone(store, id));
    const worked = [...ladders].flatMap((id) => known.get(id) ?? []);
    // What was weighed afterwards, otherwise the pieces by the mass its ladder gives them.
    const weighed = record.facts.findLast(({ type }) => type === "aftercare")?.payload.food_g;
    const pieceGrams = worked.find(({ plan: own }) => own.feeding.pieceGrams !== null)?.plan.feeding.pieceGrams ?? 0;
    sessions.push({
      startMs: summary.started_ms ?? 0,
      workMinutes: workSeconds(record) / 60,
      trials: record.trials.length,
      circles: worked.some((ladder) => involvesOf(ladder).includes("circling")),
      foodGrams: typeof weighed === "number" ? weighed : piecesUsed(record) * pieceGrams,
    });
  }
  const midnight = new Date(nowMs);
  midnight.setHours(0, 0, 0, 0);
  return usedSentences(sessions, nowMs, midnight.getTime(), allowance, plan?.feeding.dayLimitGrams ?? null);
}
