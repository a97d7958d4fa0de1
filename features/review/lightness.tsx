"use client";

import dynamic from "next/dynamic";
import type { SessionSummary } from "@/core/record";
import { counted } from "@/core/words";
import { decimals, percent } from "@/ui/measure";
import { MeasureRow } from "./measure-row";

const WaitingChart = dynamic(() => import("@/ui/measure/waiting-chart"), { ssr: false, loading: () => <div className="h-40" /> });

/** How light the ask was and how soon the answer came. */
export function HowLight({ measures }: { measures: SessionSummary["measures"] }) {
  const { metAtLightest, metWithPhase, lightness, meanPhaseMet, latency } = measures;
  return (
    <section>
      <h2 className="mb-2 text-xl">How light, how soon</h2>
      <div>
        <MeasureRow
          label="at the lightest cue"
          value={metWithPhase === 0 ? "–" : `${metAtLightest} of ${metWithPhase}`}
          testId="lightness"
          below={
            lightness === null ? (
              "no cue phase logged"
            ) : (
              <>
                {percent(lightness)}; mean phase {decimals(meanPhaseMet, 2)}
              </>
            )
          }
          how={<>Met trials answered at phase 1 over met trials with a phase; the mean is over the same trials.</>}
        />
        <MeasureRow
          label="half answered after"
          value={latency.medianSeconds === null ? "–" : `${decimals(latency.medianSeconds, 2)} s`}
          testId="latency-median"
          below={
            latency.answered + latency.censored === 0 ? (
              "no times logged: the Timed way gives them"
            ) : (
              <>
                {counted(latency.answered, "answer")}, {latency.censored} cut off by a miss or no answer
              </>
            )
          }
          how={
            <>
              Ask to the first movement of a met or try answer, by the product-limit estimate (Kaplan and Meier 1958), so that answers that
              never came count as long waits and not as nothing. The median is the first time at which at most half still wait.
            </>
          }
        />
      </div>
      {latency.steps.length > 1 && (
        <div className="mt-3">
          <WaitingChart steps={latency.steps} medianSeconds={latency.medianSeconds} />
        </div>
      )}
    </section>
  );
}
