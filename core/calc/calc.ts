import * as yup from "yup";
import { check } from "../checks/common";
import { circleFigures, rampProblem, rampSteps } from "../circle";
import { sidePicture, toldShare } from "../compare";
import {
  chanceShareAtLeast,
  cohenKappa,
  logRank,
  percentileBar,
  sensitivity,
  sessionShare,
  sumsOfSessions,
  survival,
  timedAgreement,
  type Waiting,
  wilsonInterval,
} from "../evidence";
import { type LayoutOrder, type LayoutStrand, layOut } from "../ladder";
import { LARGEST_WINDOW, type MasteryRule, ruleCheck, USUAL_ASKS_A_DAY } from "../mastery";
import { weeklyChange } from "../past";

/** Thrown where the input of a calculation is wrong; says which field and why. */
export class CalcInputError extends Error {
  readonly code = "calc-input";
}

const NEEDED: Readonly<Record<string, string>> = {
  object: "an object is needed",
  array: "a list is needed",
  number: "a number is needed",
  string: "a text is needed",
  boolean: "true or false is needed",
};
// The schemas below are made with these words; the schema library's own name its types.
yup.setLocale({
  mixed: {
    default: "is wrong",
    required: "is missing",
    defined: "is missing",
    notNull: "is missing",
    notType: ({ type }: { type: string }) => NEEDED[type] ?? "is wrong",
  },
});

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

const count = () =>
  yup
    .number()
    .required("a whole number is needed")
    .integer("a whole number is needed")
    .min(0, "0 or more")
    .max(Number.MAX_SAFE_INTEGER, "too large");

const shareInput = yup
  .object({
    met: count(),
    of: count(),
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
/** A day of watching by the tenth of a second, and more than anyone watches. */
const MOST_INTERVALS = 1_000_000;
const seconds = () =>
  yup
    .number()
    .required("a number is needed")
    .test("finite", "a number is needed", (n) => Number.isFinite(n));
const pairInput = yup
  .object({
    a: moments,
    b: moments,
    tolerance_s: seconds().min(0, "0 or more"),
    duration_s: seconds().moreThan(0, "above 0"),
    interval_s: seconds().moreThan(0, "above 0"),
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
  if (duration_s / interval_s > MOST_INTERVALS)
    throw new CalcInputError(`interval_s: too short for duration_s, more than ${MOST_INTERVALS} intervals`);
  const found = timedAgreement({ a, b, toleranceSeconds: tolerance_s, durationSeconds: duration_s, intervalSeconds: interval_s });
  return { total: found.total, exact_interval: found.exactInterval, mean_interval: found.meanInterval, point: found.point };
}

const amount = (least: number, most: number) =>
  yup
    .number()
    .required("a number is needed")
    .test("finite", "a number is needed", (n) => Number.isFinite(n))
    .min(least, `${least} or more`)
    .max(most, `${most} at most`);
const optionalAmount = (least: number, most: number) =>
  yup
    .number()
    .test("finite", "a number is needed", (n) => n === undefined || Number.isFinite(n))
    .min(least, `${least} or more`)
    .max(most, `${most} at most`);

/** More sessions than a horse has in a life, and days than a yard has books for. */
const MOST_SESSIONS = 20_000;
const MOST_DAYS = 100_000;
const LARGEST = 1e12;

const dPrimeInput = yup
  .object({ hits: count(), misses: count(), false_alarms: count(), correct_rejections: count() })
  .required("an object is needed");

/** Signal detection: answers on a cue and without it. */
function dPrime(input: unknown) {
  const { hits, misses, false_alarms: falseAlarms, correct_rejections: correctRejections } = read(dPrimeInput, input);
  const found = sensitivity({ hits, misses, falseAlarms, correctRejections });
  return { dprime: found?.dPrime ?? null, dprime95: found?.interval ?? null, criterion: found?.criterion ?? null };
}

const countsOf = () =>
  yup
    .object({ met: count(), of: count() })
    .required("an object with met and of is needed")
    .test(
      "within",
      "met must not be more than of",
      (v, context) => !(v?.met > v?.of) || context.createError({ path: `${context.path}.met`, message: "must not be more than of" }),
    );

const sessionsShareInput = yup
  .object({ sessions: yup.array().of(countsOf()).required("a list of sessions is needed").max(MOST_SESSIONS, `at most ${MOST_SESSIONS}`) })
  .required("an object is needed");

/** A share over sessions, oldest first, with its interval over days. */
function sessionsShare(input: unknown) {
  const { sessions } = read(sessionsShareInput, input);
  const found = sessionShare(sumsOfSessions(sessions));
  return {
    share: found?.share ?? null,
    interval95: found?.interval ?? null,
    effective_trials: found?.effective ?? null,
    sentence: toldShare(sumsOfSessions(sessions)).sentence,
  };
}

const trendInput = yup
  .object({
    points: yup
      .array()
      .of(
        yup
          .object({ days: amount(-MOST_DAYS, MOST_DAYS), value: amount(-LARGEST, LARGEST), drawn_variance: optionalAmount(0, LARGEST) })
          .required("a point is needed"),
      )
      .required("a list of points is needed")
      .max(MOST_SESSIONS, `at most ${MOST_SESSIONS}`),
  })
  .required("an object is needed");

/** A change a week of a value a session. */
function trend(input: unknown) {
  const { points } = read(trendInput, input);
  const found = weeklyChange(
    points.map(({ days, value, drawn_variance: drawnVariance }) => ({
      days,
      value,
      ...(drawnVariance === undefined ? {} : { drawnVariance }),
    })),
  );
  return { a_week: found?.perWeek ?? null, interval95: found?.interval ?? null, sessions: points.length };
}

const sidesInput = yup
  .object({
    sessions: yup
      .array()
      .of(
        yup
          .object({
            left: countsOf(),
            right: countsOf(),
            began: yup.string<"left" | "right" | "turns">().oneOf(["left", "right", "turns"], "left, right or turns"),
          })
          .required("a session is needed"),
      )
      .required("a list of sessions is needed")
      .max(MOST_SESSIONS, `at most ${MOST_SESSIONS}`),
  })
  .required("an object is needed");

const BEGAN = { left: "first", right: "second", turns: "turns" } as const;

/** Left against right by sessions, what came first taken out. */
function sides(input: unknown) {
  const { sessions } = read(sidesInput, input);
  const { contrast, weaker, p } = sidePicture(
    sessions.map(({ left, right, began }) => [
      { stratum: "", first: left, second: right, ...(began === undefined ? {} : { began: BEGAN[began] }) },
    ]),
  );
  return {
    weaker: weaker === null ? null : weaker === "L" ? "left" : "right",
    p,
    sessions_compared: contrast.n,
    right_less_left: contrast.difference,
    order_behind: contrast.orderBehind,
  };
}

const shareOfOne = (words: string) => yup.number().required(words).min(0, "from 0 to 1").max(1, "from 0 to 1");
const wholeFrom = (least: number, most: number) =>
  yup
    .number()
    .required("a whole number is needed")
    .integer("a whole number is needed")
    .min(least, `from ${least} to ${most}`)
    .max(most, `from ${least} to ${most}`);

const optionalWhole = (least: number, most: number) =>
  yup.number().integer("a whole number is needed").min(least, `from ${least} to ${most}`).max(most, `from ${least} to ${most}`);
const onDays = { days: optionalWhole(1, 30) };

const ruleInput = yup.lazy((value: unknown) => {
  if (value === undefined) return yup.mixed().required("a rule is needed");
  const kind = typeof value === "object" && value !== null && "kind" in value ? value.kind : undefined;
  switch (kind) {
    case "share":
      return yup.object({
        kind: yup.string<"share">().oneOf(["share"]).required(),
        of: wholeFrom(1, LARGEST_WINDOW),
        met: wholeFrom(1, LARGEST_WINDOW).test("within", "must not be more than of", (met, context) => !(met > context.parent.of)),
        window: yup.string<"moving" | "block">().oneOf(["moving", "block"], "moving or block").required("moving or block"),
        ...onDays,
      });
    case "run":
      return yup.object({ kind: yup.string<"run">().oneOf(["run"]).required(), length: wholeFrom(1, 1000), ...onDays });
    case "posterior":
      return yup.object({
        kind: yup.string<"posterior">().oneOf(["posterior"]).required(),
        target: shareOfOne("a share is needed"),
        confidence: shareOfOne("a chance is needed"),
        least: wholeFrom(1, 1000),
        ...onDays,
      });
    default:
      return yup.object({
        kind: yup
          .string<"first-clean">()
          .oneOf(["first-clean"], "share, run, posterior or first-clean")
          .required("share, run, posterior or first-clean"),
        ...onDays,
      });
  }
});

const ruleCheckInput = yup
  .object({
    rule: ruleInput,
    p: yup.array().of(shareOfOne("a number is needed")).required("a list of chances is needed"),
    within: wholeFrom(0, 10_000),
    asks_a_day: optionalWhole(1, 1000),
  })
  .required("an object is needed");

function ruleCheckOf(input: unknown) {
  const { rule, p, within, asks_a_day: asksADay = USUAL_ASKS_A_DAY } = read(ruleCheckInput, input);
  return {
    rows: ruleCheck(rule as MasteryRule, p, within, asksADay).map((row) => ({
      p: row.p,
      pass_within: row.passWithin,
      mean_trials: row.meanTrials,
    })),
  };
}

const percentileInput = yup
  .object({
    values: moments,
    m: wholeFrom(1, 100_000),
    w: shareOfOne("a share is needed"),
    harder: yup.string<"more" | "less">().oneOf(["more", "less"], "more or less").required("more or less"),
  })
  .required("an object is needed");

function percentile(input: unknown) {
  const { values, m, w, harder } = read(percentileInput, input);
  const bar = percentileBar(values, m, w, harder);
  return {
    m_used: bar.used,
    k: bar.rank,
    ranks: bar.parts.map(({ rank, weight }) => [rank, weight]),
    criteria: bar.parts.map(({ criterion }) => criterion),
    on_equal: bar.parts.map(({ onEqual }) => onEqual),
  };
}

const layoutStrand = yup.lazy((value: unknown) => {
  const levels = typeof value === "object" && value !== null && "kind" in value && value.kind === "levels";
  const finite = (n: number | undefined) => n === undefined || Number.isFinite(n);
  const number = () => yup.number().test("finite", "a number is needed", finite);
  const head = {
    id: yup.string().required("a name is needed"),
    kind: yup.string().oneOf(["number", "levels"], "number or levels").required("number or levels"),
  };
  return levels
    ? yup.object({
        ...head,
        levels: yup.array().of(yup.string().required("a level is needed")).required("a list of levels is needed"),
        start: yup.string().required("a level is needed"),
        goal: yup.string().required("a level is needed"),
      })
    : yup.object({
        ...head,
        start: number().required("a number is needed"),
        goal: number().required("a number is needed"),
        max_ratio: number(),
        least: number(),
        whole: yup.boolean(),
      });
});

const layoutInput = yup
  .object({
    strands: yup
      .array()
      .of(layoutStrand)
      .required("a list of strands is needed")
      .min(1, "at least one strand")
      .max(50, "at most 50 strands"),
    order: yup.string<LayoutOrder>().oneOf(["one-by-one", "in-turn"], "one-by-one or in-turn").required("one-by-one or in-turn"),
    ease_on_new: yup.number().min(0, "from 0 to 1").max(1, "from 0 to 1"),
  })
  .required("an object is needed");

function layout(input: unknown) {
  const { strands, order, ease_on_new: easeOnNew } = read(layoutInput, input);
  const given = strands as unknown as readonly (Record<string, unknown> & { id: string })[];
  try {
    const rungs = layOut(
      given.map(
        ({ max_ratio: maxRatio, ...strand }) => ({ ...strand, ...(maxRatio === undefined ? {} : { maxRatio }) }) as unknown as LayoutStrand,
      ),
      { order, easeOnNew: easeOnNew ?? 0 },
    );
    return { rungs };
  } catch (error) {
    if (error instanceof RangeError) throw new CalcInputError(error.message.replace("layOut: ", "strands: "));
    throw error;
  }
}

const circleInput = yup
  .object({
    radius_m: amount(0.1, 1000),
    segments: yup
      .array()
      .of(
        yup
          .object({
            gait: yup.string().required("a gait is needed"),
            speed_mps: amount(0, 25),
            minutes: amount(0, 1440),
            side: yup.string().oneOf(["L", "R"], "L or R").required("L or R"),
          })
          .required("a segment is needed"),
      )
      .required("a list of segments is needed")
      .min(1, "at least one segment")
      .max(200, "at most 200 segments"),
  })
  .required("an object is needed");

function circle(input: unknown) {
  const { radius_m: radiusMetres, segments } = read(circleInput, input);
  const figures = segments.map(({ speed_mps: speedMps, minutes }) => circleFigures({ radiusMetres, speedMps, minutes }));
  const sum = (of: (one: (typeof figures)[number]) => number) => figures.reduce((all, one) => all + of(one), 0);
  return {
    segments: figures.map((one) => ({
      distance_m: one.distanceMetres,
      laps: one.laps,
      sideways_mps2: one.sidewaysMps2,
      lean_deg: one.leanDegrees,
      turning_dose_gmin: one.turningDoseGMinutes,
    })),
    total: {
      distance_m: sum(({ distanceMetres }) => distanceMetres),
      laps: sum(({ laps }) => laps),
      turning_dose_gmin: sum(({ turningDoseGMinutes }) => turningDoseGMinutes),
      minutes: segments.reduce((all, { minutes }) => all + minutes, 0),
    },
  };
}

const rampLoad = yup
  .object({
    walk: amount(0, 60),
    trot: amount(0, 60),
    canter: yup.number().min(0, "0 or more").max(60, "60 at most"),
    obstacles: yup.boolean(),
  })
  .required("an object is needed");

const rampInput = yup
  .object({
    start: rampLoad,
    goal: rampLoad,
    sessions_a_week: wholeFrom(1, 7),
    ways: yup.string<"both" | "turn">().oneOf(["both", "turn"], "both or turn").required("both or turn"),
    caps: yup
      .object({
        session_minutes: amount(1, 240),
        week_minutes: yup.number().min(1, "1 or more").nullable(),
        canter: yup.boolean(),
      })
      .required("an object is needed"),
  })
  .required("an object is needed");

function ramp(input: unknown) {
  const { start, goal, sessions_a_week: sessionsAWeek, ways, caps } = read(rampInput, input);
  const asked = {
    start: { canter: 0, obstacles: false, ...start },
    goal: { canter: 0, obstacles: false, ...goal },
    sessionsAWeek,
    ways,
    caps: { sessionMinutes: caps.session_minutes, weekMinutes: caps.week_minutes ?? null, weekVisits: null, canter: caps.canter ?? true },
  };
  const problem = rampProblem(asked);
  if (problem !== null) throw new CalcInputError(`${problem.startsWith("The start") ? "start" : "goal"}: ${problem}`);
  return { steps: rampSteps(asked) };
}

/** Every function of the core that the command line offers. */
export const CALCULATIONS: ReadonlyMap<string, (input: unknown) => unknown> = new Map<string, (input: unknown) => unknown>([
  ["latency", latency],
  ["share", share],
  ["agreement", agreement],
  ["rule-check", ruleCheckOf],
  ["percentile", percentile],
  ["layout", layout],
  ["circle", circle],
  ["ramp", ramp],
  ["dprime", dPrime],
  ["sessions-share", sessionsShare],
  ["trend", trend],
  ["sides", sides],
]);
