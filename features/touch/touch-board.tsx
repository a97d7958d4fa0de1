"use client";

import { useMemo, useState } from "react";
import { proposeTouch, TOUCH_TOOLS, TOUCH_ZONES, type Touch, TouchMap, type TouchTool, type TouchZone, zoneCaution } from "@/core/know";
import type { SessionRecord } from "@/core/record";
import { EASE_GRADES } from "@/core/strands";
import { isOneOf } from "@/core/typed";
import { closesZone, type TouchCap } from "@/core/welfare";
import { SIDE_WORDS } from "@/core/words";
import { HORSE_PART_NAMES, HorseMap, type HorsePart, MapLegend, mapZones, partOfZone } from "@/ui/horse-map";

type Side = "L" | "R";

const isZone = (value: unknown): value is TouchZone => isOneOf(TOUCH_ZONES, value);
const isTool = (value: unknown): value is TouchTool => isOneOf(TOUCH_TOOLS, value);

/** The touches of the session under way, undone ones left out. */
function touchesOf({ facts, startWallMs }: SessionRecord): Touch[] {
  return facts.flatMap((fact): Touch[] => {
    if (fact.type !== "touch") return [];
    const { zone, side, tool, grade } = fact.payload;
    if (!isZone(zone) || !isTool(tool) || (side !== "L" && side !== "R")) return [];
    return [{ wallMs: (startWallMs ?? 0) + fact.ms, zone, side, tool, grade }];
  });
}

/** The tool, the side shown, the part shown large. */
function Choosers({
  wide,
  tool,
  side,
  part,
  onTool,
  onSide,
  onPart,
}: {
  wide: boolean;
  tool: TouchTool;
  side: Side;
  part: HorsePart | null;
  onTool: (tool: TouchTool) => void;
  onSide: (side: Side) => void;
  onPart: (part: HorsePart) => void;
}) {
  return (
    <div className="grid content-start gap-1.5 lying:col-start-2">
      <fieldset className={wide ? "flex min-w-0 flex-wrap gap-1.5" : "grid min-w-0 grid-cols-7 gap-1"} aria-label="With">
        {TOUCH_TOOLS.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={tool === one}
            onClick={() => onTool(one)}
            className={`rounded-lg border-2 border-ink font-semibold ${wide ? "min-h-12 shrink-0 px-3" : "min-h-11 px-0 text-[0.78rem]"} ${tool === one ? "bg-ink text-on-ink" : "bg-paper"}`}
          >
            {one}
          </button>
        ))}
      </fieldset>
      {!wide && (
        <fieldset className="grid grid-cols-2 gap-1.5" aria-label="Side shown">
          {(["L", "R"] as const).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={side === one}
              onClick={() => onSide(one)}
              className={`min-h-11 rounded border-2 border-ink font-semibold ${side === one ? "bg-ink text-on-ink" : "bg-paper"}`}
            >
              {SIDE_WORDS[one]}
            </button>
          ))}
        </fieldset>
      )}
      <fieldset className="grid min-w-0 max-w-[54rem] grid-cols-6 gap-1" aria-label="Part shown large">
        {HORSE_PART_NAMES.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={part === one}
            onClick={() => onPart(one)}
            className={`min-h-11 rounded border-2 border-ink px-0.5 text-[0.78rem] leading-none font-semibold ${wide ? "sm:text-base" : ""} ${part === one ? "bg-ink text-on-ink" : "bg-paper"}`}
          >
            {one}
          </button>
        ))}
      </fieldset>
    </div>
  );
}

/** The zone chosen, what is to be known of it, and how it was taken. A zone that is closed takes no grade. */
function GradePads({
  at,
  tool,
  last,
  why,
  ban,
  onGrade,
}: {
  at: { readonly zone: TouchZone; readonly side: Side };
  tool: TouchTool;
  last: Touch | null;
  /** Why it is the next one; null where it was chosen. */
  why: string | null;
  /** Why it is closed today; null where it is not. */
  ban: string | null;
  onGrade: (grade: number) => void;
}) {
  const caution = zoneCaution(at.zone);
  return (
    <div className="sticky bottom-0 z-10 bg-ground pb-1 lying:static lying:col-start-2">
      <p className="font-head text-xl font-bold" aria-live="polite">
        {SIDE_WORDS[at.side]} {at.zone}, {tool}
        {last !== null && <span className="ml-3 font-sans text-base font-normal text-soft">last: {EASE_GRADES[last.grade]}</span>}
      </p>
      {why !== null && <p className="text-sm text-soft">Next. {why}</p>}
      {caution !== null && <p className="text-sm font-semibold text-brick">{caution}</p>}
      {ban !== null ? (
        <p className="font-semibold text-brick">{ban}</p>
      ) : (
        <fieldset className="mt-2 grid grid-cols-5 gap-1.5" aria-label="How it was taken">
          {EASE_GRADES.map((word, value) => (
            <button
              key={word}
              type="button"
              onClick={() => onGrade(value)}
              className={`min-h-[72px] rounded-lg border-[2.5px] bg-paper px-0.5 font-head text-[0.78rem] leading-tight lying:text-[0.72rem] lg:text-sm font-semibold ${value >= 3 ? "border-sage" : value <= 1 ? "border-brick" : "border-ochre"}`}
            >
              <span className="figures block text-lg">{value}</span>
              {word}
            </button>
          ))}
        </fieldset>
      )}
    </div>
  );
}

/**
 * The body map at work: tap a zone, then a grade. It proposes the next zone,
 * and takes the proposal along so that following it is one tap.
 */
export function TouchBoard({
  touches,
  record,
  offLimits,
  onTouch,
  wide = false,
}: {
  touches: readonly Touch[];
  record: SessionRecord;
  offLimits: readonly TouchCap[];
  onTouch: (zone: TouchZone, side: Side, tool: TouchTool, grade: number) => void;
  wide?: boolean;
}) {
  const map = useMemo(() => new TouchMap([...touches, ...touchesOf(record)]), [touches, record]);
  const barredOn = (side: Side) => TOUCH_ZONES.filter((zone) => offLimits.some((cap) => closesZone(cap, zone, side)));
  // A zone that is closed on one side is proposed on neither.
  const proposal = proposeTouch(map, [...barredOn("L"), ...barredOn("R")]);
  const [tool, setTool] = useState<TouchTool>(proposal?.tool ?? "hand");
  const [picked, setPicked] = useState<{ zone: TouchZone; side: Side } | null>(null);
  const [shown, setShown] = useState<Side>(proposal?.side ?? "L");
  // What was pressed; until then the part with the next zone, where that is on the side shown.
  const [pressed, setPressed] = useState<HorsePart | "whole" | null>(null);
  const nextInSight = proposal !== null && (wide || proposal.side === shown);
  const followed = wide || !nextInSight ? null : partOfZone(proposal.zone);
  const part = pressed === null ? followed : pressed === "whole" ? null : pressed;
  // Side and part stay where they were set: a proposal elsewhere is gone to by its own press.
  const at =
    picked ?? (nextInSight && (part === null || part === partOfZone(proposal.zone)) ? { zone: proposal.zone, side: proposal.side } : null);
  const ban = at === null ? undefined : offLimits.find((cap) => closesZone(cap, at.zone, at.side));
  const last = at === null ? null : map.of(at.side, at.zone, tool);
  const follow = () => {
    if (proposal === null) return;
    setTool(proposal.tool);
    setPicked(null);
    setPressed(null);
    setShown(proposal.side);
  };
  const grade = (value: number) => {
    if (at === null || ban !== undefined) return;
    onTouch(at.zone, at.side, tool, value);
    setPicked(null);
  };
  const sides = wide ? (["L", "R"] as const) : ([shown] as const);
  return (
    <div className={wide ? "grid gap-3" : "grid gap-1.5 lying:grid-cols-2 lying:gap-x-4"}>
      <Choosers
        wide={wide}
        tool={tool}
        side={shown}
        part={part}
        onTool={setTool}
        onSide={(side) => {
          setShown(side);
          // The zone that was chosen goes over to that side.
          if (at !== null) setPicked({ zone: at.zone, side });
        }}
        onPart={(one) => {
          setPressed(part === one ? "whole" : one);
          setPicked(null);
        }}
      />
      <div className={wide ? "grid max-w-[54rem] grid-cols-[minmax(0,1fr)] gap-8 md:grid-cols-2" : "lying:row-span-3 lying:row-start-1"}>
        {sides.map((side) => (
          <HorseMap
            key={side}
            side={side}
            zones={mapZones(map, side, tool, barredOn(side))}
            selected={at?.side === side ? at.zone : null}
            part={part}
            proposed={proposal?.side === side && proposal.tool === tool ? proposal.zone : null}
            onZone={(zone) => setPicked({ zone, side })}
            label={`${SIDE_WORDS[side]} side, with the ${tool}`}
          />
        ))}
      </div>
      {wide && <MapLegend />}
      {at !== null && (
        <GradePads
          at={at}
          tool={tool}
          last={last}
          why={picked === null && proposal !== null && proposal.tool === tool ? proposal.reason : null}
          ban={ban?.why ?? null}
          onGrade={grade}
        />
      )}
      {proposal !== null && (at === null || picked !== null || proposal.tool !== tool) && (
        <button type="button" onClick={follow} className="act-quiet justify-start! text-left lying:col-start-2">
          Next: {SIDE_WORDS[proposal.side]} {proposal.zone}, {proposal.tool}
        </button>
      )}
      {!wide && <MapLegend />}
      <p className="text-sm text-soft lying:col-span-2">
        Go near, wait, go away again as it softens. 3 and 4 count as accepted. Stop for heat, pain or a swelling and call a veterinarian.
      </p>
    </div>
  );
}
