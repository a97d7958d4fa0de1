"use client";

import { useEffect, useRef, useState } from "react";
import { remoteSender } from "../keys/remote-channel";

const BUTTONS = [
  { key: "PageDown", label: "forward", sign: "▶" },
  { key: "PageUp", label: "back", sign: "◀" },
  { key: "b", label: "blank", sign: "■" },
  { key: "F5", label: "start", sign: "●" },
] as const;

/** A simulated remote: it sends the keys a real one would, to the recorder in another window of this browser. */
export function RemoteWindow() {
  const sender = useRef<ReturnType<typeof remoteSender>>(null);
  const [keyUp, setKeyUp] = useState(false);
  const [last, setLast] = useState("");
  useEffect(() => {
    const made = remoteSender();
    sender.current = made;
    if (made === null) setLast("This browser has no channel between windows.");
    return () => {
      made?.close();
      sender.current = null;
    };
  }, []);
  const down = (key: string, label: string) => {
    sender.current?.send({ key, down: true });
    setLast(label);
    // Most real ones send the up at once, however long the finger stays.
    if (!keyUp) sender.current?.send({ key, down: false });
  };
  const up = (key: string) => keyUp && sender.current?.send({ key, down: false });
  return (
    <main className="mx-auto grid min-h-dvh max-w-[260px] content-start gap-4 p-4">
      <h1 className="text-xl">Remote</h1>
      <div className="grid gap-3 rounded-[2.5rem] border-[3px] border-ink bg-paper px-6 py-8">
        {BUTTONS.map(({ key, label, sign }) => (
          <button
            key={key}
            type="button"
            onPointerDown={() => down(key, label)}
            onPointerUp={() => up(key)}
            onPointerCancel={() => up(key)}
            onKeyDown={(event) => {
              if ((event.key === " " || event.key === "Enter") && !event.repeat) down(key, label);
            }}
            onKeyUp={(event) => (event.key === " " || event.key === "Enter") && up(key)}
            className="min-h-16 touch-none rounded-2xl border-[2.5px] border-ink font-head text-lg font-semibold select-none active:bg-tarn-wash"
          >
            <span aria-hidden="true">{sign} </span>
            {label}
          </button>
        ))}
      </div>
      <label className="flex min-h-11 items-center gap-2 text-sm">
        <input type="checkbox" checked={keyUp} onChange={(event) => setKeyUp(event.target.checked)} className="size-5 accent-(--tarn)" />
        It tells when a button comes up
      </label>
      <p role="status" className="text-sm text-soft">
        {last === "" ? "Choose the presentation remote or one button among the recorder's keys." : `Sent: ${last}`}
      </p>
    </main>
  );
}
