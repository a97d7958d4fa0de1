import type { FieldProblem } from "@/core/schemas";

/** What came of sending a form. */
export type Sent<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly message: string; readonly fields: readonly FieldProblem[] };

/** Sends JSON and reads the answer; a server that cannot be reached is said plainly, and nothing typed is lost. */
export async function send<T>(method: "POST" | "PUT" | "DELETE", url: string, body?: unknown): Promise<Sent<T>> {
  let response: Response;
  try {
    response = await fetch(url, {
      method,
      headers: { "content-type": "application/json" },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    return { ok: false, message: "The server does not answer. What you typed is still here; try again.", fields: [] };
  }
  const value: unknown = await response.json().catch(() => null);
  if (response.ok) return { ok: true, value: value as T };
  const problem = (value ?? {}) as { detail?: string; fields?: FieldProblem[] };
  return {
    ok: false,
    message: problem.detail ?? "The server could not take this. What you typed is still here; try again.",
    fields: problem.fields ?? [],
  };
}
