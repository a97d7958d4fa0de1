import type { SessionRecord } from "@/core/record";
import { planBlock } from "./block-facts";
import type { AtWork } from "./types";

/**
 * Where a session stands, as its recorder shows it. One at a time:
 * - `reading`: what the device kept is still being read;
 * - `look-over`: before the first block, weather, gear, horse and kit;
 * - `unplanned`: begun free, and nothing named yet;
 * - `between`: a block is chosen;
 * - `work`: a block runs, and the pads stand there;
 * - `silent`: a block runs, and nothing was tapped for too long to be work;
 * - `finished`.
 */
export type Stage = "reading" | "look-over" | "unplanned" | "between" | "work" | "silent" | "finished";

/** Where the session stands. */
export function stageOf(
  start: Pick<AtWork, "session" | "part">,
  { ready, silent, record }: { readonly ready: boolean; readonly silent: boolean; readonly record: SessionRecord },
): Stage {
  if (!ready) return "reading";
  if (record.finishMs !== null) return "finished";
  const block = record.blocks.at(-1);
  if (block !== undefined && block.endMs === null) return silent ? "silent" : "work";
  if (start.session.battery) return "between";
  if (block === undefined && !record.facts.some(({ type }) => type === "preflight")) return "look-over";
  return start.part.ladderId === null && planBlock(start, record) === null ? "unplanned" : "between";
}
