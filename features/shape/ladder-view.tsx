"use client";

import Link from "next/link";
import { useState } from "react";
import { movingOnSentence, valuesGoalOf } from "@/core/advice";
import { toldShare } from "@/core/compare";
import { percentileBar } from "@/core/evidence";
import { type LadderPlan, METHOD_GUIDES, methodOf, scheduleOf, scheduleSentence } from "@/core/ladder";
import { criterionParts, stepFaults } from "@/core/strands";
import { ValueStrip, Whisker } from "@/ui/measure";
import { type ChartEvidence, CueStairs, StrandChart } from "@/ui/strand-chart";

/** The horse's last values on a rung whose bar follows them. */
function FollowedBar({ plan, rung, values }: { plan: LadderPlan; rung: number; values: readonly number[] }) {
  const setting = plan.rungs[rung - 1]?.percentile;
  const working = plan.strands.find(({ id }) => id === plan.workingStrandId);
  if (setting === undefined || working === undefined) return null;
  return (
    <div>
      <h3 className="font-sans text-sm font-normal text-soft">The bar follows its last {setting.lookBack} values</h3>
      <ValueStrip
        values={values.slice(-setting.lookBack)}
        bar={percentileBar(values, setting.lookBack, setting.wantedShare, working.harder)}
        unit={working.unit}
        harder={working.harder}
        goal={valuesGoalOf(plan, rung)?.value ?? null}
      />
    </div>
  );
}

interface LadderViewProps {
  readonly horseId: string;
  readonly ladder: { id: string; name: string; finished: string; version: number; plan: LadderPlan };
  readonly evidence: readonly ChartEvidence[];
  readonly here: { rung: number; headline: string; reason: string };
  /** Rungs that restrictions or age close today, with the reason. */
  readonly barred: readonly { readonly rung: number; readonly why: string }[];
  /** Why nothing of the ladder may be worked today, or null. */
  readonly barredWhole: string | null;
  /** What the ladder's rule promises, in sentences. */
  readonly promises: readonly string[];
  /** The horse's values on each rung whose bar follows them, oldest first, by rung. */
  readonly values: Readonly<Record<number, readonly number[]>>;
  /** How far a new cue has taken over, or null where none is coming in. */
  readonly transferred: string | null;
  /** What was chosen where trainers disagree. */
  readonly chosen: readonly { readonly question: string; readonly choice: string }[];
  readonly cautions: readonly string[];
}

/** Its name, what it is, and where to go from here. */
function Head({ horseId, ladder, barredWhole }: Pick<LadderViewProps, "horseId" | "ladder" | "barredWhole">) {
  const { plan } = ladder;
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 className="text-[2rem]">
          {ladder.name}
          <span className="ml-4 font-sans text-base font-normal text-soft">
            {METHOD_GUIDES[plan.method].short} · version {ladder.version} · {plan.rungs.length} rungs
          </span>
        </h1>
        <p className="no-print flex flex-wrap gap-x-6 gap-y-1">
          <Link href={`/horses/${horseId}/shape/${ladder.id}/edit`} className="link">
            Edit
          </Link>
          {ladder.version > 1 && (
            <Link href={`/horses/${horseId}/shape/${ladder.id}/versions`} className="link">
              What changed
            </Link>
          )}
          <Link href={`/horses/${horseId}/shape/${ladder.id}/card`} className="link">
            Pocket card
          </Link>
          <Link href={`/horses/${horseId}/work`} className="link">
            Work it
          </Link>
        </p>
      </div>
      {barredWhole !== null && (
        <p className="mt-3 max-w-prose border-l-4 border-brick pl-4 font-semibold text-brick">Not today. {barredWhole}</p>
      )}
      {ladder.finished !== "" && <p className="mt-1 max-w-prose text-soft">{ladder.finished}</p>}
    </>
  );
}

/** What was met on the rung, in this version. */
function RungEvidence({ sum }: { sum: ChartEvidence | undefined }) {
  const told = sum === undefined ? null : toldShare(sum.share, "in this version");
  return (
    <div>
      <h3 className="font-sans text-sm font-normal text-soft">Evidence on this rung</h3>
      {sum === undefined || told === null || sum.n === 0 ? (
        <p>No asks in this version.</p>
      ) : (
        <>
          <Whisker share={told.share} interval={told.interval} width={280} />
          <p>{told.sentence}</p>
          <p className="text-sm text-soft">
            {sum.metAtLightest} at the lightest cue. Everybody’s asks of work on this rung count here; the rule below counts those since it
            came to the rung.
          </p>
        </>
      )}
    </div>
  );
}

/** One rung: what it asks, what closes it, its evidence, its ask, what earns it and when it moves on. */
function RungSection({
  ladder: { plan },
  evidence,
  here,
  barred,
  promises,
  values,
  transferred,
  selected,
}: Pick<LadderViewProps, "ladder" | "evidence" | "here" | "barred" | "promises" | "values" | "transferred"> & {
  readonly selected: number;
}) {
  const goal = valuesGoalOf(plan, selected);
  const faults = stepFaults(
    plan.strands,
    plan.rungs.map((rung) => rung.values),
  ).filter((fault) => fault.rung === selected);
  const parts = criterionParts(
    plan.strands,
    plan.rungs[selected - 1]?.values ?? {},
    plan.phases.map((p) => p.label),
  );
  return (
    <section aria-label={`Rung ${selected}`} className="grid max-w-2xl content-start gap-5">
      <div>
        <h2 className="font-sans text-sm font-normal text-soft">
          Rung {selected}
          {selected === here.rung ? ", where you are" : ""}
        </h2>
        <p className="text-xl leading-snug" aria-live="polite">
          {parts.map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text))}
        </p>
      </div>
      {barred
        .filter(({ rung }) => rung === selected)
        .map(({ why }) => (
          <p key={why} className="border-l-4 border-brick pl-3 font-semibold text-brick">
            Not today. {why}
          </p>
        ))}
      {faults.map((fault) => (
        <p key={fault.sentence} className="border-l-4 border-ochre pl-3">
          {fault.sentence}
        </p>
      ))}
      {faults.length > 0 && plan.rungs[selected - 1]?.kept !== undefined && <p>Kept: {plan.rungs[selected - 1]?.kept}</p>}
      <RungEvidence sum={evidence.find(({ rung }) => rung === selected)} />
      <FollowedBar plan={plan} rung={selected} values={values[selected] ?? []} />
      <div>
        <h3 className="font-sans text-sm font-normal text-soft">The ask</h3>
        <CueStairs phases={plan.phases} />
        {transferred !== null && <p className="text-sm">{transferred}</p>}
      </div>
      <div>
        <h3 className="font-sans text-sm font-normal text-soft">Earns</h3>
        <p>
          {METHOD_GUIDES[methodOf(plan, selected)].short}; {scheduleSentence(scheduleOf(plan, selected))}
        </p>
      </div>
      <div>
        <h3 className="font-sans text-sm font-normal text-soft">Moves on when</h3>
        <p className="text-lg">{movingOnSentence(plan.mastery, goal)}</p>
        {(goal === null ? promises : []).map((promise) => (
          <p key={promise} className="text-sm text-soft">
            {promise}
          </p>
        ))}
      </div>
      <div className="border-t-2 border-ink pt-3">
        <p className="font-head text-lg font-bold text-tarn">{here.headline}</p>
        <p className="text-sm text-soft">{here.reason}</p>
      </div>
    </section>
  );
}

/** What was chosen where trainers disagree, and what to mind. Nothing where there is neither. */
function WaysAndCare({ chosen, cautions }: Pick<LadderViewProps, "chosen" | "cautions">) {
  if (chosen.length === 0 && cautions.length === 0) return null;
  return (
    <section aria-label="Ways and care" className="mt-8 grid gap-x-12 gap-y-4 border-t-2 border-hair pt-3 md:grid-cols-2">
      <dl className="grid content-start gap-1">
        {chosen.map(({ question, choice }) => (
          <div key={question} className="flex flex-wrap gap-x-3">
            <dt className="text-soft">{question}</dt>
            <dd className="font-semibold">{choice}</dd>
          </div>
        ))}
      </dl>
      {cautions.length > 0 && (
        <ul className="grid content-start gap-1 border-l-4 border-brick pl-4">
          {cautions.map((caution) => (
            <li key={caution}>{caution}</li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** The ladder as a rope, with the reasons of the chosen rung beside it. */
export function LadderView(props: LadderViewProps) {
  const { ladder, evidence, here, barred } = props;
  const [selected, setSelected] = useState(here.rung);
  return (
    <>
      <Head {...props} />
      <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 xl:grid-cols-[minmax(0,1fr)_17.5rem]">
        <StrandChart
          plan={ladder.plan}
          evidence={evidence}
          here={here.rung}
          selected={selected}
          onSelect={setSelected}
          barred={barred.map(({ rung }) => rung)}
        />
        <RungSection {...props} selected={selected} />
      </div>
      <WaysAndCare {...props} />
    </>
  );
}
