import type { IncomingMessage, ServerResponse } from "node:http";
import { problemOf, UNEXPECTED } from "@/app/server/problem-of";
import { refusalOf } from "@/app/server/same-machine";
import { BATCH_MOST_BYTES, takeEvents } from "@/app/server/take-events";
import type { Store } from "@/store";
import { sendProblem } from "./gate";

/**
 * Taps come in by the hundred a second, and the page framework spends several
 * milliseconds on each request before a route sees it. So the launcher answers
 * POST /api/events itself, by the very function the route calls; everything
 * else goes on to the framework.
 */
export function isTaps(request: IncomingMessage): boolean {
  return request.method === "POST" && (request.url === "/api/events" || request.url?.startsWith("/api/events?") === true);
}

function send(response: ServerResponse, status: number, value: object): void {
  response.writeHead(status, { "content-type": "application/json", "cache-control": "no-store" });
  response.end(JSON.stringify(value));
}

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
  let text: string | null;
  try {
    text = await readBody(request);
  } catch {
    // The one who sent it is gone; there is nobody to answer.
    response.destroy();
    return;
  }
  if (text === null)
    return sendProblem(response, { status: 413, title: "Too large", detail: `At most ${BATCH_MOST_BYTES / 1024} kB at once.` });
  try {
    const taken = await takeEvents(store, text);
    if ("receipt" in taken) send(response, 200, taken.receipt);
    else sendProblem(response, taken);
  } catch (error) {
    console.error(error);
    const problem = problemOf(error) ?? UNEXPECTED;
    // Whether anybody still listens is the socket's matter: a request counts as destroyed once its body is read.
    if (!response.writableEnded && !request.socket.destroyed)
      sendProblem(response, { ...problem, detail: `${problem.detail} The taps stay on the device and are sent again.` });
  }
}
