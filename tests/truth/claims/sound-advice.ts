import { nextStart } from "@/core/advice";
import { aftermathOf } from "@/core/aftermath";
import type { Chance } from "@/core/chance";
import { FIRST_LOOK_BEHAVIOUR, FIRST_LOOK_STEPS, firstLookOf, readinessOf } from "@/core/know";
import type { LadderPlan } from "@/core/ladder";
import { type EvidenceTrial, evidenceOfSession, reduceSession } from "@/core/record";
import { strandFromCatalogue } from "@/core/strands";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { allowanceOn } from "@/core/welfare";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter } from "@/tests/support/session-writer";
import type { Claim } from "./claim";

const START = Date.UTC(2026, 4, 4, 9);

/** Five rungs, three in a row, on two days. */
const PLAN = {
  ...emptyDraft().plan,
  strands: [strandFromCatalogue("steps", "steps")],
  rungs: [1, 2, 3, 4, 5].map((steps) => ({ values: { steps } })),
  mastery: { kind: "run", length: 3, days: 2 },
} as const satisfies LadderPlan;

/** What was said of the calm of each met answer. */
type Said = "soft" | "nothing";

/** A session on a rung that ends once three in a row were met, with a sign of danger at its end where one comes. */
function worked(chance: Chance, rung: number, day: number, p: number, said: Said, danger: string | null) {
  const id = `s${day}`;
  const w = new SessionWriter(id, START + day * MILLISECONDS_PER_DAY);
  w.block(0, { ladder: "x", rung });
  let at = 10;
  for (let run = 0, n = 0; run < 3 && n < 30; n++, at += 20) {
    const met = chance() < p;
    run = met ? run + 1 : 0;
    w.add(at, "trial", { outcome: met ? "met" : "miss", phase: 1, logged: "tally" });
    if (met && said === "soft") w.add(at + 1, "measure", { strand: "ease", value: 3, unit: "grade" });
  }
  if (danger !== null) w.add(at, "signal", { name: danger, class: "danger" });
  w.add(at + 5, "session.end");
  const record = reduceSession(w.events);
  const aftermath = aftermathOf(record);
  return { evidence: evidenceOfSession(id, record, null), aftermaths: aftermath === null ? [] : [{ session: id, ...aftermath }] };
}

const startAfter = (sessions: readonly ReturnType<typeof worked>[], day: number, plan: LadderPlan = PLAN) =>
  nextStart({
    plan,
    ladder: "x",
    version: 1,
    trials: sessions.flatMap(({ evidence }): readonly EvidenceTrial[] => evidence),
    nowWallMs: START + day * MILLISECONDS_PER_DAY,
    aftermaths: sessions.flatMap(({ aftermaths }) => aftermaths),
  });

/** A first look of five asks an item by a horse of one true share. */
function looked(chance: Chance, p: number) {
  const w = new SessionWriter("look", START);
  let at = 0;
  for (const [i, { item, side }] of FIRST_LOOK_STEPS.entries()) {
    w.block(at, { block: i + 1, behaviour: FIRST_LOOK_BEHAVIOUR, rung: item.key, side: side ?? "", kind: "probe", ladder: undefined });
    for (let n = 0; n < 5; n++) {
      at += 10;
      w.add(at, "trial", { outcome: chance() < p ? "met" : "miss", phase: 1, logged: "tally", ...(side === null ? {} : { side }) });
    }
    at += 5;
  }
  return readinessOf(firstLookOf(reduceSession(w.events)), {
    allowance: allowanceOn([], "2026-05-05", null),
    danger: [],
    startedMs: START,
    nowWallMs: START + MILLISECONDS_PER_DAY,
  });
}

const feetReady = (chance: Chance, p: number) =>
  looked(chance, p).find(({ name }) => name === "each foot handled")?.state === "ready to try";

const DANGERS = ["pulls back", "bucks", "kicks", "rears", "bolts", "turns quarters", "strikes"] as const;
const anyOf = (chance: Chance) => DANGERS[Math.floor(chance() * DANGERS.length)] ?? "kicks";
const ONE_DAY: LadderPlan = { ...PLAN, mastery: { kind: "run", length: 3 } };

export const SOUND_ADVICE: Claim[] = [
  {
    sentence: "Start on the same rung or higher",
    horses: "three in a row met on rung 3, then a sign of danger",
    asks: "false",
    atMost: 0,
    run: (chance) => startAfter([worked(chance, 3, 0, 0.8, "soft", anyOf(chance))], 1, ONE_DAY).rung >= 3,
  },
  {
    sentence: "Start a rung higher",
    horses: "three in a row met on rung 3, no danger, a rule of one day",
    asks: "found",
    atLeast: 0.9,
    run: (chance) => startAfter([worked(chance, 3, 0, 0.8, "soft", null)], 1, ONE_DAY).rung === 4,
  },
  {
    sentence: "The rung is met by the rule over two days",
    horses: "three soft ones in a row on one day of two",
    asks: "false",
    atMost: 0,
    run: (chance) => startAfter([worked(chance, 2, 0, 0.9, "soft", null)], 1).rung > 2,
  },
  {
    sentence: "The rung is met by the rule over two days",
    horses: "three in a row on two days, calm said on none",
    asks: "false",
    atMost: 0,
    run: (chance) =>
      startAfter(
        [0, 2].map((day) => worked(chance, 2, day, 0.9, "nothing", null)),
        3,
      ).rung > 2,
  },
  {
    sentence: "The rung is met by the rule over two days",
    horses: "three soft ones in a row on two days",
    asks: "found",
    atLeast: 0.9,
    run: (chance) =>
      startAfter(
        [0, 2].map((day) => worked(chance, 2, day, 0.9, "soft", null)),
        3,
      ).rung === 3,
  },
  {
    sentence: "Ready to try: each foot handled",
    horses: "every item met half of the time, five asks each",
    asks: "false",
    atMost: 0.05,
    run: (chance) => feetReady(chance, 0.5),
  },
  {
    sentence: "Ready to try: each foot handled",
    horses: "every item met 19 times in 20, five asks each",
    asks: "found",
    atLeast: 0.8,
    run: (chance) => feetReady(chance, 0.95),
  },
];
