"use client";

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Outcome } from "@/core/evidence";
import { batteryPlace, FIRST_LOOK_ITEMS, FIRST_LOOK_STEPS, type FirstLookStep, type TouchTool, type TouchZone } from "@/core/know";
import { whereNow } from "@/core/session";
import { barredRung } from "@/core/welfare";
import { touchFacts } from "../touch/touch-facts";
import { asideFacts, blockFacts, isAside, planBlock, rungNumber, tallyReinforcement, usesFood } from "./block-facts";
import { click } from "./feedback";
import type { BlockChoice, RecorderStart, Side, Way } from "./types";
import { lastPress } from "./undo";
import { useSessionLog } from "./use-session-log";
import { useWord } from "./use-word";

/** The block for a step of the battery: a test, not teaching. */
export const stepChoice = ({ item, side }: FirstLookStep): BlockChoice => ({
  rung: FIRST_LOOK_ITEMS.indexOf(item) + 1,
  side,
  kind: "probe",
});

const OTHER: Record<Side, Side> = { L: "R", R: "L" };

/** Which sheet lies over the recorder. */
export type OpenSheet = "block" | "finish" | "keys" | "touch" | null;

/** The recorder's state and everything a pad can do. */
export function useRecorder(start: RecorderStart) {
  const session = useSessionLog({
    storeId: start.storeId,
    sessionId: start.sessionId,
    person: start.handler,
    events: start.events,
    clocks: start.clocks,
    position: start.position,
  });
  const { record, recorder, ready, log } = session;
  const advice = useWord(start, session);
  const [way, setWay] = useState<Way>("tally");
  const [phase, setPhase] = useState(1);
  const [hint, setHint] = useState<string | null>(null);
  const [sheet, setSheet] = useState<OpenSheet>(null);
  const block = record.blocks.at(-1) ?? null;
  const working = block !== null && block.endMs === null && record.finishMs === null;
  const onBreak = record.breaks.at(-1)?.endMs === null;
  const open = record.openAsk;

  // The pads act on the newest state, which the screen may not show yet.
  const { latest } = session;
  const chosen = useRef({ way, phase, advice, recorder });
  chosen.current = { way, phase, advice, recorder };

  const started = useRef(false);
  useEffect(() => {
    if (!ready || started.current || record.header !== null || record.finishMs !== null) return;
    started.current = true;
    log({
      type: "session.start",
      payload: { horse: start.horse.name, handler: start.handler, place: start.place, method: start.plan.method },
    });
  }, [ready, record.header, record.finishMs, log, start]);

  // After a reload the way last used goes on.
  const resumed = useRef(false);
  useEffect(() => {
    if (resumed.current || !ready) return;
    resumed.current = true;
    const last = record.facts.findLast((fact) => fact.type === "trial" || fact.type === "ask");
    if (last?.type === "ask") setWay("timed");
  }, [ready, record.facts]);

  const refuse = useCallback((words: string) => {
    click("refuse");
    setHint(words);
  }, []);

  const act = useMemo(() => {
    const now = () => {
      const { record, events } = latest();
      const block = record.blocks.at(-1) ?? null;
      return {
        ...chosen.current,
        record,
        events,
        block,
        working: block !== null && block.endMs === null && record.finishMs === null,
        onBreak: record.breaks.at(-1)?.endMs === null,
        open: record.openAsk,
      };
    };
    const press = (...facts: Parameters<typeof log>) => {
      click();
      setHint(null);
      log(...facts);
    };
    const canLog = () => {
      if (now().onBreak) refuse("On a break. End it first.");
      else if (!now().working) refuse("Start a block first.");
      else return true;
      return false;
    };
    const tally = (outcome: Outcome) => {
      const { record, phase, block } = now();
      const index = record.blocks.length - 1;
      const metBefore = record.trials.filter((trial) => trial.blockIndex === index && trial.tapped === "met").length;
      press({
        type: "trial",
        payload: {
          outcome,
          phase,
          ...(block?.side ? { side: block.side } : {}),
          logged: "tally",
          ...tallyReinforcement(start, block, metBefore, outcome),
        },
      });
      // Lightest first, every time.
      setPhase(1);
    };
    const timed = (outcome: Outcome) => {
      const { open, block, record } = now();
      const last = record.trials.at(-1);
      const staying = block?.criterion?.stay_s !== undefined && open?.answered === true;
      if (
        open === null &&
        last !== undefined &&
        last.logged === "timed" &&
        last.tapped === "refused" &&
        last.faults.includes("release without a try") &&
        (outcome === "met" || outcome === "try")
      ) {
        // The finger left the hold a moment before it reached this pad; the core decides whether it still belongs.
        press({ type: "response", payload: { answer: outcome } });
      } else if (open === null && (outcome === "met" || outcome === "try")) {
        press({
          type: "offer",
          payload: { earned: start.plan.offers === "reinforce" ? "reinforced" : start.plan.offers === "ignore" ? "ignored" : "settled" },
        });
        setHint("No ask was open: logged as an offer.");
      } else if (open === null) refuse("Hold the ask first.");
      else if (staying && outcome === "met") press({ type: "criterion" });
      else if (staying && outcome === "miss") press({ type: "stay", payload: { ended_by: "left" } });
      else press({ type: "response", payload: { answer: outcome === "miss" ? "wrong" : outcome, phase: open.phase ?? 1 } });
    };
    const begin = (choice: BlockChoice) => {
      const why = barredRung(start.plan, choice.rung, start.allowance)[0]?.why;
      if (why !== undefined) return refuse(`Not today. ${why}`);
      setSheet(null);
      setPhase(1);
      press(...blockFacts(start, now().record, choice));
    };
    const takeBreak = () => {
      if (now().onBreak) press({ type: "break.end" });
      else if (now().working) press({ type: "break.start", payload: { reason: "rest" } });
      else refuse("Start a block first.");
    };
    return {
      begin,
      takeBreak,
      outcome: (outcome: Outcome) => {
        if (!canLog()) return;
        if (now().way === "tally") tally(outcome);
        else timed(outcome);
      },
      hold: (down: boolean) => {
        const { open, phase } = now();
        if (down) {
          if (canLog() && open === null) press({ type: "ask", payload: { phase } });
        } else if (open !== null) {
          press({ type: "release" });
          setPhase(1);
        }
      },
      phase: (next: number) => {
        const { open, way } = now();
        if (next > start.plan.phases.length) return;
        if (way === "timed" && open !== null) {
          if (next !== open.phase) press({ type: "phase", payload: { phase: next, by: "press" } });
        } else {
          click();
          setPhase(next);
        }
      },
      mark: () => canLog() && press({ type: "mark" }),
      // The same pad and key: food where food is used, what takes its place where it is not.
      food: () => {
        const { block } = now();
        const rung = block === null ? start.next.rung : rungNumber(start, block);
        const { reinforcer } = start.plan.feeding;
        if (usesFood(start, rung)) {
          if (start.allowance.noFood !== null) refuse(start.allowance.noFood.why);
          else press({ type: "feed", payload: { pieces: 1 } });
        } else if (canLog()) press({ type: "reinforce", payload: { what: reinforcer === "food" ? "scratch" : reinforcer } });
      },
      ease: () => press({ type: "signal", payload: { name: "ease", class: "ease" } }),
      tension: () => press({ type: "signal", payload: { name: "tension", class: "tension" } }),
      grade: (value: number) => press({ type: "measure", payload: { strand: "ease", value, unit: "grade" } }),
      value: (strand: string, value: number, unit: string) => press({ type: "measure", payload: { strand, value, unit } }),
      notThisOne: () => {
        const last = now().record.trials.at(-1);
        if (last === undefined || last.logged !== "tally" || last.tapped !== "met") return refuse("No met answer to take it from.");
        press({
          type: "correct",
          payload: { event: last.eventId, payload: { reinforced: 0, marked: 0, reinforcers: 0 }, reason: "not reinforced" },
        });
      },
      countAsMet: () => {
        const last = now().record.trials.at(-1);
        if (last !== undefined && last.shortfall !== null)
          press({ type: "override", payload: { of: last.eventId, from: last.outcome, to: "met", reason: "handler's judgement" } });
      },
      side: () => {
        const { block, working } = now();
        if (!working || block === null) return refuse("Start a block first.");
        if (start.battery && block.side === null) return refuse("This item has no sides.");
        const only = start.allowance.side;
        if (only !== null) return refuse(only.why);
        begin({ rung: rungNumber(start, block), side: OTHER[block.side ?? "L"], kind: block.kind ?? "work" });
      },
      undo: () => {
        const targets = lastPress(now().events, now().recorder);
        if (targets.length === 0) return refuse("Nothing left to undo on this device.");
        press(...targets.map((event) => ({ type: "undo" as const, payload: { event: event.id } })));
      },
      // Where the horse is: one tap, whether or not a block runs.
      zone: (zone: string) => press({ type: "zone", payload: { zone } }),
      away: () => {
        const { zone, away } = whereNow(now().record);
        if (away) press({ type: "return" });
        else press({ type: "depart", payload: zone === null ? {} : { from: zone } });
      },
      // In a block of its own, unless the ladder is about touch: it must not count for the rung.
      touch: (zone: TouchZone, side: Side, tool: TouchTool, grade: number) =>
        canLog() && press(...asideFacts(start, now().record), ...touchFacts(zone, side, tool, grade)),
      closeTouch: () => {
        setSheet(null);
        const { record } = now();
        const plan = planBlock(start, record);
        if (!isAside(start, record)) return;
        if (plan === null) press({ type: "block.end" });
        else begin({ rung: rungNumber(start, plan), side: plan.side, kind: plan.kind ?? "work" });
      },
      takeWord: () => {
        const { advice, block } = now();
        if (start.battery) {
          const { next } = batteryPlace(now().record);
          const step = next === null ? undefined : FIRST_LOOK_STEPS[next];
          if (step === undefined) setSheet("finish");
          else begin(stepChoice(step));
          return;
        }
        if (advice === null || block === null) return;
        const rung = Number(block.rung);
        const side = block.side ?? "L";
        const kind = block.kind ?? "work";
        if (advice.word === "Stay" || (advice.word === "Ease" && rung === 1)) return;
        log({ type: "word", payload: { word: advice.word, reason: advice.reason, numbers: { ...advice.numbers }, taken: true } });
        if (advice.word === "Raise") begin({ rung: rung + 1, side, kind });
        if (advice.word === "Ease") begin({ rung: rung - 1, side, kind });
        if (advice.word === "Rest" && !now().onBreak) takeBreak();
        if (advice.word === "Finish") setSheet("finish");
      },
      finish: (note: string) => {
        const facts: Parameters<typeof log> = [];
        if (now().onBreak) facts.push({ type: "break.end" });
        if (now().working) facts.push({ type: "block.end" });
        facts.push({ type: "session.end" });
        if (note !== "") facts.push({ type: "note", payload: { text: note } });
        log(...facts);
      },
    };
  }, [log, latest, refuse, start]);

  // After a reload in the middle of touching the board is there again.
  const shown = sheet ?? (isAside(start, record) ? "touch" : null);
  return { session, advice, way, setWay, phase, hint, sheet: shown, setSheet, block, working, onBreak, open, act };
}

export type RecorderState = ReturnType<typeof useRecorder>;
