"use client";

import { useRouter } from "next/navigation";
import { AlertDialog } from "radix-ui";
import { useState } from "react";
import type { UnitSystem } from "@/core/units";
import { send } from "@/ui/form";
import { UNITS_COOKIE } from "@/ui/units";

/** Sample data, and where the data lives. */
export function Settings({ sample, fileName, units }: { sample: boolean; fileName: string; units: UnitSystem }) {
  const router = useRouter();
  const [message, setMessage] = useState<string | null>(null);
  const [chosen, setChosen] = useState(units);
  const chooseUnits = (value: UnitSystem) => {
    setChosen(value);
    // biome-ignore lint/suspicious/noDocumentCookie: the server needs it to write the page in the right units
    document.cookie = `${UNITS_COOKIE}=${value}; path=/; max-age=31536000; samesite=strict`;
    router.refresh();
  };
  const remove = async () => {
    const sent = await send("DELETE", "/api/sample");
    setMessage(sent.ok ? "The sample data is removed." : sent.message);
    if (sent.ok) router.refresh();
  };
  return (
    <div className="max-w-2xl">
      <h1 className="text-[2rem]">Settings</h1>
      <section className="mt-8">
        <h2 className="text-xl">Units</h2>
        <fieldset className="mt-2 flex flex-wrap gap-x-6">
          <legend className="sr-only">Units</legend>
          {(
            [
              ["metric", "metres, kilograms"],
              ["imperial", "feet, pounds"],
            ] as const
          ).map(([value, words]) => (
            <label key={value} className="flex min-h-11 items-center gap-2">
              <input
                type="radio"
                name="units"
                checked={chosen === value}
                onChange={() => chooseUnits(value)}
                className="size-5 accent-(--tarn)"
              />
              {words}
            </label>
          ))}
        </fieldset>
        <p className="text-sm text-soft">For lengths of places and kit, and for masses. Everything is kept in metres and kilograms.</p>
      </section>
      <section className="mt-8">
        <h2 className="text-xl">Sample data</h2>
        {sample ? (
          <>
            <p className="mt-2">
              The horses of the sample yard, with their people, places, ladders and sessions, go in one step. Sessions you recorded with a
              sample horse go with it. Your own horses stay.
            </p>
            <AlertDialog.Root>
              <AlertDialog.Trigger className="act-quiet mt-4">Remove the sample data</AlertDialog.Trigger>
              <AlertDialog.Portal>
                <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
                <AlertDialog.Content className="fixed top-1/3 left-1/2 z-50 w-[min(28rem,calc(100vw-2rem))] -translate-x-1/2 rounded-md border-2 border-ink bg-paper p-6">
                  <AlertDialog.Title className="text-xl">Remove the sample data?</AlertDialog.Title>
                  <AlertDialog.Description className="mt-2">
                    It cannot be brought back from here. In the demo, npm run demo -- --fresh makes it anew.
                  </AlertDialog.Description>
                  <div className="mt-5 flex justify-end gap-3">
                    <AlertDialog.Cancel className="act-quiet">Keep it</AlertDialog.Cancel>
                    <AlertDialog.Action className="act" onClick={remove}>
                      Remove
                    </AlertDialog.Action>
                  </div>
                </AlertDialog.Content>
              </AlertDialog.Portal>
            </AlertDialog.Root>
          </>
        ) : (
          <p className="mt-2">This data holds no sample horses.</p>
        )}
        <p role="status" className="mt-3 font-semibold">
          {message}
        </p>
      </section>
      <section className="mt-8">
        <h2 className="text-xl">Your data</h2>
        <p className="mt-2">
          Everything lies in one file, <code>{fileName}</code>, in the folder <code>data</code> beside the program, and nowhere else.{" "}
          <code>npm run backup</code> makes a safe copy while the program runs.
        </p>
      </section>
    </div>
  );
}
