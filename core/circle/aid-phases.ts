import type { CueKind } from "../cues";
import type { Aid } from "./work";

/**
 * Which phase of a ladder's ask each aid on the circle is, counted from 1: the
 * phase of its kind, otherwise the one after the voice (whip, a smaller circle)
 * or the clearest (line).
 * @example aidPhases([{ kind: "voice" }, { kind: "wave" }, { kind: "lead" }]) // voice 1, whip 2, smaller 2, line 3
 */
export function aidPhases(phases: readonly { readonly kind: CueKind }[]): Readonly<Record<Aid, number>> {
  const last = Math.max(1, phases.length);
  const of = (...kinds: readonly CueKind[]) => phases.findIndex(({ kind }) => kinds.includes(kind)) + 1;
  const voice = of("voice") || 1;
  const after = Math.min(last, voice + 1);
  const whip = of("wave", "point", "tap") || after;
  return { voice, whip, smaller: Math.max(whip, after), line: of("lead") || last };
}
