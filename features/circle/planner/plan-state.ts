import type { CirclePlan, CircleSegment, LinesSetup } from "@/core/circle";
import { MOST_SEGMENTS } from "@/core/circle";

/** A change to the plan in the planner. */
export type PlanChange =
  | { readonly do: "set"; readonly change: Partial<CirclePlan> }
  | { readonly do: "segment"; readonly at: number; readonly change: Partial<CircleSegment> }
  | { readonly do: "add" }
  | { readonly do: "remove"; readonly at: number }
  | { readonly do: "move"; readonly at: number; readonly by: -1 | 1 }
  | { readonly do: "mirror" }
  | { readonly do: "lines"; readonly change: Partial<LinesSetup> };

export const USUAL_LINES: LinesSetup = {
  step: "two lines, walking behind",
  blinkers: "none",
  traces: false,
  breeching: false,
  head: "",
  traffic: "none",
  companion: null,
  releaseChecked: false,
};

const other = (side: "L" | "R"): "L" | "R" => (side === "L" ? "R" : "L");

/** The plan after a change. */
export function changePlan(plan: CirclePlan, change: PlanChange): CirclePlan {
  const { segments } = plan;
  switch (change.do) {
    case "set": {
      const next = { ...plan, ...change.change };
      // One way a day makes a plan of one way.
      if (change.change.ways === "turn") {
        const way = segments.find(({ gait }) => gait !== "stand")?.side ?? segments[0]?.side;
        const own = segments.filter(({ side }) => side === way);
        return { ...next, segments: own.length === 0 ? segments : own };
      }
      const form = next.form;
      // Long lines are no circle: they have no radius, and count no circling.
      if (form === "lines") return { ...next, lines: next.lines ?? USUAL_LINES, radiusMetres: null };
      return { ...next, lines: null, radiusMetres: form === "pen" ? null : (next.radiusMetres ?? 8) };
    }
    case "segment":
      return { ...plan, segments: segments.map((one, i) => (i === change.at ? { ...one, ...change.change } : one)) };
    case "add": {
      const last = segments.at(-1);
      return segments.length >= MOST_SEGMENTS
        ? plan
        : { ...plan, segments: [...segments, { gait: last?.gait ?? "walk", side: last?.side ?? "L", minutes: 2 }] };
    }
    case "remove":
      return segments.length <= 1 ? plan : { ...plan, segments: segments.filter((_, i) => i !== change.at) };
    case "move": {
      const to = change.at + change.by;
      const [from, onto] = [segments[change.at], segments[to]];
      if (from === undefined || onto === undefined) return plan;
      return { ...plan, segments: segments.map((one, i) => (i === to ? from : i === change.at ? onto : one)) };
    }
    case "mirror": {
      // What the first hand does, the other does as well.
      const first = segments[0]?.side ?? "L";
      const own = segments.filter(({ side }) => side === first);
      return { ...plan, segments: [...own, ...own.map((one) => ({ ...one, side: other(one.side) }))].slice(0, MOST_SEGMENTS) };
    }
    case "lines":
      return { ...plan, lines: { ...(plan.lines ?? USUAL_LINES), ...change.change } };
  }
}
