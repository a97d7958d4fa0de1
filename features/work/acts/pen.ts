import { type Advice, closedNow } from "@/core/advice";
import type { Block, SessionRecord } from "@/core/record";
import type { Fact, SessionEvent } from "@/core/schemas";
import type { SessionLog } from "../../device/use-session-log";
import { click } from "../../sound/feedback";
import type { AtWork, LadderPart, OpenSheet, Way } from "../types";

/** The newest state, which the screen may not show yet. */
export interface PenNow {
  readonly start: AtWork;
  readonly way: Way;
  readonly phase: number;
  /** Whether a cue was said in the running block: pressed, swiped, or the only one there is. */
  readonly phaseSaid: boolean;
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
  /** @param pressed whether somebody pressed it. */
  readonly setPhase: (phase: number, pressed?: boolean) => void;
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
export function closedToday({ start, block }: Pick<PenNow, "start" | "block">): string | null {
  const { plan, involves } = start.part;
  const { battery } = start.session;
  const rung = battery || block?.ladder == null ? null : Number(block.rung);
  return closedNow(plan, battery ? [] : involves, rung, block?.side ?? null, start.today.allowance)?.why ?? null;
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
