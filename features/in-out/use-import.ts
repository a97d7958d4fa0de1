"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { NEEDED_COLUMNS, type TrialsMapping } from "@/core/formats/bring-trials";
import { send } from "@/ui/form";
import type { ImportState } from "./import-state";

const PIECE_BYTES = 4 * 1024 * 1024;
const ASK_EVERY_MS = 400;
const LONGEST_SILENCE_MS = 60_000;

/** Sends a file piece by piece; a piece that got lost is sent again. */
async function upload(file: File, id: string, onState: (state: ImportState) => void, stopped: () => boolean): Promise<string | null> {
  let at = 0;
  while (at < file.size || file.size === 0) {
    if (stopped()) return null;
    let state: ImportState;
    try {
      const response = await fetch(`/api/imports/${id}?at=${at}`, {
        method: "PUT",
        headers: { "content-type": "application/octet-stream" },
        body: file.slice(at, at + PIECE_BYTES),
        signal: AbortSignal.timeout(LONGEST_SILENCE_MS),
      });
      const value = (await response.json()) as ImportState & { detail?: string };
      if (!response.ok) return value.detail ?? "The server could not take the file.";
      state = value;
    } catch {
      return "The server does not answer. Nothing of the file was kept; try again.";
    }
    onState(state);
    if (state.step !== "receiving" || state.received <= at) return null;
    at = state.received;
  }
  return null;
}

/** A file being taken in: sent, looked through, brought in; what is asked of it, and what went wrong. */
export function useImport(horses: readonly { readonly id: string }[]) {
  const router = useRouter();
  const [state, setState] = useState<ImportState | null>(null);
  const [mapping, setMapping] = useState<TrialsMapping>({ columns: {}, outcomes: {} });
  const [horse, setHorse] = useState(horses[0]?.id ?? "");
  const [byName, setByName] = useState<Readonly<Record<string, string>>>({});
  /** What was said when the file was looked through: something else is looked through again. */
  const [lookedAt, setLookedAt] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const stopped = useRef(false);
  const going = state?.step === "reading" || state?.step === "bringing" || state?.step === "looking";
  const id = state?.id;
  useEffect(() => {
    if (!going || id === undefined) return;
    const timer = setInterval(() => {
      void send<ImportState>("GET", `/api/imports/${id}`).then((sent) => {
        if (!sent.ok) return setProblem(sent.message);
        setState(sent.value);
        if (sent.value.step === "done") router.refresh();
      });
    }, ASK_EVERY_MS);
    return () => clearInterval(timer);
  }, [going, id, router]);
  const choose = async (file: File | undefined) => {
    if (file === undefined) return;
    stopped.current = false;
    setProblem(null);
    setState(null);
    setByName({});
    setLookedAt(null);
    const begun = await send<ImportState>("POST", "/api/imports", { name: file.name, size: file.size });
    if (!begun.ok) return setProblem(begun.message);
    setState(begun.value);
    const wrong = await upload(
      file,
      begun.value.id,
      (next) => {
        setState(next);
        if (next.look !== null) setMapping(next.look.mapping);
      },
      () => stopped.current,
    );
    if (wrong !== null) setProblem(wrong);
  };
  const said = JSON.stringify([horse, byName, mapping]);
  const start = async (dry: boolean) => {
    if (state === null) return;
    const sent = await send<ImportState>("POST", `/api/imports/${state.id}`, {
      horse: state.look?.kind === "package" ? null : horse,
      horses: byName,
      columns: mapping.columns,
      outcomes: mapping.outcomes,
      dry,
    });
    if (!sent.ok) return setProblem(sent.message);
    setProblem(null);
    if (dry) setLookedAt(said);
    setState(sent.value);
  };
  const stop = async () => {
    stopped.current = true;
    if (state === null) return;
    const sent = await send<ImportState>("DELETE", `/api/imports/${state.id}`);
    if (sent.ok) setState(sent.value);
    else setProblem(sent.message);
  };
  const look = state?.look ?? null;
  const asksColumns = look !== null && (look.kind === "trials" || look.kind === "table");
  // A table is read through once, and what would come is said, before anything of it is written.
  const looked = state?.step === "looked" && lookedAt === said;
  const lacks = asksColumns ? NEEDED_COLUMNS.filter((name) => mapping.columns[name] === undefined) : [];
  return {
    state,
    look,
    problem,
    mapping,
    setMapping,
    horse,
    setHorse,
    byName,
    setByName,
    going,
    asksColumns,
    looked,
    lacks,
    choose,
    start,
    stop,
  };
}

export type Import = ReturnType<typeof useImport>;
