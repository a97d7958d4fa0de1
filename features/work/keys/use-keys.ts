"use client";

import { useEffect } from "react";
import { OneButton } from "@/core/entry";
import type { RecorderState } from "../use-recorder";
import { chosenSet } from "./kept";
import { listenToRemote } from "./remote-channel";
import { type KeyAct, keyOf, ONE } from "./sets";

/** Whether a key belongs to a field or to an open dialog, not to the recorder. */
const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

type Bindable = Pick<RecorderState, "act" | "setSheet" | "setWay" | "turnPads">;

/** What each bound key does at once; holds and wrong choices go by down and up. */
const whatKeysDo = ({ act, setSheet, setWay, turnPads }: Bindable): Record<Exclude<KeyAct, "hold" | "wrong">, () => void> => ({
  looks: () => act.ownTime("looks"),
  settles: () => act.ownTime("settles"),
  retreat: () => act.retreat(null),
  met: () => act.outcome("met"),
  try: () => act.outcome("try"),
  miss: () => act.outcome("miss"),
  refused: () => act.outcome("refused"),
  mark: act.mark,
  food: act.food,
  soft: () => act.calm(true),
  "not-soft": () => act.calm(false),
  "phase-up": () => act.phaseBy(1),
  "phase-down": () => act.phaseBy(-1),
  ease: () => act.signal("ease"),
  tension: () => act.signal("tension"),
  danger: () => act.signal("danger"),
  offer: act.offer,
  away: act.away,
  side: act.side,
  break: act.takeBreak,
  way: () => setWay((way) => (way === "tally" ? "timed" : "tally")),
  pads: turnPads,
  finish: () => setSheet("finish"),
  undo: act.undo,
  word: act.takeAdvice,
  keys: () => setSheet("keys"),
});

/** One button that says three things: what it said is known a moment after it was let go. */
function oneButton(act: RecorderState["act"]) {
  const button = new OneButton();
  let look: ReturnType<typeof setTimeout> | null = null;
  const take = (outcome: ReturnType<OneButton["elapsed"]>) => {
    // Where calm is asked, the press after an answer says how it was; otherwise it is the next answer.
    if (outcome !== null && !act.calmByButton(outcome === "met")) act.answer(outcome);
    if (look !== null) clearTimeout(look);
    const next = button.nextLookMs();
    look = next === null ? null : setTimeout(() => take(button.elapsed(performance.now())), Math.max(0, next - performance.now()) + 1);
  };
  return {
    down: () => take(button.down(performance.now())),
    up: () => take(button.up(performance.now())),
    end: () => {
      if (look !== null) clearTimeout(look);
    },
  };
}

/** Keys, remotes and foot switches: each press does what the chosen set binds to it. */
export function useKeys({ act, sheet, setSheet, setWay, turnPads, phaseCount, silent }: RecorderState): void {
  useEffect(() => {
    // Someone who walks the pads by Tab means the focused pad with the space bar and Enter; everyone else means the binding.
    let byTab = false;
    let holding: string | null = null;
    let holdingWrong: string | null = null;
    const onPad = (target: EventTarget | null) => byTab && target instanceof HTMLElement && target.closest("button,a,summary") !== null;
    const pointer = () => {
      byTab = false;
    };
    const one = oneButton(act);
    const does = whatKeysDo({ act, setSheet, setWay, turnPads });
    const down = (event: KeyboardEvent) => {
      if (event.key === "Tab") byTab = true;
      // What a sheet took for itself, such as the Escape that closes it, is no press here.
      if (event.defaultPrevented || sheet !== null || silent || isTyping(event.target)) return;
      const { bindings, keyUp } = chosenSet();
      const key = keyOf(event);
      const bound = bindings[key];
      const passed = event.repeat || event.metaKey || event.ctrlKey || event.altKey;
      const digit = /^[1-9]$/.test(event.key) ? Number(event.key) : null;
      if (bound === undefined && (digit === null || digit > phaseCount)) return;
      // Space holds the ask wherever the focus is, as long as there is an ask to hold; Enter presses what is focused.
      const holds = bound === "hold" && event.key === " " && act.canHold();
      if ((event.key === " " || event.key === "Enter") && onPad(event.target) && !holds) return;
      // A page must not scroll under a bound key, nor a focused pad be pressed by it too.
      if (!event.metaKey && !event.ctrlKey && !event.altKey) event.preventDefault();
      if (passed) return;
      if (bound === undefined) return act.phase(digit as number);
      if (bound === ONE) return one.down();
      if (bound === "wrong") {
        holdingWrong = keyUp ? key : null;
        act.wrong(true);
        // A button that does not tell when it comes up: on with one press, off with the next.
        if (!keyUp) act.wrong(false);
        return;
      }
      // A device that cannot hold an ask has the answer in its press, in every way of logging.
      if (!keyUp && (bound === "met" || bound === "try" || bound === "miss" || bound === "refused")) return act.answer(bound);
      if (bound !== "hold") return does[bound]();
      if (keyUp) {
        holding = key;
        act.hold(true);
      } else act.toggleHold();
    };
    const up = (event: KeyboardEvent) => {
      const key = keyOf(event);
      const { bindings, keyUp } = chosenSet();
      if (bindings[key] === ONE) one.up();
      if (holdingWrong === key) {
        holdingWrong = null;
        return act.wrong(false);
      }
      if (holding !== key || !keyUp) return;
      event.preventDefault();
      holding = null;
      act.hold(false);
    };
    const endRemote = listenToRemote();
    window.addEventListener("keydown", down);
    window.addEventListener("keyup", up);
    window.addEventListener("pointerdown", pointer);
    return () => {
      endRemote();
      one.end();
      window.removeEventListener("keydown", down);
      window.removeEventListener("keyup", up);
      window.removeEventListener("pointerdown", pointer);
    };
  }, [act, sheet, setSheet, setWay, turnPads, phaseCount, silent]);
}
