"use client";

import { lazy, Suspense } from "react";
import type { CircleStart } from "@/core/start";

// Fetched only for a session of its kind: the recorder of other work has to be there at once.
const Recorder = lazy(() => import("./recorder").then((m) => ({ default: m.CircleRecorder })));

/** The recorder of work on the circle. */
export const CircleRecorder = (props: { start: CircleStart; today: string }) => (
  <Suspense fallback={<main className="p-6 text-soft">A moment.</main>}>
    <Recorder {...props} />
  </Suspense>
);
