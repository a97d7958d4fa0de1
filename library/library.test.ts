import { describe, expect, it } from "vitest";
import {
  type BehaviourTemplate,
  findCycle,
  methodsOf,
  planFromTemplate,
  prerequisiteWords,
  rungReaching,
  startAndGoal,
  taughtBy,
} from "@/core/behaviour";
import { KICK_AT_ROPE } from "@/core/coach";
import { cueClashes, MOST_CUE_PHASES } from "@/core/cues";
import { FIRST_LOOK_ITEMS, TOUCH_BEHAVIOUR, TOUCH_TOOLS, TOUCH_ZONES } from "@/core/know";
import { criterionOf } from "@/core/ladder";
import { behaviourSchema, check, checkLadderPlan, EMPTY_BEHAVIOUR } from "@/core/schemas";
import { difficulty, EASE_GRADES, stepFaults } from "@/core/strands";
import { allowanceOn, barredRung } from "@/core/welfare";
import { LIBRARY, templateOf } from "./index";

/** A template by each of its ways; one without ways by itself. */
const byEachWay = (template: BehaviourTemplate): { name: string; template: BehaviourTemplate }[] =>
  template.ways.length === 0
    ? [{ name: template.key, template }]
    : template.ways.map(({ key }) => ({ name: `${template.key} by ${key}`, template: taughtBy(template, key) }));

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
    expect(LIBRARY).toHaveLength(67);
    for (const family of ["in hand", "circle", "free", "driving path"])
      expect(LIBRARY.filter((one) => one.family === family).length).toBeGreaterThan(3);
    expect(new Set(LIBRARY.map(({ key }) => key)).size).toBe(LIBRARY.length);
    expect(new Set(LIBRARY.map(({ name }) => name)).size).toBe(LIBRARY.length);
    expect(templateOf("lower-head")?.name).toBe("Lowers the head to a feel");
    expect(templateOf("nothing")).toBeUndefined();
  });

  it("says every rung in English: no list behind a colon, no word twice, nobody the handler and you at once, no longer than one glance", () => {
    const faultsOf = (criterion: string) =>
      criterion.split(/(?<=[.”]) (?=Use )/).flatMap((sentence) => [
        ...(/\b(\p{L}+) \1\b/iu.test(sentence) ? ["a word twice"] : []),
        ...(/\bhandler\b/.test(sentence) ? ["the handler is you"] : []),
        ...(/[:;()]/.test(sentence) ? ["a list or a note"] : []),
        ...(sentence.length > 110 ? [`${sentence.length} characters`] : []),
        ...(/^\P{Lu}/u.test(sentence) || /[,.]{2}| ,| {2}/.test(sentence) ? ["its stops and capitals"] : []),
        // A number counts something or has a unit.
        ...(/\b\d[\d.]*\b(?! (s|min|m|kg)\b| [a-z ]*steps?\b)/.test(sentence) ? ["a number of nothing"] : []),
        ...(sentence.split(/[,.] ?/).some((piece) => piece.split(" and ").length > 2) ? ["and, and"] : []),
      ]);
    const found = LIBRARY.flatMap(byEachWay).flatMap(({ name, template }) =>
      sentences(template).flatMap((criterion) => faultsOf(criterion).map((fault) => `${name}, ${fault}: ${criterion}`)),
    );
    expect(found).toEqual([]);
  });

  it("says something else of each rung of a way than of any other, so that no fact of a rung is lost in its sentence", () => {
    const same = LIBRARY.flatMap(byEachWay).flatMap(({ name, template }) => {
      const all = sentences(template);
      return all.flatMap((sentence, i) => (all.indexOf(sentence) < i ? [`${name} ${i + 1}: ${sentence}`] : []));
    });
    expect(same).toEqual([]);
  });

  it("rests on behaviours that are there, without a cycle, on values their ladders reach", () => {
    expect(findCycle(LIBRARY.map(({ key, prerequisites }) => ({ key, needs: prerequisites.map((need) => need.behaviour) })))).toBeNull();
    for (const { key, prerequisites } of LIBRARY)
      for (const need of prerequisites) {
        if (need.behaviour === TOUCH_BEHAVIOUR) continue;
        const other = templateOf(need.behaviour);
        if (other === undefined) throw new Error(`${key} rests on ${need.behaviour}, which is not there`);
        const { rung, unknown } = rungReaching(planFromTemplate(other, method(other)), need);
        expect({ key, need: need.behaviour, words: prerequisiteWords(need), unknown, reached: rung !== null }).toMatchObject({
          unknown: [],
          reached: true,
        });
      }
  });

  it("rests on nothing that means nothing: not on a first rung, not on the very last, not on any phase", () => {
    const empty: string[] = [];
    for (const template of LIBRARY)
      for (const { name, template: taught } of byEachWay(template))
        for (const need of taught.prerequisites) {
          const other = templateOf(need.behaviour);
          if (other === undefined) continue;
          for (const by of methodsOf(other)) {
            const plan = planFromTemplate(other, by);
            const { rung } = rungReaching(plan, need);
            const where = `${name} rests on ${need.behaviour} (${prerequisiteWords(need)}) by ${by}`;
            if (rung === null) empty.push(`${where}: no rung reaches it`);
            else if (rung === 1) empty.push(`${where}: the first rung meets it`);
            else if (rung === plan.rungs.length) empty.push(`${where}: only the top rung meets it`);
            if (need.maxPhase !== undefined && need.maxPhase >= plan.phases.length && by === methodsOf(other)[0])
              empty.push(`${where}: every phase is that light`);
          }
        }
    expect(empty).toEqual([]);
  });

  it("rests on touches the body map can hold, and on looks that have that item and test no more than a rung below the top", () => {
    for (const { key, prerequisites, tested, strands, ...template } of LIBRARY) {
      for (const { behaviour, values } of prerequisites)
        if (behaviour === TOUCH_BEHAVIOUR) {
          expect(TOUCH_ZONES as readonly unknown[], key).toContain(values.zone);
          expect(TOUCH_TOOLS as readonly unknown[], key).toContain(values.tool);
          expect(EASE_GRADES as readonly unknown[], key).toContain(values.taken);
        }
      if (tested === null) continue;
      expect(FIRST_LOOK_ITEMS.map((item) => item.key)).toContain(tested.item);
      const whole = { key, prerequisites, tested, strands, ...template };
      const { rung, unknown } = rungReaching(planFromTemplate(whole, method(whole)), { behaviour: key, values: tested.values });
      expect({ key, unknown, reached: rung !== null && rung < template.rungs.length }).toEqual({ key, unknown: [], reached: true });
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

/** Words of what touches, from the farthest from the hand to the hand itself. */
const TOOL_WORDS = [/\bstick\b/, /\brope\b/, /\bbrush\b/, /\bhand\b/];
/** Where a side means nothing, and why. */
const NO_SIDE: Readonly<Record<string, string>> = {
  "lower-head": "straight down",
  "back-lead": "straight back",
  "back-chest": "straight back",
  "back-signal": "straight back",
  "give-to-pull": "straight ahead of the line",
  "stand-wait": "standing",
  "ground-pole": "six ways over one pole, its own sideways one among them",
  arch: "from either end is a strand",
  load: "one way in",
  unload: "one way out",
  post: "the post has one side",
  "tied-slide": "the post has one side",
  "first-halter": "the halter closes on one side",
  "lead-from-target": "the target stays at the nose",
  "noise-quiet": "all round by the ladder of frights",
  "walk-at-end": "whichever way it goes",
  "turn-in": "it chooses its way",
  "stay-with-me": "it chooses its side",
  "come-to-shoulder": "it comes from anywhere",
  "come-fast": "it comes from anywhere",
  "figure-eight": "an eight has both",
  "back-free": "straight back",
  "past-temptation": "it chooses its side",
  "beside-companion": "the companion has its place",
  "tied-alongside": "the companion has its place",
  "harness-pieces": "the harness is closed on one side",
  "long-lines": "both lines at once",
  "drag-load": "straight ahead",
};

describe("safety and order, over all templates", () => {
  const ladders = LIBRARY.flatMap((template) => byEachWay(template));

  it.each(ladders.map(({ name, template }) => [name, template] as const))(
    "%s begins with the smallest first try",
    (_, { strands, rungs }) => {
      const [first = {}, second = {}] = rungs;
      for (const strand of strands) {
        const at = strand.levels.indexOf(String(first[strand.id]));
        if (strand.kind === "levels" && strand.key !== "ease") expect({ strand: strand.name, at }).toEqual({ strand: strand.name, at: 0 });
        // No rung asks for less of anything than the first one does.
        for (const rung of rungs)
          expect(difficulty(strand, rung[strand.id] ?? 0), strand.name).toBeGreaterThanOrEqual(difficulty(strand, first[strand.id] ?? 0));
        if (strand.kind === "number" && ["steps", "stay"].includes(strand.key)) expect(Number(first[strand.id])).toBeLessThanOrEqual(4);
      }
      expect(second).not.toEqual(first);
    },
  );

  it("comes with the stick, then the rope, the brush and the hand, wherever more than one of them touches", () => {
    const wrong = ladders.flatMap(({ name, template: { strands } }) =>
      strands
        .filter(({ key }) => key === "tool")
        .flatMap(({ levels }) => {
          const order = levels.map((level) => TOOL_WORDS.findIndex((word) => word.test(level))).filter((at) => at >= 0);
          return order.every((at, i) => i === 0 || at >= (order[i - 1] ?? 0)) ? [] : [name];
        }),
    );
    expect(wrong).toEqual([]);
    expect(ladders.filter(({ template }) => template.strands.some(({ key }) => key === "tool")).length).toBeGreaterThan(0);
  });

  it("has a side wherever both sides matter, and says why where it has none", () => {
    for (const { key, strands } of LIBRARY)
      expect({ key, sided: strands.some((strand) => strand.key === "side") }).toEqual({ key, sided: !(key in NO_SIDE) });
  });

  it("handles no leg before a hand may rest on it, and none by hand that the rope has not had", () => {
    const legs = LIBRARY.filter(({ involves }) => involves.includes("legs"));
    expect(legs.map(({ key }) => key)).toEqual(["first-foot-rope", "feet", "hind-feet"]);
    for (const { strands, prerequisites, cautions } of legs) {
      expect(strands.find(({ key }) => key === "form")?.levels[0]).toMatch(/\b(rests|lies)\b/);
      expect(strands.some(({ key }) => key === "side")).toBe(true);
      expect(prerequisites.some(({ behaviour }) => behaviour === TOUCH_BEHAVIOUR)).toBe(true);
      expect(cautions.join(" ")).toMatch(/(Kick|Strike) zone/);
    }
    for (const key of ["feet", "hind-feet"]) {
      const { prerequisites, rungs } = templateOf(key) as BehaviourTemplate;
      expect(prerequisites.map(({ behaviour }) => behaviour)).toContain("first-foot-rope");
      // A trim takes minutes, not seconds.
      expect(Number(rungs.at(-1)?.stay)).toBeGreaterThanOrEqual(120);
    }
  });

  it("says the kick zone and wears a helmet where a horse is sent, driven, loaded or met from behind", () => {
    const sent = LIBRARY.filter(
      ({ involves, movement, family }) =>
        involves.includes("circling") || movement === "go away" || involves.includes("legs") || family === "driving path",
    );
    expect(sent.length).toBeGreaterThan(20);
    for (const { key, cautions, kit } of sent) {
      const said = [...cautions, ...kit].join(" ");
      expect({ key, kick: /kick/i.test(said), helmet: /helmet/i.test(said) }).toEqual({ key, kick: true, helmet: true });
    }
    for (const { key, cautions } of LIBRARY.filter(({ involves }) => involves.includes("tying")))
      expect({ key, release: /quick release|release that/i.test(cautions.join(" ")) }).toEqual({ key, release: true });
    for (const { key, cautions } of LIBRARY.filter(({ involves }) => involves.includes("loading")))
      expect({ key, way: /way out|in the gap|beside|behind|to the side|in its way/i.test(cautions.join(" ")) }).toEqual({ key, way: true });
    for (const { name, template } of ladders)
      expect({ name, arm: /lead over the arm|wrapped round your/.test(JSON.stringify(template.strands)) }).toEqual({ name, arm: false });
  });

  it("asks calm ones on two days of what is tied, loaded, hitched or done to legs, and says why it moves on as it does", () => {
    for (const { key, involves, mastery, masteryReason, family, plannedRepetitions } of LIBRARY) {
      expect(masteryReason.length, key).toBeGreaterThan(30);
      if (involves.some((one) => one === "tying" || one === "loading" || one === "legs" || one === "load") || family === "driving path")
        // About a week on each step of what is driven; two days for the rest.
        expect({ key, mastery }).toEqual({
          key,
          mastery: { kind: "run", length: 3, days: ["long-lines", "drag-load", "shafts"].includes(key) ? 5 : 2 },
        });
      // No day is planned too short for its own rule, and no risky one long.
      if (mastery.kind === "run") expect(plannedRepetitions, key).toBeGreaterThanOrEqual(Math.min(mastery.length, 3));
      if (mastery.kind === "run" && mastery.days !== undefined) expect(plannedRepetitions, key).toBeLessThanOrEqual(6);
      if (mastery.kind === "first-clean") expect(plannedRepetitions, key).toBeLessThanOrEqual(4);
    }
  });

  it("trots and canters on no circle under twenty metres across", () => {
    for (const { name, template } of ladders) {
      const circle = template.strands.find(({ key }) => key === "circle");
      const gait = template.strands.find(({ key }) => key === "gait");
      if (circle === undefined || gait === undefined) continue;
      for (const rung of template.rungs) {
        const fast = !/^walk/.test(String(rung[gait.id]));
        if (fast) expect({ name, radius: Number(rung[circle.id]) >= 10 }).toEqual({ name, radius: true });
      }
    }
  });

  it("names its gait wherever it is more than a walk, so that a horse held to a walk is kept from it", () => {
    for (const key of ["circle-trot", "circle-canter", "transitions", "circle-pole", "come-fast", "free-turn"]) {
      const plan = planFromTemplate(templateOf(key) as BehaviourTemplate, "pressure-release");
      const walkOnly = allowanceOn(
        [{ kind: "highest-gait", amount: null, detail: "walk", reason: "", givenBy: "vet", from: null, until: null }],
        "2026-05-01",
        null,
      );
      expect({
        key,
        top: barredRung(plan, plan.rungs.length, walkOnly).length > 0,
        first: barredRung(plan, 1, walkOnly).length > 0,
      }).toEqual({
        key,
        top: true,
        first: key === "circle-canter",
      });
    }
  });

  it("has coming out as a part of every going in", () => {
    for (const key of ["load", "step-up", "platform", "narrow-gap", "arch"]) {
      const template = templateOf(key) as BehaviourTemplate;
      const levels = template.strands.flatMap((strand) => strand.levels).join(" | ");
      expect({ key, out: /\bout\b|\bback(s|ing)? off\b|backs out|leads off/.test(levels) }).toEqual({ key, out: true });
    }
  });
});

describe("ways of teaching", () => {
  const taught = LIBRARY.filter(({ ways }) => ways.length > 0);
  it("are two or more, each with its reason, the first as the template stands, the others with rows of their own", () => {
    expect(taught.map(({ key }) => key).sort()).toEqual(
      ["first-contact", "follow-feel", "load", "shafts", "stay-with-me", "turn-in"].sort(),
    );
    for (const template of taught) {
      const [first, ...others] = template.ways;
      expect(others.length).toBeGreaterThan(0);
      expect(taughtBy(template, first?.key ?? "")).toEqual(template);
      for (const { key, reason, name } of template.ways) {
        expect(name.length).toBeGreaterThan(5);
        expect(reason.length).toBeGreaterThan(40);
        if (key !== first?.key) expect(taughtBy(template, key).rungs).not.toEqual(template.rungs);
      }
    }
    expect(() => taughtBy(taught[0] as BehaviourTemplate, "nobody")).toThrow(RangeError);
  });
});

describe.each(LIBRARY.flatMap((template) => byEachWay(template).map(({ name, template: taught }) => [name, taught] as const)))(
  "%s",
  (_, template) => {
    it("passes the ladder's own rules and schemas by every method it is taught by", () => {
      expect(template.rungs.length).toBeGreaterThanOrEqual(5);
      expect(template.rungs.length).toBeLessThanOrEqual(20);
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
        if ("stop" in change) continue;
        // Distress is never met with less calm asked for.
        if ("strand" in change) expect(template.strands.find(({ id }) => id === change.strand)?.key, sign).not.toBe("ease");
        if ("strand" in change) expect(template.strands.map(({ id }) => id)).toContain(change.strand);
        else expect(change.phase).toBeLessThanOrEqual(phases);
      }
    });

    it("marks every rule of thumb as common practice and keeps amounts out of all else", () => {
      expect(template.rulesOfThumb.every(({ basis }) => basis === "common practice")).toBe(true);
      const other = [...template.faults.flatMap(({ sign, then }) => [sign, then]), ...template.cautions, ...template.watch];
      expect(other.filter((text) => AMOUNT.test(text) && text !== KICK_AT_ROPE)).toEqual([]);
      for (const text of [...other, template.why, template.finished]) expect(text).not.toMatch(/!/);
    });
  },
);
