import type { Metadata } from "next";
import Link from "next/link";
import { wordsOfWay } from "@/core/behaviour";
import { asksADay, chosenWays, wayCautions } from "@/core/ladder";
import { ruleCheck, ruleCheckSentence } from "@/core/mastery";
import { valuesOf } from "@/core/record";
import { barredRung } from "@/core/welfare";
import { Foundations } from "@/features/shape/foundations";
import { LadderView } from "@/features/shape/ladder-view";
import { PutLadderAway } from "@/features/shape/put-ladder-away";
import { StepCosts } from "@/features/shape/step-costs";
import { templateOf } from "@/library";
import { asBehaviour, getHorse, rungEvidence } from "@/store";
import { BinButton } from "@/ui/form";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { ladderHere } from "../../../../../server/ladder-here";
import { ladderState } from "../../../../../server/ladder-state";
import { RunningLine } from "../../../../../server/running-line";
import { foundationsFor, graphLinks, transferOf } from "../../../../../server/shape-facts";
import { getStore } from "../../../../../server/store";

/** True successes the rule is checked at: a horse that has not got it, and one that has. */
const PROMISED_AT = [0.6, 0.9];
const PROMISED_WITHIN = 20;

export const metadata: Metadata = { title: "Shape" };

export default async function LadderPage({ params }: { params: Promise<{ horse: string; ladder: string }> }) {
  const { horse, ladder: id } = await params;
  const store = await getStore();
  const ladder = await ladderHere(store, horse, id);
  const { allowance } = await horseCare(store, await findOr404(getHorse(store, horse)));
  const [evidence, state] = await Promise.all([
    rungEvidence(store, ladder, ladder.version),
    ladderState(store, ladder, allowance, {}, "all"),
  ]);
  const barred = ladder.plan.rungs.flatMap((_, i) => barredRung(ladder.plan, i + 1, allowance).map(({ why }) => ({ rung: i + 1, why })));
  const behaviour = asBehaviour(ladder.behaviour);
  const template = behaviour.template == null ? undefined : templateOf(behaviour.template);
  const foundations = await foundationsFor(store, horse, behaviour);
  const values = Object.fromEntries(
    ladder.plan.rungs.flatMap(({ percentile }, i) =>
      percentile === undefined
        ? []
        : [[i + 1, valuesOf(state.trials.filter(({ version, rung }) => version === ladder.version && rung === i + 1))] as const],
    ),
  );
  return (
    <>
      <RunningLine horseId={horse} />
      {ladder.away && (
        <p className="mb-3 max-w-prose border-l-4 border-ochre pl-4">
          Put away: it is offered neither at work nor ahead. Its evidence stays.
        </p>
      )}
      <LadderView
        horseId={horse}
        ladder={{ id, name: ladder.behaviour.name, finished: ladder.behaviour.finished, version: ladder.version, plan: ladder.plan }}
        evidence={evidence}
        here={{ rung: state.next.rung, headline: state.next.headline, reason: state.next.reason }}
        barred={barred}
        barredWhole={state.next.barred}
        promises={ruleCheck(ladder.plan.mastery, PROMISED_AT, PROMISED_WITHIN, asksADay(ladder.plan.plannedRepetitions)).map((row) =>
          ruleCheckSentence(row, PROMISED_WITHIN),
        )}
        values={values}
        transferred={
          transferOf(
            ladder.plan,
            state.trials.filter(({ version }) => version === ladder.version),
          )?.sentence ?? null
        }
        chosen={[
          ...chosenWays(ladder.plan, behaviour.free ?? false),
          ...(template?.ways ?? [])
            // A way that answers one of the ladder's own questions is said there.
            .filter(({ key, ways }) => key === ladder.plan.ways.taught && ways === undefined)
            .map(({ key, name }) => ({ key, question: "Taught", choice: name })),
        ]}
        cautions={[...wordsOfWay(template, ladder.plan).cautions, ...wayCautions(ladder.plan, behaviour.free ?? false)]}
      />
      <StepCosts horseId={horse} ladderId={id} above={state.next.rung} />
      <Foundations horseId={horse} {...foundations} graph={graphLinks(horse, foundations.graph)} />
      <p className="no-print mt-8 flex flex-wrap gap-x-6 gap-y-2">
        <Link href={`/horses/${horse}/shape/library`} className="link">
          Plan another ladder
        </Link>
        <Link href={`/horses/${horse}/shape/chains/new`} className="link">
          Chain behaviours
        </Link>
        <PutLadderAway ladderId={id} away={ladder.away} />
        <BinButton kind="ladder" id={id} name={ladder.behaviour.name} onwards={`/horses/${horse}/shape`} />
      </p>
    </>
  );
}
