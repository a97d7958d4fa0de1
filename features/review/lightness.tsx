"use client";

import dynamic from "next/dynamic";
import { toldShare } from "@/core/compare";
import { sumsOfSessions } from "@/core/evidence";
import type { SessionSummary } from "@/core/record";
import { counted, percentSpan } from "@/core/words";
import { decimals, percent } from "@/ui/measure";
import { MeasureRow } from "./measure-row";

const WaitingChart = dynamic(() => import("@/ui/measure/waiting-chart"), { ssr: false, loading: () => <div className="h-40" /> });

/** How light the ask was and how soon the answer came. */
export function HowLight({ measures }: { measures: SessionSummary["measures"] }) {
  const { metAtLightest, metWithPhase, lightness, meanPhaseMet, latency } = measures;
  const told = toldShare(sumsOfSessions([{ met: metAtLightest, of: metWithPhase }]));
  const asked = latency.answered + latency.censored;
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
                {told.interval === null
                  ? "too few to tell"
                  : `${percent(lightness)}; in this one session could be ${percentSpan(told.interval)}`}
                ; mean phase {decimals(meanPhaseMet, 2)}
              </>
            )
          }
          how={<>Met trials answered at phase 1 over met trials with a phase; the mean is over the same trials.</>}
        />
        <MeasureRow
          label="half answered after"
          value={
            latency.halfAnsweredSeconds !== null ? `${decimals(latency.halfAnsweredSeconds, 2)} s` : asked === 0 ? "–" : "fewer than half"
          }
          testId="latency-median"
          below={
            asked === 0 ? (
              "no times logged: the Timed way gives them"
            ) : (
              <>
                of {counted(asked, "timed ask")}: {latency.answered} answered, {latency.wrong} something else,{" "}
                {latency.censored - latency.wrong} no answer
              </>
            )
          }
          how={
            <>
              Ask to the first movement of a met or try answer: the time by which half of all asks had theirs. Something else ends the ask
              without one, and no answer is a wait cut off (cumulative incidence, Aalen and Johansen 1978). The product-limit median, which
              takes a wrong answer for one still to come, stands in the files under its name.
            </>
          }
        />
      </div>
      {latency.rightSteps.length > 1 && (
        <div className="mt-3">
          <WaitingChart steps={latency.rightSteps} halfSeconds={latency.halfAnsweredSeconds} />
        </div>
      )}
    </section>
  );
}
