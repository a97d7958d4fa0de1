import { useEffect, useEffectEvent, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { CHOOSE_TRIAL } from "../chosen-trial";
import type { PutRightRecord } from "./facts";

/** What is to be put right: the session, a block or a trial by its place. */
export type Chosen = "session" | `b${number}` | `t${number}`;

/** The panel, whether it is open, and what is chosen in it; a trial chosen elsewhere on the page opens it. */
export function useChosen({ trials }: PutRightRecord, first: number | null) {
  const keyOf = (number: number): Chosen | null => {
    const at = trials.findIndex((trial) => trial.number === number);
    return at < 0 ? null : `t${at}`;
  };
  const opens = first === null ? null : keyOf(first);
  const [chosen, setChosen] = useState<Chosen>(opens ?? "session");
  // Most who look at a session put nothing right: what it takes is drawn when it is opened.
  const [opened, setOpened] = useState(opens !== null);
  const panel = useRef<HTMLDetailsElement>(null);
  const open = (key: Chosen | null) => {
    if (key === null || panel.current === null) return;
    panel.current.open = true;
    flushSync(() => {
      setOpened(true);
      setChosen(key);
    });
    panel.current.scrollIntoView({ block: "nearest" });
    panel.current.querySelector<HTMLElement>("select")?.focus({ preventScroll: true });
  };
  const openNow = useEffectEvent(open);
  const keyNow = useEffectEvent(keyOf);
  useEffect(() => openNow(opens), [opens]);
  useEffect(() => {
    const choose = (event: Event) => openNow(keyNow((event as CustomEvent<number>).detail));
    window.addEventListener(CHOOSE_TRIAL, choose);
    return () => window.removeEventListener(CHOOSE_TRIAL, choose);
  }, []);
  return { panel, opened, setOpened, chosen, setChosen };
}
