import type { IncomingMessage, ServerResponse } from "node:http";
import { mayEnter } from "@/app/server/rights";
import { DEVICE_COOKIE, TOKEN_COOKIE } from "@/app/server/sign-in";
import { WHO } from "@/app/server/who";
import type { Network } from "@/network";
import type { SignedIn, SignIns } from "@/store";
import { type Handler, sendProblem } from "./gate";

/** Where a page on plain http looks whether the certificate is trusted: it says nothing of the data. */
const TRUST_CHECK = "/trust-check";

/** The cookies of a request by name; the first of a name counts. */
export function cookiesOf(header: string | undefined): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const part of (header ?? "").split(";")) {
    const at = part.indexOf("=");
    const name = part.slice(0, at).trim();
    if (name !== "" && at > 0 && !found.has(name)) found.set(name, part.slice(at + 1).trim());
  }
  return found;
}

/** What the page framework reads as the data of the page before it: `.rsc`, segments of one, data of the older router. */
const FRAMEWORK_ENDINGS = /\.rsc(?:$|\/)|\.segments?(?:$|\/|\.)|^\/_next\/data\//i;

/**
 * The path of an address as it is judged, or null where it could mean one
 * thing to the gate and another behind it: slashes that are written otherwise,
 * steps upwards, empty steps, and the endings by which the page framework takes
 * one page for the data of another.
 */
export function plainPath(url: string): string | null {
  const path = url.split(/[?#]/, 1)[0] ?? "";
  if (!path.startsWith("/") || /\\|\/\/|%2f|%5c|%25/i.test(path)) return null;
  let decoded: string;
  try {
    decoded = decodeURIComponent(path);
  } catch {
    return null;
  }
  if (FRAMEWORK_ENDINGS.test(decoded)) return null;
  return decoded.split("/").some((step) => step === "." || step === "..") ? null : decoded;
}

/**
 * Stands before everything the network asks for. Who asks is found by the
 * cookies, whether they may by the one table of rights; only then the request
 * goes on, with what the gate found in headers of its own.
 */
export function networkGate(network: Pick<Network, "isOwnHost">, signIns: Pick<SignIns, "whoHas">, handle: Handler): Handler {
  return async (request, response) => {
    const url = request.url ?? "/";
    if (url === TRUST_CHECK) return answerTrustCheck(response);
    if (!network.isOwnHost(request.headers.host ?? ""))
      return sendProblem(response, { status: 421, title: "Wrong host", detail: "Deft Tether answers here under its own name alone." });
    const path = plainPath(url);
    if (path === null) return sendProblem(response, { status: 400, title: "Not an address", detail: "The address is not well formed." });
    const who = await whoIs(signIns, request);
    const entry = mayEnter(who?.access ?? null, request.method ?? "", path);
    if (entry !== "in") return turnAway(entry, request, response);
    request.headers[WHO.at] = "network";
    request.headers[WHO.remote] = request.socket.remoteAddress ?? "";
    if (who !== null) {
      request.headers[WHO.role] = who.access;
      request.headers[WHO.person] = who.personId;
      request.headers[WHO.recorder] = encodeURIComponent(who.recorder);
      request.headers[WHO.signIn] = who.id;
    }
    return handle(request, response);
  };
}

function whoIs(signIns: Pick<SignIns, "whoHas">, request: IncomingMessage): Promise<SignedIn | null> {
  const cookies = cookiesOf(request.headers.cookie);
  const token = cookies.get(TOKEN_COOKIE);
  const device = cookies.get(DEVICE_COOKIE);
  return token === undefined || device === undefined ? Promise.resolve(null) : signIns.whoHas(token, device);
}

/** Whether whoever asked is signed in still; on the machine itself nobody has to be. */
export const stillSignedIn = (signIns: Pick<SignIns, "whoHas">, request: IncomingMessage) => async (): Promise<boolean> =>
  request.headers[WHO.at] !== "network" || (await whoIs(signIns, request)) !== null;

/** A page leads to where one signs in; anything else is told why. */
function turnAway(entry: "sign in" | "refused", request: IncomingMessage, response: ServerResponse): void {
  const page = request.method === "GET" && request.url?.startsWith("/api/") !== true;
  if (page) {
    const to = entry === "sign in" ? `/sign-in?to=${encodeURIComponent(request.url ?? "/")}` : "/not-allowed";
    response.writeHead(303, { location: to, "cache-control": "no-store" });
    response.end();
  } else if (entry === "sign in")
    sendProblem(response, { status: 401, title: "Not signed in", detail: "Sign in on this device first.", code: "sign-in" });
  else
    sendProblem(response, {
      status: 403,
      title: "The owner's",
      detail: "A helper logs and reads; this is for an owner to change.",
      code: "owner",
    });
}

function answerTrustCheck(response: ServerResponse): void {
  response.writeHead(200, {
    "content-type": "text/plain",
    "cache-control": "no-store",
    // Asked from the trust page, which is plain http and so another origin; there is nothing in it to read.
    "access-control-allow-origin": "*",
    "cross-origin-resource-policy": "cross-origin",
  });
  response.end("yes");
}
