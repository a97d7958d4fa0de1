import type { EventType, Payload } from "../events";
import type { Outcome } from "../evidence/group";
import type { Criterion } from "../ladder/criterion";
import { earnsReinforcer } from "../ladder/schedule";
import type { SignKind } from "../signs";
import type { PlacedEvent } from "./clock";
import { barOf, judgedByBar } from "./follow-bar";
import { putRight, type RightTrial } from "./put-right";
import type { Block, SessionHeader } from "./reduce";
import { silenceLimitMs } from "./silence";
import { STANDING, TimeLineBuilder } from "./time-line";
import type { Handler, Trial } from "./trial";
import { TrialBuilder, type TrialSurroundings, worstOf } from "./trial-builder";
import { buildWholeTrial, draftWholeTrial, rewardedAsEarned, type WholeTrialDraft } from "./whole-trial";

/** Facts that come after the work and do not stretch it. */
const AFTERWARDS: ReadonlySet<EventType> = new Set([
  "note",
  "aftercare",
  "override",
  "word",
  "preflight",
  "rig",
  "session.start",
  "cool",
  "circle.rated",
]);

/** A marker heard this soon after a tally, or after a timed ask was let go, belongs to it; one heard before belongs to a tally that follows this soon (common practice, no source). */
const MARKED_AFTER_TAP_MS = 1000;
const TAPPED_AFTER_MARK_MS = 6000;

/** A sign this long before a tally, with no answer in between, came within its ask (common practice, no source). */
const SIGN_BEFORE_TAP_MS = 60_000;

const text = (value: string | undefined) => (value === undefined || value === "" ? null : value);
const sideOf = (side: "L" | "R" | "both" | "" | undefined) => (side === "L" || side === "R" ? side : null);

/** A criterion as an event carries it. A schedule that does not say its ratio is none. */
function criterionOf(given: Payload<"block.start">["criterion"]): Criterion | null {
  if (given === undefined) return null;
  if (typeof given === "string") return { sentence: given };
  const { schedule, ...rest } = given;
  if (schedule === undefined) return rest;
  if (schedule.kind === "every") return { ...given, schedule: { ...schedule, kind: schedule.kind } };
  if (schedule.ratio === undefined) return rest;
  return { ...given, schedule: { ...schedule, kind: schedule.kind, ratio: schedule.ratio } };
}

type TrialDraft =
  | { readonly timed: TrialBuilder; readonly right: RightTrial | null; stopped: boolean }
  | { readonly whole: WholeTrialDraft };

/** The walk over the events in order: what is open, and what came out so far. */
export class Walk {
  header: SessionHeader | null = null;
  readonly blocks: { -readonly [K in keyof Block]: Block[K] }[] = [];
  readonly drafts: TrialDraft[] = [];
  readonly timeLine = new TimeLineBuilder();
  finishMs: number | null = null;
  shiftMs: number | null = null;
  lastMs = 0;
  offers = 0;
  foodPiecesOutside = 0;
  private current: TrialDraft | null = null;
  private blockOpen = false;
  readonly overrides: { of: string; to: Outcome }[] = [];
  /** Who handles from here on, where that was said; null for whoever the session was begun for. */
  private handler: Handler | null = null;
  /** What the handler did since the last ask ended: it belongs to the tally that comes. */
  private actsBefore: Record<string, number> = {};
  /** A marker the device heard while no ask was open and no answer had just been tapped. */
  private signsBefore: { readonly ms: number; readonly kind: SignKind }[] = [];
  private heardBefore: { readonly id: string; readonly ms: number } | null = null;
  /** Whether a gait other than standing goes on that no silence has ended. */
  private moving = false;
  /** Minutes of the segments of a plan that runs by its own clock, and when it ends: until then no tap is no silence. */
  private planMinutes: readonly number[] = [];
  private planEndMs = Number.NEGATIVE_INFINITY;
  private lastTap: { readonly id: string; readonly wentOn: boolean } | null = null;

  constructor(private readonly silenceMinutes: number) {}

  /** How long nothing may be tapped from here on for it to stay work. */
  get runsOnMs(): number {
    if (this.timeLine.onBreak || this.lastTap === null) return Number.POSITIVE_INFINITY;
    return silenceLimitMs(this.silenceMinutes, this.openTimed !== null || this.timeLine.away || this.moving, this.lastTap.wentOn);
  }

  /** When the plan that runs by its own clock ends, in milliseconds; null where none does, or a pause holds it up. */
  get planRunsUntilMs(): number | null {
    return Number.isFinite(this.planEndMs) && !this.timeLine.onBreak ? this.planEndMs : null;
  }

  /** A plan runs from one of its segments to its end; what moves on it is no silence. */
  private runPlan(ms: number, segment: number): void {
    this.moving = true;
    this.planEndMs = ms + this.planMinutes.slice(segment).reduce((sum, minutes) => sum + minutes * 60_000, 0);
  }

  get lastTapId(): string | null {
    return this.lastTap?.id ?? null;
  }

  /** A silence too long to be work is a pause from the last tap to this one. @returns when the event counts. */
  private hear({ event, ms }: PlacedEvent): number {
    // Times written from memory are rough, and nobody tapped them: no silence can be heard in them.
    const late = event.type === "trial" && event.payload.logged === "late";
    // A plan ran on by its clock, whatever was tapped.
    const from = this.timeLine.onBreak ? this.lastMs : Math.max(this.lastMs, Math.min(this.planEndMs, ms));
    const silent = !late && this.blocks.length > 0 && ms - from > this.runsOnMs;
    if (silent) {
      this.closeAsk(from, true);
      this.timeLine.cutSpans(from);
      this.moving = false;
    }
    // The end of a block or of the session that is tapped on coming back lies where it was left.
    if (silent && (event.type === "session.end" || event.type === "block.end")) return from;
    if (silent) this.timeLine.fallSilent(from, ms, this.lastTapId);
    this.lastTap = { id: event.id, wentOn: late || event.payload.went_on === true };
    return ms;
  }

  /** A new ask ends what went on before it. How long looking or settling would have taken is then not known. */
  private asked(ms: number): void {
    this.timeLine.endWrong(ms);
    this.timeLine.endOwn(ms, null, false);
  }

  private surroundings(): TrialSurroundings {
    const index = this.blockOpen ? this.blocks.length - 1 : null;
    const block = index === null ? undefined : this.blocks[index];
    return {
      blockIndex: index,
      criterion: block?.criterion ?? null,
      side: block?.side ?? null,
      zone: this.timeLine.zone,
      handler: this.handler,
    };
  }

  /** Whether an answer was tapped a moment ago, so that a marker heard now came after its tap. */
  private justTapped(ms: number): boolean {
    if (this.current === null) return false;
    const tappedMs = "whole" in this.current ? this.current.whole.ms : this.current.timed.endMs;
    return tappedMs !== null && ms - tappedMs <= MARKED_AFTER_TAP_MS;
  }

  private closeAsk(ms: number, stopped: boolean): void {
    if (this.current === null || !("timed" in this.current)) return;
    if (this.current.timed.open && stopped) this.current.stopped = true;
    this.current.timed.close(ms);
  }

  private endBlock(ms: number): void {
    this.closeAsk(ms, true);
    const block = this.blocks.at(-1);
    if (this.blockOpen && block !== undefined) block.endMs = ms;
    this.blockOpen = false;
  }

  get openTimed(): TrialBuilder | null {
    return this.current !== null && "timed" in this.current && this.current.timed.open ? this.current.timed : null;
  }

  /** An answer nobody asked for. What is given after it was earned by it, not by the trial before. */
  private takeOffer(): void {
    this.offers++;
    if (this.openTimed === null) this.current = null;
  }

  /** A sign: of the ask that is open, or else of the tally that comes. */
  sign(ms: number, kind: SignKind): void {
    const open = this.openTimed;
    if (open !== null) open.sign(ms, kind);
    else this.signsBefore.push({ ms, kind });
  }

  /** The worst sign since the last answer, in the moments before a tally. */
  private takeTrouble(ms: number): Trial["troubled"] {
    const near = this.signsBefore.filter((one) => ms - one.ms <= SIGN_BEFORE_TAP_MS);
    this.signsBefore = [];
    return near.reduce<Trial["troubled"]>((worst, { kind }) => worstOf(worst, kind), null);
  }

  private onWork({ event, ms }: PlacedEvent): void {
    const { id } = event;
    const current = this.current;
    const timed = current !== null && "timed" in current ? current.timed : null;
    const after = current !== null && "whole" in current ? current.whole.after : null;
    switch (event.type) {
      case "ask": {
        this.closeAsk(ms, false);
        this.asked(ms);
        const draft = {
          timed: new TrialBuilder(id, ms, event.payload.phase ?? 1, this.surroundings()),
          right: event.payload.right ?? null,
          stopped: false,
        };
        this.drafts.push(draft);
        this.current = draft;
        this.actsBefore = {};
        this.signsBefore = [];
        return;
      }
      case "trial": {
        this.closeAsk(ms, false);
        this.asked(ms);
        const draft = { whole: draftWholeTrial(id, ms, event.payload, this.surroundings(), this.actsBefore, this.takeTrouble(ms)) };
        this.actsBefore = {};
        const { heardBefore } = this;
        if (heardBefore !== null && ms - heardBefore.ms <= TAPPED_AFTER_MARK_MS) {
          draft.whole.after.markMs = heardBefore.ms;
          draft.whole.after.eventIds.push(heardBefore.id);
        }
        this.heardBefore = null;
        this.drafts.push(draft);
        this.current = draft;
        return;
      }
      case "response": {
        const { answer, phase = null } = event.payload;
        if (timed?.response(ms, answer, phase)) timed.eventIds.push(id);
        else this.takeOffer();
        return;
      }
      case "offer":
        this.takeOffer();
        return;
      case "phase":
        timed?.phase(ms, event.payload.phase);
        break;
      case "criterion":
        timed?.criterion(ms);
        break;
      case "release":
        timed?.release(ms);
        break;
      case "stay":
        timed?.stay(ms, event.payload.ended_by);
        break;
      case "mark":
        if (event.payload.heard !== undefined && this.openTimed === null && !this.justTapped(ms)) {
          // Heard at the answer, before the answer was tapped: it belongs to the tally that comes.
          this.heardBefore = { id, ms };
          return;
        }
        timed?.mark(ms);
        if (after !== null) after.markMs ??= ms;
        break;
      case "feed": {
        const { pieces = 1 } = event.payload;
        timed?.feed(ms, pieces);
        if (after !== null) {
          after.feedMs ??= ms;
          after.pieces += pieces;
        }
        if (current === null) this.foodPiecesOutside += pieces;
        break;
      }
      case "reinforce":
        timed?.reinforce(event.payload.what);
        after?.reinforcerKinds.push(event.payload.what);
        break;
      case "retreat": {
        const { distance_m } = event.payload;
        const working = (after === null ? timed?.around : current !== null && "whole" in current ? current.whole.around : null)?.criterion
          ?.working;
        timed?.reinforce("away");
        after?.reinforcerKinds.push("away");
        if (distance_m !== undefined && working?.strand === "approach") {
          timed?.measure("approach", distance_m, working.unit);
          if (after !== null) after.measured ??= { value: distance_m, unit: working.unit };
        }
        break;
      }
      case "measure": {
        const { strand, value, unit = "" } = event.payload;
        timed?.measure(strand, value, unit);
        if (after !== null && current !== null && "whole" in current) {
          if (strand === "ease") after.ease = value;
          else if (strand === "movement") after.movement = value;
          else if (strand === current.whole.around.criterion?.working?.strand) after.measured = { value, unit };
        }
        break;
      }
      default:
        return;
    }
    timed?.eventIds.push(id);
    after?.eventIds.push(id);
  }

  take(placed: PlacedEvent): void {
    const { event } = placed;
    if (this.finishMs !== null && !AFTERWARDS.has(event.type)) return;
    const ms = AFTERWARDS.has(event.type) ? placed.ms : this.hear(placed);
    if (!AFTERWARDS.has(event.type)) this.lastMs = Math.max(this.lastMs, ms);
    switch (event.type) {
      case "session.start":
        this.header ??= {
          horse: event.payload.horse,
          handler: text(event.payload.handler),
          place: text(event.payload.place),
          method: event.payload.method,
        };
        this.shiftMs ??= (event.payload.shift_s ?? 0) * 1000;
        return;
      case "block.start": {
        const {
          block,
          behaviour,
          ladder,
          version = null,
          rung,
          criterion,
          side,
          kind = null,
          planned = null,
          tries = null,
        } = event.payload;
        this.endBlock(ms);
        this.current = null;
        this.signsBefore = [];
        this.blockOpen = true;
        this.blocks.push({
          number: block,
          eventId: event.id,
          startMs: ms,
          endMs: null,
          behaviour,
          ladder: text(ladder),
          version,
          rung: String(rung),
          criterion: criterionOf(criterion),
          side: sideOf(side),
          kind,
          planned,
          tries,
        });
        return;
      }
      case "block.end":
        this.endBlock(ms);
        return;
      case "break.start":
        this.closeAsk(ms, true);
        this.timeLine.cutSpans(ms);
        this.timeLine.beginBreak(ms);
        return;
      case "break.end": {
        const pause = this.timeLine.breaks.at(-1);
        if (pause !== undefined && pause.endMs === null) this.planEndMs += ms - pause.startMs;
        this.timeLine.endBreak(ms);
        return;
      }
      case "session.end":
        this.endBlock(ms);
        this.timeLine.cutSpans(ms);
        this.current = null;
        this.finishMs = ms;
        return;
      case "zone":
        this.timeLine.enter(ms, event.payload.zone);
        return;
      case "depart":
        this.timeLine.depart(ms, event.payload);
        return;
      case "return":
        this.timeLine.comeBack(ms, event.payload);
        return;
      case "circle.start":
        this.planMinutes = event.payload.plan.segments.map(({ minutes }) => minutes);
        this.runPlan(ms, 0);
        return;
      case "circle.go":
        this.runPlan(ms, event.payload.segment);
        return;
      case "circle.more":
        this.planEndMs = Math.max(this.planEndMs, ms) + event.payload.seconds * 1000;
        return;
      case "gait":
        this.moving = event.payload.gait !== STANDING;
        this.timeLine.move(ms, event.payload);
        return;
      case "wrong": {
        const { did, met, began = null, zone, metres = null, goes_on, seconds } = event.payload;
        const length = goes_on === true ? null : (seconds ?? 0) * 1000;
        this.timeLine.chooseWrong(ms, event.id, { did: text(did), met: text(met), began, zone: text(zone), metres }, length);
        return;
      }
      case "wrong.end":
        this.timeLine.endWrong(ms);
        return;
      case "own.start":
        this.timeLine.beginOwn(ms, event.id, event.payload.what, text(event.payload.at));
        return;
      case "own.end":
        this.timeLine.endOwn(ms, event.payload.what, event.payload.ended_by !== "handler");
        return;
      case "with": {
        const { who, person, part, leaves } = event.payload;
        if (part !== "handles" || leaves === true) return;
        this.handler = { name: who, id: text(person) };
        return;
      }
      case "handler": {
        const { act, n = 1 } = event.payload;
        const counts = this.openTimed?.handlerActs ?? this.actsBefore;
        counts[act] = (counts[act] ?? 0) + n;
        return;
      }
      case "override":
        this.overrides.push({ of: event.payload.of, to: event.payload.to });
        return;
      default:
        this.onWork(placed);
    }
  }

  /** Numbers the trials, applies the rung's schedule to whole trials, then the overrides. */
  finish(): { trials: Trial[]; cutOffAsks: number } {
    const trials: Trial[] = [];
    const piecesByPad: number[] = [];
    let cutOffAsks = 0;
    const metInBlock = new Map<number | null, number>();
    const byBlock = new Map<number | null, Trial[]>();
    for (const draft of this.drafts) {
      let trial: Trial | null;
      if ("timed" in draft) {
        trial = draft.timed.build(trials.length + 1, draft.stopped);
        if (trial === null && !draft.timed.open) cutOffAsks++;
      } else {
        const { around, payload } = draft.whole;
        const schedule = around.criterion?.schedule;
        const metSoFar = (metInBlock.get(around.blockIndex) ?? 0) + (payload.outcome === "met" ? 1 : 0);
        trial = buildWholeTrial(draft.whole, trials.length + 1, schedule === undefined || earnsReinforcer(schedule, metSoFar));
      }
      if (trial === null) continue;
      const block = trial.blockIndex === null ? undefined : this.blocks[trial.blockIndex];
      const right = "timed" in draft ? draft.right : (draft.whole.payload.right ?? null);
      if (right !== null) trial = putRight(trial, right, block?.criterion ?? null);
      if (block?.criterion?.working?.percentile !== undefined && right?.outcome === undefined) {
        const bar = barOf(block.criterion, block, byBlock.get(trial.blockIndex) ?? []);
        if (bar !== null) trial = judgedByBar(trial, bar, block.criterion);
      }
      if (trial.outcome === "met") metInBlock.set(trial.blockIndex, (metInBlock.get(trial.blockIndex) ?? 0) + 1);
      trials.push(trial);
      const ofBlock = byBlock.get(trial.blockIndex);
      if (ofBlock === undefined) byBlock.set(trial.blockIndex, [trial]);
      else ofBlock.push(trial);
      piecesByPad.push("whole" in draft ? draft.whole.after.pieces : 0);
    }
    const indexById = new Map<string, number>();
    if (this.overrides.length > 0) {
      for (const [i, trial] of trials.entries()) for (const id of trial.eventIds) indexById.set(id, i);
    }
    for (const { of, to } of this.overrides) {
      const index = indexById.get(of);
      const trial = index === undefined ? undefined : trials[index];
      if (index !== undefined && trial !== undefined) trials[index] = { ...trial, outcome: to, overridden: true };
    }
    return { trials: trials.map((trial, i) => rewardedAsEarned(trial, piecesByPad[i] ?? 0)), cutOffAsks };
  }
}
