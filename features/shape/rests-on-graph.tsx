import { graphlib, layout } from "@dagrejs/dagre";
import type { PrerequisiteReadiness } from "@/core/behaviour";

/** One behaviour of the graph. */
export interface GraphPart {
  readonly key: string;
  readonly name: string;
  /** Where it leads, or null. */
  readonly href: string | null;
  readonly state: PrerequisiteReadiness["state"] | "this";
  readonly needs: readonly string[];
}

const STATE_WORDS = {
  shown: "shown",
  stale: "shown long ago",
  seen: "seen in the first look",
  "not-yet": "not yet",
  unknown: "nothing to tell from",
  this: "this one",
} as const;
const FONT = 13;
const BOX_HEIGHT = 30;
const SIGN = 22;

/** Shape says the state: a full ring is shown, one with a point seen in the first look, a half one not yet, an empty one unknown, one with a bar shown long ago. */
function StateSign({ state }: { state: GraphPart["state"] }) {
  const stroke = state === "not-yet" ? "var(--ochre)" : state === "shown" ? "var(--sage)" : "var(--soft)";
  if (state === "this") return <path d="M-6 5 V1 C-6 -6 6 -6 6 1 V5 Z" fill="var(--tarn)" />;
  return (
    <>
      <circle r="6" fill={state === "shown" ? stroke : "none"} stroke={stroke} strokeWidth="2" />
      {state === "seen" && <circle r="2.5" fill={stroke} />}
      {state === "stale" && <path d="M-3 0 H3" stroke={stroke} strokeWidth="2" />}
      {state === "not-yet" && <path d="M0 -6 A6 6 0 0 0 0 6 Z" fill={stroke} />}
    </>
  );
}

/** What a behaviour rests on, drawn small: the first things at the left. */
export function RestsOnGraph({ parts }: { parts: readonly GraphPart[] }) {
  const graph = new graphlib.Graph();
  graph.setGraph({ rankdir: "LR", nodesep: 10, ranksep: 34, marginx: 2, marginy: 2 });
  graph.setDefaultEdgeLabel(() => ({}));
  const wide = (name: string) => SIGN + name.length * FONT * 0.5 + 14;
  for (const { key, name } of parts) graph.setNode(key, { width: wide(name), height: BOX_HEIGHT });
  for (const { key, needs } of parts) for (const need of needs) graph.setEdge(need, key);
  layout(graph);
  const { width = 100, height = 40 } = graph.graph() as { width?: number; height?: number };
  const words = parts.map(({ name, needs, state }) => {
    const under = needs.map((need) => parts.find(({ key }) => key === need)?.name ?? need).join(" and ");
    return `${name}, ${STATE_WORDS[state]}${under === "" ? "" : `, rests on ${under}`}`;
  });
  return (
    <section aria-label="What it rests on, drawn" className="max-w-full overflow-x-auto">
      <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} aria-labelledby="rests-on-words">
        <title id="rests-on-words">{words.join(". ")}</title>
        {graph.edges().map((edge) => {
          const { points } = graph.edge(edge) as { points: { x: number; y: number }[] };
          const [first, ...rest] = points;
          if (first === undefined) return null;
          return (
            <path
              key={`${edge.v}-${edge.w}`}
              d={`M${first.x} ${first.y} ${rest.map(({ x, y }) => `L${x} ${y}`).join(" ")}`}
              fill="none"
              stroke="var(--hair)"
              strokeWidth="2"
            />
          );
        })}
        {parts.map(({ key, name, state, href }) => {
          const { x, y, width: boxWidth } = graph.node(key) as { x: number; y: number; width: number };
          const inside = (
            <>
              <rect
                x={-boxWidth / 2}
                y={-BOX_HEIGHT / 2}
                width={boxWidth}
                height={BOX_HEIGHT}
                rx="4"
                fill="var(--paper)"
                stroke="var(--hair)"
                strokeWidth="1.5"
              />
              <g transform={`translate(${-boxWidth / 2 + 11} 0)`}>
                <StateSign state={state} />
              </g>
              <text
                x={-boxWidth / 2 + SIGN}
                y="4.5"
                fontSize={FONT}
                fill="var(--ink)"
                fontWeight={state === "this" ? 700 : 400}
                textDecoration={href === null ? undefined : "underline"}
              >
                {name}
              </text>
            </>
          );
          return (
            <g key={key} transform={`translate(${x} ${y})`}>
              {href === null ? inside : <a href={href}>{inside}</a>}
            </g>
          );
        })}
      </svg>
      <p className="mt-1 flex flex-wrap gap-x-5 text-sm text-soft">
        {(["shown", "stale", "seen", "not-yet", "unknown"] as const)
          .filter((state) => (state !== "stale" && state !== "seen") || parts.some((part) => part.state === state))
          .map((state) => (
            <span key={state} className="inline-flex items-center gap-1.5">
              <svg viewBox="-8 -8 16 16" width="15" height="15" aria-hidden="true">
                <StateSign state={state} />
              </svg>
              {STATE_WORDS[state]}
            </span>
          ))}
      </p>
    </section>
  );
}
