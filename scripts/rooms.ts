import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import dagre from "@dagrejs/dagre";

/** Which rooms use which, read from their imports. Tests do not count: they may look anywhere. */
export interface Rooms {
  readonly rooms: readonly string[];
  /** From the room that uses to the room that is used. */
  readonly arrows: readonly (readonly [from: string, to: string])[];
}

const TOP = ["app", "features", "ui", "store", "library", "demo"] as const;
const IMPORT = /(?:from|import\() ?"((?:@\/|\.)[^"]*)"/g;

const filesIn = (folder: string) =>
  readdirSync(folder, { recursive: true, encoding: "utf8" })
    // A probe is what the test of the import rule puts there for a moment.
    .filter((file) => /\.tsx?$/.test(file) && !/(\.test\.tsx?|probe-[^/]*)$/.test(file))
    .map((file) => join(folder, file));

/** What is looked at room by room; everything else is one box. */
export type Apart = readonly ("core" | "features" | "store")[];

/** The room a path lies in: a folder of what is looked at apart, or a folder at the top. */
function roomOf(path: string, apart: Apart): string | null {
  const [top = "", room = ""] = path.split("/");
  if (!["core", ...TOP].includes(top)) return null;
  if (!(apart as readonly string[]).includes(top)) return top;
  return existsSync(join(top, room)) && statSync(join(top, room)).isDirectory() && room !== "" ? `${top}/${room}` : top;
}

/** Reads the rooms and their arrows from the code. */
export function readRooms(apart: Apart = ["core"]): Rooms {
  const arrows = new Map<string, readonly [string, string]>();
  const rooms = new Set<string>();
  for (const file of ["core", ...TOP].flatMap(filesIn)) {
    const from = roomOf(file, apart);
    if (from === null) continue;
    rooms.add(from);
    for (const [, spec = ""] of readFileSync(file, "utf8").matchAll(IMPORT)) {
      const target = spec.startsWith("@/") ? spec.slice(2) : relative(".", join(dirname(file), spec));
      const to = roomOf(target, apart);
      if (to !== null && to !== from) arrows.set(`${from} ${to}`, [from, to]);
    }
  }
  // A single file of what is looked at apart (a unit, a day, the store's own rows) is no room: everybody may use it.
  const known = new Set([...rooms].filter((room) => !(apart as readonly string[]).includes(room)));
  return {
    rooms: [...known].sort(),
    arrows: [...arrows.values()].filter(([from, to]) => known.has(from) && known.has(to)).sort((a, b) => (a.join() < b.join() ? -1 : 1)),
  };
}

/** Rooms that use each other, by way of others or not: each such circle as a list. */
export function circlesIn({ rooms, arrows }: Rooms): string[][] {
  const uses = new Map(rooms.map((room) => [room, arrows.filter(([from]) => from === room).map(([, to]) => to)]));
  const reached = (start: string) => {
    const seen = new Set<string>();
    const open = [...(uses.get(start) ?? [])];
    for (let next = open.pop(); next !== undefined; next = open.pop()) {
      if (seen.has(next)) continue;
      seen.add(next);
      open.push(...(uses.get(next) ?? []));
    }
    return seen;
  };
  const reach = new Map(rooms.map((room) => [room, reached(room)]));
  const found: string[][] = [];
  const placed = new Set<string>();
  for (const room of rooms) {
    if (placed.has(room) || !reach.get(room)?.has(room)) continue;
    const circle = rooms.filter((other) => reach.get(room)?.has(other) && reach.get(other)?.has(room));
    for (const one of circle) placed.add(one);
    found.push(circle);
  }
  return found;
}

/** Arrows that say nothing new: what is reached by way of another is not drawn. */
function withoutDetours({ rooms, arrows }: Rooms): Rooms["arrows"] {
  const uses = new Map(rooms.map((room) => [room, new Set(arrows.filter(([from]) => from === room).map(([, to]) => to))]));
  const reaches = (from: string, to: string, seen = new Set<string>()): boolean =>
    [...(uses.get(from) ?? [])].some((next) => next === to || (!seen.has(next) && seen.add(next) && reaches(next, to, seen)));
  return arrows.filter(([from, to]) => ![...(uses.get(from) ?? [])].some((over) => over !== to && reaches(over, to, new Set([from]))));
}

const HIGH = 30;

/** The rooms and arrows as a drawing. What a room reaches by way of another has no arrow of its own. */
export function drawRooms(all: Rooms): string {
  const wide = Math.max(104, ...all.rooms.map((room) => 7 * room.length));
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: "TB", nodesep: 18, ranksep: 42, marginx: 12, marginy: 12 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const room of all.rooms) graph.setNode(room, { width: wide, height: HIGH });
  for (const [from, to] of withoutDetours(all)) graph.setEdge(from, to);
  dagre.layout(graph);
  const n = (value: number) => Math.round(value * 10) / 10;
  const { width = 0, height = 0 } = graph.graph();
  const lines = graph.edges().map((edge) => {
    const points = (graph.edge(edge).points ?? []).map((point: { x: number; y: number }) => `${n(point.x)} ${n(point.y)}`);
    return `<path d="M${points.join(" L")}" fill="none" stroke="#6b6256" stroke-width="1.4" marker-end="url(#to)"/>`;
  });
  const boxes = graph.nodes().map((room) => {
    const { x, y } = graph.node(room);
    const inCore = room.startsWith("core/");
    return `<g><rect x="${n(x - wide / 2)}" y="${n(y - HIGH / 2)}" width="${wide}" height="${HIGH}" rx="4" fill="${inCore ? "#fffdf8" : "#e9dfc9"}" stroke="#2b2620" stroke-width="1.6"/><text x="${n(x)}" y="${n(y + 4.5)}" text-anchor="middle" font-family="sans-serif" font-size="13" fill="#2b2620">${room}</text></g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${n(width)} ${n(height)}" width="${n(width)}" height="${n(height)}" role="img" aria-label="The rooms and which uses which">
<rect width="100%" height="100%" fill="#f6f1e6"/>
<defs><marker id="to" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0 L8 4 L0 8 Z" fill="#6b6256"/></marker></defs>
${lines.join("\n")}
${boxes.join("\n")}
</svg>
`;
}
