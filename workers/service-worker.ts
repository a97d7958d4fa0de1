/// <reference lib="webworker" />
import { cleanupOutdatedCaches, PrecacheController, PrecacheRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { isOurs, OURS_HEADER } from "@/features/device/ours";
import { onOwnMachine } from "@/features/device/own-machine";
import { OVER_WEEKS } from "@/features/device/pen-over-weeks";

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
const pen = new PrecacheController();
pen.precache(PEN_FILES);
registerRoute(new PrecacheRoute(pen, { ignoreURLParametersMatching: [/.*/], cleanURLs: false }));
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
      const shell = await pen.matchPrecache(SHELL);
      if (shell !== undefined) return shell;
    }
    try {
      const answer = await fetch(request, { signal: AbortSignal.timeout(waitMs) });
      // A page in between, of a network that wants a word first, is no answer.
      if (isOurs(answer)) return answer;
    } catch {
      // Nothing answers: shown from the device.
    }
    return Response.redirect(inThePen(url));
  }),
);

/** Of one of the pen's files: whether it is kept, or could be fetched now. A shell of another build is not of these files. */
async function keptOrFetched({ url, revision }: (typeof PEN_FILES)[number]): Promise<boolean> {
  if ((await pen.matchPrecache(url)) !== undefined) return true;
  const key = pen.getCacheKeyForURL(url);
  if (key === undefined) return false;
  try {
    // A newer version takes over once this one has nothing under way: a fetch that hangs may not hold it up for good.
    const answer = await fetch(url, { cache: "reload", signal: AbortSignal.timeout(OWN_WAIT_MS) });
    if (!answer.ok || !isOurs(answer) || (url === SHELL && answer.headers.get(OURS_HEADER) !== revision)) return false;
    await (await caches.open(pen.strategy.cacheName)).put(key, answer);
    return true;
  } catch {
    return false;
  }
}

// A browser under pressure throws kept files away and leaves the worker: at each load what is kept is held against the list.
self.addEventListener("message", (event) => {
  if (event.data !== "is it whole") return;
  const [port] = event.ports;
  event.waitUntil(Promise.all(PEN_FILES.map(keptOrFetched)).then((kept) => port?.postMessage(kept.every(Boolean))));
});

// A new version waits until no page of the old one is open, or until whoever is at the device says so.
self.addEventListener("message", (event) => {
  if (event.data === "take over") void self.skipWaiting();
});
