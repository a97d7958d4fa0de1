import { type LadderPlan, PLAN_DEFAULTS, type Rung } from "@/core/ladder";
import { DEFAULT_MASTERY_RULE } from "@/core/mastery";
import { type BehaviourInput, EMPTY_BEHAVIOUR } from "@/core/schemas";
import { type Strand, type StrandKey, strandFromCatalogue } from "@/core/strands";

/** A ladder as it is sent. */
export interface LadderDraft {
  behaviour: BehaviourInput;
  plan: LadderPlan;
}

/** The part of a draft that is a form; the rope and its ways are edited as a drawing, with undo. */
export interface LadderSettings {
  behaviour: BehaviourInput;
  plan: Omit<LadderPlan, "strands" | "rungs" | "ways">;
}

/** A strand of the catalogue under an id no other strand of the plan has. */
export function newStrand(key: StrandKey, taken: readonly string[]): Strand {
  let id: string = key;
  for (let n = 2; taken.includes(id); n++) id = `${key}-${n}`;
  return strandFromCatalogue(key, id);
}

/** A strand the user makes: numbers with a unit, or named levels. */
export function ownStrand(kind: Strand["kind"], taken: readonly string[]): Strand {
  const strand = newStrand("own", taken);
  return kind === "number" ? { ...strand, kind, levels: [] } : { ...strand, kind, unit: "", levels: ["first", "second", "third"] };
}

/** A first plan: two small rungs, a cue of three phases. */
export function emptyDraft(): LadderDraft {
  const strands = [strandFromCatalogue("form", "form"), strandFromCatalogue("latency", "latency")];
  const rung = (form: number): Rung => ({ values: { form: strands[0]?.levels[form] ?? "", latency: 10 } });
  return {
    behaviour: EMPTY_BEHAVIOUR,
    plan: {
      method: "combined",
      strands,
      rungs: [rung(0), rung(1)],
      phases: [
        { label: "body", kind: "body", profile: "steady", dwellSeconds: 3, pulsesPerMinute: null },
        { label: "point", kind: "point", profile: "steady", dwellSeconds: 3, pulsesPerMinute: null },
        { label: "line", kind: "lead", profile: "rising", dwellSeconds: 4, pulsesPerMinute: null },
      ],
      maximumSeconds: 20,
      mastery: DEFAULT_MASTERY_RULE,
      schedule: { kind: "every" },
      ...PLAN_DEFAULTS,
      offers: "reinforce",
      workingStrandId: null,
      plannedRepetitions: 8,
    },
  };
}
