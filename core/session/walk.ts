import type { Outcome } from "../evidence/group";
import type { Criterion } from "../ladder/criterion";
import { earnsReinforcer } from "../ladder/schedule";
import type { EventType } from "../schemas/event";
import type { PlacedEvent } from "./clock";
import { barOf, judgedByBar } from "./follow-bar";
import { putRight, type RightTrial } from "./put-right";
import type { Block, BlockKind, SessionHeader } from "./reduce";
import { silenceLimitMs, WENT_ON } from "./silence";
import type { Trial } from "./trial";
import { TrialBuilder, type TrialSurroundings } from "./trial-builder";
import { buildWholeTrial, draftWholeTrial, type WholeTrialDraft } from "./whole-trial";

/** Facts that come after the work and do not stretch it. */
const AFTERWARDS: ReadonlySet<EventType> = new Set(["note", "aftercare", "override", "word", "preflight", "session.start"]);

const text = (value: unknown) => (typeof value === "string" && value !== "" ? value : null);
const number = (value: unknown) => (typeof value === "number" ? value : null);
const sideOf = (value: unknown) => (value === "L" || value === "R" ? value : null);

function criterionFrom(value: unknown): Criterion | null {
  if (typeof value === "string") return { sentence: value };
  return typeof value === "object" && value !== null ? (value as Criterion) : null;
}

type Draft = { readonly timed: TrialBuilder; readonly right: RightTrial | null; stopped: boolean } | { readonly whole: WholeTrialDraft };

const rightOf = ({ right }: Readonly<Record<string, unknown>>): RightTrial | null =>
  typeof right === "object" && right !== null ? (right as RightTrial) : null;

/** The walk over the events in order: what is open, and what came out so far. */
export class Walk {
  header: SessionHeader | null = null;
  readonly blocks: { -readonly [K in keyof Block]: Block[K] }[] = [];
  readonly drafts: Draft[] = [];
  readonly breaks: { startMs: number; endMs: number | null; silent?: true; after?: string }[] = [];
  finishMs: number | null = null;
  shiftMs: number | null = null;
  lastMs = 0;
  offers = 0;
  foodPiecesOutside = 0;
  private current: Draft | null = null;
  private blockOpen = false;
  private zone: string | null = null;
  readonly overrides: { of: string; to: Outcome }[] = [];
  private away = false;
  /** Where the horse left from, while it is away. */
  private leftFrom: string | null = null;
  private moving = false;
  private lastTap: { readonly id: string; readonly wentOn: boolean } | null = null;

  constructor(private readonly silenceMinutes: number) {}

  /** How long nothing may be tapped from here on for it to stay work. */
  get runsOnMs(): number {
    const onBreak = this.breaks.at(-1)?.endMs === null;
    if (onBreak || this.lastTap === null) return Number.POSITIVE_INFINITY;
    return silenceLimitMs(this.silenceMinutes, this.openTimed !== null || this.away || this.moving, this.lastTap.wentOn);
  }

  /** A departure leads where it is said to lead; a return without a zone back to where the horse left. */
  private move(away: boolean, payload: Readonly<Record<string, unknown>>): void {
    if (away === this.away) return;
    this.away = away;
    if (away) {
      this.leftFrom = text(payload.from) ?? this.zone;
      this.zone = text(payload.to);
    } else this.zone = text(payload.to) ?? this.leftFrom;
  }

  get lastTapId(): string | null {
    return this.lastTap?.id ?? null;
  }

  /** A silence too long to be work is a pause from the last tap to this one. @returns when the event counts. */
  private hear({ event, ms }: PlacedEvent): number {
    // Times written from memory are rough, and nobody tapped them: no silence can be heard in them.
    const late = event.payload.logged === "late";
    const silent = !late && this.blocks.length > 0 && ms - this.lastMs > this.runsOnMs;
    if (silent) {
      this.closeAsk(this.lastMs, true);
      this.moving = false;
    }
    // The end of a block or of the session that is tapped on coming back lies where it was left.
    if (silent && (event.type === "session.end" || event.type === "block.end")) return this.lastMs;
    if (silent)
      this.breaks.push({ startMs: this.lastMs, endMs: ms, silent: true, ...(this.lastTap === null ? {} : { after: this.lastTap.id }) });
    this.lastTap = { id: event.id, wentOn: late || event.payload[WENT_ON] === true };
    return ms;
  }

  private surroundings(): TrialSurroundings {
    const index = this.blockOpen ? this.blocks.length - 1 : null;
    const block = index === null ? undefined : this.blocks[index];
    return { blockIndex: index, criterion: block?.criterion ?? null, side: block?.side ?? null, zone: this.zone };
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

  private onWork({ event, ms }: PlacedEvent): void {
    const { payload, id } = event;
    const current = this.current;
    const timed = current !== null && "timed" in current ? current.timed : null;
    const after = current !== null && "whole" in current ? current.whole.after : null;
    switch (event.type) {
      case "ask": {
        this.closeAsk(ms, false);
        const draft = {
          timed: new TrialBuilder(id, ms, number(payload.phase) ?? 1, this.surroundings()),
          right: rightOf(payload),
          stopped: false,
        };
        this.drafts.push(draft);
        this.current = draft;
        return;
      }
      case "trial": {
        this.closeAsk(ms, false);
        const draft = { whole: draftWholeTrial(id, ms, payload, this.surroundings()) };
        this.drafts.push(draft);
        this.current = draft;
        return;
      }
      case "response": {
        const answer = payload.answer as "met" | "try" | "wrong" | "refused";
        if (timed?.response(ms, answer, number(payload.phase))) timed.eventIds.push(id);
        else this.takeOffer();
        return;
      }
      case "offer":
        this.takeOffer();
        return;
      case "phase":
        timed?.phase(ms, payload.phase as number);
        break;
      case "criterion":
        timed?.criterion(ms);
        break;
      case "release":
        timed?.release(ms);
        break;
      case "stay":
        timed?.stay(ms, payload.ended_by as "criterion" | "left" | "handler");
        break;
      case "mark":
        timed?.mark(ms);
        if (after !== null) after.markMs ??= ms;
        break;
      case "feed": {
        const pieces = number(payload.pieces) ?? 1;
        timed?.feed(ms, pieces);
        if (after !== null) {
          after.feedMs ??= ms;
          after.pieces += pieces;
        }
        if (current === null) this.foodPiecesOutside += pieces;
        break;
      }
      case "reinforce":
        timed?.reinforce(String(payload.what));
        after?.reinforcerKinds.push(String(payload.what));
        break;
      case "measure": {
        const value = payload.value as number;
        const unit = text(payload.unit) ?? "";
        timed?.measure(String(payload.strand), value, unit);
        if (after !== null && current !== null && "whole" in current) {
          if (payload.strand === "ease") after.ease = value;
          else if (payload.strand === current.whole.around.criterion?.working?.strand) after.measured = { value, unit };
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
    const { payload } = event;
    if (this.finishMs !== null && !AFTERWARDS.has(event.type)) return;
    const ms = AFTERWARDS.has(event.type) ? placed.ms : this.hear(placed);
    if (!AFTERWARDS.has(event.type)) this.lastMs = Math.max(this.lastMs, ms);
    if (event.type === "depart" || event.type === "return") this.move(event.type === "depart", payload);
    if (event.type === "gait") this.moving = payload.gait !== "stand";
    switch (event.type) {
      case "session.start":
        this.header ??= {
          horse: String(payload.horse ?? ""),
          handler: text(payload.handler),
          place: text(payload.place),
          method: String(payload.method),
        };
        this.shiftMs ??= (number(payload.shift_s) ?? 0) * 1000;
        return;
      case "block.start":
        this.endBlock(ms);
        this.current = null;
        this.blockOpen = true;
        this.blocks.push({
          number: payload.block as number,
          eventId: event.id,
          startMs: ms,
          endMs: null,
          behaviour: String(payload.behaviour),
          ladder: text(payload.ladder),
          version: number(payload.version),
          rung: String(payload.rung),
          criterion: criterionFrom(payload.criterion),
          side: sideOf(payload.side),
          kind: text(payload.kind) as BlockKind | null,
          planned: number(payload.planned),
        });
        return;
      case "block.end":
        this.endBlock(ms);
        return;
      case "break.start":
        this.closeAsk(ms, true);
        if (this.breaks.at(-1)?.endMs !== null) this.breaks.push({ startMs: ms, endMs: null });
        return;
      case "break.end": {
        const last = this.breaks.at(-1);
        if (last !== undefined && last.endMs === null) last.endMs = ms;
        return;
      }
      case "session.end":
        this.endBlock(ms);
        this.current = null;
        this.finishMs = ms;
        return;
      case "zone":
        this.zone = text(payload.zone);
        return;
      case "override":
        this.overrides.push({ of: String(payload.of), to: payload.to as Outcome });
        return;
      default:
        this.onWork(placed);
    }
  }

  /** Numbers the trials, applies the rung's schedule to whole trials, then the overrides. */
  finish(): { trials: Trial[]; cutOffAsks: number } {
    const trials: Trial[] = [];
    let cutOffAsks = 0;
    const metInBlock = new Map<number | null, number>();
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
      const right = "timed" in draft ? draft.right : rightOf(draft.whole.payload);
      if (right !== null) trial = putRight(trial, right, block?.criterion ?? null);
      if (block?.criterion?.working?.percentile !== undefined && right?.outcome === undefined) {
        const before = trials.filter(({ blockIndex }) => blockIndex === trial?.blockIndex);
        const bar = barOf(block.criterion, block.number, before);
        if (bar !== null) trial = judgedByBar(trial, bar, block.criterion);
      }
      if (trial.tapped === "met") metInBlock.set(trial.blockIndex, (metInBlock.get(trial.blockIndex) ?? 0) + 1);
      trials.push(trial);
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
    return { trials, cutOffAsks };
  }
}
