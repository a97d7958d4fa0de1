import type { IncomingMessage, ServerResponse } from "node:http";
import { refusalOf } from "@/app/server/same-machine";
import { BATCH_MOST_BYTES, takeEvents } from "@/app/server/take-events";
import type { Store } from "@/store";

/**
 * Taps come in by the hundred a second, and the page framework spends several
 * milliseconds on each request before a route sees it. So the launcher answers
 * POST /api/events itself, by the very function the route calls; everything
 * else goes on to the framework.
 */
export function isTaps(request: IncomingMessage): boolean {
  return request.method === "POST" && (request.url === "/api/events" || request.url?.startsWith("/api/events?") === true);
}

function send(response: ServerResponse, status: number, value: object, type: string): void {
  response.writeHead(status, { "content-type": type, "cache-control": "no-store", "x-content-type-options": "nosniff" });
  response.end(JSON.stringify(value));
}

const sendProblem = (response: ServerResponse, problem: { status: number; title: string; detail: string }) =>
  send(response, problem.status, { type: "about:blank", ...problem }, "application/problem+json");

/** The body as text, or null where it is too large; the rest of a large body is let run out, so that the answer arrives. */
function readBody(request: IncomingMessage): Promise<string | null> {
  return new Promise((resolve, reject) => {
    const pieces: Buffer[] = [];
    let bytes = 0;
    request.on("data", (piece: Buffer) => {
      bytes += piece.length;
      if (bytes <= BATCH_MOST_BYTES) pieces.push(piece);
    });
    request.on("end", () => resolve(bytes <= BATCH_MOST_BYTES ? Buffer.concat(pieces).toString("utf8") : null));
    request.on("error", reject);
    request.on("aborted", () => reject(new Error("aborted")));
  });
}

export async function answerTaps(store: Store, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const header = (name: string) => {
    const value = request.headers[name];
    return value === undefined ? null : String(value);
  };
  const refused = refusalOf({ method: "POST", headers: { get: header } }, false);
  if (refused !== null) return sendProblem(response, refused);
  if (!(header("content-type") ?? "").toLowerCase().startsWith("application/json")) {
    return sendProblem(response, { status: 415, title: "Not JSON", detail: "Send JSON with the content type application/json." });
  }
  try {
    const text = await readBody(request);
    if (text === null)
      return sendProblem(response, { status: 413, title: "Too large", detail: `At most ${BATCH_MOST_BYTES / 1024} kB at once.` });
    let value: unknown;
    try {
      value = JSON.parse(text);
    } catch {
      return sendProblem(response, { status: 400, title: "Not JSON", detail: "The body is not JSON." });
    }
    const taken = await takeEvents(store, value);
    if ("receipt" in taken) send(response, 200, taken.receipt, "application/json");
    else sendProblem(response, taken);
  } catch (error) {
    if (response.writableEnded || request.destroyed) return;
    console.error(error);
    sendProblem(response, {
      status: 500,
      title: "Not done",
      detail: "Something went wrong on the server. The taps stay on the device; they are sent again.",
    });
  }
}
