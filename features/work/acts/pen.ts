import type { Block, SessionRecord } from "@/core/record";
import type { Fact, SessionEvent } from "@/core/schemas";
import { barredRung } from "@/core/welfare";
import type { Advice } from "@/core/word";
import { sideLetter } from "@/core/words";
import type { SessionLog } from "../../device/use-session-log";
import { click } from "../../sound/feedback";
import type { LadderPart, OpenSheet, RecorderStart, Way } from "../types";

/** The newest state, which the screen may not show yet. */
export interface PenNow {
  readonly start: RecorderStart;
  readonly way: Way;
  readonly phase: number;
  readonly advice: Advice | null;
  readonly recorder: string;
  readonly record: SessionRecord;
  readonly events: readonly SessionEvent[];
  readonly block: Block | null;
  readonly working: boolean;
  readonly onBreak: boolean;
  readonly open: SessionRecord["openAsk"];
  /** The present, in milliseconds from the start of work; 0 before it. */
  readonly presentMs: number;
}

/** What every act of the recorder is made of. */
export interface Pen {
  readonly now: () => PenNow;
  readonly log: SessionLog["log"];
  /** Logs what happened so many milliseconds ago. */
  readonly logAgo: SessionLog["logAgo"];
  readonly setPhase: (phase: number) => void;
  readonly setHint: (hint: string | null) => void;
  readonly setSheet: (sheet: OpenSheet) => void;
  readonly addPart: (part: LadderPart) => void;
}

/** Logs what one press came to: it clicks and takes the last hint away. */
export function press(pen: Pen, ...facts: Fact[]): void {
  click();
  pen.setHint(null);
  pen.log(...facts);
}

/** Says why a press does nothing. */
export function refuse(pen: Pen, words: string): void {
  click("refuse");
  pen.setHint(words);
}

/** Why nothing may be asked on the running block today, or null. A restriction may have come in the middle of it. */
function closedToday({ start, block }: PenNow): string | null {
  const { allowance, battery, plan } = start;
  if (allowance.noWork !== null) return allowance.noWork.why;
  const only = allowance.side;
  if (only !== null && block?.side != null && block.side !== sideLetter(only.value)) return only.why;
  return battery || block?.ladder == null ? null : (barredRung(plan, Number(block.rung), allowance)[0]?.why ?? null);
}

/** Whether asks can be logged now; says why where not. */
export function canLog(pen: Pen): boolean {
  const now = pen.now();
  const closed = closedToday(now);
  if (now.onBreak) refuse(pen, "On a break. End it first.");
  else if (!now.working) refuse(pen, "Start a block first.");
  else if (closed !== null) refuse(pen, `Not today. ${closed}`);
  else return true;
  return false;
}
