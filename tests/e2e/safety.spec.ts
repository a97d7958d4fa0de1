import { request as rawRequest } from "node:http";
import { v4 as newId } from "uuid";
import { emptyDraft } from "../support/plan";
import { expect, makeHorse, makeSession, test } from "./fixtures";

/** A request with headers that fetch would not let one set. */
function raw(
  url: string,
  headers: Record<string, string>,
  method = "GET",
  body = "",
): Promise<{ status: number; headers: Record<string, unknown>; text: string }> {
  return new Promise((resolve, reject) => {
    const sent = rawRequest(url, { method, headers }, (response) => {
      let text = "";
      response.on("data", (piece) => {
        text += piece;
      });
      response.on("end", () => resolve({ status: response.statusCode ?? 0, headers: response.headers, text }));
    });
    sent.on("error", reject);
    sent.end(body);
  });
}

const JSON_TYPE = { "content-type": "application/json" };

test("requests from elsewhere are refused", async ({ server }) => {
  const { port, url } = server;
  expect((await raw(url, { host: "evil.example" })).status).toBe(421);
  expect((await raw(url, { host: `127.0.0.1.evil.example:${port}` })).status).toBe(421);
  expect((await raw(`${url}/api/horses`, { ...JSON_TYPE, origin: "http://evil.example" }, "POST", '{"name":"x"}')).status).toBe(403);
  expect((await raw(`${url}/api/horses`, { ...JSON_TYPE, origin: "null" }, "POST", '{"name":"x"}')).status).toBe(403);
  expect((await raw(`${url}/api/find`, { "sec-fetch-site": "cross-site" })).status).toBe(403);
  expect((await raw(`${url}/api/sample`, { origin: `http://127.0.0.1:${port + 1}` }, "DELETE")).status).toBe(403);
  expect((await raw(url, { host: `localhost:${port}` })).status).toBe(200);
});

test("pages carry a strict policy and a nonce of their own", async ({ server }) => {
  const first = await raw(server.url, {});
  const second = await raw(server.url, {});
  const policy = String(first.headers["content-security-policy"]);
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
  expect(policy).not.toContain("unsafe-eval");
  expect(policy).toContain("frame-ancestors 'none'");
  expect(second.headers["content-security-policy"]).not.toBe(policy);
  const nonce = /'nonce-([^']+)'/.exec(policy)?.[1] ?? "none";
  const scripts = first.text.match(/<script[^>]*>/g) ?? [];
  expect(scripts.length).toBeGreaterThan(0);
  for (const script of scripts) expect(script).toContain(nonce);
});

test("every route answers bad input with a 4xx and a JSON problem, and writes nothing", async ({ server }) => {
  const { horse, ladder } = await makeHorse(server.url, "Witness");
  const session = newId();
  await makeSession(server.url, { horse, ladder }, session);
  const { store } = (await (await fetch(`${server.url}/api/clock`)).json()) as { store: string };
  const long = "x".repeat(10_000);
  const event = { id: newId(), session, recorder: "r", load: newId(), seq: 0, mono_ms: 1, wall_ms: Date.now(), type: "mark", payload: {} };
  const cases: [string, string, string, unknown, number][] = [
    ["not JSON", "POST", "/api/horses", "{nope", 400],
    ["an array", "POST", "/api/horses", "[]", 422],
    ["null", "POST", "/api/horses", "null", 422],
    ["no name", "POST", "/api/horses", {}, 422],
    ["a long name", "POST", "/api/horses", { name: long }, 422],
    ["a name of the wrong type", "POST", "/api/horses", { name: ["x"] }, 422],
    ["a year to come", "POST", "/api/horses", { name: "x", birth_year: 2999 }, 422],
    ["a year before 1980", "POST", "/api/horses", { name: "x", birth_year: 1900 }, 422],
    ["a mass of 0", "POST", "/api/horses", { name: "x", mass_kg: 0 }, 422],
    ["an unknown horse", "PUT", "/api/horses/nobody", { name: "x" }, 404],
    ["a nameless person", "POST", "/api/people", { role: "handler" }, 422],
    ["a birth after today", "POST", "/api/horses", { name: "x", born_day: "2999-01-01" }, 422],
    ["a day that is none", "POST", "/api/horses", { name: "x", born_day: "2026-02-31" }, 422],
    ["a horse of 5 000 kg", "POST", "/api/horses", { name: "x", mass_kg: 5000 }, 422],
    ["a place of 0 m", "POST", "/api/places", { name: "pen", shape: "round", length_m: 0 }, 422],
    [
      "a zone outside its place",
      "POST",
      "/api/places",
      { name: "pen", shape: "square", length_m: 9, items: [{ name: "gate", kind: "gate", x_m: 20, y_m: 1, across_m: 1, down_m: 1 }] },
      422,
    ],
    ["an unknown place", "PUT", "/api/places/nowhere", { name: "pen", shape: "round" }, 404],
    ["an unknown place to remove", "DELETE", "/api/places/nowhere", {}, 404],
    ["a restriction without its amount", "POST", `/api/horses/${horse}/restrictions`, { kind: "work-minutes" }, 422],
    [
      "a restriction that ends before it begins",
      "POST",
      `/api/horses/${horse}/restrictions`,
      { kind: "no-food", given_by: "vet", from_day: "2026-05-02", until_day: "2026-05-01" },
      422,
    ],
    ["a restriction for nobody", "POST", "/api/horses/nobody/restrictions", { kind: "no-food", given_by: "vet" }, 404],
    ["an unknown restriction", "POST", `/api/horses/${horse}/restrictions/none`, { ended: true, why: "healed" }, 404],
    ["a restriction ended without a word", "POST", `/api/horses/${horse}/restrictions/none`, { ended: true, why: " " }, 422],
    ["an empty restriction", "POST", `/api/horses/${horse}/restrictions`, { kind: "no-food" }, 422],
    ["a bin for nothing", "POST", "/api/bin", { kind: "moon", id: "x" }, 422],
    ["a bin for nobody", "POST", "/api/bin", { kind: "horse", id: "nobody" }, 404],
    ["nothing that comes back", "POST", "/api/bin", { kind: "kit", id: "none", back: true }, 404],
    ["a session put right without a reason", "POST", "/api/sessions/nothing/put-right", { person: null }, 422],
    ["no session put right", "POST", "/api/sessions/nothing/put-right", { person: null, reason: "x" }, 404],
    ["a ladder neither away nor here", "PUT", "/api/ladders/none/away", {}, 422],
    ["putting away for no reason", "PUT", `/api/horses/${horse}/away`, {}, 422],
    ["resting rates of a hummingbird", "PUT", `/api/horses/${horse}/resting`, { resting_heart_per_min: 1000 }, 422],
    ["a picture that is none", "PUT", `/api/horses/${horse}/photo`, "<svg onload=alert(1)>", 415],
    ["a picture over its size", "PUT", `/api/horses/${horse}/photo`, "x".repeat(700_000), 413],
    ["a picture nobody has", "GET", `/api/horses/${horse}/photo`, undefined, 404],
    ["kit of no length", "POST", "/api/kit", { name: "line", kind: "line", length_m: 0 }, 422],
    ["unknown kit", "PUT", "/api/kit/none", { name: "line", kind: "line" }, 404],
    ["an unknown person", "PUT", "/api/people/nobody", { name: "x", role: "coach" }, 404],
    ["practice to come", "POST", "/api/people/nobody/practice", { day: "2999-01-01", what: "line", minutes: 5 }, 422],
    ["a session of no kind", "POST", "/api/sessions", { id: newId(), horse, kind: "race" }, 422],
    ["a ladder for nobody", "POST", "/api/ladders", { behaviour: { name: "x" }, plan: emptyDraft().plan }, 422],
    ["a ladder for an unknown horse", "POST", "/api/ladders", { horse: "nobody", behaviour: { name: "x" }, plan: emptyDraft().plan }, 404],
    ["a ladder without a plan", "POST", "/api/ladders", { horse, behaviour: { name: "x" } }, 422],
    ["a ladder of one rung", "PUT", `/api/ladders/${ladder}`, { behaviour: { name: "x" }, plan: { ...emptyDraft().plan, rungs: [] } }, 422],
    ["an unknown ladder", "PUT", "/api/ladders/nothing", { behaviour: { name: "x" }, plan: emptyDraft().plan, revision: 1 }, 404],
    ["a session on a ladder without its rung", "POST", "/api/sessions", { id: newId(), horse, ladder }, 422],
    ["a session begun in the future", "POST", "/api/sessions", { id: newId(), horse, started_ms: Date.now() + 9e7 }, 422],
    ["thresholds that are no numbers", "PUT", "/api/settings/word", { easeRun: "three" }, 422],
    ["a session with another horse's ladder", "POST", "/api/sessions", { id: newId(), horse: "nobody", ladder, start_rung: 1 }, 404],
    ["a batch that is no batch", "POST", "/api/events", { events: "all" }, 422],
    ["a batch for another store", "POST", "/api/events", { store: newId(), recorder: "r", clocks: {}, events: [event] }, 409],
    [
      "a batch of an unknown session",
      "POST",
      "/api/events",
      { store, recorder: "r", clocks: {}, events: [{ ...event, session: newId() }] },
      404,
    ],
    [
      "one bad event among good ones",
      "POST",
      "/api/events",
      { store, recorder: "r", clocks: {}, events: [event, { ...event, id: newId(), type: "phase" }] },
      422,
    ],
    [
      "an event in the future",
      "POST",
      "/api/events",
      { store, recorder: "r", clocks: {}, events: [{ ...event, wall_ms: Date.now() + 1e10 }] },
      422,
    ],
    ["an event of 1970", "POST", "/api/events", { store, recorder: "r", clocks: {}, events: [{ ...event, wall_ms: 1000 }] }, 422],
    [
      "a batch over 1 MB",
      "POST",
      "/api/events",
      { store, recorder: "r", clocks: {}, events: [{ ...event, payload: { note: "x".repeat(1_100_000) } }] },
      413,
    ],
    ["a form over its size", "POST", "/api/horses", { name: "x", history: "x".repeat(400_000) }, 413],
    ["events after nonsense", "GET", `/api/sessions/${session}/events?after=soon`, undefined, 400],
    ["events of an unknown session", "GET", "/api/sessions/nothing/events", undefined, 404],
    ["trials of an unknown session", "GET", "/api/sessions/nothing/trials.csv", undefined, 404],
  ];
  for (const [what, method, path, body, status] of cases) {
    const response = await fetch(`${server.url}${path}`, {
      method,
      headers: JSON_TYPE,
      body: body === undefined ? undefined : typeof body === "string" ? body : JSON.stringify(body),
    });
    expect(response.status, what).toBe(status);
    expect(response.headers.get("content-type"), what).toBe("application/problem+json");
    const problem = (await response.json()) as { detail: string; status: number };
    expect(problem.status, what).toBe(status);
    expect(problem.detail, what).not.toMatch(/SQLITE|Error:|undefined|at .*\.js/);
  }
  expect((await fetch(`${server.url}/api/horses`, { method: "POST", body: "name=x" })).status).toBe(415);
  const left = (await (await fetch(`${server.url}/api/sessions/${session}/events`)).json()) as { events: unknown[] };
  expect(left.events).toEqual([]);
  const found = (await (await fetch(`${server.url}/api/find`)).json()) as { horses: { name: string }[] };
  expect(found.horses.some(({ name }) => name === "x")).toBe(false);
});

test("names with markup, accents and other scripts are text everywhere", async ({ page, server }) => {
  const name = "<img src=x onerror=alert(1)> Ó'馬 🐴";
  const { horse } = await makeHorse(server.url, name);
  for (const room of ["know", "know/limits", "know/first-look", "work", "review", "ahead"]) {
    await page.goto(`${server.url}/horses/${horse}/${room}`);
    await expect(page.getByText(name).first()).toBeVisible();
    expect(await page.locator("img").count()).toBe(0);
  }
});

test("unknown ids give a page that says so, with a 404", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Known");
  for (const path of [
    "/horses/nobody/know",
    "/horses/nobody/work",
    `/horses/${horse}/shape/nothing`,
    `/horses/${horse}/review/nothing`,
    `/horses/${horse}/work/nothing`,
    "/nowhere",
    "/places/nowhere",
    "/horses/nobody/know/touch",
    `/horses/${horse}/know/nothing`,
  ]) {
    const response = await page.goto(`${server.url}${path}`);
    expect(response?.status(), path).toBe(404);
    await expect(page.getByRole("heading", { name: "Nothing is tied here" })).toBeVisible();
  }
});
