import type { SurvivalCurve } from "@/core/evidence";
import type { GoodMoment, OverWeeks, PastTrial, SessionPoint } from "@/core/past";
import { percentSpan } from "@/core/words";
import type { ChartPoint, ChartSeries, ChartSpec } from "@/ui/chart";
import { percent } from "@/ui/measure";

const DAY = { kind: "day", title: "day" } as const;

/** Where a point leads, and what was special about it. */
const pointsOf = (horseId: string, points: readonly SessionPoint[]): ChartPoint[] =>
  points.map(({ session, conditions }) => ({
    x: session.startedMs,
    href: `/horses/${horseId}/review/${session.id}`,
    ...(conditions.length === 0 ? {} : { marks: conditions }),
  }));

const values = <T>(points: readonly SessionPoint[], of: (point: SessionPoint) => T | null) => points.map(of);
const fixed = (places: number, unit: string) => (value: number | null) => (value === null ? null : `${value.toFixed(places)}${unit}`);

/** New plans, breaks of two weeks and other handlers, as lines across the chart. */
function seamsOf(points: readonly SessionPoint[]): ChartSpec["seams"] {
  return points.flatMap(({ session, conditions }) => {
    const said = conditions.find((one) => /^(plan \d|after \d)/.test(one));
    return said === undefined ? [] : [{ x: session.startedMs, label: said }];
  });
}

/** Highest rung worked in each session. */
export function rungChart(horseId: string, { points }: OverWeeks, handlers: readonly string[]): ChartSpec {
  const words = (list: readonly number[]) => (list.length === 0 ? null : `rung ${list.join(", ")}`);
  const top = values(points, ({ rungs }) => rungs.at(-1) ?? null);
  const series: ChartSeries[] =
    handlers.length < 2
      ? [{ name: "rung", colour: "ink", style: "steps", values: top, words: values(points, ({ rungs }) => words(rungs)) }]
      : handlers.slice(0, 3).map((handler, i): ChartSeries => {
          const own = values(points, (point) => (point.handlers.at(-1) === handler ? (point.rungs.at(-1) ?? null) : null));
          return {
            name: handler,
            colour: (["ink", "tarn", "plum"] as const)[i] ?? "ink",
            style: "steps",
            values: own,
            words: own.map((rung) => (rung === null ? null : `rung ${rung}`)),
          };
        });
  return {
    title: "Rung worked",
    points: pointsOf(horseId, points),
    series,
    x: DAY,
    y: { title: "rung", least: 0, whole: true },
    seams: seamsOf(points),
  };
}

function shareChart(
  horseId: string,
  title: string,
  points: readonly SessionPoint[],
  of: "share" | "lightness",
  counts: (point: SessionPoint) => string,
): ChartSpec {
  const told = points.map((point) => point[of]);
  return {
    title,
    points: pointsOf(horseId, points),
    series: [
      {
        name: title.toLowerCase(),
        colour: of === "share" ? "tarn" : "ochre",
        style: "line",
        values: told.map(({ share }) => share),
        low: told.map(({ interval }) => interval?.[0] ?? null),
        high: told.map(({ interval }) => interval?.[1] ?? null),
        words: points.map((point, i) => {
          const one = told[i];
          if (one === undefined || one.share === null) return null;
          return `${counts(point)}${one.interval === null ? "" : `, that day ${percentSpan(one.interval)}`}`;
        }),
      },
    ],
    x: DAY,
    y: { title: "share", least: 0, most: 1, percent: true },
    seams: seamsOf(points),
  };
}

export const metChart = (horseId: string, { points }: OverWeeks) =>
  shareChart(horseId, "Met", points, "share", ({ met, n }) => `${met} of ${n}`);

export const lightnessChart = (horseId: string, { points }: OverWeeks) =>
  shareChart(horseId, "At the lightest cue", points, "lightness", ({ lightness }) => percent(lightness.share ?? 0));

export function halfChart(horseId: string, { points }: OverWeeks): ChartSpec {
  const longest = Math.max(1, ...points.flatMap(({ half }) => [half?.seconds ?? 0, half?.interval[1] ?? 0]));
  return {
    title: "Half answered after",
    points: pointsOf(horseId, points),
    series: [
      {
        name: "seconds",
        colour: "tarn",
        style: "line",
        values: values(points, ({ half }) => half?.seconds ?? null),
        low: values(points, ({ half }) => (half === null ? null : (half.interval[0] ?? null))),
        // What was not waited for goes to the top of the chart.
        high: values(points, ({ half }) => (half === null || half.interval[0] === null ? null : (half.interval[1] ?? longest * 1.1))),
        words: values(points, ({ half }) =>
          half === null
            ? null
            : half.seconds === null
              ? `fewer than half of ${half.n}`
              : `${half.seconds.toFixed(1)} s of ${half.n}, that day ${half.interval[0]?.toFixed(1) ?? "–"} to ${half.interval[1]?.toFixed(1) ?? "longer than it was asked"} s`,
        ),
      },
    ],
    x: DAY,
    y: { title: "seconds", least: 0 },
    seams: seamsOf(points),
  };
}

/** Rates on a logarithmic axis, each with the line of its factor a week. */
export function ratesChart(horseId: string, { points, responseTrend, reinforcedTrend }: OverWeeks): ChartSpec {
  const rate = fixed(2, " a minute");
  const responses = values(points, ({ responsesPerMinute }) => (responsesPerMinute === 0 ? null : responsesPerMinute));
  const reinforced = values(points, ({ reinforcedPerMinute }) => (reinforcedPerMinute === 0 ? null : reinforcedPerMinute));
  /** The line of a factor goes through the middle of the logarithms. */
  const trend = (factor: number | undefined, list: readonly (number | null)[], colour: "tarn" | "plum", name: string): ChartSeries[] => {
    if (factor === undefined) return [];
    const told = points.flatMap((point, i) => (list[i] == null ? [] : [{ days: point.days, log: Math.log10(list[i] as number) }]));
    const mean = (of: (one: (typeof told)[number]) => number) => told.reduce((sum, one) => sum + of(one), 0) / Math.max(1, told.length);
    const [days, log] = [mean((one) => one.days), mean((one) => one.log)];
    const slope = Math.log10(factor) / 7;
    const line = points.map((point) => 10 ** (log + slope * (point.days - days)));
    return [{ name, colour, style: "dashes", values: line, words: line.map(() => null) }];
  };
  return {
    title: "Right answers and reinforcers a minute",
    points: pointsOf(horseId, points),
    series: [
      {
        name: "right answers",
        colour: "tarn",
        style: "line",
        values: responses,
        words: values(points, ({ responsesPerMinute }) => rate(responsesPerMinute)),
      },
      {
        name: "reinforced",
        colour: "plum",
        style: "line",
        values: reinforced,
        words: values(points, ({ reinforcedPerMinute }) => rate(reinforcedPerMinute)),
      },
      ...trend(responseTrend?.factor, responses, "tarn", "its week"),
      ...trend(reinforcedTrend?.factor, reinforced, "plum", "its week, reinforced"),
    ],
    x: DAY,
    y: { title: "a minute", log: true },
    seams: seamsOf(points),
  };
}

/** Right answers against working time; where it is reinforced a ring stands on it. */
export function cumulativeChart({ cumulative, seams }: OverWeeks): ChartSpec {
  return {
    title: "Right answers, added up",
    points: cumulative.map(([minutes]) => ({ x: Math.round(minutes * 100) / 100 })),
    series: [
      {
        name: "reinforced",
        colour: "plum",
        style: "ticks",
        values: cumulative.map(([, met, paid]) => (paid ? met : null)),
        words: cumulative.map(([, , paid]) => (paid ? "yes" : "no")),
      },
      {
        name: "right answers",
        colour: "tarn",
        style: "steps",
        values: cumulative.map(([, met]) => met),
        words: cumulative.map(([, met]) => String(met)),
      },
    ],
    x: { kind: "number", title: "working minutes" },
    y: { title: "right answers", least: 0, whole: true },
    seams: seams.map((x) => ({ x, label: "" })),
  };
}

export function easeChart(horseId: string, { points }: OverWeeks): ChartSpec {
  return {
    title: "Calm",
    points: pointsOf(horseId, points),
    series: [
      {
        name: "mean grade",
        colour: "sage",
        style: "line",
        values: values(points, ({ meanEase }) => meanEase),
        words: values(points, ({ meanEase, eased }) => (meanEase === null ? null : `${meanEase.toFixed(1)} of 4, ${eased} graded`)),
      },
    ],
    x: DAY,
    y: { title: "grade", least: 0, most: 4, whole: true },
    seams: seamsOf(points),
  };
}

export function connectedChart(horseId: string, { points }: OverWeeks): ChartSpec {
  return {
    title: "With the handler",
    points: pointsOf(horseId, points),
    series: [
      {
        name: "share of the time",
        colour: "tarn",
        style: "line",
        values: values(points, ({ connectedShare }) => connectedShare),
        words: values(points, ({ connectedShare, departures, departuresPerTenMinutes }) =>
          connectedShare === null
            ? null
            : `${percent(connectedShare)}, left ${departures} times, ${(departuresPerTenMinutes ?? 0).toFixed(1)} in ten minutes`,
        ),
      },
    ],
    x: DAY,
    y: { title: "share", least: 0, most: 1, percent: true },
    seams: seamsOf(points),
  };
}

/** The five signs seen most, in ten minutes of work. */
export function signsChart(horseId: string, { points }: OverWeeks): ChartSpec | null {
  const totals = new Map<string, { count: number; kind: string }>();
  for (const { signs } of points)
    for (const { name, kind, count } of signs) totals.set(name, { kind, count: count + (totals.get(name)?.count ?? 0) });
  const chosen = [...totals].sort((a, b) => b[1].count - a[1].count).slice(0, 3);
  if (chosen.length === 0) return null;
  const rate = fixed(1, " in ten minutes");
  return {
    title: "Signs in ten minutes",
    points: pointsOf(horseId, points),
    series: chosen.map(([name, { kind }], i): ChartSeries => {
      const own = points.map(({ signs, session }) =>
        session.workSeconds > 0 ? (signs.find((sign) => sign.name === name)?.perTenMinutes ?? 0) : null,
      );
      // Each kind has its colour; a second one of the kind is told by its points.
      const colour = kind === "tension" || kind === "danger" ? "brick" : kind === "ease" ? "sage" : "ink";
      return { name, colour, style: i === 0 ? "line" : i === 1 ? "dashes" : "points", values: own, words: own.map(rate) };
    }),
    x: DAY,
    y: { title: "in ten minutes", least: 0 },
    seams: seamsOf(points),
  };
}

export function warmUpChart(horseId: string, { points }: OverWeeks): ChartSpec | null {
  const told = points.filter(({ warmUp }) => warmUp !== null);
  if (told.length < 2) return null;
  const share = (met: number, of: number) => met / of;
  return {
    title: "Start of a session against the end of the one before",
    points: pointsOf(horseId, told),
    series: [
      {
        name: "first five today",
        colour: "tarn",
        style: "line",
        values: told.map(({ warmUp }) => (warmUp === null ? null : share(warmUp.today, warmUp.ofToday))),
        words: told.map(({ warmUp }) => (warmUp === null ? null : `${warmUp.today} of ${warmUp.ofToday}`)),
      },
      {
        name: "last five before",
        colour: "soft",
        style: "points",
        values: told.map(({ warmUp }) => (warmUp === null ? null : share(warmUp.before, warmUp.ofBefore))),
        words: told.map(({ warmUp }) => (warmUp === null ? null : `${warmUp.before} of ${warmUp.ofBefore}`)),
      },
    ],
    x: DAY,
    y: { title: "met", least: 0, most: 1, percent: true },
  };
}

/** A product-limit curve as steps down from all, with Greenwood's bars. */
function survivalChart(title: string, name: string, curve: SurvivalCurve | null, x: string, y: string): ChartSpec | null {
  if (curve === null || curve.answered === 0) return null;
  const steps = [[0, 1, 0] as const, ...curve.steps];
  return {
    title,
    points: steps.map(([at]) => ({ x: at })),
    series: [
      {
        name,
        colour: "tarn",
        style: "steps",
        values: steps.map(([, share]) => share),
        low: steps.map(([, share, error]) => (error === null ? null : Math.max(0, share - 1.96 * error))),
        high: steps.map(([, share, error]) => (error === null ? null : Math.min(1, share + 1.96 * error))),
        words: steps.map(([, share]) => percent(share)),
      },
    ],
    x: { kind: "number", title: x },
    y: { title: y, least: 0, most: 1, percent: true },
  };
}

export const staysChart = ({ stays }: OverWeeks) => survivalChart("Still there after", "still there", stays, "seconds", "share");

export const turnChart = ({ curve }: GoodMoment) =>
  survivalChart("Not turned yet after so many good answers", "sessions still good", curve, "good answers", "sessions");

const WINDOW = 10;

/** Ask by ask: the share met of the last ten, and each answer's time. */
export function askCharts(trials: readonly PastTrial[], seams: readonly number[]): ChartSpec[] {
  const points = trials.map((_, i) => ({ x: i + 1 }));
  const moving = trials.map((_, i) => {
    if (i + 1 < WINDOW) return null;
    return trials.slice(i + 1 - WINDOW, i + 1).filter(({ outcome }) => outcome === "met").length / WINDOW;
  });
  const times = trials.map(({ outcome, latencySeconds }) => (outcome === "met" || outcome === "try" ? latencySeconds : null));
  const x = { kind: "number", title: "ask" } as const;
  const lines = seams.map((at) => ({ x: at, label: "" }));
  const charts: ChartSpec[] = [
    {
      title: "Met of the last ten asks",
      points,
      series: [
        {
          name: "of the last ten",
          colour: "tarn",
          style: "line",
          values: moving,
          words: trials.map(
            ({ outcome }, i) => `${outcome}${moving[i] == null ? "" : `, ${Math.round((moving[i] as number) * WINDOW)} of the last ten`}`,
          ),
        },
      ],
      x,
      y: { title: "met", least: 0, most: 1, percent: true },
      seams: lines,
    },
  ];
  if (times.some((time) => time !== null))
    charts.push({
      title: "Each answer's time",
      points,
      series: [{ name: "seconds", colour: "ochre", style: "points", values: times, words: times.map(fixed(2, " s")) }],
      x,
      y: { title: "seconds", least: 0 },
      seams: lines,
    });
  return charts;
}
