import "server-only";
import { lastHandler, trialsOfPair } from "@/core/advice";
import { cueClashes } from "@/core/cues";
import { LATE_RELEASE_SECONDS } from "@/core/evidence";
import { onlyWorked, type Past, stallOf, trialsFor } from "@/core/past";
import { dueWords } from "@/core/welfare";
import type { ShownStall } from "@/features/weeks/changes-view";
import { asBehaviour, asHorseDate, getSettings, type HorseRow, listDates, type Store, type StoredLadder } from "@/store";
import { horseCare } from "./horse-care";
import { foundationsFor } from "./shape-facts";

const cueOf = ({ behaviour, plan }: StoredLadder) => ({
  behaviour: behaviour.name,
  cue: behaviour.cue,
  movement: behaviour.movement as never,
  phases: plan.phases.map(({ label, kind }) => ({ label, kind })),
});

/** Behaviours of a horse that gained nothing of late, by whoever handled each last, with what to look at. */
export async function stallsOf(store: Store, horse: HorseRow, past: Past, ladders: readonly StoredLadder[]): Promise<ShownStall[]> {
  const settings = await getSettings(store);
  const found: ShownStall[] = [];
  let care: readonly string[] | null = null;
  for (const ladder of ladders) {
    if (ladder.away) continue;
    const own = trialsFor(past, { ladder: ladder.id });
    // Evidence belongs to the horse with its handler, here as for moving on.
    const pair = trialsOfPair(own, lastHandler(own), settings);
    const worked = onlyWorked({ ...past, trials: pair });
    const bare = { plan: ladder.plan, foundations: null, sameCue: [], care: [], lateReleaseSeconds: LATE_RELEASE_SECONDS };
    // What costs questions is asked only where there is a stall.
    if (stallOf(worked, bare) === null) continue;
    if (care === null) {
      const { sentences, day } = await horseCare(store, horse);
      const due = (await listDates(store, horse.id))
        .filter(({ done_ms }) => done_ms === null)
        .flatMap((row) => dueWords(asHorseDate(row), day) ?? []);
      care = [...sentences.map((sentence) => sentence.replace(/\.$/, "")), ...due];
    }
    const { readiness } = await foundationsFor(store, horse.id, asBehaviour(ladder.behaviour));
    const stall = stallOf(worked, {
      ...bare,
      foundations:
        readiness.length === 0
          ? null
          : readiness
              .filter(({ state }) => state !== "shown")
              .map(
                ({ behaviour, wanted, state }) =>
                  `${behaviour}${wanted === "" ? "" : ` (${wanted})`}: ${state === "stale" ? "shown long ago" : state === "seen" ? "seen in a first look" : "not shown"}`,
              ),
      sameCue: cueClashes(cueOf(ladder), ladders.filter(({ id, away }) => id !== ladder.id && !away).map(cueOf)).map((clash) => clash.with),
      care,
    });
    if (stall !== null) found.push({ ladder: ladder.id, name: ladder.behaviour.name, stall });
  }
  return found;
}
