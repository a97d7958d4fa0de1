"use client";

import { useSyncExternalStore } from "react";

const never = () => () => {};

/** A day in the reader's own words and time zone: the server does not know either, so it writes the plain date first. */
export function Day({ ms, time = false, long = false }: { ms: number; time?: boolean; long?: boolean }) {
  const text = useSyncExternalStore(
    never,
    () =>
      new Date(ms).toLocaleString(undefined, {
        weekday: long ? "long" : "short",
        day: "numeric",
        month: long ? "long" : "short",
        ...(time ? { hour: "2-digit", minute: "2-digit" } : {}),
      }),
    () => new Date(ms).toISOString().slice(0, 10),
  );
  return <time dateTime={new Date(ms).toISOString()}>{text}</time>;
}
