import type { ReactNode } from "react";
import type { RunsOfChain } from "@/core/behaviour";
import { decimals, percent } from "@/ui/measure";

const WIDTH = 560;
const HEIGHT = 96;

/** The runs of the whole: evidence of their own, beside that of the links. */
export function ChainRuns({ found, children }: { found: RunsOfChain; children: ReactNode }) {
  const { links, curve, runs, sentence, weakest } = found;
  const x = (link: number) => (link / Math.max(1, links.length)) * WIDTH;
  const y = (share: number) => 8 + (1 - share) * (HEIGHT - 16);
  let path = `M0 ${y(1)}`;
  for (const [at, share] of curve.steps) path += `H${x(at)}V${y(share)}`;
  path += `H${WIDTH}`;
  return (
    <section className="mt-7 max-w-4xl">
      <h2 className="text-xl">Run as a whole</h2>
      <p className="mt-1 font-head text-lg font-bold text-tarn">{sentence}</p>
      {runs > 0 && (
        <>
          <svg
            viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
            className="mt-2 w-full max-w-xl"
            role="img"
            aria-label="Share of runs still whole after each link"
          >
            <line x1="0" x2={WIDTH} y1={y(0)} y2={y(0)} stroke="var(--hair)" strokeWidth="2" />
            <path d={path} fill="none" stroke="var(--tarn)" strokeWidth="4" />
          </svg>
          <div className="overflow-x-auto">
            <table className="mt-2 w-full max-w-xl text-left">
              <thead>
                <tr className="border-b-2 border-ink">
                  <th className="py-1 pr-3">Link</th>
                  <th className="pr-3">broke there</th>
                  <th className="pr-3">still whole after it</th>
                  <th>time</th>
                </tr>
              </thead>
              <tbody className="figures">
                {links.map(({ name, came, broke, past, medianSeconds }, i) => (
                  <tr key={`${i}-${name}`} className="border-b border-hair">
                    <td className={`py-1.5 pr-3 font-sans ${weakest === i ? "font-bold text-ochre" : ""}`}>
                      {i + 1} {name}
                    </td>
                    <td className="pr-3">
                      {broke} of {came}
                    </td>
                    <td className="pr-3">{past === null ? "–" : percent(past)}</td>
                    <td>{medianSeconds === null ? "–" : `${decimals(medianSeconds, 1)} s`}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <details className="mt-1 text-sm text-soft">
            <summary>how</summary>
            Runs of the same links over the last year. Still whole: the product-limit estimate over links (Kaplan and Meier 1958), where a
            run you stopped counts up to there; runs that began on a later link are left out of it. Time: the middle of what a link took
            where it was reached.
          </details>
        </>
      )}
      {children}
    </section>
  );
}
