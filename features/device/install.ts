/** Where the page's own worker stands: it keeps the pen on this device, so that it opens with no server. */
export type Installed = "not looked" | "not here" | "coming" | "ready" | "newer waits";

type Listener = (state: Installed) => void;
let state: Installed = "not looked";
const listeners = new Set<Listener>();
const say = (next: Installed) => {
  state = next;
  for (const listener of listeners) listener(next);
};

export const installedState = () => state;
export const onInstalled = (listener: Listener) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/** A worker that cannot say it within this time does not have it. */
const WHOLE_WITHIN_MS = 60_000;

/** Asks a worker whether all it keeps is there. */
function isWhole(worker: ServiceWorker): Promise<boolean> {
  const { port1, port2 } = new MessageChannel();
  return new Promise((resolve) => {
    setTimeout(() => resolve(false), WHOLE_WITHIN_MS);
    port1.onmessage = ({ data }) => resolve(data === true);
    worker.postMessage("is it whole", [port2]);
  });
}

/** Keeps the pen on this device where the browser can; a newer version is kept beside it and takes over when asked. */
export async function install(): Promise<boolean> {
  if (!("serviceWorker" in navigator) || !window.isSecureContext) {
    say("not here");
    return false;
  }
  try {
    const registration = await navigator.serviceWorker.register("/sw.js", { scope: "/", updateViaCache: "none" });
    const look = () => {
      if (registration.waiting !== null && registration.active !== null) say("newer waits");
      else if (registration.active === null || state !== "ready") say("coming");
      // Ready is said only when every file of the pen is there; what is missing is fetched meanwhile.
      if (registration.active !== null && registration.waiting === null)
        void isWhole(registration.active).then((whole) => {
          if (registration.waiting === null) say(whole ? "ready" : "coming");
        });
    };
    registration.addEventListener("updatefound", () => registration.installing?.addEventListener("statechange", look));
    registration.installing?.addEventListener("statechange", look);
    look();
    return true;
  } catch {
    // A certificate that is not trusted, or a browser set to keep nothing.
    say("not here");
    return false;
  }
}

/** Lets the newer version take over and shows the page anew under it. */
export async function takeNewer(): Promise<void> {
  const registration = await navigator.serviceWorker.getRegistration();
  if (registration?.waiting == null) return;
  navigator.serviceWorker.addEventListener("controllerchange", () => window.location.reload(), { once: true });
  registration.waiting.postMessage("take over");
}
