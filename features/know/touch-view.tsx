"use client";

import { useMemo, useState } from "react";
import { proposeTouch, TOUCH_TOOLS, type Touch, TouchMap, type TouchTool, type TouchZone, zoneCaution } from "@/core/know";
import { EASE_GRADES } from "@/core/strands";
import { SIDE_WORDS } from "@/core/words";
import { Day } from "@/ui/day";
import { onAdvice } from "@/ui/form/on-word";
import { HorseMap, MapLegend, mapZones } from "@/ui/horse-map";

/** What one zone has been through, with every tool. */
function History({ map, side, zone }: { map: TouchMap; side: "L" | "R"; zone: TouchZone }) {
  const records = map.all.filter((record) => record.side === side && record.zone === zone);
  const caution = zoneCaution(zone);
  return (
    <section aria-label={`${SIDE_WORDS[side]} ${zone}`} aria-live="polite">
      <h2 className="text-xl">
        {SIDE_WORDS[side]} {zone}
      </h2>
      {caution !== null && <p className="text-sm font-semibold text-brick">{caution}</p>}
      {records.length === 0 ? (
        <p className="mt-1 text-soft">Not touched yet.</p>
      ) : (
        <table className="mt-2 w-full text-sm">
          <thead className="text-left text-soft">
            <tr>
              <th scope="col" className="font-normal">
                With
              </th>
              <th scope="col" className="font-normal">
                Last
              </th>
              <th scope="col" className="font-normal">
                When
              </th>
              <th scope="col" className="font-normal">
                All grades
              </th>
            </tr>
          </thead>
          <tbody>
            {records.map((record) => (
              <tr key={record.tool} className="border-t border-hair">
                <th scope="row" className="py-1.5 pr-3 text-left font-semibold">
                  {record.tool}
                </th>
                <td className="pr-3">
                  {record.grade} {EASE_GRADES[record.grade]}
                </td>
                <td className="pr-3">
                  <Day ms={record.wallMs} />
                </td>
                <td className="figures">{record.history.map(({ grade }) => grade).join(" ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** The body map to read: both sides, one tool or whatever came last, and the history of a zone. */
export function TouchView({
  touches,
  offLimits,
  children,
}: {
  touches: readonly Touch[];
  offLimits: readonly string[];
  children: React.ReactNode;
}) {
  const map = useMemo(() => new TouchMap(touches), [touches]);
  const proposal = proposeTouch(map, offLimits);
  const [tool, setTool] = useState<TouchTool | null>(null);
  const [at, setAt] = useState<{ side: "L" | "R"; zone: TouchZone } | null>(
    proposal === null ? null : { side: proposal.side, zone: proposal.zone },
  );
  const weaker = map.weakerSide();
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-[2rem]">Body</h1>
          <p className="text-lg">
            {proposal === null ? (
              "Every zone that may be touched is accepted with the hand."
            ) : (
              <>
                <strong className="text-tarn">
                  Next: {SIDE_WORDS[proposal.side]} {proposal.zone}, {proposal.tool}.
                </strong>{" "}
                <span className="text-soft">{proposal.reason}</span>
              </>
            )}
          </p>
        </div>
        {children}
      </div>
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 md:grid-cols-2">
        {(["L", "R"] as const).map((side) => {
          const counts = map.counts(side);
          return (
            <figure key={side}>
              <HorseMap
                side={side}
                zones={mapZones(map, side, tool, offLimits)}
                selected={at?.side === side ? at.zone : null}
                proposed={proposal?.side === side ? proposal.zone : null}
                onZone={(zone) => setAt({ side, zone })}
                label={`${SIDE_WORDS[side]} side`}
              />
              <figcaption className="figures text-center text-sm text-soft">
                <strong className="text-ink">{SIDE_WORDS[side]}</strong>: {counts.accepted} accepted, {counts.unsure} unsure,{" "}
                {counts.worrying} worrying, {counts.untouched} not touched
                {weaker.pairs > 0 && weaker.left !== weaker.right && weaker.side === side && "; the weaker side"}
              </figcaption>
            </figure>
          );
        })}
      </div>
      <div className="mt-3 flex flex-wrap items-center justify-between gap-x-8 gap-y-3">
        <MapLegend />
        <label className="flex items-center gap-2 text-sm">
          Shown
          <select
            value={tool ?? ""}
            onChange={onAdvice(["", ...TOUCH_TOOLS], (one) => setTool(one === "" ? null : one))}
            className="field-box w-auto!"
          >
            <option value="">the last touch of each zone</option>
            {TOUCH_TOOLS.map((one) => (
              <option key={one} value={one}>
                with the {one}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="mt-6 max-w-2xl">{at !== null && <History map={map} side={at.side} zone={at.zone} />}</div>
    </>
  );
}
