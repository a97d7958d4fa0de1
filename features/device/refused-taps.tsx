"use client";

import { useEffect, useState, useSyncExternalStore } from "react";
import { writeEventsCsv } from "@/core/formats";
import type { EventType } from "@/core/schemas";
import { takeIn, unsentOf } from "./carry";
import type { RefusedTap } from "./queue";
import { NOTHING_SENT, senderFor } from "./sender";

/** What a kind of tap is called on the pads. */
const WORDS: Partial<Record<EventType, string>> = {
  trial: "trial",
  ask: "ask",
  response: "answer",
  release: "release",
  mark: "mark",
  feed: "food",
  phase: "clearer cue",
  note: "note",
  signal: "sign",
  "session.start": "start",
  "session.end": "finish",
  "block.start": "block",
  "block.end": "end of the block",
  undo: "undo",
  correct: "correction",
};

/** Offers a text as a file of this browser. */
function saveAs(name: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: "text/csv" }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

function useRefused(storeId: string, sessionId: string | null): readonly RefusedTap[] {
  const sender = senderFor(storeId);
  const { refused } = useSyncExternalStore(sender.subscribe, sender.snapshot, () => NOTHING_SENT);
  const [taps, setTaps] = useState<readonly RefusedTap[]>([]);
  useEffect(() => {
    let gone = false;
    if (refused.size === 0) setTaps([]);
    else
      void sender.refusedTaps().then((all) => {
        if (!gone) setTaps(sessionId === null ? all : all.filter(({ event }) => event.session === sessionId));
      });
    return () => {
      gone = true;
    };
  }, [sender, refused, sessionId]);
  return taps;
}

/** Taps the server would not take, each by name and with its reason: sent again, or saved as a file. Nothing where there are none. */
export function RefusedTaps({ storeId, sessionId = null }: { storeId: string; sessionId?: string | null }) {
  const taps = useRefused(storeId, sessionId);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  if (taps.length === 0) return said === null ? null : <p role="status">{said}</p>;
  const sender = senderFor(storeId);
  const again = async () => {
    setBusy(true);
    const ids = taps.map(({ event }) => event.id);
    await sender.tryAgain(ids);
    const sent = await sender.flush(12_000);
    const left = (await sender.refusedTaps()).filter(({ event }) => ids.includes(event.id)).length;
    setBusy(false);
    setSaid(
      !sent
        ? "The server does not answer. They are sent as soon as it does."
        : left === 0
          ? "All are on the server now. Load the page again to see them counted."
          : `${left} still not taken.`,
    );
  };
  return (
    <section aria-labelledby="refused" className="my-4 border-l-4 border-brick pl-4">
      <h2 id="refused" className="text-xl text-brick">
        {taps.length === 1 ? "One tap was not taken by the server" : `${taps.length} taps were not taken by the server`}
      </h2>
      <p className="max-w-prose">They are kept on this device and count in nothing until the server takes them.</p>
      <ul className="mt-2 max-h-60 list-disc overflow-y-auto pl-5">
        {taps.map(({ event, reason }) => (
          <li key={event.id}>
            {WORDS[event.type] ?? event.type},{" "}
            <time dateTime={new Date(event.wall_ms).toISOString()} suppressHydrationWarning>
              {new Date(event.wall_ms).toLocaleString()}
            </time>
            {reason === "" ? "" : `: ${reason}`}
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap gap-4">
        <button type="button" className="act-quiet" disabled={busy} onClick={() => void again()}>
          Try again
        </button>
        <button
          type="button"
          className="act-quiet"
          onClick={() =>
            saveAs(
              "not-taken.csv",
              writeEventsCsv(
                taps.map(({ event }) => event),
                new Map(),
              ),
            )
          }
        >
          Save as a file
        </button>
      </div>
      <p role="status" className="mt-2">
        {busy ? "Sending." : said}
      </p>
    </section>
  );
}

/** Where the taps of this device stand, over all sessions. */
export function TapsOnDevice({ storeId }: { storeId: string }) {
  const sender = senderFor(storeId);
  const { waiting, unkept, refused, keeps, held } = useSyncExternalStore(sender.subscribe, sender.snapshot, () => NOTHING_SENT);
  const away = (waiting?.size ?? 0) + unkept.size;
  return (
    <section id="taps" className="mt-8">
      <h2 className="text-xl">Taps on this device</h2>
      <p className="mt-2" role="status">
        {waiting === null
          ? "Counting."
          : away > 0
            ? `${away} ${away === 1 ? "tap waits" : "taps wait"} to be sent. ${held ?? ""}`
            : refused.size > 0
              ? "All others are on the server."
              : "All are on the server."}
        {!keeps && " This browser does not keep taps: they last as long as the page that made them."}
      </p>
      <RefusedTaps storeId={storeId} />
      <CarryTaps storeId={storeId} unsent={away + refused.size} />
    </section>
  );
}

/** Taps carried by hand: saved as a file where no way leads to the server, taken in from one where it does. */
function CarryTaps({ storeId, unsent }: { storeId: string; unsent: number }) {
  const [said, setSaid] = useState<string | null>(null);
  const sender = senderFor(storeId);
  const save = async () => {
    saveAs("taps-not-sent.json", JSON.stringify(await unsentOf(sender)));
    setSaid("Saved. On the computer, under Settings, it is taken in.");
  };
  const take = async (file: File | undefined) => {
    if (file === undefined) return;
    try {
      const taken = await takeIn(sender, JSON.parse(await file.text()));
      const sent = await sender.flush(15_000);
      setSaid(
        `${taken} ${taken === 1 ? "tap" : "taps"} taken in. ${sent ? "All are on the server." : "They are sent as soon as the server answers."}`,
      );
    } catch (error) {
      setSaid(error instanceof SyntaxError ? "This is no file of taps." : error instanceof Error ? error.message : "It could not be read.");
    }
  };
  return (
    <div className="mt-4 flex flex-wrap items-center gap-4">
      {unsent > 0 && (
        <button type="button" className="act-quiet" onClick={() => void save()}>
          Save what is not sent as a file
        </button>
      )}
      <label className="link cursor-pointer has-focus-visible:outline-2">
        Take in taps from a file
        <input type="file" accept="application/json,.json" className="sr-only" onChange={(event) => void take(event.target.files?.[0])} />
      </label>
      <p role="status">{said}</p>
    </div>
  );
}
