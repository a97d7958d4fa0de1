/// <reference lib="webworker" />
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { onOwnMachine } from "@/features/device/own-machine";
import { OVER_WEEKS } from "@/features/pen/over-weeks";

declare const self: ServiceWorkerGlobalScope;
/** Written in when it is built: every file of the pen, with a mark that changes with its content. */
declare const PEN_FILES: { url: string; revision: string | null }[];

const SHELL = "/pen";
/** A page the server has not begun to answer by then is shown from the device. */
const WAIT_MS = 6000;
/** On the machine the program runs on slow is not away: only where nothing runs there is the device's own page shown. */
const OWN_WAIT_MS = 120_000;
const waitMs = onOwnMachine(self.location.hostname) ? OWN_WAIT_MS : WAIT_MS;

// What the pen needs is kept whole or not at all: a version that did not come over entirely is not used.
precacheAndRoute(PEN_FILES, { ignoreURLParametersMatching: [/.*/], cleanURLs: false });
cleanupOutdatedCaches();

/** The pen's address for a page of the server that it can show as well. */
function inThePen({ pathname, search }: URL): string {
  const [, horse, room, session] = /^\/horses\/([^/]+)\/(work|review)(?:\/([^/]+))?$/.exec(pathname) ?? [];
  if (horse !== undefined && session === undefined && room === "work") return `${SHELL}?horse=${horse}`;
  if (horse !== undefined && room === "work" && session === "late") return `${SHELL}?horse=${horse}&late=1`;
  const whole = room === "review" && session !== undefined && OVER_WEEKS.has(session);
  if (horse !== undefined && session !== undefined && !whole)
    return `${SHELL}?horse=${horse}&${room === "work" ? "session" : "review"}=${session}`;
  if (pathname === "/") return `${SHELL}?horses=1`;
  return `${SHELL}?away=${encodeURIComponent(pathname + search)}`;
}

registerRoute(
  new NavigationRoute(async ({ request, url }) => {
    if (url.pathname === SHELL) {
      const shell = await matchPrecache(SHELL);
      if (shell !== undefined) return shell;
    }
    try {
      return await fetch(request, { signal: AbortSignal.timeout(waitMs) });
    } catch {
      return Response.redirect(inThePen(url));
    }
  }),
);

// A new version waits until no page of the old one is open, or until whoever is at the device says so.
self.addEventListener("message", (event) => {
  if (event.data === "take over") void self.skipWaiting();
});
