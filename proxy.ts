import { type NextRequest, NextResponse } from "next/server";
import { OWN_HEADERS } from "./app/server/own-headers";
import { refusalOf } from "./app/server/same-machine";
import { isShell, SHELL_HEADER } from "./app/server/shell";

/** Pages only: the routes check for themselves, which spares each tap a second pass through the server. */
export const config = { matcher: "/((?!api/|_next/static/).*)" };

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
  const refused = refusalOf(request, true);
  if (refused !== null) {
    const { status } = refused;
    return new NextResponse(JSON.stringify({ type: "about:blank", ...refused }), {
      status,
      headers: { ...OWN_HEADERS, "content-type": "application/problem+json", "cache-control": "no-store" },
    });
  }
  const nonce = btoa(crypto.randomUUID());
  const policy = contentSecurityPolicy(nonce);
  const headers = new Headers(request.headers);
  headers.delete(SHELL_HEADER);
  if (isShell(request.nextUrl.pathname)) headers.set(SHELL_HEADER, "1");
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  for (const [name, value] of Object.entries({ ...OWN_HEADERS, "content-security-policy": policy })) response.headers.set(name, value);
  return response;
}
