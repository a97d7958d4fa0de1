import type { Outcome } from "@/core/evidence";

/** The sign of an outcome, the same on the ribbon, the pads and the counts: shape carries the meaning. */
export function OutcomeSign({ outcome, radius = 5, stroke = 2 }: { outcome: Outcome; radius?: number; stroke?: number }) {
  const common = { stroke: "currentColor", strokeWidth: stroke };
  if (outcome === "refused")
    return <path d={`M${-radius * 1.4} 0 H${radius * 0.5} M${radius * 0.5} ${-radius} V${radius}`} fill="none" {...common} />;
  const cross = radius * 0.7;
  return (
    <>
      <circle r={radius} fill="var(--ring, var(--paper))" {...common} />
      {outcome === "met" && <path d={`M0 ${-radius} A${radius} ${radius} 0 0 1 0 ${radius} Z`} fill="currentColor" />}
      {outcome === "miss" && (
        <path d={`M${-cross} ${-cross} L${cross} ${cross} M${cross} ${-cross} L${-cross} ${cross}`} fill="none" {...common} />
      )}
    </>
  );
}

/** The sign standing alone, in a box of its own. */
export function OutcomeIcon({ outcome, size = 24 }: { outcome: Outcome; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="-12 -12 24 24" aria-hidden="true">
      <OutcomeSign outcome={outcome} radius={9} stroke={2.4} />
    </svg>
  );
}

const OUTCOMES: readonly Outcome[] = ["met", "try", "miss", "refused"];

/** The four signs drawn once, for a list of many: each place then only points at its own. */
export function OutcomeSymbols() {
  return (
    <svg className="hidden" aria-hidden="true">
      {OUTCOMES.map((outcome) => (
        <symbol key={outcome} id={`sign-${outcome}`} viewBox="-12 -12 24 24">
          <OutcomeSign outcome={outcome} radius={9} stroke={2.4} />
        </symbol>
      ))}
    </svg>
  );
}

/** A sign that stands on the page by {@link OutcomeSymbols}. */
export function OutcomeMark({ outcome, size }: { outcome: Outcome; size: number }) {
  return (
    <svg width={size} height={size} aria-hidden="true">
      <use href={`#sign-${outcome}`} />
    </svg>
  );
}
