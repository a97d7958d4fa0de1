/** A ramp that was laid out and does not hold any more, and why. Nothing where it holds. */
export function RampBroken({ problem }: { problem: string | null }) {
  if (problem === null) return null;
  return <p className="mt-3 border-l-4 border-brick pl-4 font-semibold">The ramp does not hold any more. {problem}</p>;
}
