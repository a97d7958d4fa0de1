import { describe, expect, it } from "vitest";
import { faultWords, inTheWay, methodsOf, planFromTemplate, wordsOfWay } from "@/core/behaviour";
import { LIBRARY, templateOf } from ".";

describe("the words of the way that was chosen", () => {
  const load = templateOf("load");
  const planOf = (way: string) => {
    const { template, ways } = inTheWay(load as NonNullable<typeof load>, way);
    return planFromTemplate(template, methodsOf(template)[0] ?? "combined", ways);
  };

  it("are those of the way on the ladder, and never the other one's", () => {
    const led = wordsOfWay(load, planOf("lead-on"));
    const sent = wordsOfWay(load, planOf("send-on"));
    expect(led.cautions[0]).toContain("a door of your own");
    expect(sent.cautions.join(" ")).not.toContain("a door of your own");
    expect(led.watch).not.toEqual(sent.watch);
    expect(led.faults.map(({ sign }) => sign)).not.toContain("It swings off the side of the ramp");
    // Nobody taps the croup who stands ahead of the horse.
    expect(
      planOf("lead-on")
        .phases.map(({ label }) => label)
        .join(),
    ).not.toContain("croup");
    expect(
      planOf("send-on")
        .phases.map(({ label }) => label)
        .join(),
    ).toContain("croup");
  });

  it("are the first way's where an older ladder says none, and none without a template", () => {
    const plan = planOf("send-on");
    expect(wordsOfWay(load, { ...plan, ways: {} }).cautions).toEqual(wordsOfWay(load, plan).cautions);
    expect(wordsOfWay(undefined, plan).cautions).toEqual([]);
  });

  it("leave out a fault whose strand the ladder no longer has", () => {
    const plan = planOf("send-on");
    const less = wordsOfWay(load, { ...plan, strands: plan.strands.filter(({ id }) => id !== "bars") });
    expect(less.faults.map(({ sign }) => sign).join()).not.toContain("bar");
  });

  it("never meet distress with less calm, in any way of any behaviour", () => {
    for (const whole of LIBRARY)
      for (const key of whole.ways.length === 0 ? [undefined] : whole.ways.map((way) => way.key)) {
        const { template } = inTheWay(whole, key);
        for (const fault of template.faults) {
          const words = `${faultWords(fault, template.strands)} ${fault.then}`;
          expect(words, `${whole.key}: ${fault.sign}`).not.toMatch(/easier: (ease|calm)|less ease|less calm|open everything/i);
          if ("strand" in fault.change) {
            const { strand } = fault.change;
            expect(
              template.strands.some(({ id }) => id === strand),
              `${whole.key}, ${key}: ${fault.sign}`,
            ).toBe(true);
          }
        }
      }
  });
});
