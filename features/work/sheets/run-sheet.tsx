"use client";

import { useEffect, useState } from "react";
import { chainRunsOf, type RunningChain } from "@/core/behaviour";
import type { PackChain } from "@/core/pack";
import { counted } from "@/core/words";
import { chip } from "@/ui/chip";
import { decimals } from "@/ui/measure";
import { Pad } from "@/ui/pad";
import { useActs, useLog, useNow, useStart } from "../state";

const BREAK_REASONS = ["left", "no answer", "something else", "tense", "I asked badly", "disturbed"] as const;
const DONE_AT_BREAK = ["asked again", "asked for less", "one link back", "ended on an easy one", "stopped"] as const;

function Seconds({ sinceMs }: { sinceMs: number }) {
  const { nowMs, record } = useLog();
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), 500);
    return () => clearInterval(timer);
  }, []);
  return (
    <span className="figures" suppressHydrationWarning>
      {Math.max(0, Math.round(((nowMs() ?? record.lastMs) - sinceMs) / 1000))} s
    </span>
  );
}

/** A run that goes on: one large button for the link that is asked now, one for its break. */
function Running({ run }: { run: RunningChain }) {
  const act = useActs();
  const [breaking, setBreaking] = useState(false);
  const [reason, setReason] = useState("");
  const name = run.links[run.link - 1] ?? "";
  if (breaking)
    return (
      <div className="grid gap-3">
        <p className="font-head text-xl font-bold">It broke on {name}</p>
        <fieldset className="flex flex-wrap gap-1.5">
          <legend className="mb-1 font-semibold">Why</legend>
          {BREAK_REASONS.map((one) => (
            <button key={one} type="button" aria-pressed={reason === one} className={chip(reason === one)} onClick={() => setReason(one)}>
              {one}
            </button>
          ))}
        </fieldset>
        <fieldset className="flex flex-wrap gap-1.5">
          <legend className="mb-1 font-semibold">What you did ends the run</legend>
          {DONE_AT_BREAK.map((did) => (
            <button
              key={did}
              type="button"
              className={`${chip(false)} min-h-14!`}
              onClick={() => {
                setBreaking(false);
                act.endRun({ link: run.link, did, ...(reason === "" ? {} : { reason }) });
              }}
            >
              {did}
            </button>
          ))}
        </fieldset>
        <button type="button" className="link min-h-12 justify-self-start" onClick={() => setBreaking(false)}>
          It goes on
        </button>
      </div>
    );
  return (
    <div className="grid gap-3">
      <ol className="flex flex-wrap gap-x-3 gap-y-1 text-sm">
        {run.links.map((link, i) => (
          <li
            key={`${i}-${link}`}
            className={i + 1 === run.link ? "font-bold text-tarn" : i + 1 < run.link ? "text-soft line-through" : "text-soft"}
          >
            {i + 1} {link}
          </li>
        ))}
      </ol>
      <button
        type="button"
        className="act min-h-28 text-2xl"
        onClick={() => act.reachLink(run.link)}
        data-testid="link-reached"
        // biome-ignore lint/a11y/noAutofocus: it is what the sheet is open for
        autoFocus
      >
        {name}: reached
      </button>
      <p className="text-center text-soft">
        link {run.link} of {run.links.length}, <Seconds sinceMs={run.sinceMs} />
      </p>
      <button type="button" className="act-quiet min-h-16 text-xl" onClick={() => setBreaking(true)}>
        It broke here
      </button>
      <button type="button" className="link min-h-12 justify-self-start" onClick={() => act.endRun({ stopped: true })}>
        I stopped the run; it did not break
      </button>
    </div>
  );
}

function Choose({ chain }: { chain: PackChain }) {
  const act = useActs();
  const [from, setFrom] = useState(1);
  return (
    <li className="grid gap-2 border-t-2 border-hair py-3">
      <span className="font-head text-xl font-bold">{chain.name}</span>
      <span className="text-sm text-soft">{chain.links.map(({ name }) => name).join(" → ")}</span>
      {chain.direction === "backward" && (
        <label className="text-sm font-semibold">
          Begin on
          <select value={from} onChange={(event) => setFrom(Number(event.target.value))} className="field-box mt-1 font-normal">
            {chain.links.map(({ name }, i) => (
              <option key={`${i}-${name}`} value={i + 1}>
                {i + 1}: {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <button type="button" className="act min-h-16 text-xl" onClick={() => act.runChain(chain, from)}>
        Run it
      </button>
    </li>
  );
}

/** The recorder of links: forward and backward chains, one press as each is reached. */
export function RunSheet({ wanted = null }: { wanted?: string | null }) {
  const { record } = useLog();
  const { chains } = useStart().today;
  const { hint } = useNow();
  const act = useActs();
  const { runs, running } = chainRunsOf(record);
  const last = runs.at(-1);
  if (running !== null)
    return (
      <>
        <Running key={`${running.eventId}-${running.link}`} run={running} />
        {/* The sheet lies over the pads: what they have for danger stands on it too. */}
        <div className="sticky -bottom-8 -mx-5 -mb-8 bg-ground px-5 pt-1 pb-4">
          <Pad label="danger" tone="danger" onPress={() => act.dangerInRun(running.link)} className="min-h-16! w-full!" />
        </div>
      </>
    );
  return (
    <div>
      {last !== undefined && (
        <p className="mb-3 border-l-4 border-tarn pl-3" role="status">
          {last.whole
            ? `Whole: ${counted(last.links.length - last.from + 1, "link")} in ${decimals(
                last.linkSeconds.reduce((sum, s) => sum + s, 0),
                0,
              )} s.`
            : last.broke === null
              ? "Stopped; no break."
              : `Broke on ${last.links[last.broke - 1]}${last.reason === null ? "" : `, ${last.reason}`}.`}{" "}
          {runs.length > 1 && `${runs.filter((run) => run.whole).length} of ${runs.length} runs whole today.`}
          <button type="button" className="link ml-2" onClick={act.undo}>
            Undo
          </button>
        </p>
      )}
      {hint !== null && (
        <p role="alert" className="mb-2 font-semibold text-brick">
          {hint}
        </p>
      )}
      <ul>
        {[...chains]
          .sort((a, b) => Number(b.id === wanted) - Number(a.id === wanted))
          .map((chain) => (
            <Choose key={chain.id} chain={chain} />
          ))}
      </ul>
    </div>
  );
}
