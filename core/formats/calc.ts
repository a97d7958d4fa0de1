import * as yup from "yup";
import { chanceShareAtLeast, cohenKappa, logRank, survival, timedAgreement, type Waiting, wilsonInterval } from "../evidence";
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

const moments = yup
  .array()
  .of(
    yup
      .number()
      .required("a number is needed")
      .test("finite", "a number is needed", (n) => Number.isFinite(n)),
  )
  .required("a list of seconds is needed");
const tableInput = yup
  .object({
    table: yup
      .array()
      .of(
        yup
          .array()
          .of(yup.number().required("a whole number is needed").integer("a whole number is needed").min(0, "0 or more"))
          .required("a list of counts is needed"),
      )
      .required("a table of counts is needed")
      .min(1, "at least one row"),
  })
  .required("an object is needed");
const pairInput = yup
  .object({
    a: moments,
    b: moments,
    tolerance_s: yup.number().required("a number is needed").min(0, "0 or more"),
    duration_s: yup.number().required("a number is needed").moreThan(0, "above 0"),
    interval_s: yup.number().required("a number is needed").moreThan(0, "above 0"),
  })
  .required("an object is needed");

/** Either a table of two observers' answers, or their moments of one kind of event. */
function agreement(input: unknown) {
  if (typeof input === "object" && input !== null && "table" in input) {
    const { table } = read(tableInput, input);
    if (table.some((row) => row.length !== table.length)) throw new CalcInputError("table: must be square");
    const found = cohenKappa(table);
    return { kappa: found?.kappa ?? null, observed: found?.observed ?? null, expected: found?.expected ?? null };
  }
  const { a, b, tolerance_s, duration_s, interval_s } = read(pairInput, input);
  for (const [name, list] of [
    ["a", a],
    ["b", b],
  ] as const)
    if (list.some((t) => t < 0 || t > duration_s)) throw new CalcInputError(`${name}: every moment must lie from 0 to duration_s`);
  const found = timedAgreement({ a, b, toleranceSeconds: tolerance_s, durationSeconds: duration_s, intervalSeconds: interval_s });
  return { total: found.total, exact_interval: found.exactInterval, mean_interval: found.meanInterval, point: found.point };
}

/** Every function of the core that the command line offers. */
export const CALCULATIONS: ReadonlyMap<string, (input: unknown) => unknown> = new Map<string, (input: unknown) => unknown>([
  ["latency", latency],
  ["share", share],
  ["agreement", agreement],
]);
