"use client";

import { createContext, type ReactNode, useContext } from "react";
import type { RecorderState } from "./use-recorder";

/** What the pads act on at this moment. */
type Now = Pick<
  RecorderState,
  "advice" | "way" | "setWay" | "phase" | "phaseSaid" | "phaseCount" | "hint" | "block" | "working" | "silent" | "onBreak" | "open"
>;
/** What is shown of the recorder: a sheet over it, a page of pads. */
type Screen = Pick<RecorderState, "sheet" | "setSheet" | "padPage" | "setPadPage" | "turnPads" | "face" | "plain">;

const StartContext = createContext<RecorderState["start"] | null>(null);
const LogContext = createContext<RecorderState["session"] | null>(null);
const ActsContext = createContext<RecorderState["act"] | null>(null);
const NowContext = createContext<Now | null>(null);
const ScreenContext = createContext<Screen | null>(null);

function there<T>(value: T | null): T {
  if (value === null) throw new Error("This part belongs inside the recorder.");
  return value;
}

/** What the recorder was given when it began, with what has changed of it since. */
export const useStart = () => there(useContext(StartContext));
/** The session's events and what they come to. */
export const useLog = () => there(useContext(LogContext));
/** What a pad can do. It never changes, so a part that asks for nothing else is not drawn again. */
export const useActs = () => there(useContext(ActsContext));
export const useNow = () => there(useContext(NowContext));
export const useScreen = () => there(useContext(ScreenContext));

/** Gives the parts of the recorder what they ask for, each by itself. */
export function RecorderParts({ state, children }: { state: RecorderState; children: ReactNode }) {
  return (
    <StartContext value={state.start}>
      <LogContext value={state.session}>
        <ActsContext value={state.act}>
          <NowContext value={state}>
            <ScreenContext value={state}>{children}</ScreenContext>
          </NowContext>
        </ActsContext>
      </LogContext>
    </StartContext>
  );
}
