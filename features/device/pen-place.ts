"use client";

import { useCallback, useSyncExternalStore } from "react";
import { ownAddress } from "./own-address";
import { OVER_WEEKS } from "./pen-over-weeks";

/** What the pen shows, as its address says it. */
export interface PenPlace {
  readonly horse: string | null;
  readonly session: string | null;
  readonly review: string | null;
  readonly late: boolean;
  /** The planner of circle work. */
  readonly circle: boolean;
  /** All horses, also where one is in hand. */
  readonly horses: boolean;
  /** The taps of this device. */
  readonly taps: boolean;
  /** Go on with the session that runs. */
  readonly goOn: boolean;
  /** A page of the server that was asked for and could not be had. */
  readonly away: string | null;
}

const NOWHERE = "";

/** Reads an address. @example placeAt("?horse=h&session=s").session // "s" */
export function placeAt(search: string): PenPlace {
  const asked = new URLSearchParams(search);
  return {
    horse: asked.get("horse"),
    session: asked.get("session"),
    review: asked.get("review"),
    late: asked.has("late"),
    circle: asked.has("circle"),
    horses: asked.has("horses"),
    taps: asked.has("taps"),
    goOn: asked.has("goon"),
    away: ownAddress(asked.get("away") ?? ""),
  };
}

/**
 * Where a page of the server is in the pen; null where it is on the server alone.
 * @example inPen("/horses/h/work/s") // "/pen?horse=h&session=s"
 */
export function inPen(path: string): string | null {
  if (path.startsWith("/pen")) return path;
  if (path === "/") return "/pen?horses=1";
  if (path === "/settings#taps") return "/pen?taps=1";
  const [, horse, room, session] = /^\/horses\/([^/?#]+)\/(work|review)(?:\/([^/?#]+))?$/.exec(path) ?? [];
  if (horse === undefined) return null;
  if (room === "work" && session === undefined) return `/pen?horse=${horse}`;
  if (room === "work" && session === "late") return `/pen?horse=${horse}&late=1`;
  if (room === "work" && session === "circle") return `/pen?horse=${horse}&circle=1`;
  return session === undefined || (room === "review" && OVER_WEEKS.has(session))
    ? null
    : `/pen?horse=${horse}&${room === "work" ? "session" : "review"}=${session}`;
}

const MOVED = "deft-pen-moved";
const subscribe = (listener: () => void) => {
  window.addEventListener("popstate", listener);
  window.addEventListener(MOVED, listener);
  return () => {
    window.removeEventListener("popstate", listener);
    window.removeEventListener(MOVED, listener);
  };
};

/** The present place, and how to go to another without a page being loaded. */
export function usePenPlace(): { place: PenPlace; search: string; go: (address: string, replace?: boolean) => void } {
  const search = useSyncExternalStore(
    subscribe,
    () => window.location.search,
    () => NOWHERE,
  );
  const go = useCallback((address: string, replace = false) => {
    if (replace) window.history.replaceState(window.history.state, "", address);
    else window.history.pushState(window.history.state, "", address);
    window.scrollTo(0, 0);
    window.dispatchEvent(new Event(MOVED));
  }, []);
  return { place: placeAt(search), search, go };
}
