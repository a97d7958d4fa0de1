import type { RibbonFacts, RibbonTrial, Trial } from "@/core/record";
import { SIDE_WORDS } from "@/core/words";

/** Where the ribbon is drawn: a window of time on a box. Times in milliseconds from the start of work. */
export interface RibbonView {
  readonly fromMs: number;
  readonly toMs: number;
  readonly width: number;
  readonly height: number;
  /** How far the line has come in a running session; the right edge without it. */
  readonly presentMs?: number;
}

/** A horse's answer on the line. */
export interface RibbonAnswer {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  readonly outcome: Trial["outcome"];
  readonly side: "L" | "R" | null;
  readonly title: string;
}

/** A mark beside the line. */
export interface RibbonSign {
  readonly key: string;
  readonly kind: "mark" | "food" | "reinforce" | "ease" | "tension" | "danger";
  readonly x: number;
  readonly title: string;
}

/** Everything the drawing needs, in the box's units. */
export interface RibbonDrawing {
  readonly slackY: number;
  readonly line: string;
  /** Stretches while the horse was away: the line runs dotted. */
  readonly dotted: string;
  readonly pressure: string;
  readonly answers: readonly RibbonAnswer[];
  readonly bars: readonly { readonly key: string; readonly x: number; readonly y: number }[];
  readonly signs: readonly RibbonSign[];
  readonly breaks: readonly { readonly key: string; readonly x: number; readonly width: number; readonly label: string }[];
  /** Wrong choices: a step out of the line under it, as long as they lasted. */
  readonly wrongs: readonly { readonly key: string; readonly x: number; readonly width: number; readonly title: string }[];
}

const OUTCOME_WORD = { met: "got it", try: "try", miss: "something else", refused: "no answer" } as const;

/** A trial in one line of words, for the title of its ring and the table. */
export function trialWords(trial: RibbonTrial, phases: readonly string[] | undefined): string {
  const phase = trial.phase === null ? null : (phases?.[trial.phase - 1] ?? `phase ${trial.phase}`);
  const parts = [
    `${trial.number}: ${OUTCOME_WORD[trial.outcome]}`,
    trial.side === null ? null : SIDE_WORDS[trial.side],
    phase,
    trial.latencySeconds === null ? null : `after ${trial.latencySeconds.toFixed(1)} s`,
    trial.shortfall === null || trial.overridden ? null : trial.shortfall,
  ];
  return parts.filter((part) => part !== null).join(", ");
}

/** The widest a whole trial is drawn, in box units: it has no length of its own. */
const PEG_WIDTH = 9;
const SAG = 7;

const round = (n: number) => Math.round(n * 10) / 10;

function minutesWords(ms: number): string {
  const seconds = Math.round(ms / 1000);
  return seconds < 90 ? `${seconds} s` : `${Math.round(seconds / 60)} min`;
}

/**
 * Lays the ribbon out: time to the right, pressure upwards. The line is slack
 * and sags while nothing is asked, and stands higher with each cue phase.
 */
export function layOutRibbon(record: RibbonFacts, view: RibbonView): RibbonDrawing {
  const { fromMs, toMs, width, height } = view;
  const presentMs = view.presentMs ?? toMs;
  const slackY = height * 0.68;
  const topY = height * 0.2;
  const x = (ms: number) => round(((ms - fromMs) / Math.max(1, toMs - fromMs)) * width);
  const most = Math.max(2, ...record.trials.flatMap((t) => t.phaseSteps.map((s) => s.phase)), record.openAsk?.phase ?? 0);
  const levelY = (phase: number) => round(slackY - ((slackY - topY) * phase) / most);
  const inView = (ms: number) => ms >= fromMs - 2000 && ms <= toMs + 2000;

  let line = "";
  let pressure = "";
  let at = Math.max(-20, x(Math.max(0, fromMs)));
  const start = (toX: number) => {
    line += `M${round(at)} ${slackY}`;
    at = toX;
  };
  const slackTo = (toX: number) => {
    if (toX <= at) return;
    const sag = Math.min(SAG, (toX - at) * 0.16);
    line += ` C${round(at + (toX - at) * 0.3)} ${round(slackY + sag)} ${round(at + (toX - at) * 0.7)} ${round(slackY + sag)} ${round(toX)} ${slackY}`;
    at = toX;
  };
  const pulse = (askMs: number, endMs: number, steps: readonly { ms: number; phase: number }[], peg: boolean): number => {
    const left = peg ? x(endMs) - PEG_WIDTH : x(askMs);
    const right = peg ? x(endMs) : Math.max(x(endMs), left + 3);
    const first = steps[0]?.phase ?? 1;
    slackTo(left);
    const rise = Math.min(3, (right - left) / 3);
    let y = levelY(first);
    let path = ` L${round(left + rise)} ${y}`;
    for (const step of steps.slice(1)) {
      const stepX = round(Math.min(right, x(step.ms)));
      path += ` H${stepX} V${levelY(step.phase)}`;
      y = levelY(step.phase);
    }
    path += ` H${round(right)}`;
    line += path;
    pressure += `M${round(left)} ${slackY}${path} V${slackY} Z`;
    at = right;
    return y;
  };

  start(at);
  const answers: RibbonAnswer[] = [];
  const bars: RibbonDrawing["bars"][number][] = [];
  const signs: RibbonSign[] = [];
  for (const trial of record.trials) {
    if (!inView(trial.endMs) && !inView(trial.askMs)) continue;
    const phases = trial.blockIndex === null ? undefined : record.blocks[trial.blockIndex]?.criterion?.phases;
    const peg = trial.endMs - trial.askMs < 50;
    const steps = trial.phaseSteps.length > 0 ? trial.phaseSteps : [{ ms: trial.askMs, phase: 1 }];
    const y = pulse(trial.askMs, trial.endMs, steps, peg);
    const endX = at;
    line += ` C${round(endX + 1)} ${round((y + slackY) / 2)} ${round(endX + 1.5)} ${slackY} ${round(endX + 4)} ${slackY}`;
    at = endX + 4;
    const title = trialWords(trial, phases);
    const ringX = trial.answerMs !== null && !peg ? x(trial.answerMs) : endX - (peg ? PEG_WIDTH / 2 : 0);
    // The ring sits at the height the line has when the answer comes.
    const phaseThen = steps.reduce((p, s) => (trial.answerMs !== null && s.ms > trial.answerMs ? p : s.phase), steps[0]?.phase ?? 1);
    if (trial.outcome === "refused") bars.push({ key: trial.eventId, x: endX, y });
    answers.push({
      key: trial.eventId,
      x: ringX,
      y: trial.outcome === "refused" ? y : levelY(phaseThen),
      outcome: trial.outcome,
      side: trial.side,
      title,
    });
    const markX = trial.markMs !== null ? x(trial.markMs) : trial.marked ? endX : null;
    if (markX !== null) signs.push({ key: `m${trial.eventId}`, kind: "mark", x: markX, title: "mark" });
    const pieces = trial.reinforcers ?? 0;
    const feedX = trial.feedMs !== null ? x(trial.feedMs) : pieces > 0 ? endX + 6 : null;
    if (feedX !== null)
      signs.push({ key: `f${trial.eventId}`, kind: "food", x: feedX, title: pieces === 1 ? "food" : `food, ${pieces} pieces` });
    if (trial.reinforcerKinds.length > 0)
      signs.push({ key: `r${trial.eventId}`, kind: "reinforce", x: endX + 8, title: trial.reinforcerKinds.join(", ") });
  }
  const open = record.openAsk;
  if (open !== null && inView(toMs)) {
    pulse(open.askMs, Math.max(open.askMs + 1, presentMs), open.phaseSteps, false);
  } else slackTo(x(Math.min(presentMs, record.finishMs ?? presentMs)));

  for (const fact of record.facts) {
    if (fact.type === "signal" && fact.payload.class !== "count" && inView(fact.ms)) {
      const kind =
        fact.payload.class === "ease" ? "ease" : fact.payload.class === "danger" || fact.payload.class === "pain" ? "danger" : "tension";
      signs.push({ key: fact.id, kind, x: x(fact.ms), title: `${fact.payload.name} (${kind})` });
    }
  }
  const dotted = record.timeLine.departures.map(({ startMs, endMs }) => `M${x(startMs)} ${slackY} H${x(endMs ?? presentMs)}`).join("");
  const breaks = record.timeLine.breaks
    .map((b, i) => ({ key: `b${i}`, startMs: b.startMs, endMs: b.endMs ?? presentMs }))
    .filter((b) => b.endMs >= fromMs && b.startMs <= toMs)
    .map((b) => ({
      key: b.key,
      x: x(b.startMs),
      width: Math.max(2, x(b.endMs) - x(b.startMs)),
      label: `rest ${minutesWords(b.endMs - b.startMs)}`,
    }));
  const wrongs = (record.timeLine.wrongs ?? [])
    .filter(({ startMs, endMs }) => (endMs ?? presentMs) >= fromMs && startMs <= toMs)
    .map(({ eventId, startMs, endMs, did, met }) => ({
      key: eventId,
      x: x(startMs),
      width: Math.max(6, x(endMs ?? presentMs) - x(startMs)),
      title: `wrong choice${did === null ? "" : `: ${did}`}${met === null ? "" : `, met by: ${met}`}`,
    }));
  return { slackY, line, dotted, pressure, answers, bars, signs, breaks, wrongs };
}
