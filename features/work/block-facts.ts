import { trialsOfPair } from "@/core/advice";
import { seedFromText } from "@/core/chance";
import { FIRST_LOOK_ITEMS } from "@/core/know";
import { criterionOf, earnsReinforcer, methodOf, planByWay, scheduleOf } from "@/core/ladder";
import { handlerOfBegun } from "@/core/pack";
import {
  type Block,
  type BlockTries,
  evidenceOfSession,
  handlerInHand,
  onBreak,
  type SessionRecord,
  valuesOf,
  whereNow,
} from "@/core/record";
import type { Fact } from "@/core/schemas";
import { TOUCH_BLOCK } from "../touch/touch-facts";
import type { AtWork, BlockChoice } from "./types";

/** The number of a block's rung, or of its item in the battery. */
export function rungNumber(start: AtWork, block: Block): number {
  return start.session.battery ? FIRST_LOOK_ITEMS.findIndex(({ key }) => key === block.rung) + 1 : Number(block.rung);
}

/** A block of touching stands beside the plan, whatever the plan is. */
const isTouching = (block: Block) => block.ladder === null && block.behaviour === TOUCH_BLOCK.behaviour;

/** The block the plan is on: the last one of a ladder, of the battery or named on the spot, touching in between aside. */
export function planBlock(start: Pick<AtWork, "session">, record: SessionRecord): Block | null {
  return record.blocks.findLast((block) => start.session.battery || !isTouching(block)) ?? null;
}

/** Whether the block that runs stands beside the plan: touching in a session of work. */
export function isAside(start: AtWork, record: SessionRecord): boolean {
  const block = record.blocks.at(-1);
  return !start.session.battery && block !== undefined && block.endMs === null && isTouching(block) && record.finishMs === null;
}

/** Whether touching is what the ladder itself is about, so that its trials are the ladder's own. */
const aboutTouch = (start: AtWork) => start.part.plan.strands.some(({ key }) => key === "touch-zone" || key === "tool");

/** What ends the running block and a break, and the number of the next block. */
function closing(record: SessionRecord): { facts: Fact[]; next: number } {
  const facts: Fact[] = [];
  const running = record.blocks.at(-1);
  if (onBreak(record)) facts.push({ type: "break.end" });
  if (running !== undefined && running.endMs === null) facts.push({ type: "block.end" });
  return { facts, next: record.blocks.reduce((most, b) => Math.max(most, b.number), 0) + 1 };
}

/** The facts that open a block of touching beside the plan; none where one runs, or where the ladder is about touch. */
export function asideFacts(start: AtWork, record: SessionRecord): Fact[] {
  if (isAside(start, record) || aboutTouch(start)) return [];
  const { facts, next } = closing(record);
  const { behaviour, rung, sentence } = TOUCH_BLOCK;
  return [...facts, { type: "block.start", payload: { block: next, behaviour, rung, criterion: { sentence }, side: "", kind: "probe" } }];
}

/** The horse's values on a rung from before this block, oldest first, for a bar that follows them. */
function earlierValues(start: AtWork, record: SessionRecord, rung: number): number[] {
  if (start.part.plan.rungs[rung - 1]?.percentile === undefined) return [];
  const begunFor = handlerOfBegun(start.session.begun);
  const before = [...start.part.earlier, ...evidenceOfSession(start.session.id, record, begunFor)];
  return valuesOf(
    trialsOfPair(before, handlerInHand(record, begunFor), start.yard.settings).filter(
      (trial) => trial.rung === rung && trial.version === start.part.version && trial.ladder === start.part.ladderId,
    ),
  );
}

/** The facts that open a block, closing the one that runs. */
export function blockFacts(now: AtWork, record: SessionRecord, choice: BlockChoice): Fact[] {
  const start = choice.part === undefined ? now : { ...now, part: choice.part };
  const { facts, next } = closing(record);
  facts.push({
    type: "block.start",
    payload: {
      block: next,
      behaviour: start.part.behaviour,
      ...(start.part.ladderId === null || start.part.version === null ? {} : { ladder: start.part.ladderId, version: start.part.version }),
      rung: start.session.battery ? (FIRST_LOOK_ITEMS[choice.rung - 1]?.key ?? String(choice.rung)) : choice.rung,
      criterion: {
        ...criterionOf(choice.tries === undefined ? start.part.plan : planByWay(start.part.plan, choice.tries), choice.rung, {
          seed: seedFromText(`${start.session.id}:${next}`),
          earlierValues: earlierValues(start, record, choice.rung),
        }),
      },
      side: choice.side ?? "",
      kind: choice.kind,
      planned: choice.tries?.asks ?? start.part.plan.plannedRepetitions,
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
export function usesFood(start: AtWork, rung: number): boolean {
  return methodOf(start.part.plan, rung) !== "pressure-release" && start.part.plan.feeding.reinforcer === "food";
}

/**
 * What a whole trial earned, by the method and the schedule of the rung. Known facts only; the core fills in nothing it was not told.
 * @param block the running block, whose criterion holds the list of a variable schedule.
 */
export function tallyReinforcement(start: AtWork, block: Block | null, metBefore: number, outcome: string): Record<string, number> {
  const rung = block === null ? 1 : rungNumber(start, block);
  const method = methodOf(start.part.plan, Math.min(rung, start.part.plan.rungs.length));
  const released = method === "marker-food" ? 0 : 1;
  if (outcome === "try") return { released };
  if (outcome !== "met") return { released: 0, reinforced: 0 };
  const earns = earnsReinforcer(block?.criterion?.schedule ?? scheduleOf(start.part.plan, rung), metBefore + 1);
  const food = usesFood(start, rung) && earns && start.today.allowance.noFood === null ? 1 : 0;
  return { reinforced: earns ? 1 : 0, released, marked: method !== "pressure-release" && earns ? 1 : 0, reinforcers: food };
}
