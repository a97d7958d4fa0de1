import { memo } from "react";
import { toldShare } from "@/core/compare";
import type { ShareSums } from "@/core/evidence";
import { COLUMN, LABEL } from "./geometry";

/** Evidence of one rung, as the chart shows it. */
export interface ChartEvidence {
  readonly rung: number;
  readonly n: number;
  readonly met: number;
  readonly metAtLightest: number;
  readonly share: ShareSums;
}

/** Under each rung: how many, the share with its interval. */
export const EvidenceRow = memo(function EvidenceRow({
  rungs,
  evidence,
  y,
}: {
  rungs: number;
  evidence: readonly ChartEvidence[];
  y: number;
}) {
  return (
    <g transform={`translate(0 ${y})`}>
      {Array.from({ length: rungs }, (_, i) => {
        const sum = evidence.find((e) => e.rung === i + 1);
        const left = LABEL + i * COLUMN + 10;
        const wide = COLUMN - 20;
        const interval = sum === undefined ? null : toldShare(sum.share).interval;
        return (
          <g key={`e${i}`}>
            <path d={`M${left} 16 h${wide}`} stroke="var(--hair)" strokeWidth="2" />
            {sum !== undefined && sum.n > 0 && (
              <>
                {interval !== null && (
                  <path
                    d={`M${left + interval[0] * wide} 16 H${left + interval[1] * wide}`}
                    stroke="var(--tarn)"
                    strokeOpacity="0.45"
                    strokeWidth="7"
                  />
                )}
                <path d={`M${left + (sum.met / sum.n) * wide} 9 v14`} stroke="var(--tarn)" strokeWidth="4" />
              </>
            )}
            <text x={left} y="40" fontSize="13.5" fill="var(--ink)">
              {sum === undefined || sum.n === 0 ? "–" : `${sum.met} of ${sum.n}`}
              {sum !== undefined && sum.n > 0 && <title>{`${sum.metAtLightest} of them at the lightest cue`}</title>}
            </text>
          </g>
        );
      })}
    </g>
  );
});
