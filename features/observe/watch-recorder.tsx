"use client";

import { lazy, Suspense } from "react";
import type { Touch } from "@/core/know";
import type { SessionKind } from "@/core/schemas";
import type { WatchStart } from "./use-watch";

// Each is fetched only for a session of its kind: the recorder of work itself has to be there at once.
const Connection = lazy(() => import("./connection-recorder").then((m) => ({ default: m.ConnectionRecorder })));
const Signs = lazy(() => import("./signs-recorder").then((m) => ({ default: m.SignsRecorder })));
const Touching = lazy(() => import("./touch-recorder").then((m) => ({ default: m.TouchRecorder })));

/** The recorder of a session that is not work: watching, or touching. */
export function WatchRecorder({
  kind,
  start,
  touches,
}: {
  kind: Exclude<SessionKind, "work" | "first-look">;
  start: WatchStart;
  touches: readonly Touch[];
}) {
  return (
    <Suspense fallback={<main className="p-6 text-soft">A moment.</main>}>
      {kind === "touch" && <Touching start={start} touches={touches} />}
      {kind === "connection" && <Connection start={start} />}
      {kind === "signs" && <Signs start={start} />}
    </Suspense>
  );
}
