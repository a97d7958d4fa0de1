import type { FieldProblem } from "@/core/schemas";

/** What came of sending a form. */
export type Sent<T> =
  | { readonly ok: true; readonly value: T }
  | {
      readonly ok: false;
      readonly message: string;
      readonly fields: readonly FieldProblem[];
      /** What a program can tell the refusal by, where the server gives one. */
      readonly code?: string;
      /** The whole answer. */
      readonly answer?: unknown;
    };

/** A form is given up after this time; a server that is merely slow has answered long before. */
export const GIVE_UP_MS = 30_000;

/** Sends JSON and reads the answer; a server that cannot be reached is said plainly, and nothing typed is lost. */
export async function send<T>(method: "GET" | "POST" | "PUT" | "DELETE", url: string, body?: unknown): Promise<Sent<T>> {
  let response: Response;
  try {
    response = await fetch(url, {
      method,
      headers: { "content-type": "application/json" },
      body: body === undefined ? undefined : JSON.stringify(body),
      signal: AbortSignal.timeout(GIVE_UP_MS),
    });
  } catch (error) {
    const late = error instanceof DOMException && error.name === "TimeoutError";
    const message = late
      ? "No answer for half a minute. Look whether it was saved before you send it again."
      : "The server does not answer. What you typed is still here; try again.";
    return { ok: false, message, fields: [] };
  }
  const value: unknown = await response.json().catch(() => null);
  if (response.ok) return { ok: true, value: value as T };
  const problem = (value ?? {}) as { detail?: string; fields?: FieldProblem[]; code?: string };
  return {
    ok: false,
    message: problem.detail ?? "The server could not take this. What you typed is still here; try again.",
    fields: problem.fields ?? [],
    code: problem.code,
    answer: value,
  };
}
