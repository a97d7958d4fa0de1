import { cuePhaseDocument } from "../../cues/document";
import type { CuePhase } from "../../cues/phase";
import { masteryRuleDocument } from "../../mastery/document";
import { type Strand, type StrandValue, startValue, strandFromCatalogue } from "../../strands";
import { strandDocument } from "../../strands/document";
import { isRecord } from "../../typed";
import type { LadderPlan, Rung } from "../ladder";
import { planProblems, rungValueProblem } from "../plan-problems";
import { ladderPlanDocument, rungDocument } from "./plan";
import { PLAN_FORMAT, planText, readPlanText } from "./read";

/** A plan made of what could be read, and what could not, in words. */
export interface MendedPlan {
  readonly plan: LadderPlan;
  readonly lost: readonly string[];
}

/** Days on which a rule of risky work is to hold, where nobody knows the rule any more. */
const CAREFUL_DAYS = 3;

/** What each part of a plan is called. */
const PART_WORDS: Readonly<Record<keyof LadderPlan, string>> = {
  method: "the method",
  strands: "its strands",
  rungs: "its rungs",
  phases: "the phases of the cue",
  maximumSeconds: "the longest ask",
  holdOnWrong: "whether a wrong answer is held",
  firstTouchCentimetres: "from where the first touch comes",
  transfer: "the old cue",
  mastery: "when it moves on",
  schedule: "what earns the reinforcer",
  feeding: "food",
  offers: "what an offer earns",
  workingStrandId: "the counted strand",
  plannedRepetitions: "the repetitions",
  ways: "what was chosen where trainers differ",
  conversation: "what is logged between the asks",
};

/** Where nothing can be read: another plan, by a rule as careful as the lost one may have been. */
const nothingRead = (otherwise: LadderPlan): MendedPlan => ({
  plan: { ...otherwise, mastery: { ...otherwise.mastery, days: CAREFUL_DAYS } },
  lost: ["all of it"],
});

/** A strand with levels needs two of them at least, each once. */
function strandOf(one: unknown): Strand | null {
  const { data } = strandDocument.safeParse(one);
  return data !== undefined && (data.kind === "number" || (data.levels.length > 1 && new Set(data.levels).size === data.levels.length))
    ? data
    : null;
}

/** A strand of calm that cannot be read stands as the catalogue has it: what asked for calm goes on asking for it. */
function calmOf(one: unknown, name: string, lost: string[]): Strand | null {
  if (!isRecord(one) || one.key !== "ease") return null;
  lost.push(name);
  return strandOf(strandFromCatalogue("ease", typeof one.id === "string" ? one.id : "ease"));
}

/** A pulse needs its beats. */
function phaseOf(one: unknown): CuePhase | null {
  const { data } = cuePhaseDocument.safeParse(one);
  return data !== undefined && (data.profile !== "pulse" || data.pulsesPerMinute !== null) ? data : null;
}

/** Those of a list that can be read; the others are named by their place. */
function readable<T>(list: unknown, read: (one: unknown, name: string) => T | null, name: string, lost: string[]): T[] {
  if (!Array.isArray(list)) return [];
  return list.flatMap((one: unknown, i) => {
    const found = read(one, `${name} ${i + 1}`);
    if (found === null) lost.push(`${name} ${i + 1}`);
    return found === null ? [] : [found];
  });
}

/** A value for a rung that has none of its own: of an easier rung, of a harder one, or the easiest. Of calm never less than soft. */
function valueFor(strand: Strand, rungs: readonly Rung[], at: number, phases: number): StrandValue {
  const good = (rung: Rung | undefined) => {
    const value = rung?.values[strand.id];
    return value !== undefined && rungValueProblem(strand, value, phases) === null ? value : null;
  };
  const easier = rungs.slice(0, at).reverse().map(good);
  const harder = rungs.slice(at + 1).map(good);
  const calm = strand.key === "ease" ? (strand.levels[3] ?? strand.levels.at(-1)) : undefined;
  const start = startValue(strand);
  const within = strand.key === "lightness" && typeof start === "number" ? Math.min(start, phases) : start;
  return calm ?? [...easier, ...harder].find((value) => value !== null) ?? within;
}

/**
 * Makes a plan that can be worked out of one that cannot be read. What can be
 * read stays; the rest comes from `otherwise`, is left out, or is taken from
 * the rung below, and is named. It is a proposal: somebody has to look at it
 * before it is kept.
 * @param otherwise what stands where nothing can be read.
 * @example mendPlan("{", emptyPlan).lost // ["all of it"]
 */
export function mendPlan(text: string, otherwise: LadderPlan): MendedPlan {
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch {
    found = null;
  }
  if (!isRecord(found)) return nothingRead(otherwise);
  const lost: string[] = [];
  const shape = ladderPlanDocument.unwrap().shape;
  const part = <Key extends keyof LadderPlan>(key: Key): LadderPlan[Key] => {
    const read = shape[key].safeParse(found[key]);
    if (read.success) return read.data as LadderPlan[Key];
    lost.push(PART_WORDS[key]);
    return otherwise[key];
  };

  const strands = readable(found.strands, (one, name) => strandOf(one) ?? calmOf(one, name, lost), "strand", lost);
  const whole = shape.strands.safeParse(strands).success && new Set(strands.map(({ id }) => id)).size === strands.length;
  if (!whole) lost.push(PART_WORDS.strands);
  const phases = readable(found.phases, phaseOf, "phase", lost);
  const cue = shape.phases.safeParse(phases).success ? phases : otherwise.phases;
  if (cue !== phases) lost.push(PART_WORDS.phases);

  // A rung that cannot be read keeps its place, so that those above keep their number.
  const rungs = (Array.isArray(found.rungs) ? found.rungs.slice(0, 40) : []).map((one: unknown): Rung => {
    const read = rungDocument.safeParse(one);
    if (read.success) return read.data;
    const values = isRecord(one) && isRecord(one.values) ? one.values : {};
    return {
      values: Object.fromEntries(
        Object.entries(values).filter(([, value]) => typeof value === "number" || typeof value === "string"),
      ) as Rung["values"],
    };
  });
  const used = whole && rungs.length >= 2 ? { strands, rungs } : { strands: otherwise.strands, rungs: otherwise.rungs };
  if (used.rungs !== rungs) lost.push(PART_WORDS.rungs);
  const filled: Rung[] = [];
  for (const [i, rung] of used.rungs.entries()) {
    const raw: unknown = Array.isArray(found.rungs) ? found.rungs[i] : undefined;
    const values = used.strands.map((strand) => {
      const own = rung.values[strand.id];
      const good = own !== undefined && rungValueProblem(strand, own, cue.length) === null;
      return { id: strand.id, good, value: good ? own : valueFor(strand, [...filled, ...used.rungs.slice(i)], i, cue.length) };
    });
    if (used.rungs === rungs && (!rungDocument.safeParse(raw).success || values.some(({ good }) => !good))) lost.push(`rung ${i + 1}`);
    filled.push({ ...rung, values: Object.fromEntries(values.map(({ id, value }) => [id, value])) });
  }

  const working = part("workingStrandId");
  const counts = working === null || used.strands.some(({ id, kind }) => id === working && kind === "number");
  if (!counts) lost.push(PART_WORDS.workingStrandId);
  const workingStrandId = counts ? working : null;
  const transfer = part("transfer");
  if (transfer !== null && cue.length < 2) lost.push(PART_WORDS.transfer);
  const plan: LadderPlan = {
    method: part("method"),
    strands: used.strands,
    rungs: workingStrandId === null ? filled.map(({ percentile: _, ...rung }) => rung) : filled,
    phases: cue,
    maximumSeconds: part("maximumSeconds"),
    holdOnWrong: part("holdOnWrong"),
    firstTouchCentimetres: part("firstTouchCentimetres"),
    transfer: cue.length < 2 ? null : transfer,
    // What wanted different days may have been a rule of risky work: until somebody says, it wants three calm ones.
    mastery: masteryRuleDocument.safeParse(found.mastery).success ? part("mastery") : { ...part("mastery"), days: CAREFUL_DAYS },
    schedule: part("schedule"),
    feeding: part("feeding"),
    offers: part("offers"),
    workingStrandId,
    plannedRepetitions: part("plannedRepetitions"),
    ways: part("ways"),
    ...(found.conversation === undefined ? {} : { conversation: part("conversation") }),
  };
  const works = planProblems(plan).length === 0 && "plan" in readPlanText(PLAN_FORMAT, planText(plan));
  return works ? { plan, lost: [...new Set(lost)] } : nothingRead(otherwise);
}
