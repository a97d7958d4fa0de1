import type { IncomingMessage, ServerResponse } from "node:http";
import type { Duplex } from "node:stream";
import { OWN_HEADERS } from "@/app/server/own-headers";
import { printedAddress } from "@/app/server/same-machine";

const POLICY = "content-security-policy";

export type Handler = (request: IncomingMessage, response: ServerResponse) => Promise<unknown>;

/** Nothing a client sends may pass for what the gate says. */
function takeOffClaims(request: IncomingMessage): void {
  for (const name of Object.keys(request.headers)) if (name.startsWith("x-deft-") || name === "x-moved-to") delete request.headers[name];
}

/** Why an address is not looked at at all, or null. */
export function addressProblem(url: string): string | null {
  const path = url.split("?", 1)[0] ?? "";
  try {
    // biome-ignore lint/suspicious/noControlCharactersInRegex: they are exactly what is looked for
    return /[\u0000-\u001f\u007f]/.test(decodeURIComponent(path)) || url.includes("%00") ? "The address holds a control character." : null;
  } catch {
    return "The address is not well formed.";
  }
}

export function sendProblem(response: ServerResponse, problem: { status: number; title: string; detail: string; code?: string }): void {
  const { status } = problem;
  response.writeHead(status, { ...OWN_HEADERS, "content-type": "application/problem+json", "cache-control": "no-store" });
  response.end(JSON.stringify({ type: "about:blank", ...problem }));
}

/** A page asked for under another name of this machine becomes the one that sends what was tapped there and goes on to the printed one. */
function leadToOneAddress(request: IncomingMessage): void {
  const path = request.url ?? "/";
  // Data and files are the page's own business; only pages are led on.
  if (path.startsWith("/api/") || path.startsWith("/_next/") || /\.\w+(\?|$)/.test(path)) return;
  const to = printedAddress(request.headers.host ?? "", path);
  if (to === null) return;
  request.headers["x-moved-to"] = to;
  request.url = "/moved";
}

/**
 * Stands before every request: sets the headers all answers of the routes
 * carry, refuses addresses nothing could mean, and answers what a handler
 * leaves unanswered. Nobody is left waiting.
 */
export function gated(
  handle: Handler,
  from: "machine" | "network" = "machine",
): (request: IncomingMessage, response: ServerResponse) => void {
  return (request, response) => {
    takeOffClaims(request);
    const route = request.url?.startsWith("/api/") === true;
    // Pages set a policy with a nonce of their own; everything else stands on every answer, files among them.
    for (const [name, value] of Object.entries(OWN_HEADERS)) if (route || name !== POLICY) response.setHeader(name, value);
    const problem = addressProblem(request.url ?? "");
    if (problem !== null) return sendProblem(response, { status: 400, title: "Not an address", detail: problem });
    if (from === "machine") leadToOneAddress(request);
    handle(request, response).catch((error: unknown) => {
      console.error(error);
      if (response.writableEnded) return;
      if (response.headersSent) response.destroy();
      else sendProblem(response, { status: 500, title: "Not done", detail: "Something went wrong on the server. Try again." });
    });
  };
}

/** Nothing here is spoken over an upgraded connection: one that asks for it is told so and closed. */
export function refuseUpgrade(_request: IncomingMessage, socket: Duplex): void {
  socket.on("error", () => undefined);
  socket.end("HTTP/1.1 426 Upgrade Required\r\nConnection: close\r\nContent-Length: 0\r\n\r\n");
}
