import "server-only";
import { trialsOfPair } from "@/core/advice";
import type { SidePicture } from "@/core/compare";
import type { EvidenceTrial } from "@/core/record";
import type { YardSettings } from "@/core/settings";
import { byStanding, type Standing, type StandingOn, standing } from "@/core/today";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import type { Allowance } from "@/core/welfare";
import {
  aftermathsOf,
  evidenceForNextStart,
  evidenceOfLadders,
  getSettings,
  involvesOf,
  listLadders,
  listPeople,
  type Store,
  type StoredLadder,
} from "@/store";
import { sidesOf } from "./sides-of";

/** A ladder with where it stands. */
export interface LadderState extends Standing {
  readonly ladder: StoredLadder;
  readonly trials: readonly EvidenceTrial[];
}

/** Sessions older than this cannot carry evidence any more, whatever the setting. */
const LOOK_BACK_DAYS = 120;
/** As far back as last time's danger is looked for, and a horse's usual tension with it. */
export const AFTERMATH_MS = 180 * MILLISECONDS_PER_DAY;
export const LOOK_BACK_MS = LOOK_BACK_DAYS * MILLISECONDS_PER_DAY;

/** A ladder of the store with where it stands; see core's judge. */
export const stateOf = (ladder: StoredLadder, trials: readonly EvidenceTrial[] = [], on: StandingOn): LadderState => ({
  ladder,
  trials,
  ...standing({ ...ladder, involves: involvesOf(ladder) }, trials, on),
});

/**
 * Where a ladder stands under what the horse may do today.
 * @param known who handles, and the horse's sides, where the page has them already.
 * @param wanted `all` that the last months hold, or trials `enough` to tell where it stands.
 */
export async function ladderState(
  store: Store,
  ladder: StoredLadder,
  allowance: Allowance,
  known: { readonly handler?: string | null; readonly sides?: SidePicture } = {},
  wanted: "all" | "enough" = "enough",
): Promise<LadderState> {
  const settings = await getSettings(store);
  const [evidence, { weaker }, names, aftermaths] = await Promise.all([
    wanted === "all" ? evidenceOfLadders(store, [ladder], store.now() - LOOK_BACK_MS) : nextStartTrials(store, [ladder], settings),
    known.sides ?? sidesOf(store, ladder.horseId),
    peopleNames(store),
    aftermathsOf(store, ladder.horseId, store.now() - AFTERMATH_MS),
  ]);
  const { handler = null } = known;
  return stateOf(ladder, evidence.get(ladder.id), {
    allowance,
    settings,
    nowWallMs: store.now(),
    weakerSide: weaker,
    handler,
    names,
    aftermaths: aftermaths.get(ladder.horseId) ?? [],
  });
}

/** Names of the yard's people by id. */
export const peopleNames = async (store: Store): Promise<ReadonlyMap<string, string>> =>
  new Map((await listPeople(store)).map(({ id, name }) => [id, name]));

/** The trials the next start of these ladders is judged by: no more than is looked at. */
export const nextStartTrials = (store: Store, ladders: readonly StoredLadder[], settings: YardSettings) =>
  evidenceForNextStart(store, ladders, {
    evidenceSinceMs: store.now() - (settings.evidenceMaxAgeDays + 2) * MILLISECONDS_PER_DAY,
    lastSinceMs: store.now() - LOOK_BACK_DAYS * MILLISECONDS_PER_DAY,
  });

/**
 * Every ladder of a horse that is not put away, with where it stands: what may be worked first, then the one last worked first.
 * @param trials `all` that the last months hold, or `enough` to tell where it stands.
 */
export async function ladderStates(
  store: Store,
  horseId: string,
  allowance: Allowance,
  trials: "all" | "enough" = "enough",
): Promise<LadderState[]> {
  const ladders = (await listLadders(store, horseId)).filter(({ away }) => !away);
  const nowWallMs = store.now();
  const settings = await getSettings(store);
  const evidence =
    trials === "all"
      ? await evidenceOfLadders(store, ladders, nowWallMs - LOOK_BACK_DAYS * MILLISECONDS_PER_DAY)
      : await nextStartTrials(store, ladders, settings);
  const { weaker } = await sidesOf(store, horseId);
  const names = await peopleNames(store);
  const aftermaths = (await aftermathsOf(store, horseId, nowWallMs - AFTERMATH_MS)).get(horseId) ?? [];
  const on = { allowance, settings, nowWallMs, weakerSide: weaker, handler: null, names, aftermaths };
  return ladders.map((ladder) => stateOf(ladder, evidence.get(ladder.id), on)).sort(byStanding);
}

/** The trials of a horse's ladders that count for whoever handled it last on any of them. */
export function ofPairAtWork(
  evidence: ReadonlyMap<string, readonly EvidenceTrial[]>,
  settings: YardSettings,
): ReadonlyMap<string, readonly EvidenceTrial[]> {
  const newest = [...evidence.values()]
    .flatMap((trials) => trials.findLast(({ handler, kind }) => handler !== null && kind === "work") ?? [])
    .sort((a, b) => b.wallMs - a.wallMs)[0];
  const handler = newest?.handler ?? null;
  return new Map([...evidence].map(([ladder, trials]) => [ladder, trialsOfPair(trials, handler, settings)]));
}
