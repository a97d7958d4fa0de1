import { FIRST_LOOK_ITEMS } from "@/core/know";
import { criterionOf } from "@/core/ladder";
import type { Block, SessionRecord } from "@/core/session";
import { TOUCH_BLOCK } from "../touch/touch-facts";
import type { BlockChoice, RecorderStart } from "./types";
import type { Fact } from "./use-session-log";

/** The number of a block's rung, or of its item in the battery. */
export function rungNumber(start: RecorderStart, block: Block): number {
  return start.battery ? FIRST_LOOK_ITEMS.findIndex(({ key }) => key === block.rung) + 1 : Number(block.rung);
}

/** The block the plan is on: the last one of the ladder (or of the battery), touching in between aside. */
export function planBlock(start: RecorderStart, record: SessionRecord): Block | null {
  return record.blocks.findLast((block) => start.battery || block.ladder !== null) ?? null;
}

/** Whether the block that runs stands beside the plan: touching in a session of work. */
export function isAside(start: RecorderStart, record: SessionRecord): boolean {
  const block = record.blocks.at(-1);
  return !start.battery && block !== undefined && block.endMs === null && block.ladder === null && record.finishMs === null;
}

/** Whether touching is what the ladder itself is about, so that its trials are the ladder's own. */
const aboutTouch = (start: RecorderStart) => start.plan.strands.some(({ key }) => key === "touch-zone" || key === "tool");

/** What ends the running block and a break, and the number of the next block. */
function closing(record: SessionRecord): { facts: Fact[]; next: number } {
  const facts: Fact[] = [];
  const running = record.blocks.at(-1);
  if (record.breaks.at(-1)?.endMs === null) facts.push({ type: "break.end" });
  if (running !== undefined && running.endMs === null) facts.push({ type: "block.end" });
  return { facts, next: record.blocks.reduce((most, b) => Math.max(most, b.number), 0) + 1 };
}

/** The facts that open a block of touching beside the plan; none where one runs, or where the ladder is about touch. */
export function asideFacts(start: RecorderStart, record: SessionRecord): Fact[] {
  if (isAside(start, record) || aboutTouch(start)) return [];
  const { facts, next } = closing(record);
  const { behaviour, rung, sentence } = TOUCH_BLOCK;
  return [...facts, { type: "block.start", payload: { block: next, behaviour, rung, criterion: { sentence }, side: "", kind: "probe" } }];
}

/** The facts that open a block, closing the one that runs. */
export function blockFacts(start: RecorderStart, record: SessionRecord, choice: BlockChoice): Fact[] {
  const { facts, next } = closing(record);
  facts.push({
    type: "block.start",
    payload: {
      block: next,
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
