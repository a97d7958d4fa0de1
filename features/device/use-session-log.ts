"use client";

import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v4 as newId } from "uuid";
import { type EventType, eventOf, type Fact, type Payload, type SessionEvent } from "@/core/events/fact";
import type { Part } from "@/core/events/parts";
import type { BegunSession, CareNews, SessionNews } from "@/core/pack";
import { type PayloadCheck, reduceEvents, type SessionRecord } from "@/core/record";
import { afterPaint } from "@/ui/after-paint";
import { followSession } from "./follow";
import { partIn, takePart } from "./part";
import { recorderId } from "./recorder-id";
import { senderFor } from "./sender";
import { steadyNowMs } from "./steady-clock";

/** What restrictions and age allow today. */
export type Care = CareNews;

/** A session as this page holds it. */
export interface SessionLog {
  readonly record: SessionRecord;
  readonly events: readonly SessionEvent[];
  readonly recorder: string;
  /** What the server said last of what is allowed today; null before it was asked. */
  readonly care: Care | null;
  /** Whether the session lies in the bin: what is tapped is kept, and somebody should take it out. */
  readonly binned: boolean;
  /** False until what the device kept has been read. */
  readonly ready: boolean;
  /** The newest events and what they come to; the screen may be a frame behind. */
  readonly latest: () => { readonly record: SessionRecord; readonly events: readonly SessionEvent[] };
  /** Every event as of the last press, the moment it is pressed: for counting what is away, which must never run ahead of the press. */
  readonly tapped: () => readonly SessionEvent[];
  /** This device's part at the horse; undefined where one person does all. */
  readonly part: Part | undefined;
  readonly setPart: (part: Part | undefined) => void;
  /** Logs facts of one press: they share one moment. */
  readonly log: (...facts: Fact[]) => void;
  /** The same of what happened so many milliseconds ago: never before the press before it. */
  readonly logAgo: (agoMs: number, ...facts: Fact[]) => void;
  /** The session's present, in milliseconds from the start of work; null before it. */
  readonly nowMs: () => number | null;
}

const ANY_SHAPE: PayloadCheck = <Type extends EventType>(_: Type, payload: unknown) => ({ ok: true, value: payload as Payload<Type> });

/**
 * The schemas' check of a correction. It comes after the first script: until
 * then the corrections of this device, which are of the right shape, are the
 * ones there may be.
 */
function usePayloadCheck(): PayloadCheck {
  const [check, setCheck] = useState<PayloadCheck>(() => ANY_SHAPE);
  useEffect(() => {
    let gone = false;
    import("@/core/events/event").then(
      ({ checkPayload }) => !gone && setCheck(() => checkPayload),
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, []);
  return check;
}

/** Holds a session's events: the server's, the device's and other recorders', and logs new ones. */
export function useSessionLog(options: {
  storeId: string;
  sessionId: string;
  person: string;
  events: readonly SessionEvent[];
  clocks: Readonly<Record<string, number>>;
  position: number;
  silenceMinutes: number;
  /** As it was begun: kept here, so that a store that loses it can have it again. */
  begun: BegunSession;
}): SessionLog {
  const { storeId, sessionId, person } = options;
  const [events, setEvents] = useState<readonly SessionEvent[]>(options.events);
  const [clocks, setClocks] = useState(() => new Map(Object.entries(options.clocks)));
  const [ready, setReady] = useState(false);
  const [care, setCare] = useState<Care | null>(null);
  const [binned, setBinned] = useState(false);
  const silenceMinutes = care?.wordSettings.silenceMinutes ?? options.silenceMinutes;
  const position = useRef(options.position);
  const epoch = useRef<string | null>(null);
  const begun = useRef(options.begun);
  const load = useRef({ id: "", seq: 0 });
  if (load.current.id === "") load.current.id = newId();
  const [recorder, setRecorder] = useState("");
  const [part, setOwnPart] = useState<Part>();
  const setPart = useCallback(
    (next: Part | undefined) => {
      takePart(sessionId, next);
      setOwnPart(next);
    },
    [sessionId],
  );

  // A press must paint at once, also at the end of a long session: the newest events are kept here, and what is
  // derived from them is drawn as a transition, after the pad has shown the press.
  const newest = useRef(options.events);
  const derived = useRef<{
    check: PayloadCheck;
    events: readonly SessionEvent[];
    clocks: ReadonlyMap<string, number>;
    record: SessionRecord;
  } | null>(null);
  const newestClocks = useRef(clocks);
  newestClocks.current = clocks;
  const check = usePayloadCheck();
  const derive = useCallback(
    (from: readonly SessionEvent[], by: ReadonlyMap<string, number>) => {
      if (derived.current?.events !== from || derived.current.clocks !== by || derived.current.check !== check)
        derived.current = { check, events: from, clocks: by, record: reduceEvents(from, { offsetMsByLoad: by, silenceMinutes }, check) };
      return derived.current.record;
    },
    [check, silenceMinutes],
  );
  const latest = useCallback(() => ({ events: newest.current, record: derive(newest.current, newestClocks.current) }), [derive]);
  const tapped = useCallback(() => newest.current, []);
  const add = useCallback((fresh: readonly SessionEvent[]) => {
    newest.current = [...newest.current, ...fresh];
    afterPaint(() => startTransition(() => setEvents(newest.current)));
  }, []);
  const merge = useCallback(
    (more: readonly SessionEvent[]) => {
      const known = new Set(newest.current.map((event) => event.id));
      const fresh = more.filter((event) => !known.has(event.id));
      if (fresh.length > 0) add(fresh);
    },
    [add],
  );

  useEffect(() => {
    setRecorder(recorderId(person));
    setOwnPart(partIn(sessionId));
    let gone = false;
    const sender = senderFor(storeId);
    const own = load.current.id;
    sender.tieLoad(own, (offsetMs) => !gone && setClocks((have) => new Map([...have, [own, offsetMs]])));
    void sender.keepSession(begun.current, "saved");
    sender
      .ofSession(sessionId)
      .then(async (kept) => {
        // With no server the offsets this device was tied with are all there is.
        const known = await sender.offsetsKept([...new Set([own, ...kept.map((event) => event.load)])]);
        if (gone) return;
        merge(kept);
        setClocks((have) => new Map([...known, ...have]));
      })
      .finally(() => !gone && setReady(true));
    return () => {
      gone = true;
    };
  }, [storeId, sessionId, person, merge]);

  useEffect(() => {
    const told = (news: SessionNews) => {
      const { care } = news;
      if (news.binned !== undefined) setBinned(news.binned);
      if (care !== undefined) setCare((had) => (JSON.stringify(had) === JSON.stringify(care) ? had : care));
      // After a restore positions are given anew, and what the store lost is offered to it again.
      position.current = epoch.current === null || epoch.current === news.epoch ? Math.max(position.current, news.position) : news.position;
      epoch.current = news.epoch;
      senderFor(storeId).heardRestore(news.epoch);
      merge(news.events);
      setClocks((have) => {
        const fresh = Object.entries(news.clocks).filter(([id, offset]) => have.get(id) !== offset);
        return fresh.length === 0 ? have : new Map([...have, ...fresh]);
      });
    };
    return followSession(sessionId, () => ({ position: position.current, epoch: epoch.current }), told);
  }, [storeId, sessionId, merge]);

  const record = useMemo(() => derive(events, clocks), [derive, events, clocks]);

  const logAgo = useCallback(
    (agoMs: number, ...facts: Fact[]) => {
      const mono = Math.max(0, Math.round((performance.now() - agoMs) * 10) / 10);
      const wall = Math.round(steadyNowMs() - agoMs);
      const own = partIn(sessionId);
      const made = facts.map((fact) =>
        eventOf(
          {
            id: newId(),
            session: sessionId,
            recorder: recorderId(person),
            load: load.current.id,
            seq: load.current.seq++,
            mono_ms: mono,
            wall_ms: wall,
            ...(own === undefined ? {} : { part: own }),
          },
          fact,
        ),
      );
      add(made);
      void senderFor(storeId).keep(made);
    },
    [sessionId, person, storeId, add],
  );
  const log = useCallback((...facts: Fact[]) => logAgo(0, ...facts), [logAgo]);

  const startWallMs = record.startWallMs === null ? null : record.startWallMs - record.shiftMs;
  const ownOffset = clocks.get(load.current.id) ?? 0;
  const nowMs = useCallback(
    () => (startWallMs === null ? null : Math.max(0, steadyNowMs() + ownOffset - startWallMs)),
    [startWallMs, ownOffset],
  );

  return { record, events, recorder, ready, care, binned, latest, tapped, part, setPart, log, logAgo, nowMs };
}
