import {
  FIRST_LOOK_ITEMS,
  FIRST_LOOK_PHASES,
  type FirstLook,
  type FirstLookResult,
  firstLookWords,
  resultOf,
  strengthOf,
} from "@/core/know";
import { EASE_GRADES } from "@/core/strands";
import { OutcomeIcon } from "@/ui/ribbon";

const phaseName = (phase: number | null) => (phase === null ? "not said" : (FIRST_LOOK_PHASES[phase - 1]?.label ?? `phase ${phase}`));

function detail(result: FirstLookResult): string {
  const parts = [
    result.met === 0 ? null : `lightest ${phaseName(result.lightestPhase)}`,
    result.halfAnsweredSeconds === null ? null : `${result.halfAnsweredSeconds.toFixed(1)} s`,
    result.ease === null ? null : EASE_GRADES[Math.round(result.ease)],
  ].filter((part) => part !== null && part !== undefined);
  return parts.join(" · ");
}

/** One side's bar: the fewer phases it needed the longer, growing away from the middle. Empty where none was met, missing where it was not looked at. */
function Bar({ result, towards }: { result: FirstLookResult | null; towards: "left" | "right" | "both" }) {
  const width = 150;
  const length = result === null ? 0 : strengthOf(result) * width;
  const x = towards === "left" ? width - length : 0;
  return (
    <svg viewBox={`0 0 ${width} 16`} className="block h-4 w-full" preserveAspectRatio="none" aria-hidden="true">
      <path
        d={`M0 8 H${width}`}
        stroke="var(--hair)"
        strokeWidth="2"
        strokeDasharray={result === null ? "3 5" : undefined}
        vectorEffect="non-scaling-stroke"
      />
      {FIRST_LOOK_PHASES.map((_, i) => {
        const at = ((i + 1) * width) / FIRST_LOOK_PHASES.length;
        return (
          <path
            key={i}
            d={`M${towards === "left" ? width - at : at} 4 V12`}
            stroke="var(--hair)"
            strokeWidth="1.5"
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
      {length > 0 && (
        <rect
          x={x}
          y="3"
          width={length}
          height="10"
          fill={result !== null && result.met * 2 < result.n ? "var(--paper)" : "var(--tarn)"}
          stroke="var(--tarn)"
          strokeWidth="2"
          vectorEffect="non-scaling-stroke"
        />
      )}
    </svg>
  );
}

function Side({ result, towards, side }: { result: FirstLookResult | null; towards: "left" | "right" | "both"; side: string }) {
  const align = towards === "left" ? "items-end text-right" : "items-start";
  return (
    <div className={`flex min-w-0 flex-col ${align}`}>
      <Bar result={result} towards={towards} />
      <p className={`flex flex-wrap items-center gap-x-2 text-sm text-soft ${towards === "left" ? "flex-row-reverse" : ""}`}>
        {result === null ? (
          <span>{side === "" ? "not looked at" : `${side} not looked at`}</span>
        ) : (
          <>
            <span className="sr-only">
              {side} {firstLookWords(result)}.
            </span>
            <span className="flex text-ink" aria-hidden="true">
              {result.outcomes.map((outcome, i) => (
                <OutcomeIcon key={i} outcome={outcome} size={17} />
              ))}
            </span>
            <span className="figures">{detail(result)}</span>
          </>
        )}
      </p>
    </div>
  );
}

/** What a first look showed, left and right of a middle line; items without sides stand alone. */
export function Strengths({ look }: { look: FirstLook }) {
  const sided = FIRST_LOOK_ITEMS.filter((item) => item.sided);
  const single = FIRST_LOOK_ITEMS.filter((item) => !item.sided);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
      <div>
        <div className="mb-2 grid grid-cols-2 gap-x-6 border-b-2 border-ink pb-1 font-semibold">
          <span className="text-right">left</span>
          <span>right</span>
        </div>
        <ul className="grid gap-3.5">
          {sided.map((item) => (
            <li key={item.key}>
              <p className="mb-0.5 text-center font-semibold">{item.name}</p>
              <div className="grid grid-cols-2 gap-x-1.5">
                <Side result={resultOf(look, item.key, "L")} towards="left" side="left" />
                <Side result={resultOf(look, item.key, "R")} towards="right" side="right" />
              </div>
            </li>
          ))}
        </ul>
      </div>
      <div>
        <div className="mb-2 border-b-2 border-ink pb-1 font-semibold">without sides</div>
        <ul className="grid gap-2.5">
          {single.map((item) => (
            <li key={item.key}>
              <p className="font-semibold">{item.name}</p>
              <Side result={resultOf(look, item.key, null)} towards="both" side="" />
            </li>
          ))}
        </ul>
      </div>
      <p className="text-sm text-soft lg:col-span-2">
        The longer the bar, the lighter the ask that worked: {FIRST_LOOK_PHASES.map(({ label }) => label).join(", ")}. Hollow: under half
        were met. One to three asks an item are too few to tell a share; they show where to begin.
      </p>
    </div>
  );
}
