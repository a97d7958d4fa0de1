import type { CircleCaution } from "@/core/circle";

/** Every reason why the plan cannot be begun as it stands, beside the button that it closes. */
export function ClosedBecause({ away, standing }: { away: string | null; standing: readonly CircleCaution[] }) {
  if (away === null && standing.length === 0) return null;
  return (
    <ul className="grid gap-1 text-sm" aria-label="Why it is closed">
      {away !== null && <li className="border-l-4 border-brick pl-2 font-semibold">Put away: {away}.</li>}
      {standing.map(({ key, sentence, wall }) => (
        <li key={key} className={`border-l-4 pl-2 ${wall ? "border-brick" : "border-ochre"}`}>
          <strong>{wall ? "Closed." : "A word of why is wanted."}</strong> {sentence}
        </li>
      ))}
      {standing.length > 0 && (
        <li>
          <a href="#cautions" className="link">
            See what it says of the plan
          </a>
        </li>
      )}
    </ul>
  );
}
