import { describe, expect, it } from "vitest";
import {
  type BehaviourTemplate,
  findCycle,
  methodsOf,
  planFromTemplate,
  prerequisiteWords,
  rungReaching,
  startAndGoal,
} from "@/core/behaviour";
import { cueClashes, MOST_CUE_PHASES } from "@/core/cues";
import { criterionOf } from "@/core/ladder";
import { behaviourSchema, check, checkLadderPlan, EMPTY_BEHAVIOUR } from "@/core/schemas";
import { difficulty, stepFaults } from "@/core/strands";
import { LIBRARY, templateOf } from "./index";

const method = (template: BehaviourTemplate) => {
  const first = methodsOf(template)[0];
  if (first === undefined) throw new Error(`${template.key} has no method`);
  return first;
};
const sentences = (template: BehaviourTemplate) => {
  const plan = planFromTemplate(template, method(template));
  return plan.rungs.map((_, i) => criterionOf(plan, i + 1).sentence);
};
/** Amounts of time or repeats, in digits or words: what trainers call rules of thumb. */
const AMOUNT =
  /\d|\b(two|three|four|five|six|seven|eight|nine|ten|twelve|fifteen|twenty|thirty)\s+(seconds|minutes|hours|days|weeks|months|times|sessions|repetitions|rounds|metres)\b/i;

describe("the library", () => {
  it("holds at least 28 behaviours of every family, each key and name once", () => {
    expect(LIBRARY).toHaveLength(47);
    for (const family of ["in hand", "circle", "free", "driving path"])
      expect(LIBRARY.filter((one) => one.family === family).length).toBeGreaterThan(3);
    expect(new Set(LIBRARY.map(({ key }) => key)).size).toBe(LIBRARY.length);
    expect(new Set(LIBRARY.map(({ name }) => name)).size).toBe(LIBRARY.length);
    expect(templateOf("lower-head")?.name).toBe("Lowers the head to a feel");
    expect(templateOf("nothing")).toBeUndefined();
  });

  it("rests on behaviours that are there, without a cycle, on values their ladders reach", () => {
    expect(findCycle(LIBRARY.map(({ key, prerequisites }) => ({ key, needs: prerequisites.map((need) => need.behaviour) })))).toBeNull();
    for (const { key, prerequisites } of LIBRARY)
      for (const need of prerequisites) {
        const other = templateOf(need.behaviour);
        if (other === undefined) throw new Error(`${key} rests on ${need.behaviour}, which is not there`);
        const { rung, unknown } = rungReaching(planFromTemplate(other, method(other)), need);
        expect({ key, need: need.behaviour, words: prerequisiteWords(need), unknown, reached: rung !== null }).toMatchObject({
          unknown: [],
          reached: true,
        });
        expect(need.maxPhase ?? 1).toBeLessThanOrEqual((other.askByFeel ?? other.askForFood ?? []).length);
      }
  });

  it("shares no more than one rung sentence and no more than one fault between any two", () => {
    const said = LIBRARY.map((one) => ({
      key: one.key,
      rungs: new Set(sentences(one)),
      faults: new Set(one.faults.map(({ sign }) => sign.toLowerCase())),
    }));
    const common = <T>(a: Set<T>, b: Set<T>) => [...a].filter((one) => b.has(one));
    const shared = said.flatMap((a, i) =>
      said.slice(i + 1).flatMap((b) => {
        const rungs = common(a.rungs, b.rungs);
        const faults = common(a.faults, b.faults);
        return rungs.length > 1 || faults.length > 1 ? [`${a.key} and ${b.key}: ${[...rungs, ...faults].join(" | ")}`] : [];
      }),
    );
    expect(shared).toEqual([]);
  });

  it("clashes in no finished cue with another of its own", () => {
    const cues = LIBRARY.map((one) => ({ behaviour: one.name, cue: one.cue, movement: one.movement, phases: [] }));
    expect(cues.flatMap((cue, i) => cueClashes(cue, cues.slice(i + 1)).map(({ sentence }) => sentence))).toEqual([]);
  });
});

describe.each(LIBRARY.map((template) => [template.key, template] as const))("%s", (_, template) => {
  it("passes the ladder's own rules and schemas by every method it is taught by", () => {
    expect(template.rungs.length).toBeGreaterThanOrEqual(5);
    expect(template.rungs.length).toBeLessThanOrEqual(12);
    expect(methodsOf(template).length).toBeGreaterThan(0);
    expect(stepFaults(template.strands, template.rungs).map(({ sentence }) => sentence)).toEqual([]);
    for (const one of methodsOf(template)) {
      const { strands, rungs } = planFromTemplate(template, one);
      expect(
        stepFaults(
          strands,
          rungs.map(({ values }) => values),
        ),
      ).toEqual([]);
      expect(rungs.length).toBeGreaterThanOrEqual(5);
      const checked = checkLadderPlan(planFromTemplate(template, one));
      expect(checked.ok ? [] : checked.problems).toEqual([]);
    }
    const { name, finished, cue, why, involves, movement, free, prerequisites } = template;
    const behaviour = check(behaviourSchema, {
      ...EMPTY_BEHAVIOUR,
      name,
      finished,
      cue,
      why,
      involves,
      movement,
      free,
      prerequisites,
      template: template.key,
    });
    expect(behaviour.ok ? [] : behaviour.problems).toEqual([]);
  });

  it("climbs: no rung twice, and every strand ends at its goal no easier than its start", () => {
    const all = sentences(template);
    expect(new Set(all).size).toBe(all.length);
    const goals = startAndGoal(template);
    expect(goals.some(({ strand, start, goal }) => difficulty(strand, goal) > difficulty(strand, start))).toBe(true);
    for (const { strand, start, goal } of goals) expect(difficulty(strand, goal)).toBeGreaterThanOrEqual(difficulty(strand, start));
  });

  it("says why, what it looks like, what to use, what to watch and what goes wrong, by a sign and what to change", () => {
    for (const text of [template.why, template.finished, template.cue]) expect(text.length).toBeGreaterThan(6);
    for (const list of [template.kit, template.cautions, template.watch, template.rulesOfThumb]) expect(list.length).toBeGreaterThan(0);
    expect(template.faults.length).toBeGreaterThanOrEqual(2);
    const phases = Math.max(template.askByFeel?.length ?? 0, template.askForFood?.length ?? 0);
    expect(phases).toBeLessThanOrEqual(MOST_CUE_PHASES);
    for (const { sign, change, then } of template.faults) {
      expect(sign.length).toBeGreaterThan(12);
      expect(then.length).toBeGreaterThan(12);
      if ("strand" in change) expect(template.strands.map(({ id }) => id)).toContain(change.strand);
      else expect(change.phase).toBeLessThanOrEqual(phases);
    }
  });

  it("marks every rule of thumb as common practice and keeps amounts out of all else", () => {
    expect(template.rulesOfThumb.every(({ basis }) => basis === "common practice")).toBe(true);
    const other = [...template.faults.flatMap(({ sign, then }) => [sign, then]), ...template.cautions, ...template.watch];
    expect(other.filter((text) => AMOUNT.test(text))).toEqual([]);
    for (const text of [...other, template.why, template.finished]) expect(text).not.toMatch(/!/);
  });
});
