import { WHO } from "./who";

/** The one name the program prints: a browser keeps taps by the name in the address. */
export const PRINTED_NAME = "127.0.0.1";

/** Names under which this machine reaches itself. Anything else is a page elsewhere pointing its own name at us. */
const OWN_NAMES = new Set([PRINTED_NAME, "localhost", "[::1]"]);

/**
 * The printed address of what is asked for under another name of this machine,
 * or null where it is that one. Two names are two queues of taps.
 *
 * @example printedAddress("localhost:4370", "/people") // "http://127.0.0.1:4370/people"
 */
export function printedAddress(host: string, path: string): string | null {
  const name = host.replace(/:\d+$/, "");
  if (name === PRINTED_NAME || !OWN_NAMES.has(name)) return null;
  return `http://${PRINTED_NAME}${host.slice(name.length)}${path}`;
}

/** Why a request is refused. */
export interface Refusal {
  readonly status: number;
  readonly title: string;
  readonly detail: string;
}

/** The part of a request that tells where it comes from. */
interface Asked {
  readonly headers: { get(name: string): string | null };
  readonly method: string;
}

/**
 * Refuses what does not come from the app's own pages on this machine: a
 * foreign host name, a foreign origin, a request another site's page made.
 * @param page whether a page is asked for; a link from elsewhere may lead to one.
 */
export function refusalOf(request: Asked, page: boolean): Refusal | null {
  const host = request.headers.get("host") ?? "";
  // Under which names the network may ask the gate has seen to before.
  const network = request.headers.get(WHO.at) === "network";
  if (!network && !OWN_NAMES.has(host.replace(/:\d+$/, "")))
    return { status: 421, title: "Wrong host", detail: "Deft Tether answers only on this machine." };
  const foreign = { status: 403, title: "Foreign origin", detail: "Requests from other pages are refused." };
  const origin = request.headers.get("origin");
  if (origin !== null && origin !== `${network ? "https" : "http"}://${host}`) return foreign;
  const site = request.headers.get("sec-fetch-site");
  const navigation = page && request.method === "GET" && request.headers.get("sec-fetch-mode") === "navigate";
  return site !== null && site !== "same-origin" && site !== "none" && !navigation ? foreign : null;
}
