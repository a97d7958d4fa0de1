"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { YardSettings } from "@/core/settings";
import type { UnitSystem } from "@/core/units";
import { Confirm } from "@/ui/confirm";
import { send } from "@/ui/form";
import { UNITS_COOKIE } from "@/ui/units";
import { TapsOnDevice } from "../device/refused-taps";
import { YardSettingsForm } from "./yard-settings";

/** Sample data, and where the data lives. */
export function Settings({
  storeId,
  sample,
  fileName,
  units,
  word,
}: {
  storeId: string;
  sample: boolean;
  fileName: string;
  units: UnitSystem;
  word: YardSettings;
}) {
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
    setMessage(sent.ok ? "The sample data is taken out." : sent.message);
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
        <h2 className="mb-1 text-xl">Thresholds</h2>
        <p className="mb-3 text-sm text-soft">
          When the recorder says what, and how far back things are looked at, for every device of this yard. The defaults are common
          practice; those for going back were chosen by the exact rule check: a horse that gets eight of ten right hears it in 9 of 100
          blocks of ten.
        </p>
        <YardSettingsForm settings={word} />
      </section>
      <section className="mt-8">
        <h2 className="text-xl">Sample data</h2>
        {sample ? (
          <>
            <p className="mt-2">
              The horses of the sample yard, with their people, places, ladders and sessions, go in one step. Sessions you recorded with a
              sample horse go with it. Your own horses stay.
            </p>
            <Confirm
              trigger="Take out the sample data"
              triggerClass="act-quiet mt-4"
              title="Take out the sample data?"
              description="It cannot be brought back from here. In the demo, npm run demo -- --fresh makes it anew."
              act="Take out"
              onConfirm={() => void remove()}
            />
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
          Copies, and the way back to one, are under{" "}
          <a href="/store" className="link">
            Data
          </a>
          ; the whole yard as a file, and files from elsewhere, under{" "}
          <a href="/in-out" className="link">
            In and out
          </a>
          .
        </p>
      </section>
      <TapsOnDevice storeId={storeId} />
    </div>
  );
}
