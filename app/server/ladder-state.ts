import "server-only";
import { EVIDENCE_MAX_AGE_DAYS, type EvidenceTrial, type NextStart, nextStart } from "@/core/session";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import type { Allowance } from "@/core/welfare";
import { evidenceOfLadder, getWordSettings, involvesOf, listLadders, type Store, type StoredLadder } from "@/store";

/** A ladder with where it stands. */
export interface LadderState {
  readonly ladder: StoredLadder;
  readonly trials: readonly EvidenceTrial[];
  readonly next: NextStart;
  readonly lastWallMs: number | null;
}

/** Sessions older than this cannot carry evidence any more, whatever the setting. */
const LOOK_BACK_DAYS = 120;

/** Where a ladder stands under what the horse may do today. */
export async function ladderState(store: Store, ladder: StoredLadder, allowance: Allowance): Promise<LadderState> {
  const nowWallMs = store.now();
  const trials = await evidenceOfLadder(store, ladder.id, nowWallMs - LOOK_BACK_DAYS * MILLISECONDS_PER_DAY);
  const settings = await getWordSettings(store);
  const input = {
    plan: ladder.plan,
    ladder: ladder.id,
    version: ladder.version,
    trials,
    nowWallMs,
    maxAgeDays: EVIDENCE_MAX_AGE_DAYS,
    allowance,
    involves: involvesOf(ladder),
  };
  const next = nextStart(input, settings);
  return { ladder, trials, next, lastWallMs: trials.at(-1)?.wallMs ?? null };
}

/** Every ladder of a horse that is not put away, with where it stands: what may be worked first, then the one last worked first. */
export async function ladderStates(store: Store, horseId: string, allowance: Allowance): Promise<LadderState[]> {
  const ladders = (await listLadders(store, horseId)).filter(({ away }) => !away);
  const states = await Promise.all(ladders.map((ladder) => ladderState(store, ladder, allowance)));
  return states.sort(
    (a, b) => Number(a.next.barred !== null) - Number(b.next.barred !== null) || (b.lastWallMs ?? 0) - (a.lastWallMs ?? 0),
  );
}
