"use client";

import type { CirclePlan } from "@/core/circle";
import { CircleStrip } from "@/ui/circle-strip";
import { clockWords } from "@/ui/measure";
import type { Circle } from "./use-circle";
import { SIDE_WORDS } from "./words";

const ARROW = { L: "↺", R: "↻" } as const;

/** The large clock: what runs, how long yet, what comes. Read from three metres off, so nothing else is as large. */
export function ClockFace({ circle, plan }: { circle: Circle; plan: Pick<CirclePlan, "segments" | "transitions"> }) {
  const { face, segment, next, stretches, clockSeconds: workedSeconds, paused, overCap } = circle;
  const over = segment === null;
  const strip = stretches.map(({ segment: at, startSeconds, endSeconds }) => ({
    gait: plan.segments[at]?.gait ?? "walk",
    side: plan.segments[at]?.side ?? ("L" as const),
    seconds: endSeconds - startSeconds,
  }));
  const stopped = overCap !== null;
  const { by, every: times } = plan.transitions;
  // What no clock can call: the handler counts it.
  const every =
    by === "quarter" || by === "lap"
      ? `change each ${times === null || times === 1 ? "" : `${times} `}${by === "lap" ? "lap" : "quarter"}${(times ?? 1) > 1 ? "s" : ""}`
      : null;
  return (
    <section
      aria-label="Clock"
      className={`grid content-start rounded-lg border-[3px] px-3 pt-1 pb-1.5 ${stopped ? "border-brick" : "border-ink"} ${face.called && !paused ? "bg-ochre-wash" : "bg-paper"}`}
    >
      <p className="flex items-baseline justify-between gap-3 font-head leading-none font-extrabold">
        <span className="text-[min(10.5vw,6.2vh)] lying:text-[min(5.5vw,12vh)] lg:text-[4rem]" data-testid="gait-now">
          {stopped ? "stop" : over ? "walk on" : segment.gait}
        </span>
        <span className="text-[min(9vw,5.3vh)] lying:text-[min(4.6vw,10vh)] lg:text-[3.2rem]">
          {segment === null ? "" : `${ARROW[segment.side]} ${SIDE_WORDS[segment.side]}`}
        </span>
      </p>
      <p
        role="timer"
        aria-label={over ? "Over by" : "Left of this segment"}
        data-testid="clock"
        className={`figures text-center font-head leading-[0.95] font-extrabold tracking-tight text-[min(31vw,17vh)] lying:text-[min(17vw,36vh)] lg:text-[13rem] ${stopped ? "text-brick" : ""}`}
      >
        {over ? `+${clockWords(face.elapsedSeconds)}` : clockWords(Math.ceil(face.leftSeconds))}
      </p>
      <p className="flex flex-wrap justify-between gap-x-3 text-lg leading-tight" aria-live="polite">
        <span className={face.called ? "font-bold" : ""}>
          {paused
            ? "paused"
            : next === null
              ? over
                ? "the plan is done"
                : "then it is done"
              : `then ${next.gait} ${ARROW[next.side]} ${SIDE_WORDS[next.side]}`}
        </span>
        <span className="figures text-soft">
          {over ? "" : `${clockWords(Math.ceil(face.leftInAllSeconds))} in all`}
          {!over && every !== null && `, ${every}`}
        </span>
      </p>
      <div className="hidden lg:block">
        <CircleStrip
          stretches={strip}
          nowSeconds={Math.min(workedSeconds, stretches.at(-1)?.endSeconds ?? 0)}
          label="The plan and where it stands"
        />
      </div>
    </section>
  );
}
