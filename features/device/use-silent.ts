"use client";

import { useEffect, useState } from "react";
import { isSilent } from "@/core/record";
import type { SessionLog } from "./use-session-log";

const LOOK_EVERY_MS = 5000;

/** Whether the session has been silent for so long that it is no longer running; looked at now and then, also where nothing is tapped. */
export function useSilent({ record, nowMs, ready }: SessionLog): boolean {
  const [, look] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => look((n) => n + 1), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, []);
  const now = nowMs();
  return ready && now !== null && isSilent(record, now);
}
