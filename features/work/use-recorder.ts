"use client";

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { onBreak, type SessionRecord } from "@/core/record";
import { useSessionLog } from "../device/use-session-log";
import { useSilent } from "../device/use-silent";
import { blockActs } from "./acts/block-acts";
import { conversationActs } from "./acts/conversation-acts";
import type { Pen } from "./acts/pen";
import { sceneActs } from "./acts/scene-acts";
import { trialActs } from "./acts/trial-acts";
import { isAside } from "./block-facts";
import { openPads, useFace } from "./face";
import { atWork, partNow } from "./ladders";
import type { LadderPart, OpenSheet, RecorderStart, Way } from "./types";
import { useAdvice } from "./use-advice";

/** Whether a cue was said in the running block: pressed or swiped in it, or the only one there is. */
const phaseSaidIn = ({ blocks, trials }: SessionRecord, pressedIn: number, phases: number): boolean =>
  phases <= 1 || pressedIn === blocks.length || trials.some((trial) => trial.blockIndex === blocks.length - 1 && trial.phase !== null);

/** The recorder's state and everything a pad can do. */
export function useRecorder(given: RecorderStart) {
  const session = useSessionLog({
    storeId: given.session.storeId,
    sessionId: given.session.id,
    person: given.session.handler,
    events: given.session.events,
    clocks: given.session.clocks,
    position: given.session.position,
    silenceMinutes: given.yard.settings.silenceMinutes,
    begun: given.session.begun,
  });
  const { record, recorder, ready, log: logBare, logAgo, latest } = session;
  // The first tap begins the session; opening the recorder does not.
  const log = useCallback<typeof logBare>(
    (...facts) => {
      const { record } = latest();
      const { horse, handler, place } = given.session;
      const begun = record.header !== null || record.finishMs !== null;
      const first = { type: "session.start" as const, payload: { horse: horse.name, handler, place, method: given.first.plan.method } };
      logBare(...(begun ? facts : [first, ...facts]));
    },
    [logBare, latest, given],
  );
  const [added, setAdded] = useState<readonly LadderPart[]>([]);
  const part = useMemo(() => partNow(given, added, record), [given, added, record]);
  const { care } = session;
  const start = useMemo(() => atWork(given, added, care, part), [given, added, care, part]);
  const advice = useAdvice(start, session);
  const [way, setWay] = useState<Way>("tally");
  const [phase, choosePhase] = useState(1);
  /** The block in which a cue was pressed last, by its count. */
  const [pressedIn, setPressedIn] = useState(-1);
  const setPhase = useCallback(
    (next: number, pressed = false) => {
      choosePhase(next);
      if (pressed) setPressedIn(latest().record.blocks.length);
    },
    [latest],
  );
  const [hint, setHint] = useState<string | null>(null);
  const [sheet, setSheet] = useState<OpenSheet>(null);
  const [padPage, setPadPage] = useState<1 | 2>(1);
  const { face, opened } = useFace();
  // The plain face is for Tally, and makes way for every pad when they are opened.
  const plain = face === "plain" && !opened && way === "tally" && !given.session.battery;
  const turnPads = useCallback(() => {
    // It has one page: turning it shows every pad.
    if (plain) openPads(true);
    else setPadPage((page) => (page === 1 ? 2 : 1));
  }, [plain]);
  const block = record.blocks.at(-1) ?? null;
  const working = block !== null && block.endMs === null && record.finishMs === null;
  const resting = onBreak(record);
  const silent = useSilent(session);
  const open = record.openAsk;

  // The pads act on the newest state, which the screen may not show yet.
  const chosen = useRef({ way, phase, pressedIn, advice, recorder, added, care });
  chosen.current = { way, phase, pressedIn, advice, recorder, added, care };

  const presentMs = useRef(session.nowMs);
  presentMs.current = session.nowMs;

  // After a reload the way last used goes on.
  const resumed = useRef(false);
  useEffect(() => {
    if (resumed.current || !ready) return;
    resumed.current = true;
    const last = record.facts.findLast((fact) => fact.type === "trial" || fact.type === "ask");
    if (last?.type === "ask") setWay("timed");
  }, [ready, record.facts]);

  const addPart = useCallback(
    (fresh: LadderPart) => setAdded((all) => [fresh, ...all.filter(({ ladderId }) => ladderId !== fresh.ladderId)]),
    [],
  );

  const act = useMemo(() => {
    const pen: Pen = {
      now: () => {
        const { record, events } = latest();
        const block = record.blocks.at(-1) ?? null;
        const { added, care, pressedIn, ...rest } = chosen.current;
        const part = partNow(given, added, record);
        return {
          ...rest,
          phaseSaid: phaseSaidIn(record, pressedIn, part.plan.phases.length),
          start: atWork(given, added, care, part),
          record,
          events,
          block,
          working: block !== null && block.endMs === null && record.finishMs === null,
          onBreak: onBreak(record),
          open: record.openAsk,
          presentMs: presentMs.current() ?? record.lastMs,
        };
      },
      log,
      logAgo,
      setPhase,
      setHint,
      setSheet,
      addPart,
    };
    return { ...trialActs(pen), ...sceneActs(pen), ...blockActs(pen), ...conversationActs(pen) };
  }, [log, logAgo, latest, given, addPart, setPhase]);

  // After a reload in the middle of touching the board is there again.
  const shown = sheet ?? (isAside(start, record) ? "touch" : null);
  return {
    start,
    session,
    advice,
    way,
    setWay,
    phase,
    phaseSaid: phaseSaidIn(record, pressedIn, start.part.plan.phases.length),
    phaseCount: start.part.plan.phases.length,
    hint,
    sheet: shown,
    setSheet,
    padPage,
    setPadPage,
    turnPads,
    face,
    plain,
    block,
    working,
    silent,
    onBreak: resting,
    open,
    act,
  };
}

export type RecorderState = ReturnType<typeof useRecorder>;
export type RecorderActs = RecorderState["act"];
