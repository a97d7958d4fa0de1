import { type NextRequest, NextResponse } from "next/server";

/** Names under which this machine reaches itself. Anything else is a page elsewhere pointing its own name at us. */
const OWN_NAMES = new Set(["127.0.0.1", "localhost", "[::1]"]);

function problem(status: number, title: string, detail: string): NextResponse {
  return new NextResponse(JSON.stringify({ type: "about:blank", title, status, detail }), {
    status,
    headers: { "content-type": "application/problem+json", "cache-control": "no-store" },
  });
}

const hostName = (host: string) => host.replace(/:\d+$/, "");

/** Refuses what does not come from the app's own pages on this machine. */
function refusal(request: NextRequest): NextResponse | null {
  const host = request.headers.get("host") ?? "";
  if (!OWN_NAMES.has(hostName(host))) return problem(421, "Wrong host", "Deft Tether answers only on this machine.");
  const origin = request.headers.get("origin");
  if (origin !== null && origin !== `http://${host}`) return problem(403, "Foreign origin", "Requests from other pages are refused.");
  const site = request.headers.get("sec-fetch-site");
  const navigation =
    request.headers.get("sec-fetch-mode") === "navigate" && request.method === "GET" && !request.nextUrl.pathname.startsWith("/api/");
  if (site !== null && site !== "same-origin" && site !== "none" && !navigation)
    return problem(403, "Foreign origin", "Requests from other pages are refused.");
  return null;
}

function contentSecurityPolicy(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    // Some interface primitives set style attributes and tags of their own.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "media-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}

export function proxy(request: NextRequest): NextResponse {
  const refused = refusal(request);
  if (refused !== null) return refused;
  const nonce = btoa(crypto.randomUUID());
  const policy = contentSecurityPolicy(nonce);
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  response.headers.set("x-content-type-options", "nosniff");
  response.headers.set("referrer-policy", "same-origin");
  response.headers.set("cross-origin-opener-policy", "same-origin");
  response.headers.set("cross-origin-resource-policy", "same-origin");
  return response;
}
