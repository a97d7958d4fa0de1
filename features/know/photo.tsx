"use client";

import { useRouter } from "next/navigation";
import { type ChangeEvent, useState } from "react";
import { fieldsOf } from "@/core/typed";
import { GIVE_UP_MS, send } from "@/ui/form";

/** Longest edge a kept picture has, in pixels. */
const LONGEST_EDGE = 640;

/** Makes a picture small on the device, so that little is sent and kept. */
async function smaller(file: File): Promise<Blob> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_EDGE / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob === null ? reject(new Error("no picture")) : resolve(blob)), "image/jpeg", 0.82),
  );
}

/** The horse's picture: added, changed, taken away. */
export function Photo({ horseId, name, changedMs }: { horseId: string; name: string; changedMs: number | null }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const choose = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = "";
    if (file === undefined) return;
    let body: Blob;
    try {
      body = await smaller(file);
    } catch {
      return setProblem("This file could not be read as a picture. Nothing was changed.");
    }
    try {
      const response = await fetch(`/api/horses/${horseId}/photo`, { method: "PUT", body, signal: AbortSignal.timeout(GIVE_UP_MS) });
      if (response.ok) router.refresh();
      const { detail } = response.ok ? {} : fieldsOf(await response.json());
      setProblem(response.ok ? null : typeof detail === "string" ? detail : "The picture was not taken.");
    } catch {
      setProblem("The server does not answer, so the picture was not kept. Try again.");
    }
  };
  const remove = async () => {
    const sent = await send("DELETE", `/api/horses/${horseId}/photo`);
    setProblem(sent.ok ? null : sent.message);
    if (sent.ok) router.refresh();
  };
  return (
    <div className="mb-6 flex flex-wrap items-center gap-4">
      {changedMs !== null && (
        // biome-ignore lint/performance/noImgElement: the picture is already small and comes from this machine
        <img
          src={`/api/horses/${horseId}/photo?${changedMs}`}
          alt={name}
          className="size-20 rounded-full border-2 border-ink object-cover"
        />
      )}
      <label className="act-quiet cursor-pointer focus-within:outline-3 focus-within:outline-offset-3 focus-within:outline-(--tarn)">
        {changedMs === null ? "Add a picture" : "Change the picture"}
        <input type="file" accept="image/*" onChange={choose} className="sr-only" />
      </label>
      {changedMs !== null && (
        <button type="button" className="link" onClick={remove}>
          Take it away
        </button>
      )}
      {problem !== null && (
        <p role="alert" className="font-semibold text-brick">
          {problem}
        </p>
      )}
    </div>
  );
}
