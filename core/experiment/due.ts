import type { BlockTries, SessionRecord } from "../record";
import type { Arm } from "./orders";
import type { TryBoth } from "./try-both";

/** An experiment that is not ended, as a device keeps it. */
export interface PackTry
  extends Pick<TryBoth, "id" | "ladder" | "version" | "rung" | "question" | "a" | "b" | "ways" | "arms" | "asksEach"> {
  /** Numbers of its blocks that other sessions hold. */
  readonly done: readonly number[];
}

/** The block that is due of an experiment. */
export interface DueTry {
  readonly of: PackTry;
  readonly tries: BlockTries;
  /** What it is to be worked as, in words. */
  readonly way: string;
}

/** The words of an arm. @example wayOfArm({ … }, "A") // "food" */
export const wayOfArm = ({ a, b }: Pick<PackTry, "a" | "b">, arm: Arm): string => (arm === "A" ? a : b);

/**
 * Which block of an experiment is due, what this session holds counted in: a
 * block that runs or was asked in. Null where all were worked.
 * @example dueTry(experiment, record)?.way // "a scratch"
 */
export function dueTry(experiment: PackTry, { blocks, trials }: Pick<SessionRecord, "blocks" | "trials">): DueTry | null {
  const asked = new Set(trials.map(({ blockIndex }) => blockIndex));
  const here = blocks.flatMap(({ tries, endMs }, i) => (tries?.id === experiment.id && (endMs === null || asked.has(i)) ? [tries.n] : []));
  const done = new Set([...experiment.done, ...here]);
  const at = experiment.arms.findIndex((_, i) => !done.has(i + 1));
  const arm = experiment.arms[at];
  if (arm === undefined) return null;
  const way = wayOfArm(experiment, arm);
  // A device may have kept one from before the ways were told apart.
  return { of: experiment, tries: { id: experiment.id, arm, n: at + 1, way, ...experiment.ways?.[arm] }, way };
}

/** What is said of an experiment where work on its ladder is begun. @example tryingWords(due) // "Two ways are tried on rung 3: food or a scratch. Next is block 2 of 10: a scratch." */
export const tryingWords = ({ of, tries, way }: DueTry): string =>
  `Two ways are tried on rung ${of.rung}: ${of.a} or ${of.b}. Next is block ${tries.n} of ${of.arms.length}: ${way}.`;
