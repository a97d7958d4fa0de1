/** Names under which this machine reaches itself. Anything else is a page elsewhere pointing its own name at us. */
const OWN_NAMES = new Set(["127.0.0.1", "localhost", "[::1]"]);

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
  if (!OWN_NAMES.has(host.replace(/:\d+$/, "")))
    return { status: 421, title: "Wrong host", detail: "Deft Tether answers only on this machine." };
  const foreign = { status: 403, title: "Foreign origin", detail: "Requests from other pages are refused." };
  const origin = request.headers.get("origin");
  if (origin !== null && origin !== `http://${host}`) return foreign;
  const site = request.headers.get("sec-fetch-site");
  const navigation = page && request.method === "GET" && request.headers.get("sec-fetch-mode") === "navigate";
  return site !== null && site !== "same-origin" && site !== "none" && !navigation ? foreign : null;
}
