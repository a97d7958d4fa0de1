import type { Day } from "../day";
import { dayIn } from "../day";
import { SESSION_KIND_FACTS } from "../events/session-kind";
import type { Touch } from "../know";
import { type BegunSession, type HorsePack, handlerOfBegun, type YardFacts } from "../pack";
import { todayOf, touchesBefore } from "../today";
import { type CircleStart, circleStart } from "./circle-start";
import { recorderStart } from "./recorder-start";
import { type SessionSoFar, type ShellStart, shellStart } from "./shell";
import { type PackedStart, packStart } from "./wire";

/** A session as it is opened: which recorder, and what that begins with. */
export type OpenedSession =
  | { readonly recorder: "work"; readonly packed: PackedStart }
  | { readonly recorder: "circle"; readonly start: CircleStart; readonly today: Day }
  | { readonly recorder: "touch" | "connection" | "signs"; readonly start: ShellStart; readonly touches: readonly Touch[] };

/**
 * Opens a session by its kind: the same on the server and on a device that has only the pack.
 * @param nowMs server wall clock.
 * @param knows whether the pack knows what every device did, or only what this one was told.
 * @example openSession(pack, yard, nowMs, begun, { storeId, events: [], clocks: {}, position: 0 }, "all").recorder
 */
export function openSession(
  pack: HorsePack,
  yard: YardFacts,
  nowMs: number,
  begun: BegunSession,
  soFar: SessionSoFar,
  knows: "all" | "own",
): OpenedSession {
  const { recorder } = SESSION_KIND_FACTS[begun.kind];
  if (recorder === "work") {
    const start = recorderStart(pack, yard, nowMs, begun, soFar);
    // What other devices circled meanwhile this one cannot know.
    const used = start.today.used.map((line) =>
      knows === "own" && line.startsWith("Circling") ? `${line} As far as this phone knows.` : line,
    );
    return { recorder, packed: packStart({ ...start, today: { ...start.today, used } }) };
  }
  if (recorder === "circle") return { recorder, start: circleStart(pack, yard, nowMs, begun, soFar), today: dayIn(nowMs, yard.timeZone) };
  const today = todayOf(pack, yard, nowMs, handlerOfBegun(begun));
  return { recorder, start: shellStart(pack, yard, today, begun, soFar), touches: touchesBefore(pack, begun.id) };
}
