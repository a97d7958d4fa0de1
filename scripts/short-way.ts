import type { IncomingMessage, ServerResponse } from "node:http";
import type { LiveSessions } from "@/app/server/live";
import { problemOf, UNEXPECTED } from "@/app/server/problem-of";
import { refusalOf } from "@/app/server/same-machine";
import { BATCH_MOST_BYTES, type MayLogAs, type Sends, takeEvents } from "@/app/server/take-events";
import { type Who, whoAsks } from "@/app/server/who";
import type { SignIns, Store } from "@/store";
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

const LIVE = /^\/api\/sessions\/([^/?]+)\/live(?:\?(.*))?$/;

/** Whether a request follows a session: a line that stays open, which the page framework is no place for. */
export const isLive = (request: IncomingMessage): boolean => request.method === "GET" && LIVE.test(request.url ?? "");

/** So often the line lets itself be heard where nothing is new. */
const BEAT_MS = 15_000;
const MOST_UNREAD_BYTES = 4 * 1024 * 1024;

/** Follows a session: what is new is sent as it is saved, as server-sent events (HTML Living Standard, 9.2). */
export async function answerLive(
  live: LiveSessions,
  request: IncomingMessage,
  response: ServerResponse,
  mayFollow: () => Promise<boolean>,
): Promise<void> {
  const refused = refusalOf({ method: "GET", headers: { get: headerOf(request) } }, false);
  if (refused !== null) return sendProblem(response, refused);
  const [, id = "", query = ""] = LIVE.exec(request.url ?? "") ?? [];
  const asked = new URLSearchParams(query);
  const after = Number(asked.get("after") ?? "0");
  if (!Number.isSafeInteger(after) || after < 0)
    return sendProblem(response, { status: 400, title: "Not a position", detail: "after must be a whole number, 0 or more." });
  const say = (event: string, value: object) => {
    if (!response.headersSent)
      response.writeHead(200, { "content-type": "text/event-stream", "cache-control": "no-store", "x-accel-buffering": "no" });
    // Who does not read what is sent comes back later and catches up.
    if (response.writableLength > MOST_UNREAD_BYTES) response.destroy();
    else response.write(`event: ${event}\ndata: ${JSON.stringify(value)}\n\n`);
  };
  try {
    const stop = await live.follow(
      decodeURIComponent(id),
      after,
      (news) => say("news", news),
      (error) => {
        if (error !== null) console.error(error);
        response.destroy();
      },
      mayFollow,
      { epoch: asked.get("epoch"), signIn: whoAsks({ headers: { get: headerOf(request) } }).signIn },
    );
    const beat = setInterval(() => say("beat", {}), BEAT_MS);
    const leave = () => {
      clearInterval(beat);
      stop();
    };
    response.once("close", leave);
    if (response.closed || request.socket.destroyed) leave();
    else say("beat", {});
  } catch (error) {
    const problem = problemOf(error);
    if (problem === null) console.error(error);
    sendProblem(response, problem ?? UNEXPECTED);
  }
}

const headerOf = (request: IncomingMessage) => (name: string) => {
  const value = request.headers[name];
  return value === undefined ? null : String(value);
};

function send(response: ServerResponse, status: number, value: object): void {
  response.writeHead(status, { "content-type": "application/json", "cache-control": "no-store" });
  response.end(JSON.stringify(value));
}

/** The body as text, or null as soon as it is too large; the rest of it is let run out and kept nowhere, so that the answer arrives. */
function readBody(request: IncomingMessage): Promise<string | null> {
  return new Promise((resolve, reject) => {
    const pieces: Buffer[] = [];
    let bytes = 0;
    request.on("data", (piece: Buffer) => {
      bytes += piece.length;
      if (bytes <= BATCH_MOST_BYTES) return void pieces.push(piece);
      pieces.length = 0;
      resolve(null);
    });
    request.on("end", () => resolve(Buffer.concat(pieces).toString("utf8")));
    request.on("error", reject);
    request.on("aborted", () => reject(new Error("aborted")));
  });
}

/** The correction of a session is logged as the review of whoever made it. */
const REVIEW = ":review";

/** Under which names whoever asks may log: those signed in on this device, ever; on the machine itself every one. */
async function sends(signIns: SignIns, { role, recorder, personId }: Who): Promise<Sends> {
  const named = (own: ReadonlySet<string>) => (name: string) => own.has(name.endsWith(REVIEW) ? name.slice(0, -REVIEW.length) : name);
  const mayLogAs: MayLogAs = named(await signIns.recordersOf((recorder ?? "").split(":", 1)[0] ?? ""));
  if (role === "owner") return { mayLogAs, helper: null };
  // What another person left on this device goes up, and is not thereby the helper's to change.
  return { mayLogAs, helper: { personId, own: named(await signIns.recordersOfPerson(personId ?? "")) } };
}

export async function answerTaps(store: Store, signIns: SignIns, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const header = headerOf(request);
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
    const who = whoAsks({ headers: { get: header } });
    const taken = await takeEvents(store, text, who.network ? await sends(signIns, who) : undefined);
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
