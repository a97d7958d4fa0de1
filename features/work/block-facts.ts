import { seedFromText } from "@/core/chance";
import { FIRST_LOOK_ITEMS } from "@/core/know";
import { criterionOf, earnsReinforcer, methodOf, planByWay, scheduleOf } from "@/core/ladder";
import { handlerOfBegun } from "@/core/pack";
import {
  type Block,
  type BlockTries,
  evidenceOfSession,
  handlerKey,
  handlerNow,
  type SessionRecord,
  valuesOf,
  whereNow,
} from "@/core/record";
import type { Fact } from "@/core/schemas";
import { trialsOfPair } from "@/core/word";
import { TOUCH_BLOCK } from "../touch/touch-facts";
import type { BlockChoice, RecorderStart } from "./types";

/** Whose evidence the asks of now are, by id or else by name; null where nobody is named. */
export const handlerInHand = ({ begun }: Pick<RecorderStart, "begun">, record: SessionRecord): string | null => {
  const taken = handlerNow(record);
  return taken === null ? handlerOfBegun(begun) : handlerKey(taken);
};

/** The number of a block's rung, or of its item in the battery. */
export function rungNumber(start: RecorderStart, block: Block): number {
  return start.battery ? FIRST_LOOK_ITEMS.findIndex(({ key }) => key === block.rung) + 1 : Number(block.rung);
}

/** A block of touching stands beside the plan, whatever the plan is. */
const isTouching = (block: Block) => block.ladder === null && block.behaviour === TOUCH_BLOCK.behaviour;

/** The block the plan is on: the last one of a ladder, of the battery or named on the spot, touching in between aside. */
export function planBlock(start: Pick<RecorderStart, "battery">, record: SessionRecord): Block | null {
  return record.blocks.findLast((block) => start.battery || !isTouching(block)) ?? null;
}

/** Whether the block that runs stands beside the plan: touching in a session of work. */
export function isAside(start: RecorderStart, record: SessionRecord): boolean {
  const block = record.blocks.at(-1);
  return !start.battery && block !== undefined && block.endMs === null && isTouching(block) && record.finishMs === null;
}

/** Whether touching is what the ladder itself is about, so that its trials are the ladder's own. */
const aboutTouch = (start: RecorderStart) => start.plan.strands.some(({ key }) => key === "touch-zone" || key === "tool");

/** What ends the running block and a break, and the number of the next block. */
function closing(record: SessionRecord): { facts: Fact[]; next: number } {
  const facts: Fact[] = [];
  const running = record.blocks.at(-1);
  if (record.timeLine.breaks.at(-1)?.endMs === null) facts.push({ type: "break.end" });
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

/** The horse's values on a rung from before this block, oldest first, for a bar that follows them. */
function earlierValues(start: RecorderStart, record: SessionRecord, rung: number): number[] {
  if (start.plan.rungs[rung - 1]?.percentile === undefined) return [];
  const handler = handlerInHand(start, record);
  const before = [...start.earlier, ...evidenceOfSession(start.sessionId, record, handlerOfBegun(start.begun))];
  return valuesOf(
    trialsOfPair(before, handler, start.wordSettings).filter(
      (trial) => trial.rung === rung && trial.version === start.version && trial.ladder === start.ladderId,
    ),
  );
}

/** The facts that open a block, closing the one that runs. */
export function blockFacts(now: RecorderStart, record: SessionRecord, choice: BlockChoice): Fact[] {
  const start = choice.part === undefined ? now : { ...now, ...choice.part };
  const { facts, next } = closing(record);
  facts.push({
    type: "block.start",
    payload: {
      block: next,
      behaviour: start.behaviour,
      ...(start.ladderId === null || start.version === null ? {} : { ladder: start.ladderId, version: start.version }),
      rung: start.battery ? (FIRST_LOOK_ITEMS[choice.rung - 1]?.key ?? String(choice.rung)) : choice.rung,
      criterion: {
        ...criterionOf(choice.tries === undefined ? start.plan : planByWay(start.plan, choice.tries), choice.rung, {
          seed: seedFromText(`${start.sessionId}:${next}`),
          earlierValues: earlierValues(start, record, choice.rung),
        }),
      },
      side: choice.side ?? "",
      kind: choice.kind,
      planned: choice.tries?.asks ?? start.plan.plannedRepetitions,
      ...(choice.tries === undefined ? {} : { tries: triesOf(choice.tries) }),
    },
  });
  const zone = choice.tries?.zone;
  // The way says where it is asked: the log has the horse there from here on.
  if (zone !== undefined && whereNow(record).zone !== zone) facts.push({ type: "zone", payload: { zone } });
  return facts;
}

/** What the log keeps of the experiment: which block as which way, and what the way changes. */
const triesOf = ({ asks: _asks, ...tries }: NonNullable<BlockChoice["tries"]>): BlockTries => tries;

/** What the horse gets on a rung besides the release and the mark: pieces of food, or what stands in their place. */
export function usesFood(start: RecorderStart, rung: number): boolean {
  return methodOf(start.plan, rung) !== "pressure-release" && start.plan.feeding.reinforcer === "food";
}

/**
 * What a whole trial earned, by the method and the schedule of the rung. Known facts only; the core fills in nothing it was not told.
 * @param block the running block, whose criterion holds the list of a variable schedule.
 */
export function tallyReinforcement(start: RecorderStart, block: Block | null, metBefore: number, outcome: string): Record<string, number> {
  const rung = block === null ? 1 : rungNumber(start, block);
  const method = methodOf(start.plan, Math.min(rung, start.plan.rungs.length));
  const released = method === "marker-food" ? 0 : 1;
  if (outcome === "try") return { released };
  if (outcome !== "met") return { released: 0, reinforced: 0 };
  const earns = earnsReinforcer(block?.criterion?.schedule ?? scheduleOf(start.plan, rung), metBefore + 1);
  const food = usesFood(start, rung) && earns && start.allowance.noFood === null ? 1 : 0;
  return { reinforced: earns ? 1 : 0, released, marked: method !== "pressure-release" && earns ? 1 : 0, reinforcers: food };
}
