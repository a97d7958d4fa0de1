import * as yup from "yup";
import { chanceShareAtLeast, logRank, survival, type Waiting, wilsonInterval } from "../evidence";
import { check } from "../schemas/common";

/** Thrown where the input of a calculation is wrong; says which field and why. */
export class CalcInputError extends Error {
  override readonly name = "CalcInputError";
}

function read<T>(schema: yup.Schema<T>, input: unknown): T {
  const checked = check(schema, input, { strict: true });
  if (checked.ok) return checked.value;
  const problem = checked.problems[0];
  throw new CalcInputError(
    problem === undefined ? "The input is wrong." : `${problem.path === "" ? "input" : problem.path}: ${problem.message}`,
  );
}

const latencyInput = yup
  .object({
    times: yup
      .array()
      .of(
        yup
          .number()
          .required("a number is needed")
          .min(0, "0 or more")
          .test("finite", "a number is needed", (n) => Number.isFinite(n)),
      )
      .required("a list of seconds is needed")
      .min(1, "at least one time"),
    answered: yup.array().of(yup.boolean().required("true or false is needed")).required("a list of true and false is needed"),
    group: yup.array().of(yup.string().required("a name is needed")).default(undefined),
  })
  .required("an object is needed")
  .test("same-length", "times, answered and group must be of the same length", (v, context) => {
    // This runs beside the checks of the fields; where one of them failed, its own message is enough.
    if (!Array.isArray(v?.times) || !Array.isArray(v.answered)) return true;
    if (v.times.length !== v.answered.length) return context.createError({ path: "answered", message: "as many as times are needed" });
    if (v.group !== undefined && v.group.length !== v.times.length)
      return context.createError({ path: "group", message: "as many as times are needed" });
    return true;
  });

function latency(input: unknown) {
  const { times, answered, group } = read(latencyInput, input);
  const groups = new Map<string, Waiting[]>();
  times.forEach((seconds, i) => {
    const name = group?.[i] ?? "all";
    const list = groups.get(name) ?? [];
    list.push({ seconds, answered: answered[i] as boolean });
    groups.set(name, list);
  });
  const test = groups.size < 2 ? null : logRank([...groups.values()]);
  return {
    // Entries keep a name like "2" or "__proto__" as an own key of its own.
    km: Object.fromEntries(
      [...groups].map(([name, list]) => {
        const curve = survival(list);
        return [name, { median_s: curve.medianSeconds, km: curve.steps }];
      }),
    ),
    logrank: test === null ? null : { chi2: test.chiSquared, df: test.degrees, p: test.p },
  };
}

const shareInput = yup
  .object({
    met: yup
      .number()
      .required("a whole number is needed")
      .integer("a whole number is needed")
      .min(0, "0 or more")
      .max(Number.MAX_SAFE_INTEGER, "too large"),
    of: yup
      .number()
      .required("a whole number is needed")
      .integer("a whole number is needed")
      .min(0, "0 or more")
      .max(Number.MAX_SAFE_INTEGER, "too large"),
  })
  .required("an object is needed")
  .test(
    "within",
    "met must not be more than of",
    (v, context) => !(v?.met > v?.of) || context.createError({ path: "met", message: "must not be more than of" }),
  );

function share(input: unknown) {
  const { met, of } = read(shareInput, input);
  return {
    share: of === 0 ? null : met / of,
    wilson95: wilsonInterval(met, of),
    p_at_least_080: of === 0 ? null : chanceShareAtLeast(0.8, met, of),
  };
}

/** Every function of the core that the command line offers. */
export const CALCULATIONS: ReadonlyMap<string, (input: unknown) => unknown> = new Map<string, (input: unknown) => unknown>([
  ["latency", latency],
  ["share", share],
]);
