/** A behaviour with the keys of those it rests on. */
export interface GraphNode {
  readonly key: string;
  readonly needs: readonly string[];
}

/**
 * Names of behaviours that form a cycle, in order, or null where none does. Needs that are not among the nodes lead nowhere.
 * @example findCycle([{ key: "a", needs: ["a"] }]) // ["a", "a"]
 */
export function findCycle(nodes: readonly GraphNode[]): string[] | null {
  const byKey = new Map(nodes.map((node) => [node.key, node]));
  const state = new Map<string, "open" | "done">();
  const path: string[] = [];
  const visit = (key: string): string[] | null => {
    const node = byKey.get(key);
    if (node === undefined || state.get(key) === "done") return null;
    if (state.get(key) === "open") return [...path.slice(path.indexOf(key)), key];
    state.set(key, "open");
    path.push(key);
    for (const need of node.needs) {
      const cycle = visit(need);
      if (cycle !== null) return cycle;
    }
    path.pop();
    state.set(key, "done");
    return null;
  };
  for (const { key } of nodes) {
    const cycle = visit(key);
    if (cycle !== null) return cycle;
  }
  return null;
}

/** A behaviour and everything it rests on, near or far. @example restsOn(nodes, "a") // a set of 4 */
export function restsOn(nodes: readonly GraphNode[], key: string): Set<string> {
  const byKey = new Map(nodes.map((node) => [node.key, node]));
  const found = new Set<string>();
  const queue = [key];
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    if (found.has(at)) continue;
    found.add(at);
    queue.push(...(byKey.get(at)?.needs ?? []));
  }
  return found;
}
