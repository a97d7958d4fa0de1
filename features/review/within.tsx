import { againstPlan, firstAndSecondPass, type SessionPart, type SessionRecord, sessionThirds } from "@/core/record";
import { counted } from "@/core/words";
import { decimals, How } from "@/ui/measure";
import { ScrollBox } from "@/ui/scroll-box";

function Parts({ label, heads, parts }: { label: string; heads: readonly string[]; parts: readonly SessionPart[] }) {
  const rows: readonly (readonly [string, (part: SessionPart) => string])[] = [
    ["met", ({ met, n }) => `${met} of ${n}`],
    ["lightest cue", ({ metAtLightest, metWithPhase }) => (metWithPhase === 0 ? "–" : `${metAtLightest} of ${metWithPhase}`)],
    [
      "half answered after",
      ({ timed, halfAnsweredSeconds }) =>
        timed === 0 ? "–" : halfAnsweredSeconds === null ? "under half" : `${decimals(halfAnsweredSeconds, 1)} s`,
    ],
    ["calm", ({ meanEase, eased }) => (meanEase === null ? "–" : `${decimals(meanEase, 1)}, ${eased} graded`)],
    ["release", ({ releaseLag }) => (releaseLag === null ? "–" : `${decimals(releaseLag, 2)} s`)],
  ];
  const shown = rows.filter(([, of]) => parts.some((part) => of(part) !== "–"));
  return (
    <ScrollBox label={label}>
      <table className="figures text-left">
        <thead className="text-sm text-soft">
          <tr className="*:py-1 *:pr-6">
            <td />
            {heads.map((head) => (
              <th key={head} scope="col" className="font-normal whitespace-nowrap">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map(([name, of]) => (
            <tr key={name} className="border-t border-hair *:py-1 *:pr-6">
              <th scope="row" className="font-normal text-soft">
                {name}
              </th>
              {parts.map((part, i) => (
                <td key={i} className="whitespace-nowrap">
                  {of(part)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollBox>
  );
}

/** How it went from the beginning to the end: thirds, first pass against second, asks beside the plan. Nothing for a short session. */
export function Within({ record }: { record: SessionRecord }) {
  const thirds = sessionThirds(record);
  const passes = firstAndSecondPass(record);
  const plan = againstPlan(record);
  if (thirds === null && passes === null && plan === null) return null;
  return (
    <section className="mt-8" data-testid="within">
      <h2 className="mb-2 flex items-baseline gap-2 text-xl">
        From beginning to end
        <How of="the parts of the session">
          Thirds by asks of work, warm-up and the easy one at the end aside; what is over stands in the middle. First pass: the first block
          on a rung and side, second: the next on it in the same session. One session tests nothing; Moments looks at many.
        </How>
      </h2>
      {plan !== null && (
        <p>
          {plan.made} of {counted(plan.planned, "ask")} planned
          {plan.over > 0 && `; ${counted(plan.over, "block")} longer than planned`}
          {plan.under > 0 && `; ${counted(plan.under, "block")} shorter`}.
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-x-12 gap-y-5">
        {thirds !== null && <Parts label="Thirds" heads={["first third", "middle", "last third"]} parts={thirds} />}
        {passes !== null && <Parts label="Passes" heads={["first pass", "second pass"]} parts={passes} />}
      </div>
    </section>
  );
}
