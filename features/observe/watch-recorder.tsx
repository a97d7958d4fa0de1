"use client";

import { lazy, Suspense } from "react";
import type { OpenedSession } from "@/core/start";

// Each is fetched only for a session of its kind: the recorder of work itself has to be there at once.
const Connection = lazy(() => import("./connection-recorder").then((m) => ({ default: m.ConnectionRecorder })));
const Signs = lazy(() => import("./signs-recorder").then((m) => ({ default: m.SignsRecorder })));
const Touching = lazy(() => import("./touch-recorder").then((m) => ({ default: m.TouchRecorder })));

/** The recorder of a session that is not work: watching, or touching. */
export function WatchRecorder({ recorder, start, touches }: Extract<OpenedSession, { readonly touches: unknown }>) {
  return (
    <Suspense fallback={<main className="p-6 text-soft">A moment.</main>}>
      {recorder === "touch" && <Touching start={start} touches={touches} />}
      {recorder === "connection" && <Connection start={start} />}
      {recorder === "signs" && <Signs start={start} />}
    </Suspense>
  );
}
