"use client";

import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { useDeferredValue, useMemo, useState } from "react";
import { expectedRepetitions, type LadderPlan, type LayoutLeg, type LayoutOrder, type Rung } from "@/core/ladder";
import { checkMasteryRule } from "@/core/schemas";
import type { Strand, StrandValue } from "@/core/strands";
import { keysOf } from "@/core/typed";
import { counted } from "@/core/words";
import { onAdvice } from "@/ui/form/on-word";
import { StrandChart } from "@/ui/strand-chart";
import { type LayoutWish, layOutWish } from "./lay-out";
import { LabelledNumber, NumberBox } from "./number-box";

const ORDERS: Record<LayoutOrder, string> = {
  "one-by-one": "one strand to its goal, then the next",
  "in-turn": "a step of each in turn",
  own: "my own order",
};

const EASES = [
  [0, "leave the others as they are"],
  [0.25, "a quarter of the way back"],
  [0.5, "half of the way back"],
  [0.75, "three quarters of the way back"],
  [1, "all the way back to the start"],
] as const;

function ValueBox({
  strand,
  value,
  label,
  onValue,
}: {
  strand: Strand;
  value: StrandValue;
  label: string;
  onValue: (value: StrandValue) => void;
}) {
  if (strand.kind === "number") return <NumberBox value={Number(value)} label={label} problem={null} onValue={onValue} />;
  return (
    <select aria-label={label} value={String(value)} onChange={(event) => onValue(event.target.value)} className="field-box">
      {strand.levels.map((level) => (
        <option key={level}>{level}</option>
      ))}
    </select>
  );
}

function Legs({
  strands,
  legs,
  goals,
  onLegs,
}: {
  strands: readonly Strand[];
  legs: readonly LayoutLeg[];
  goals: LayoutWish["ends"];
  onLegs: (legs: readonly LayoutLeg[]) => void;
}) {
  const put = (i: number, leg: LayoutLeg) => onLegs(legs.map((one, at) => (at === i ? leg : one)));
  const [first] = strands;
  return (
    <div>
      <p className="mb-1 font-semibold">Legs, one after another</p>
      <ol className="grid gap-2">
        {legs.map(({ id, to }, i) => {
          const strand = strands.find((one) => one.id === id);
          return (
            <li key={`${i}-${id}`} className="grid grid-cols-[1.5rem_1fr_1fr_2.5rem] items-center gap-2">
              <span className="figures text-soft">{i + 1}</span>
              <select
                aria-label={`Leg ${i + 1}, strand`}
                value={id}
                onChange={(event) => put(i, { id: event.target.value, to: goals[event.target.value]?.goal ?? to })}
                className="field-box"
              >
                {strands.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </select>
              {strand !== undefined && (
                <ValueBox strand={strand} value={to} label={`Leg ${i + 1}, up to`} onValue={(value) => put(i, { id, to: value })} />
              )}
              <button
                type="button"
                aria-label={`Take out leg ${i + 1}`}
                onClick={() => onLegs(legs.filter((_, at) => at !== i))}
                className="grid size-9 place-items-center rounded text-soft hover:bg-paper"
              >
                <Trash2 size={16} aria-hidden="true" />
              </button>
            </li>
          );
        })}
      </ol>
      {first !== undefined && (
        <button
          type="button"
          className="act-quiet mt-2"
          onClick={() => onLegs([...legs, { id: first.id, to: goals[first.id]?.goal ?? "" }])}
        >
          <Plus size={18} aria-hidden="true" /> Leg
        </button>
      )}
      <p className="mt-1 text-sm text-soft">What the legs leave out is finished in the order of the strands.</p>
    </div>
  );
}

/** What is wished of a ladder: ends and order of each strand, how the others ease, the trainer's own legs. */
function useWish({ strands, rungs }: LadderPlan) {
  const [typed, setTyped] = useState<LayoutWish["ends"]>({});
  const [chosenOrder, setChosenOrder] = useState<readonly string[]>([]);
  const [order, setOrder] = useState<LayoutOrder>("one-by-one");
  const [easeOnNew, setEase] = useState(0.5);
  const [legs, setLegs] = useState<readonly LayoutLeg[]>([]);
  const wish = useMemo((): LayoutWish => {
    const ends = Object.fromEntries(
      strands.map(({ id }) => [id, typed[id] ?? { start: rungs[0]?.values[id] ?? "", goal: rungs.at(-1)?.values[id] ?? "" }]),
    );
    const known = chosenOrder.filter((id) => id in ends);
    const strandOrder = [...known, ...strands.map(({ id }) => id).filter((id) => !known.includes(id))];
    return { ends, strandOrder, order, easeOnNew, legs };
  }, [strands, rungs, typed, chosenOrder, order, easeOnNew, legs]);
  const setEnd = (id: string, end: LayoutWish["ends"][string]) => setTyped({ ...typed, [id]: end });
  return { wish, setEnd, setChosenOrder, setOrder, setEase, setLegs };
}

/** How many repetitions the rungs take at a share met; null where it cannot be told. */
function useExpected(plan: LadderPlan, rungs: readonly Rung[] | null, percent: number) {
  const { mastery, strands, schedule, plannedRepetitions } = plan;
  return useMemo(() => {
    if (rungs === null || !isPercent(percent) || !checkMasteryRule(mastery).ok) return null;
    return expectedRepetitions({ mastery, strands, rungs, schedule, plannedRepetitions }, percent / 100);
  }, [rungs, percent, mastery, schedule, plannedRepetitions, strands]);
}

const isPercent = (percent: number) => percent >= 1 && percent <= 100;

/** Start and goal of each strand, in the order in which they come. */
function Ends({
  ordered,
  wish,
  setEnd,
  setOrder,
}: {
  ordered: readonly Strand[];
  wish: LayoutWish;
  setEnd: (id: string, end: LayoutWish["ends"][string]) => void;
  setOrder: (order: readonly string[]) => void;
}) {
  const move = (at: number, by: number) => {
    const next = [...wish.strandOrder];
    const [id] = next.splice(at, 1);
    if (id !== undefined) next.splice(at + by, 0, id);
    setOrder(next);
  };
  return (
    <table className="w-full border-separate border-spacing-x-2 border-spacing-y-1.5 text-left">
      <caption className="sr-only">Start and goal of each strand</caption>
      <thead>
        <tr>
          <th scope="col" className="font-semibold">
            Strand
          </th>
          <th scope="col" className="font-semibold">
            Start
          </th>
          <th scope="col" className="font-semibold">
            Goal
          </th>
          <td />
        </tr>
      </thead>
      <tbody>
        {ordered.map((strand, at) => {
          const end = wish.ends[strand.id] ?? { start: "", goal: "" };
          const put = (change: Partial<typeof end>) => setEnd(strand.id, { ...end, ...change });
          return (
            <tr key={strand.id} className="align-top">
              <th scope="row" className="pt-2 font-normal">
                {strand.name} {strand.unit !== "" && <span className="text-soft">{strand.unit}</span>}
              </th>
              <td className="w-36">
                <ValueBox strand={strand} value={end.start} label={`Start, ${strand.name}`} onValue={(start) => put({ start })} />
              </td>
              <td className="w-36">
                <ValueBox strand={strand} value={end.goal} label={`Goal, ${strand.name}`} onValue={(goal) => put({ goal })} />
              </td>
              <td className="whitespace-nowrap">
                <button
                  type="button"
                  aria-label={`${strand.name} sooner`}
                  disabled={at === 0}
                  onClick={() => move(at, -1)}
                  className="inline-grid size-9 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30"
                >
                  <ArrowUp size={16} aria-hidden="true" />
                </button>
                <button
                  type="button"
                  aria-label={`${strand.name} later`}
                  disabled={at === ordered.length - 1}
                  onClick={() => move(at, 1)}
                  className="inline-grid size-9 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30"
                >
                  <ArrowDown size={16} aria-hidden="true" />
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** The ladder that came of it, or why none does. */
function Laid({
  plan,
  laid,
  percent,
  onUse,
}: {
  plan: LadderPlan;
  laid: ReturnType<typeof layOutWish>;
  percent: number;
  onUse: (rungs: readonly Rung[]) => void;
}) {
  const [preview, setPreview] = useState(1);
  const rungs = "rungs" in laid ? laid.rungs : null;
  const expected = useExpected(plan, rungs, percent);
  const { strands } = plan;
  return (
    <>
      {rungs === null ? (
        <p role="alert" className="border-l-4 border-brick pl-4 font-semibold text-brick">
          {"problem" in laid ? laid.problem : ""}
        </p>
      ) : (
        <>
          <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
            <p data-testid="laid-count">
              <strong className="figures text-xl">{rungs.length} rungs</strong>
              {expected !== null &&
                (expected.total === null
                  ? ". The rule may never be passed at that share."
                  : `, about ${counted(Math.round(expected.total), "repetition")} at ${percent} %, ${Math.round(expected.reinforced ?? 0)} of them reinforced.`)}
              <span className="block text-sm text-soft">A floor for planning: a horse begins lower on each new rung.</span>
            </p>
            <button type="button" className="act" onClick={() => onUse(rungs)}>
              Use {rungs.length === 1 ? "this rung" : `these ${rungs.length} rungs`}
            </button>
          </div>
          <StrandChart plan={{ strands, rungs }} selected={Math.min(preview, rungs.length)} onSelect={setPreview} />
        </>
      )}
    </>
  );
}

/** From a start and a goal of each strand to a whole ladder, seen before it is taken. */
export function LayOutPanel({ plan, onUse }: { plan: LadderPlan; onUse: (rungs: readonly Rung[]) => void }) {
  const { strands } = plan;
  const { wish, setEnd, setChosenOrder, setOrder, setEase, setLegs } = useWish(plan);
  const [percent, setPercent] = useState(80);
  const settled = useDeferredValue(wish);
  const laid = useMemo(() => layOutWish(strands, plan.phases.length, settled), [strands, plan.phases.length, settled]);
  const ordered = wish.strandOrder.flatMap((id) => strands.find((strand) => strand.id === id) ?? []);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5">
      <div className="grid gap-x-10 gap-y-5 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <Ends ordered={ordered} wish={wish} setEnd={setEnd} setOrder={setChosenOrder} />
        <div className="grid content-start gap-4">
          <div>
            <label htmlFor="lay-order" className="mb-1 block font-semibold">
              Order
            </label>
            <select id="lay-order" value={wish.order} onChange={onAdvice(keysOf(ORDERS), setOrder)} className="field-box">
              {Object.entries(ORDERS).map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                </option>
              ))}
            </select>
          </div>
          {wish.order === "own" && <Legs strands={ordered} legs={wish.legs ?? []} goals={wish.ends} onLegs={setLegs} />}
          <div>
            <label htmlFor="lay-ease" className="mb-1 block font-semibold">
              When a new one starts, ease the others
            </label>
            <select id="lay-ease" value={wish.easeOnNew} onChange={(event) => setEase(Number(event.target.value))} className="field-box">
              {EASES.map(([share, words]) => (
                <option key={share} value={share}>
                  {words}
                </option>
              ))}
            </select>
          </div>
          <LabelledNumber
            label="Repetitions for a horse that gets it, %"
            className="w-64"
            value={percent}
            problem={isPercent(percent) ? null : "From 1 to 100."}
            onValue={setPercent}
          />
        </div>
      </div>
      <Laid plan={plan} laid={laid} percent={percent} onUse={onUse} />
    </div>
  );
}
