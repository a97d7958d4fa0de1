import { v4 as newId } from "uuid";
import { emptyDraft } from "./plan";

/** Asks a server's route with JSON and gives status and body. */
export async function ask<T = { id: string }>(
  url: string,
  method: string,
  path: string,
  body?: unknown,
): Promise<{ status: number; value: T }> {
  const response = await fetch(`${url}${path}`, {
    method,
    headers: { "content-type": "application/json" },
    body: body === undefined ? undefined : JSON.stringify(body),
    signal: AbortSignal.timeout(20_000),
  });
  return { status: response.status, value: (await response.json().catch(() => null)) as T };
}

async function made(url: string, path: string, body: unknown): Promise<string> {
  const { status, value } = await ask(url, "POST", path, body);
  if (status !== 201) throw new Error(`${path} answered ${status}: ${JSON.stringify(value)}`);
  return value.id;
}

/** A yard of one horse with one ladder and one session of work. */
export async function smallYard(url: string): Promise<{ horse: string; ladder: string; session: string; store: string }> {
  const { behaviour, plan } = emptyDraft();
  const horse = await made(url, "/api/horses", { name: "Tried" });
  const ladder = await made(url, "/api/ladders", { horse, behaviour: { ...behaviour, name: "Stands on the plate" }, plan });
  const session = newId();
  await made(url, "/api/sessions", { id: session, horse, ladder, person: null, place: null, start_rung: 1 });
  const { store } = (await ask<{ store: string }>(url, "GET", "/api/clock")).value;
  return { horse, ladder, session, store };
}
