"use client";

import { createContext, type ReactNode, useContext, useSyncExternalStore } from "react";

const never = () => () => {};

/** A day as it is written in files. Core's own brings its time zones along, which a page's first script has no room for. */
function plainDay(ms: number, zone: string): string {
  const parts = new Intl.DateTimeFormat("en", { timeZone: zone, year: "numeric", month: "2-digit", day: "2-digit" }).formatToParts(ms);
  const of = (type: string) => parts.find((part) => part.type === type)?.value ?? "";
  return `${of("year").padStart(4, "0")}-${of("month")}-${of("day")}`;
}

/** The time zone in which the yard's days begin; UTC where nobody says. */
const YardZone = createContext("Etc/UTC");

export function YardZoneProvider({ zone, children }: { zone: string; children: ReactNode }) {
  return <YardZone value={zone}>{children}</YardZone>;
}

/** A day in the reader's own words and time zone: the server does not know either, so it writes the yard's day as a plain date first. */
export function Day({ ms, time = false, long = false }: { ms: number; time?: boolean; long?: boolean }) {
  const zone = useContext(YardZone);
  const text = useSyncExternalStore(
    never,
    () =>
      new Date(ms).toLocaleString(undefined, {
        weekday: long ? "long" : "short",
        day: "numeric",
        month: long ? "long" : "short",
        ...(time ? { hour: "2-digit", minute: "2-digit" } : {}),
      }),
    () => plainDay(ms, zone),
  );
  return <time dateTime={new Date(ms).toISOString()}>{text}</time>;
}
