import { FIRST_LOOK_ITEMS } from "@/core/know";
import { criterionOf } from "@/core/ladder";
import type { Block, SessionRecord } from "@/core/session";
import type { BlockChoice, RecorderStart } from "./types";
import type { Fact } from "./use-session-log";

/** The number of a block's rung, or of its item in the battery. */
export function rungNumber(start: RecorderStart, block: Block): number {
  return start.battery ? FIRST_LOOK_ITEMS.findIndex(({ key }) => key === block.rung) + 1 : Number(block.rung);
}

/** The facts that open a block, closing the one that runs. */
export function blockFacts(start: RecorderStart, record: SessionRecord, choice: BlockChoice): Fact[] {
  const facts: Fact[] = [];
  const running = record.blocks.at(-1);
  if (record.breaks.at(-1)?.endMs === null) facts.push({ type: "break.end" });
  if (running !== undefined && running.endMs === null) facts.push({ type: "block.end" });
  facts.push({
    type: "block.start",
    payload: {
      block: record.blocks.reduce((most, b) => Math.max(most, b.number), 0) + 1,
      behaviour: start.behaviour,
      ...(start.ladderId === null || start.version === null ? {} : { ladder: start.ladderId, version: start.version }),
      rung: start.battery ? (FIRST_LOOK_ITEMS[choice.rung - 1]?.key ?? String(choice.rung)) : choice.rung,
      criterion: { ...criterionOf(start.plan, choice.rung) },
      side: choice.side ?? "",
      kind: choice.kind,
      planned: start.plan.plannedRepetitions,
    },
  });
  return facts;
}

/** What a whole trial earned, by the method and the rung's schedule. Known facts only; the core fills in nothing it was not told. */
export function tallyReinforcement(start: RecorderStart, metBefore: number, outcome: string): Record<string, number> {
  const { method, schedule } = start.plan;
  const released = method === "marker-food" ? 0 : 1;
  if (outcome === "try") return { released };
  if (outcome !== "met") return { released: 0, reinforced: 0 };
  const earns = schedule.kind === "every" || (metBefore + 1) % schedule.ratio === 0;
  const food = method !== "pressure-release" && earns && start.allowance.noFood === null ? 1 : 0;
  return { reinforced: earns ? 1 : 0, released, marked: method !== "pressure-release" && earns ? 1 : 0, reinforcers: food };
}
