"use client";

import { useEffect, useState } from "react";
import { AIDS, CIRCLE_FAULTS, PEN_FAULTS, PEN_SIGNS } from "@/core/circle";
import { CORNER_STAND_SECONDS, whereNow } from "@/core/record";
import type { Fact } from "@/core/schemas";
import type { CircleStart } from "@/core/start";
import { Pad } from "@/ui/pad";
import { WayLink } from "@/ui/way";
import { BinnedNote } from "../device/binned-note";
import { StatusLine } from "../device/status-line";
import { play } from "../sound/feedback";
import { Before } from "./before";
import { ClockFace } from "./clock-face";
import { CoolDownPanel } from "./cool-down";
import { StopPanel } from "./stop-panel";
import { type Circle, useCircle } from "./use-circle";

const AID_WORDS = { voice: "voice", whip: "whip", smaller: "smaller", line: "line" } as const;
/** Pads share the height there is: never under 44 px, on a usual phone above 56. */
const SMALL = "min-h-11! h-full! px-0.5! text-[0.86rem]! leading-tight max-[359px]:text-[0.74rem]! lg:text-lg!";

/** A corner of a pen, as a zone: held down while the horse stands in it. */
const CORNER = "corner";

/** A count over a pad's word, where there is one. */
const Count = ({ of }: { of: number }) =>
  of > 0 ? (
    <span aria-hidden="true" className="figures text-xs leading-none">
      {of}
    </span>
  ) : null;

/** What a transition is asked with and which gait is wanted; then that it came, or did not. */
function TransitionPads({ circle, form }: { circle: Circle; form: CircleStart["plan"]["form"] }) {
  const { target, asking, lastAsk: last, tally } = circle;
  const laps = Object.values(tally?.laps ?? {}).reduce((sum, one) => sum + one, 0);
  return (
    <>
      <fieldset aria-label="Asked by" className="grid min-h-0 min-w-0 grid-cols-5 gap-1.5">
        {AIDS.map((aid) => (
          <Pad
            key={aid}
            label={AID_WORDS[aid]}
            lead="asked by "
            tone="ochre"
            icon={<Count of={asking?.aids.filter((one) => one === aid).length ?? 0} />}
            onPress={() => circle.aid(aid)}
            className={SMALL}
          />
        ))}
        <label className="grid min-w-0">
          <span className="sr-only">Gait asked for</span>
          <select
            value={target}
            className="h-full min-h-11 min-w-0 rounded-lg border-2 border-ink bg-paper text-[0.86rem] font-semibold lg:text-lg"
            onChange={(event) => circle.choose(event.target.value)}
          >
            {["stand", "walk", "trot", "canter"].map((gait) => (
              <option key={gait}>{gait}</option>
            ))}
          </select>
        </label>
      </fieldset>
      <fieldset aria-label="What came" className="grid min-h-0 min-w-0 grid-cols-[2fr_1fr_1fr_1fr_1fr] gap-1.5">
        <Pad label={`${target} came`} tone="main" onPress={circle.came} className={SMALL} />
        <Pad label="no" lead="no answer: " onPress={circle.noAnswer} disabled={asking === null} className={SMALL} />
        {form === "circle" ? (
          <>
            <Pad
              label="let out"
              onPress={circle.out}
              disabled={last === null || last.cameAfterSeconds === null || last.outAfterSeconds !== null}
              className={SMALL}
            />
            <Pad label="lap" icon={<Count of={laps} />} onPress={circle.lap} className={SMALL} />
            <Pad label="slack" lead="hold while the line is " onHold={circle.slack} className={SMALL} />
          </>
        ) : (
          <>
            <Pad label="tense" tone="tension" onPress={() => circle.sign("tension", "tension")} className={SMALL} />
            <Pad label="soft" tone="ease" onPress={() => circle.sign("ease", "ease")} className={SMALL} />
            {form === "pen" ? (
              <Pad
                label="corner"
                lead="hold while it stands in the "
                onHold={(down) => circle.watch.press({ type: "zone", payload: { zone: down ? CORNER : "track" } })}
                className={SMALL}
              />
            ) : (
              <Pad
                label="tight"
                lead="the companion’s rope is "
                onPress={() => circle.watch.press({ type: "lines.step", payload: { what: "companion rope tight" } })}
                className={SMALL}
              />
            )}
          </>
        )}
      </fieldset>
    </>
  );
}

/** What happens on the way: one tap each, with its side. */
function CirclePads({ circle, start }: { circle: Circle; start: CircleStart }) {
  const { tally, side } = circle;
  const { form } = start.plan;
  const count = (name: string) => tally?.faults[`${name} ${side}`] ?? 0;
  const [straight, setStraight] = useState<number | null>(null);
  const step = (what: string, more: object = {}) => circle.watch.press({ type: "lines.step", payload: { what, ...more } } as Fact);
  const three = "row-span-3 grid min-h-0 min-w-0 auto-rows-fr grid-cols-3 gap-1.5";
  if (form === "pen")
    return (
      <fieldset className={three} aria-label="What it shows">
        {PEN_SIGNS.map((name) => (
          <Pad key={name} label={name} tone="ease" onPress={() => circle.sign(name, "count")} className={SMALL} />
        ))}
        {PEN_FAULTS.map((name) => (
          <Pad key={name} label={name} icon={<Count of={count(name)} />} onPress={() => circle.sign(name, "count")} className={SMALL} />
        ))}
      </fieldset>
    );
  if (form === "lines")
    return (
      <fieldset className={three} aria-label="On the way">
        <Pad label="stop" onPress={() => step("stop")} className={SMALL} />
        <Pad label="turn left, wide" onPress={() => step("turn, wide", { side: "L" })} className={SMALL} />
        <Pad label="turn right, wide" onPress={() => step("turn, wide", { side: "R" })} className={SMALL} />
        <Pad
          label="straight"
          hint={straight === null ? "hold" : "let go at its end"}
          onHold={(down) => {
            if (down) return setStraight(performance.now());
            const seconds = straight === null ? 0 : (performance.now() - straight) / 1000;
            setStraight(null);
            // By the speed of this horse's walk: a distance about so long.
            if (seconds >= 1) step("straight", { metres: Math.round(seconds * (start.speeds.walk ?? 1.6)), note: "by time at a walk" });
          }}
          className={SMALL}
        />
        <Pad label="turn, tight" onPress={() => step("turn, tight", { side })} className={SMALL} />
        <Pad
          label="traffic passed"
          onPress={() =>
            step(
              "traffic passed",
              start.plan.lines?.traffic === "L" || start.plan.lines?.traffic === "R" ? { side: start.plan.lines.traffic } : {},
            )
          }
          className={SMALL}
        />
        <Pad label="head let go" onPress={() => step("head let go")} className={SMALL} />
        <Pad label="head taken" onPress={() => step("head taken")} className={SMALL} />
        <Pad label="rushes" onPress={() => circle.sign("rushes", "count")} className={SMALL} />
      </fieldset>
    );
  return (
    <fieldset className={three} aria-label="What it does">
      {CIRCLE_FAULTS.map((name) => (
        <Pad
          key={name}
          label={name}
          tone={name === "stretches down" ? "ease" : "plain"}
          icon={<Count of={count(name)} />}
          onPress={() => circle.sign(name, "count")}
          className={SMALL}
        />
      ))}
    </fieldset>
  );
}

/** What is asked at the finish: a line for next time. How the walk at the end went is asked after it. */
function Finish({ circle, onDone, onBack }: { circle: Circle; onDone: (next: string) => void; onBack: () => void }) {
  const [next, setNext] = useState("");
  const cut = circle.tally === null ? 0 : Math.round(circle.face.leftInAllSeconds / 60);
  return (
    <section aria-label="Finish" className="mx-auto grid w-full max-w-xl gap-4">
      <h2 className="text-2xl">Finish</h2>
      {cut > 0 && <p className="text-soft">{cut} min of the plan are not worked.</p>}
      <label>
        <span className="font-semibold">For next time</span>
        <input value={next} maxLength={400} className="field-box mt-1" onChange={(event) => setNext(event.target.value)} />
      </label>
      <button type="button" className="act min-h-20 text-xl" onClick={() => onDone(next)}>
        Finish and cool down
      </button>
      <button type="button" className="link min-h-12 justify-self-start" onClick={onBack}>
        Back to the clock
      </button>
    </section>
  );
}

/** The recorder of work on the circle, in a pen and in long lines. */
export function CircleRecorder({ start, today }: { start: CircleStart; today: string }) {
  const [audio, setAudio] = useState<HTMLAudioElement | null>(null);
  const circle = useCircle(start, audio);
  const { watch, overCap, round, cap, circledMinutes, heat, paused } = circle;
  const { record, working, hint, busy } = watch;
  const [finishing, setFinishing] = useState(false);
  const { plan } = start;
  const { horse } = start.session;
  const inCorner = working && record.finishMs === null && whereNow(record).zone === CORNER;
  useEffect(() => {
    if (!inCorner) return;
    const sound = () => play([0, 0.25].map((at) => ({ at, seconds: 0.15, hertz: 440 })));
    sound();
    const timer = setInterval(sound, CORNER_STAND_SECONDS * 1000);
    return () => clearInterval(timer);
  }, [inCorner]);
  // On the clock everything stands on one screen; before and after it is read and typed.
  const clocked = working && record.finishMs === null && !finishing;
  const after = `/horses/${horse.id}/review/${start.session.id}`;
  const finish = (next: string) => {
    const facts: Fact[] = [];
    if (next.trim() !== "") facts.push({ type: "note", payload: { text: next.trim(), about: "next" } });
    facts.push({ type: "block.end" }, { type: "session.end" }, { type: "cool", payload: { did: "starts" } });
    watch.press(...facts);
    setFinishing(false);
  };
  if (!watch.session.ready) return <main className="p-6 text-soft">Reading what this device has kept.</main>;
  return (
    <main
      className={`mx-auto flex w-full max-w-[460px] flex-col gap-1.5 px-2.5 pt-1.5 pb-1 lying:max-w-none lg:max-w-[1180px] lg:px-7 lg:pt-5 ${clocked ? "h-dvh min-h-[26rem] lying:min-h-[20rem]" : "min-h-dvh"}`}
    >
      {/* biome-ignore lint/a11y/useMediaCaption: it holds signals, not words; what they say stands on the screen */}
      <audio ref={setAudio} data-testid="track" className="hidden" />
      <header className="flex items-baseline justify-between gap-3">
        <h1 className="min-w-0 truncate text-lg lg:text-2xl">
          <WayLink href={`/horses/${horse.id}/work/circle`} className="hover:underline">
            {horse.name}
          </WayLink>
        </h1>
        {round && record.finishMs === null && (
          <p className="figures shrink-0 text-sm">
            {Math.floor(circledMinutes)} of {Math.round(cap.value)} min circled today
          </p>
        )}
      </header>
      <BinnedNote sessionId={start.session.id} binned={watch.session.binned} />
      {hint !== null && (
        <p role="alert" className="text-sm font-semibold text-ochre">
          {hint}
        </p>
      )}
      {record.finishMs !== null ? (
        <div className="mx-auto w-full max-w-xl">
          <CoolDownPanel start={start} circle={circle} after={after} />
        </div>
      ) : !working ? (
        <Before start={start} circle={circle} today={today} />
      ) : finishing ? (
        <Finish circle={circle} onDone={finish} onBack={() => setFinishing(false)} />
      ) : (
        <>
          <div className="grid min-h-0 grow grid-rows-[auto_minmax(0,1fr)] gap-1.5 lying:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)] lying:grid-rows-1 lg:grid-cols-2 lg:grid-rows-1 lg:gap-6">
            <div className="grid content-start gap-1.5">
              <ClockFace circle={circle} plan={plan} />
              {inCorner && (
                <p role="alert" className="border-l-4 border-ochre pl-3 leading-tight font-semibold text-ochre" data-testid="corner">
                  It stands in the corner. Stop pushing, make room, and let it come out.
                </p>
              )}
              {overCap !== null && (
                <p role="alert" className="border-l-4 border-brick pl-3 leading-tight font-semibold text-brick" data-testid="cap">
                  <strong className="font-head text-xl">Stop.</strong> {overCap}
                </p>
              )}
              {overCap === null && heat !== null && heat.level !== "usual" && (
                <p className="border-l-4 border-ochre pl-3 text-sm leading-tight">{heat.sentence}</p>
              )}
            </div>
            <div className="grid min-h-0 auto-rows-fr gap-1.5">
              <TransitionPads circle={circle} form={plan.form} />
              <CirclePads circle={circle} start={start} />
              <div className="grid min-h-0 grid-cols-[repeat(6,minmax(2.75rem,auto))] gap-1.5 max-[359px]:gap-1">
                <Pad label={paused ? "go on" : "pause"} tone="quiet" onPress={circle.pause} className={SMALL} />
                <Pad label="next" tone="quiet" onPress={circle.goOn} disabled={circle.next === null} className={SMALL} />
                <Pad label="+1 min" tone="quiet" onPress={circle.more} disabled={overCap !== null} className={SMALL} />
                <Pad label="undo" tone="quiet" onPress={watch.undo} className={SMALL} />
                <Pad label="danger" tone="danger" onPress={() => circle.sign("danger", "danger")} className={SMALL} />
                <Pad label="finish" onPress={() => setFinishing(true)} disabled={busy} className={SMALL} />
              </div>
            </div>
          </div>
          {circle.danger !== null && <StopPanel circle={circle} onEnd={() => setFinishing(true)} />}
        </>
      )}
      <div className="flex justify-center">
        <StatusLine storeId={start.session.storeId} tapped={watch.session.tapped} />
      </div>
    </main>
  );
}
