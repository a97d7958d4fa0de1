"use client";

import { useState } from "react";
import { counted } from "@/core/words";
import { Confirm } from "@/ui/confirm";
import { Day } from "@/ui/day";
import { send } from "@/ui/form";
import { useWay } from "@/ui/way";

/** How the data is, as its page shows it. */
export interface CareFacts {
  readonly file: string;
  readonly bytes: number;
  readonly freeBytes: number | null;
  readonly folder: string;
  readonly copies: readonly { readonly name: string; readonly madeMs: number; readonly bytes: number; readonly daily: boolean }[];
  readonly keep: number;
  readonly lastCheck: { readonly ms: number; readonly ok: boolean } | null;
  readonly problem: string | null;
  /** Sessions whose events cannot be summed up. */
  readonly notSummed: readonly { readonly id: string; readonly startedMs: number; readonly why: string }[];
  /** Taps of helpers that only somebody with full rights may take in. */
  readonly aside: readonly {
    readonly id: string;
    readonly sessionId: string;
    readonly person: string | null;
    readonly horse: string | null;
    readonly tappedMs: number;
    readonly what: "strikes" | "corrects" | "takes back" | "moves the session";
    readonly reason: string;
  }[];
}

/** Bytes in the unit that fits. @example sizeWords(2_500_000) // "2.5 MB" */
export function sizeWords(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  const units = ["kB", "MB", "GB", "TB"];
  let value = bytes / 1000;
  let unit = 0;
  while (value >= 999.5 && unit < units.length - 1) {
    value /= 1000;
    unit++;
  }
  return `${value < 10 ? value.toFixed(1) : Math.round(value)} ${units[unit]}`;
}

const ASIDE_WORDS = {
  strikes: "strikes a tap",
  corrects: "corrects a tap",
  "takes back": "takes a tap back",
  "moves the session": "moves the session",
} as const;

/** Copies of the whole store that fit on what is left: fewer than this is said. */
const FEW_COPIES = 5;

/** What can be done with the data, and what came of it. */
function useCare(_care: CareFacts) {
  const way = useWay();
  const [said, setSaid] = useState<{ readonly good: boolean; readonly text: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const run = async (work: () => Promise<{ good: boolean; text: string }>) => {
    setBusy(true);
    setSaid(null);
    setSaid(await work());
    setBusy(false);
    way.refresh();
  };
  const copy = () =>
    run(async () => {
      const sent = await send<{ name: string; bytes: number }>("POST", "/api/store/backup", {});
      return sent.ok
        ? { good: true, text: `A copy of ${sizeWords(sent.value.bytes)} was made, checked and opened: ${sent.value.name}` }
        : { good: false, text: sent.message };
    });
  const check = () =>
    run(async () => {
      const sent = await send<CareFacts>("GET", "/api/store?check=1");
      if (!sent.ok) return { good: false, text: sent.message };
      return sent.value.lastCheck?.ok === true
        ? { good: true, text: "Every page and index was checked: sound." }
        : { good: false, text: "The data is damaged. Go back to a copy from before; what is there now is set aside, not lost." };
    });
  const settle = (id: string, take: boolean) =>
    run(async () => {
      const sent = await send("POST", "/api/store/aside", { id, take });
      return sent.ok
        ? { good: true, text: take ? "It is taken in." : "It is left out. The device that sent it keeps it." }
        : { good: false, text: sent.message };
    });
  const goBack = (file: string) =>
    run(async () => {
      const sent = await send<{ horses: number; sessions: number; events: number; aside: string | null; access: string }>(
        "POST",
        "/api/store/restore",
        {
          file,
        },
      );
      if (!sent.ok) return { good: false, text: sent.message };
      const { horses, sessions, events, aside, access } = sent.value;
      return {
        good: true,
        text: `The copy is in place: ${counted(horses, "horse")}, ${counted(sessions, "session")}, ${counted(events, "tap")}. ${aside === null ? "" : `What was there before lies at ${aside}. `}Devices that tapped since offer their taps again. Everybody on the network signs in anew.${access === "" ? "" : ` ${access}`}`,
      };
    });
  const saveKeep = (keep: string) =>
    run(async () => {
      const sent = await send("PUT", "/api/store", { copies: Number(keep) });
      return sent.ok
        ? { good: true, text: `${keep} daily copies are kept.` }
        : { good: false, text: sent.fields[0]?.message ?? sent.message };
    });
  return { said, busy, copy, check, settle, goBack, saveKeep };
}

type Care = ReturnType<typeof useCare>;

/** Size, last copy, last check, and what is wrong with the disk. */
function HowItIs({ care }: { care: CareFacts }) {
  const tight = care.freeBytes !== null && care.freeBytes < care.bytes * FEW_COPIES;
  const last = care.copies[0];
  return (
    <>
      <dl className="figures mt-3 grid grid-cols-[auto_1fr] gap-x-6 gap-y-1">
        <dt className="text-soft">Size</dt>
        <dd>
          {sizeWords(care.bytes)}
          {care.freeBytes !== null && (
            <span className={tight ? "font-semibold text-brick" : "text-soft"}>, {sizeWords(care.freeBytes)} left on its disk</span>
          )}
        </dd>
        <dt className="text-soft">Last copy</dt>
        <dd>{last === undefined ? <strong className="text-brick">none yet</strong> : <Day ms={last.madeMs} time />}</dd>
        <dt className="text-soft">Last check</dt>
        <dd>
          {care.lastCheck === null ? (
            "not checked yet; each copy is checked as it is made"
          ) : (
            <>
              <Day ms={care.lastCheck.ms} time />, {care.lastCheck.ok ? "sound" : <strong className="text-brick">damaged</strong>}
            </>
          )}
        </dd>
        <dt className="text-soft">File</dt>
        <dd className="break-all">{care.file}</dd>
      </dl>
      {tight && (
        <p className="mt-3 border-l-4 border-brick pl-4 text-brick">
          The disk is nearly full. When it is, taps stay on the devices until there is room again. Make room soon.
        </p>
      )}
      {care.problem !== null && (
        <p className="mt-3 border-l-4 border-brick pl-4 text-brick">The last daily copy could not be made. {care.problem}</p>
      )}
    </>
  );
}

/** Sessions whose events cannot be summed up. Nothing where all can. */
function NotSummed({ care }: { care: CareFacts }) {
  if (care.notSummed.length === 0) return null;
  return (
    <section aria-label="Not summed up" className="mt-3 border-l-4 border-brick pl-4">
      <p className="font-semibold text-brick">
        {counted(care.notSummed.length, "session")} cannot be summed up. The taps are kept; the numbers leave what is new of them out.
      </p>
      <ul className="text-sm">
        {care.notSummed.map(({ id, startedMs, why }) => (
          <li key={id}>
            <a className="link" href={`/api/sessions/${id}/events.csv`} download>
              <Day ms={startedMs} time />, its taps
            </a>{" "}
            {why}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Changes of helpers that wait for somebody with full rights. Nothing where none do. */
function Aside({ care, busy, settle }: { care: CareFacts } & Pick<Care, "busy" | "settle">) {
  if (care.aside.length === 0) return null;
  return (
    <section aria-labelledby="aside" className="mt-5 border-l-4 border-brick pl-4">
      <h2 id="aside" className="text-xl text-brick">
        {counted(care.aside.length, "change")} of helpers {care.aside.length === 1 ? "waits" : "wait"} for you
      </h2>
      <p className="max-w-prose">
        Helpers can change only their own taps. Nothing was changed; each change stays on the device that sent it until you take it in.
      </p>
      <ul className="mt-2">
        {care.aside.map(({ id, sessionId, person, horse, tappedMs, what, reason }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-t border-hair py-2">
            <span className="min-w-0 grow break-words">
              {person ?? "Somebody"} {ASIDE_WORDS[what]}, <Day ms={tappedMs} time />
              {horse === null ? "" : `, ${horse}`}
              {reason === "" ? "" : `: ${reason}`}
            </span>
            <a className="link" href={`/api/sessions/${sessionId}/events.csv`} download>
              the session's taps
            </a>
            <button type="button" className="act-quiet" disabled={busy} onClick={() => void settle(id, true)}>
              Take it in
            </button>
            <button type="button" className="act-quiet" disabled={busy} onClick={() => void settle(id, false)}>
              Leave it out
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The copies, how many are kept, and the way back to one. */
function Copies({ care, busy, saveKeep, goBack }: { care: CareFacts } & Pick<Care, "busy" | "saveKeep" | "goBack">) {
  const [keep, setKeep] = useState(String(care.keep));
  return (
    <section aria-labelledby="copies" className="mt-6 border-t-2 border-ink pt-4">
      <h2 id="copies" className="text-2xl">
        Copies
      </h2>
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void saveKeep(keep);
        }}
      >
        <label className="block text-sm font-semibold">
          One a day by itself; how many are kept
          <input
            inputMode="numeric"
            value={keep}
            onChange={(event) => setKeep(event.target.value)}
            className="field-box figures mt-1 block w-24 font-normal"
          />
        </label>
        <button type="submit" className="act-quiet" disabled={busy}>
          Save
        </button>
      </form>
      <p className="mt-2 text-sm text-soft">
        They lie beside the data, in {care.folder}. A disk that breaks takes both: now and then put one on another disk.
      </p>
      {care.copies.length === 0 ? (
        <p className="mt-3">None yet.</p>
      ) : (
        <ul className="mt-3 border-b-2 border-hair">
          {care.copies.map(({ name, madeMs, bytes, daily }) => (
            <li key={name} className="flex flex-wrap items-baseline justify-between gap-x-6 border-t-2 border-hair py-2.5">
              <p className="figures min-w-0">
                <Day ms={madeMs} time />{" "}
                <span className="text-soft">
                  {daily ? "daily" : name.includes("-before-") ? "before a change of version" : "by hand"}, {sizeWords(bytes)}
                </span>
                <span className="block text-sm break-all text-soft">{name}</span>
              </p>
              <Confirm
                trigger="Go back to it"
                triggerClass="link"
                title="Go back to this copy?"
                description="The data as it is now is set aside under another name first. Sessions written since the copy come back from the devices that made them, if they still keep them; what was changed on pages since does not."
                act="Go back"
                onConfirm={() => void goBack(name)}
              />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** The data as a whole: how large it is, whether it is sound, its copies, and the way back to one. */
export function StoreRoom({ care }: { care: CareFacts }) {
  const { said, busy, copy, check, ...acts } = useCare(care);
  return (
    <div className="max-w-3xl">
      <h1 className="text-[2rem]">The data</h1>
      <HowItIs care={care} />
      <NotSummed care={care} />
      <Aside care={care} busy={busy} settle={acts.settle} />
      <p className="mt-5 flex flex-wrap gap-3">
        <button type="button" className="act" disabled={busy} onClick={() => void copy()}>
          Make a copy now
        </button>
        <button type="button" className="act-quiet" disabled={busy} onClick={() => void check()}>
          Check it now
        </button>
      </p>
      <p role="status" className={`mt-3 min-h-6 break-words ${said?.good === false ? "font-semibold text-brick" : ""}`}>
        {busy ? "A moment." : said?.text}
      </p>
      <Copies care={care} busy={busy} saveKeep={acts.saveKeep} goBack={acts.goBack} />
    </div>
  );
}
