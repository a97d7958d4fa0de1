import { type Aid, CIRCLE_BEHAVIOUR, type CircleNow, PLAN_RUNG } from "@/core/circle";
import { planToLog } from "@/core/events/circle-log";
import { onBreak, type SessionRecord } from "@/core/record";
import type { Fact } from "@/core/schemas";
import type { CircleStart } from "@/core/start";

/** What the acts of a session on the circle are made of. */
export interface CirclePen {
  readonly start: CircleStart;
  /** The newest state, which the screen may not show yet, with the gait that was chosen by hand. */
  readonly now: () => CircleNow & { readonly chosen: string | null; readonly record: SessionRecord };
  readonly log: (...facts: Fact[]) => void;
  /** The gait that was chosen by hand is none any more. */
  readonly chooseNone: () => void;
}

const oneDecimal = (seconds: number) => Math.round(seconds * 10) / 10;

/** What the work begins with: whose session it is, what it is of, and its plan. */
function beginning({ session, ladder, plan, overrides }: CircleStart, record: SessionRecord): Fact[] {
  const { horse, handler, place } = session;
  return [
    ...(record.header === null
      ? [{ type: "session.start" as const, payload: { horse: horse.name, handler, place, method: "pressure-release" as const } }]
      : []),
    {
      type: "block.start",
      payload: {
        block: 1,
        ...(ladder?.payload === undefined
          ? { behaviour: CIRCLE_BEHAVIOUR[plan.form], rung: PLAN_RUNG, criterion: { sentence: "Work by its plan and clock." } }
          : {
              behaviour: ladder.name,
              ladder: ladder.id,
              version: ladder.version,
              rung: ladder.rung,
              criterion: ladder.payload as never,
            }),
        side: "",
        kind: "work",
      },
    },
    { type: "circle.start", payload: { plan: planToLog(plan), overrides: [...overrides] } },
  ];
}

/** Everything that is pressed in a session on the circle. */
export function circleActs({ start, now, log, chooseNone }: CirclePen) {
  const { ladder, plan } = start;
  /** The clearest phase of the ladder's ask that was used. */
  const phaseOf = (aids: readonly Aid[]) => Math.max(...aids.map((aid) => ladder?.phases[aid] ?? 1));
  const counts = (to: string) => ladder !== null && (ladder.gait === null || ladder.gait === to);
  const direction = (side: "L" | "R") => (side === "L" ? "left" : "right");
  const target = () => {
    const { chosen, target } = now();
    return chosen ?? target;
  };
  return {
    begin: (checks: readonly Fact[]) => log(...checks, ...beginning(start, now().record)),
    aid: (aid: Aid) => log({ type: "aid", payload: { aid, to: target() } }),
    /** The gait came: an answer to the ask where it is the one that was asked for. */
    came: () => {
      const { asking, side } = now();
      const gait = target();
      const answered = asking !== null && asking.to === gait && counts(gait) ? asking : null;
      chooseNone();
      log(
        ...(answered === null
          ? []
          : [
              {
                type: "trial" as const,
                payload: {
                  outcome: "met" as const,
                  side,
                  phase: phaseOf(answered.aids),
                  latency_s: oneDecimal(answered.seconds),
                  logged: "timed" as const,
                },
              },
            ]),
        {
          type: "gait",
          payload: { gait, direction: direction(side), ...(plan.radiusMetres === null ? {} : { radius_m: plan.radiusMetres }) },
        },
      );
    },
    /** It goes on in the gait it had; nothing where nobody asks. */
    noAnswer: () => {
      const { asking, side } = now();
      if (asking === null) return;
      chooseNone();
      log(
        ...(counts(asking.to)
          ? [
              {
                type: "trial" as const,
                payload: {
                  outcome: "refused" as const,
                  side,
                  phase: phaseOf(asking.aids),
                  waited_s: oneDecimal(asking.seconds),
                  logged: "timed" as const,
                },
              },
            ]
          : []),
        { type: "gait", payload: { gait: asking.from, direction: direction(side) } },
      );
    },
    out: () => log({ type: "circle.out" }),
    lap: () => log({ type: "lap" }),
    slack: (down: boolean) => log({ type: down ? "slack.start" : "slack.end" }),
    sign: (name: string, kind: "count" | "tension" | "danger" | "ease") =>
      log({ type: "signal", payload: { name, class: kind, side: now().side } }),
    pause: () => log(onBreak(now().record, "said") ? { type: "break.end" } : { type: "break.start", payload: { reason: "rest" } }),
    /** Goes on to the next segment; from the last one it stays there. */
    goOn: () => {
      const last = plan.segments.length - 1;
      log({ type: "circle.go", payload: { segment: Math.min(last, (now().face.stretch?.segment ?? last - 1) + 1) } });
    },
    more: () => log({ type: "circle.more", payload: { seconds: 60 } }),
  };
}
