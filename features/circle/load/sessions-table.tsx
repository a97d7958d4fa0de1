import { dayWords } from "@/core/day";
import { ScrollBox } from "@/ui/scroll-box";
import { lengthWords, useUnits } from "@/ui/units";
import { type DatedDigest, sharpest } from "./load-charts";
import { wholeMinutes } from "./whole-minutes";

const MOST_SESSIONS = 20;

type Digest = DatedDigest["digest"];

/** Minutes in which the horse moved. */
const movingMinutes = ({ seconds }: Digest) =>
  Object.entries(seconds).reduce((sum, [key, value]) => (key.startsWith("stand") ? sum : sum + value), 0) / 60;

function coolWords({ cool }: Digest) {
  if (cool === null) return "not taken";
  return cool.ended === "cooled" ? "cooled" : cool.ended === "left" ? `left: ${cool.reason ?? ""}` : "not finished";
}

/** Circle sessions one by one, the last first. */
export function SessionsTable({ horseId, sessions }: { horseId: string; sessions: readonly DatedDigest[] }) {
  const units = useUnits();
  return (
    <section aria-label="Session by session" className="mt-8">
      <h2 className="text-2xl">Session by session</h2>
      <ScrollBox label="Session by session">
        <table className="figures mt-2 w-full min-w-[36rem] text-sm">
          <thead>
            <tr className="border-b-2 border-ink text-left">
              <th className="py-1 pr-3">Session</th>
              <th className="pr-3 text-right">in motion, min</th>
              <th className="pr-3 text-right">radius</th>
              <th className="pr-3 text-right">most sideways, m/s²</th>
              <th className="pr-3 text-right">most lean</th>
              <th className="pr-3 text-right">dose, g·min</th>
              <th>cool-down</th>
            </tr>
          </thead>
          <tbody>
            {[...sessions]
              .reverse()
              .slice(0, MOST_SESSIONS)
              .map(({ id, startedMs, digest }) => {
                const most = sharpest(digest);
                return (
                  <tr key={id} className="border-b border-hair">
                    <td className="py-1.5 pr-3">
                      <a className="link" href={`/horses/${horseId}/review/${id}`}>
                        {dayWords(new Date(startedMs).toISOString().slice(0, 10))}
                      </a>
                    </td>
                    <td className="pr-3 text-right">{wholeMinutes(movingMinutes(digest))}</td>
                    <td className="pr-3 text-right">{digest.radius === null ? "–" : lengthWords(digest.radius, units)}</td>
                    <td className="pr-3 text-right">{most === null ? "–" : `${most.sidewaysMps2.toFixed(2)} ${most.gait}`}</td>
                    <td className="pr-3 text-right">{most === null ? "–" : `${most.leanDegrees.toFixed(1)}°`}</td>
                    <td className="pr-3 text-right">{digest.dose === null ? "–" : digest.dose.toFixed(1)}</td>
                    <td>{coolWords(digest)}</td>
                  </tr>
                );
              })}
          </tbody>
        </table>
      </ScrollBox>
    </section>
  );
}
