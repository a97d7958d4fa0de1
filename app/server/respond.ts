import "server-only";
import { type FieldProblem, FORM_LIMITS, readWire } from "@/core/schemas";
import { problemOf, UNEXPECTED } from "./problem-of";
import { refusalOf } from "./same-machine";

/** A JSON problem (RFC 9457), with the fields it concerns. */
export function problem(status: number, title: string, detail: string, fields: readonly FieldProblem[] = [], code?: string): Response {
  const more = { ...(fields.length > 0 ? { fields } : {}), ...(code === undefined ? {} : { code }) };
  return new Response(JSON.stringify({ type: "about:blank", title, status, detail, ...more }), {
    status,
    headers: { "content-type": "application/problem+json", "cache-control": "no-store" },
  });
}

export const invalid = (fields: readonly FieldProblem[]) =>
  problem(422, "Not taken", fields[0]?.message ?? "Some fields need a look.", fields);

export function json(value: unknown, status = 200): Response {
  return new Response(JSON.stringify(value), { status, headers: { "content-type": "application/json", "cache-control": "no-store" } });
}

/** A file to be saved by the browser. */
export function download(text: string, name: string): Response {
  return new Response(text, {
    headers: {
      "content-type": "text/csv; charset=utf-8",
      "content-disposition": `attachment; filename="${name}"`,
      "cache-control": "no-store",
    },
  });
}

/** Greatest body of a form, in bytes. */
export const FORM_MOST_BYTES = 256 * 1024;

/** The body of a request, or null where it is larger: whether it says so or not, no more than that is ever read. */
export async function readBytes(request: Request, most: number): Promise<Buffer | null> {
  if (Number(request.headers.get("content-length") ?? 0) > most) return null;
  const pieces: Uint8Array[] = [];
  let bytes = 0;
  if (request.body !== null)
    for await (const piece of request.body as unknown as AsyncIterable<Uint8Array>) {
      bytes += piece.byteLength;
      if (bytes > most) return null;
      pieces.push(piece);
    }
  return Buffer.concat(pieces);
}

/** The body of a JSON request as text, or the problem to answer with. */
export async function readText(request: Request, most: number): Promise<{ text: string } | { problem: Response }> {
  if (!(request.headers.get("content-type") ?? "").toLowerCase().startsWith("application/json")) {
    return { problem: problem(415, "Not JSON", "Send JSON with the content type application/json.") };
  }
  const bytes = await readBytes(request, most);
  return bytes === null
    ? { problem: problem(413, "Too large", `At most ${Math.round(most / 1024)} kB at once.`) }
    : { text: new TextDecoder().decode(bytes) };
}

/** The JSON body of a request, or the problem to answer with. */
export async function readJson(request: Request): Promise<{ value: unknown } | { problem: Response }> {
  const body = await readText(request, FORM_MOST_BYTES);
  if ("problem" in body) return body;
  const read = readWire(body.text, FORM_LIMITS);
  return "problem" in read ? { problem: problem(400, "Not taken", read.problem) } : read;
}

/** Runs a route for a request of this machine's own pages, and turns what the store says into an answer. */
export async function answer(request: Request, work: () => Promise<Response>): Promise<Response> {
  const refused = refusalOf(request, false);
  if (refused !== null) return problem(refused.status, refused.title, refused.detail);
  try {
    return await work();
  } catch (error) {
    const known = problemOf(error);
    if (known === null || known.status >= 500) console.error(error);
    const { status, title, detail, fields, code } = known ?? UNEXPECTED;
    return problem(status, title, detail, fields, code);
  }
}
