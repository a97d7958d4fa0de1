import { goBackSentence, movingOnSentence, valuesGoalOf } from "@/core/advice";
import { type CommonFault, faultWords } from "@/core/behaviour";
import { type LadderPlan, METHOD_GUIDES, methodOf, REINFORCER_WORDS, scheduleOf, scheduleSentence } from "@/core/ladder";
import type { YardSettings } from "@/core/settings";
import { criterionParts, shortNumber, stepFaults } from "@/core/strands";
import { CueStairs } from "@/ui/strand-chart";

/** Everything the card says. */
export interface CardFacts {
  readonly horse: string;
  readonly behaviour: string;
  readonly cue: string;
  readonly finished: string;
  readonly version: number;
  readonly plan: LadderPlan;
  /** The thresholds of the yard. */
  readonly settings: YardSettings;
  readonly faults: readonly CommonFault[];
  readonly cautions: readonly string[];
  readonly watch: readonly string[];
}

/** Type gets smaller with the rungs, so that forty of them still fit the half page; sizes in points. */
const typeSize = (rungs: number) => (rungs <= 10 ? 10.5 : rungs <= 16 ? 9 : rungs <= 24 ? 7.6 : rungs <= 32 ? 6.6 : 5.8);

/** What differs from the ladder on one rung, in short words. */
function rungNotes(plan: LadderPlan, rung: number, faulty: boolean): string {
  const own = plan.rungs[rung - 1];
  const goal = valuesGoalOf(plan, rung);
  const notes = [
    ...(own?.method === undefined ? [] : [METHOD_GUIDES[methodOf(plan, rung)].short]),
    ...(own?.schedule === undefined ? [] : [`reinforced ${scheduleSentence(scheduleOf(plan, rung))}`]),
    ...(goal === null ? [] : [`moves on: ${movingOnSentence(plan.mastery, goal)}`]),
    ...(own?.kept === undefined || !faulty ? [] : [`kept: ${own.kept}`]),
  ];
  return notes.length === 0 ? "" : ` (${notes.join("; ")})`;
}

function Heading({ children }: { children: string }) {
  return <h2 className="mt-2 mb-0.5 border-b border-black font-head text-[1.1em] font-bold first:mt-0">{children}</h2>;
}

/** One A4 page that folds twice to a pocket: rungs on the left half, the ask and the cautions on the right. */
export function PocketCard({ horse, behaviour, cue, finished, version, plan, settings, faults, cautions, watch }: CardFacts) {
  const labels = plan.phases.map(({ label }) => label);
  const { feeding } = plan;
  const faulty = new Set(
    stepFaults(
      plan.strands,
      plan.rungs.map(({ values }) => values),
    ).map(({ rung }) => rung),
  );
  const polite = feeding.politeSeconds > 0 ? `head turned away ${shortNumber(feeding.politeSeconds)} s` : null;
  const given = [
    feeding.reinforcer === "food" ? null : REINFORCER_WORDS[feeding.reinforcer],
    feeding.reinforcer === "food" ? feeding.where : "",
    polite,
    feeding.pieceGrams === null ? null : `${shortNumber(feeding.pieceGrams)} g a piece`,
    feeding.dayLimitGrams === null ? null : `at most ${shortNumber(feeding.dayLimitGrams)} g a day`,
  ].filter((word) => word !== null && word !== "");
  return (
    <article
      aria-label={`Pocket card: ${behaviour}`}
      className="pocket-card relative grid grid-cols-1 gap-y-4 bg-white sm:grid-cols-2 print:grid-cols-2 text-black"
      style={{ fontSize: `${typeSize(plan.rungs.length)}pt` }}
    >
      <div className="min-w-0 sm:pr-[8mm] print:pr-[8mm]">
        <p className="font-head text-[1.55em] leading-tight font-bold">{behaviour}</p>
        <p className="mb-1">
          {horse} · version {version}
        </p>
        <ol className="grid gap-[0.3em] leading-snug">
          {plan.rungs.map((rung, i) => (
            <li key={`${i + 1}`} className="grid grid-cols-[1.7em_1fr]">
              <span className="figures font-bold">{i + 1}</span>
              <span>
                {criterionParts(plan.strands, rung.values, labels).map((part, at) =>
                  part.strong ? <strong key={`${at}-${part.text}`}>{part.text}</strong> : part.text,
                )}
                {rungNotes(plan, i + 1, faulty.has(i + 1))}
              </span>
            </li>
          ))}
        </ol>
      </div>
      <div className="min-w-0 sm:pl-[8mm] print:pl-[8mm] leading-snug">
        <Heading>The ask</Heading>
        <CueStairs phases={plan.phases} />
        <p>
          {cue !== "" && (
            <>
              Cue: <strong>{cue}</strong>.{" "}
            </>
          )}
          At most {shortNumber(plan.maximumSeconds)} s, then help to any smaller answer and release.{" "}
          {plan.holdOnWrong ? "On a wrong answer hold the level." : "On a wrong answer go on to the next phase."}
          {plan.firstTouchCentimetres !== null && ` First touch from ${shortNumber(plan.firstTouchCentimetres)} cm.`}
          {plan.transfer !== null && ` New cue first, ${shortNumber(plan.transfer.gapSeconds)} s, then the old one.`}
        </p>
        <Heading>Earns</Heading>
        <p>
          {METHOD_GUIDES[plan.method].short}; {scheduleSentence(plan.schedule)}
          {given.length > 0 && `; ${given.join(", ")}`}.
        </p>
        <Heading>Moves on when</Heading>
        <p>{movingOnSentence(plan.mastery, null)}</p>
        <Heading>Go back when</Heading>
        <p>{goBackSentence(plan.mastery, settings)}</p>
        {faults.length > 0 && (
          <ul>
            {faults.map((fault) => (
              <li key={fault.sign}>
                {fault.sign}: <strong>{faultWords(fault, plan.strands)}</strong>. {fault.then}
              </li>
            ))}
          </ul>
        )}
        {watch.length > 0 && (
          <>
            <Heading>Watch</Heading>
            <p>{watch.join(". ")}.</p>
          </>
        )}
        <Heading>Care</Heading>
        <ul className="list-disc pl-[1.1em]">
          {[
            ...cautions,
            "Helmet, gloves, boots. Line folded in the hand, never wrapped. Out of the kick and strike zone.",
            "Stop for pain, lameness, heat or distress and call a veterinarian.",
          ].map((caution) => (
            <li key={caution}>{caution}</li>
          ))}
        </ul>
        {finished !== "" && (
          <>
            <Heading>Finished</Heading>
            <p>{finished}</p>
          </>
        )}
      </div>
      <span aria-hidden="true" className="absolute inset-y-0 left-1/2 max-sm:hidden print:block border-l border-dashed border-black/50" />
      <span aria-hidden="true" className="absolute inset-x-0 top-1/2 max-sm:hidden print:block border-t border-dashed border-black/20" />
    </article>
  );
}
