import type { PackTry } from "../experiment/due";
import type { Touch } from "../know";
import { type PinnedSign, wayCautions } from "../ladder";
import { type BegunSession, type HorsePack, handlerOfBegun, type PackChain, type YardFacts } from "../pack";
import { circleState, doNextOf, kitUseOf, leftOfCircling, type Today, todayOf, touchesBefore, usedUp } from "../today";
import { type Cap, kitCautions } from "../welfare";
import { batteryPart, freePart } from "./no-ladder";
import { type LadderPart, ladderPart } from "./part";
import { type SessionSoFar, type ShellStart, type ShellToday, shellStart } from "./shell";

/** What is true of the horse today, as a recorder of work needs it. */
export interface RecorderToday extends ShellToday {
  /** What is used up of the week and the day. */
  readonly used: readonly string[];
  /** What the last session said to do next, or null. */
  readonly doNext: { readonly text: string; readonly dayMs: number } | null;
  /** The side known to be behind over the last weeks, or null. */
  readonly weakerSide: "L" | "R" | null;
  /** Circling minutes that may still be worked, whatever circles; null where nothing caps them. */
  readonly circlingLeft: Cap<number> | null;
  /** Signs the horse is watched for. */
  readonly pinned: readonly PinnedSign[];
  /** What the body map holds of earlier sessions. */
  readonly touches: readonly Touch[];
  readonly chains: readonly PackChain[];
  readonly tries: readonly PackTry[];
  /** Whether a device could not read the horse: its ladders are not missing, they are not seen. */
  readonly unread: boolean;
}

/** Everything the recorder begins with. */
export interface RecorderStart extends ShellStart {
  readonly today: RecorderToday;
  /** Every ladder of the horse; the first is the one the session begins on. */
  readonly parts: readonly LadderPart[];
  /** What the session begins on: a ladder, the first look's battery, or nothing yet. */
  readonly first: LadderPart;
}

/**
 * What the recorder of a session of work or of a first look begins with: the
 * same on the server and on a device that has only the pack.
 * @param nowMs server wall clock.
 * @example recorderStart(pack, yard, nowMs, begun, { storeId, events: [], clocks: {}, position: 0 }).first.next.headline
 */
export function recorderStart(pack: HorsePack, yard: YardFacts, nowMs: number, begun: BegunSession, soFar: SessionSoFar): RecorderStart {
  const today = todayOf(pack, yard, nowMs, handlerOfBegun(begun));
  const shell = shellStart(pack, yard, today, begun, soFar);
  const taken = new Set(begun.kit);
  const kit = yard.kit.filter(({ id }) => taken.has(id));
  const state = circleState(pack, yard, nowMs, begun.id);
  const circlingLeft = leftOfCircling(begun, state);
  const partOf = ({ ladder, next }: Today["states"][number]): LadderPart =>
    ladderPart({
      ladder,
      behaviourInput: ladder.behaviour,
      plan: ladder.plan,
      next,
      earlier: ladder.trials.filter(({ session }) => session !== begun.id),
      carried: ladder.carried,
      circlingLeft,
      planCautions: [
        ...kitCautions(kit, kitUseOf(ladder, next.rung, today.leaves, today.allowance)),
        ...ladder.cautions,
        ...wayCautions(ladder.plan, ladder.behaviour.free),
      ],
    });
  const { battery } = shell.session;
  const parts = battery
    ? []
    : today.states.map(partOf).sort((a, b) => Number(b.ladderId === begun.ladder) - Number(a.ladderId === begun.ladder));
  const first = battery ? batteryPart() : begun.ladder === null ? freePart() : (parts[0] ?? freePart());
  return {
    ...shell,
    today: {
      ...shell.today,
      used: usedUp(pack, yard, today, state, first.plan.feeding.dayLimitGrams, begun.id),
      doNext: doNextOf(pack, begun.id, begun.ladder),
      weakerSide: today.sides.weaker,
      circlingLeft,
      pinned: pack.horse.pinned ?? [],
      touches: touchesBefore(pack, begun.id),
      chains: pack.chains,
      tries: pack.tries,
      unread: pack.unread !== undefined,
    },
    parts,
    first,
  };
}
