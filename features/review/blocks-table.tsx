import { toldShare } from "@/core/compare";
import { sumsOfSessions } from "@/core/evidence";
import { askedName } from "@/core/know";
import { plannedAsks, type SessionSummary } from "@/core/record";
import { SIDE_WORDS } from "@/core/words";
import { clockWords, decimals, Whisker } from "@/ui/measure";
import { ScrollBox } from "@/ui/scroll-box";

/** The blocks of the session with their own rates. */
export function BlocksTable({ summary }: { summary: SessionSummary }) {
  return (
    <ScrollBox label="Blocks">
      <table className="figures w-full min-w-[62rem] text-left">
        <thead className="text-sm text-soft">
          <tr>
            {[
              "block",
              "rung",
              "side",
              "kind",
              "time",
              "met",
              "could be",
              "of planned",
              "met a minute",
              "lightest cue",
              "half answered",
              "release",
              "asked for",
            ].map((head) => (
              <th key={head} scope="col" className="py-1 pr-5 font-normal whitespace-nowrap">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {summary.blocks.map(({ block, index, seconds, measures }) => (
            <tr key={index} className="border-t border-hair align-baseline *:py-1.5 [&>td:not(:last-child)]:whitespace-nowrap">
              <td className="pr-5">{block.number}</td>
              <td className="pr-5 font-semibold">{askedName(block)?.replace(/^rung /, "") ?? "–"}</td>
              <td className="pr-5">{block.side === null ? "" : SIDE_WORDS[block.side]}</td>
              <td className="pr-5">{block.kind === "sure" ? "easy one" : block.kind}</td>
              <td className="pr-5">{clockWords(seconds)}</td>
              <td className="pr-5">
                {measures.met} of {measures.n}
              </td>
              <td className="pr-5 align-middle">
                <Whisker {...toldShare(sumsOfSessions([{ met: measures.met, of: measures.n }]))} width={90} />
              </td>
              <td className="pr-5">{plannedAsks(block) === null ? "–" : `${measures.n} of ${plannedAsks(block)}`}</td>
              <td className="pr-5">{summary.late ? "–" : decimals(measures.responsesPerMinute, 1)}</td>
              <td className="pr-5">{measures.metWithPhase === 0 ? "–" : `${measures.metAtLightest} of ${measures.metWithPhase}`}</td>
              <td className="pr-5">
                {measures.latency.answered + measures.latency.censored === 0
                  ? "–"
                  : measures.latency.halfAnsweredSeconds === null
                    ? "under half"
                    : `${decimals(measures.latency.halfAnsweredSeconds, 1)} s`}
              </td>
              <td className="pr-5">{measures.releaseLag.median === null ? "–" : `${decimals(measures.releaseLag.median, 2)} s`}</td>
              <td className="text-sm text-soft">{block.criterion?.sentence}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-soft">
        {summary.late ? "Written from memory: no rates." : "Rates here are per minute of each block's own time."}
      </p>
    </ScrollBox>
  );
}
