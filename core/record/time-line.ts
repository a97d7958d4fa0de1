/** A span of milliseconds from the start of work; `endMs` is null while it goes on. */
export interface Span {
  readonly startMs: number;
  readonly endMs: number | null;
}

/** A stretch that is not work. `silent` where nobody tapped it: it follows from the silence. */
export interface Pause extends Span {
  readonly silent?: true;
  /** Of a silent one: the tap before it, by which it can be said that work went on. */
  readonly after?: string;
}

/** A stretch in one zone, or in none that was tapped. */
export interface ZoneSpan extends Span {
  readonly zone: string | null;
}

/** From a departure to its return. `to` is where it led, as far as that was said or tapped. */
export interface Departure extends Span {
  readonly from: string | null;
  readonly to: string | null;
}

/** A stretch in one gait. Direction and radius are the last ones said, then or before. */
export interface GaitSpan extends Span {
  readonly gait: string;
  readonly direction: string | null;
  readonly radiusMetres: number | null;
}

/** A wrong choice of the horse, with what it met. Of no length where it was one tap. */
export interface WrongChoice extends Span {
  readonly eventId: string;
  readonly did: string | null;
  readonly met: string | null;
  readonly began: "first step" | "edge" | "far off" | null;
  /** Where that is said; otherwise the horse was where the zones say. */
  readonly zone: string | null;
  readonly metres: number | null;
  /** Whether how long it took is known. */
  readonly timed: boolean;
}

/** A stretch of the horse's own time. `reached` where the horse itself ended it: it looked away, or had settled. */
export interface OwnTime extends Span {
  readonly eventId: string;
  readonly what: "looks" | "settles";
  readonly at: string | null;
  readonly reached: boolean;
}

/**
 * Where the horse was, what it did and when it rested: each a list of spans in
 * order that never overlap. Whoever asks where the horse is, or whether time
 * counts, asks this. What was tapped before work began has times below 0.
 */
export interface TimeLine {
  /** Without a gap: each begins where the one before it ended. */
  readonly zones: readonly ZoneSpan[];
  readonly departures: readonly Departure[];
  /** Without a gap from the first gait on. */
  readonly gaits: readonly GaitSpan[];
  /** Breaks that were tapped, and silences too long to be work. */
  readonly breaks: readonly Pause[];
  /** By their beginning; none overlaps another. */
  readonly wrongs: readonly WrongChoice[];
  /** By their beginning; of one kind none overlaps another. */
  readonly ownTimes: readonly OwnTime[];
}

export const STANDING = "stand";

type Open<S extends Span> = { -readonly [Key in keyof S]: S[Key] };

const text = (value: string | null | undefined) => (value === undefined || value === "" ? null : value);

/** Ends the last span of a list, if it goes on. A span of no length that nothing came of is none. */
function end<S extends Span>(spans: Open<S>[], ms: number): void {
  const last = spans.at(-1);
  if (last !== undefined && last.endMs === null) last.endMs = ms;
}

/** Draws the time line from facts in order of time. */
export class TimeLineBuilder implements TimeLine {
  readonly zones: Open<ZoneSpan>[] = [];
  readonly departures: Open<Departure>[] = [];
  readonly gaits: Open<GaitSpan>[] = [];
  readonly breaks: Open<Pause>[] = [];
  readonly wrongs: Open<WrongChoice>[] = [];
  readonly ownTimes: Open<OwnTime>[] = [];

  /** The line drawn so far, as plain data. */
  get drawn(): TimeLine {
    const { zones, departures, gaits, breaks, wrongs, ownTimes } = this;
    return { zones, departures, gaits, breaks, wrongs, ownTimes };
  }

  /** Whether a wrong choice or the horse's own time goes on. */
  get inSpan(): boolean {
    return this.wrongs.at(-1)?.endMs === null || this.ownTimes.some(({ endMs }) => endMs === null);
  }

  /** The horse chose wrong. One that went on ends where the next begins. */
  chooseWrong(
    ms: number,
    eventId: string,
    said: Omit<WrongChoice, "startMs" | "endMs" | "eventId" | "timed">,
    length: number | null,
  ): void {
    end(this.wrongs, ms);
    const endMs = length === null ? null : ms + length;
    this.wrongs.push({ ...said, eventId, startMs: ms, endMs, timed: length !== 0 });
  }

  endWrong(ms: number): void {
    end(this.wrongs, ms);
  }

  beginOwn(ms: number, eventId: string, what: OwnTime["what"], at: string | null): void {
    this.endOwn(ms, what, false);
    this.ownTimes.push({ eventId, startMs: ms, endMs: null, what, at, reached: false });
  }

  /** @param what null for whatever goes on. */
  endOwn(ms: number, what: OwnTime["what"] | null, reached: boolean): void {
    for (const span of this.ownTimes) {
      if (span.endMs !== null || (what !== null && span.what !== what)) continue;
      span.endMs = ms;
      span.reached = reached;
    }
  }

  /** The work stops here: what went on is cut off. */
  cutSpans(ms: number): void {
    this.endWrong(ms);
    this.endOwn(ms, null, false);
  }

  get zone(): string | null {
    return this.zones.at(-1)?.zone ?? null;
  }

  get away(): boolean {
    return this.departures.at(-1)?.endMs === null;
  }

  get onBreak(): boolean {
    return this.breaks.at(-1)?.endMs === null;
  }

  private go(ms: number, zone: string | null): void {
    if (zone === this.zone) return;
    end(this.zones, ms);
    this.zones.push({ startMs: ms, endMs: null, zone });
  }

  /** The horse came to a zone. Tapped while it is away, that is where it went. */
  enter(ms: number, zone: string): void {
    const departure = this.departures.at(-1);
    if (this.away && departure !== undefined) departure.to ??= text(zone);
    this.go(ms, text(zone));
  }

  /** The horse left its handler: it is where the departure leads, as far as that is said. */
  depart(ms: number, said: { readonly from?: string; readonly to?: string }): void {
    if (this.away) return;
    this.departures.push({ startMs: ms, endMs: null, from: text(said.from) ?? this.zone, to: text(said.to) });
    this.go(ms, text(said.to));
  }

  /** The horse came back: to the zone that is said, otherwise to where it left. */
  comeBack(ms: number, said: { readonly to?: string }): void {
    const departure = this.departures.at(-1);
    if (!this.away || departure === undefined) return;
    departure.endMs = ms;
    this.go(ms, text(said.to) ?? departure.from);
  }

  move(ms: number, said: { readonly gait: string; readonly direction?: string; readonly radius_m?: number | null }): void {
    const before = this.gaits.at(-1);
    end(this.gaits, ms);
    this.gaits.push({
      startMs: ms,
      endMs: null,
      gait: said.gait,
      direction: text(said.direction) ?? before?.direction ?? null,
      radiusMetres: said.radius_m ?? before?.radiusMetres ?? null,
    });
  }

  beginBreak(ms: number): void {
    if (!this.onBreak) this.breaks.push({ startMs: ms, endMs: null });
  }

  endBreak(ms: number): void {
    end(this.breaks, ms);
  }

  /** A silence too long to be work, from the tap before it to the one after. */
  fallSilent(startMs: number, endMs: number, after: string | null): void {
    this.breaks.push({ startMs, endMs, silent: true, ...(after === null ? {} : { after }) });
  }
}

/**
 * The spans that have begun by a moment, cut off at it.
 * @example until([{ startMs: 40000, endMs: null }], 40000) // [{ startMs: 40000, endMs: 40000 }]
 */
export function until<S extends Span>(spans: readonly S[], endMs: number): (S & { readonly endMs: number })[] {
  return spans.flatMap((span) => (span.startMs > endMs ? [] : [{ ...span, endMs: Math.min(span.endMs ?? endMs, endMs) }]));
}

/** The span a moment lies in; at a change it is the one that begins. @example spanAt([], 1159) */
export const spanAt = <S extends Span>(spans: readonly S[], ms: number): S | undefined => {
  const last = spans.findLast(({ startMs }) => startMs <= ms);
  return last === undefined || (last.endMs !== null && last.endMs <= ms && last.startMs !== ms) ? undefined : last;
};
