import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import fc from "fast-check";
import { v4 as newId } from "uuid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type * as yup from "yup";
import {
  awaySchema,
  BIN_KINDS,
  behaviourSchema,
  chainSchema,
  EVENT_TYPES,
  horseSchema,
  joinSchema,
  keepCopiesSchema,
  kitSchema,
  networkSchema,
  newSessionSchema,
  payloadSchemas,
  personSchema,
  placeSchema,
  planSchema,
  practiceSchema,
  putAwaySchema,
  putRightSchema,
  restingSchema,
  restoreSchema,
  restrictionEndSchema,
  restrictionSchema,
  signInSchema,
} from "@/core/schemas";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { openRaw, type RawDatabase } from "@/store/file/raw";
import { emptyDraft } from "../support/plan";
import { freePort, ROOT, TestServer } from "../support/server";
import { hostileText, hostileValue, shapedLike, spoilt } from "../support/shapes";
import { reported } from "./report";

const BODIES = Number(process.env.DEFT_FUZZ ?? "2000");
const SEED = Number(process.env.DEFT_FUZZ_SEED ?? "20261126");
const SLOWEST_MS = 1000;

interface Route {
  readonly path: string;
  readonly methods: readonly string[];
}

/** Every route there is, from the folders themselves: a new one is fuzzed without being named here. */
function routes(folder = join(ROOT, "app", "api"), path = "/api"): Route[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (entry.isDirectory()) return routes(join(folder, entry.name), `${path}/${entry.name}`);
    if (entry.name !== "route.ts") return [];
    const source = readFileSync(join(folder, entry.name), "utf8");
    const methods = [...source.matchAll(/export (?:async )?(?:function|const) (GET|POST|PUT|DELETE)\b/g)].map(([, method]) => method ?? "");
    return [{ path, methods }];
  });
}

let server: TestServer;
let database: RawDatabase;
const known = { horse: "", ladder: "", session: "", place: "", kit: "", person: "", restriction: "", chain: "", store: "" };

const sendJson = async (method: string, path: string, body: unknown) => {
  const response = await fetch(`${server.url}${path}`, {
    method,
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  return { status: response.status, value: (await response.json()) as { id: string; store: string } };
};
const made = async (path: string, body: unknown) => {
  const { status, value } = await sendJson("POST", path, body);
  expect(status, JSON.stringify(value)).toBe(201);
  return value.id;
};

beforeAll(async () => {
  server = new TestServer(await freePort());
  await server.start();
  known.horse = await made("/api/horses", { name: "Fuzzed" });
  const draft = { behaviour: { ...emptyDraft().behaviour, name: "plate" }, plan: emptyDraft().plan };
  known.ladder = await made("/api/ladders", { horse: known.horse, ...draft });
  known.place = await made("/api/places", { name: "pen", shape: "round", length_m: 18 });
  known.kit = await made("/api/kit", { name: "line", kind: "line" });
  known.person = await made("/api/people", { name: "Ana", role: "handler" });
  known.restriction = await made(`/api/horses/${known.horse}/restrictions`, { kind: "other", reason: "easy" });
  known.chain = await made("/api/chains", {
    horse: known.horse,
    name: "two",
    direction: "forward",
    links: [
      { ladder: known.ladder, rung: 1 },
      { ladder: known.ladder, rung: 2 },
    ],
  });
  known.session = newId();
  await made("/api/sessions", { id: known.session, horse: known.horse, ladder: known.ladder, person: null, place: null, start_rung: 1 });
  known.store = ((await (await fetch(`${server.url}/api/clock`)).json()) as { store: string }).store;
  database = await openRaw(server.file);
}, 120_000);
afterAll(async () => {
  await database.close();
  await server.stop();
});

/** How many rows each table has. */
async function rowCounts(): Promise<Record<string, number>> {
  const tables = (await database.all<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"))
    .map(({ name }) => name)
    // Sums are kept up by themselves, whenever it is quiet.
    .filter((name) => !["session_summary", "block", "rung_side_summary", "trial", "cache_key", "stale"].includes(name));
  const columns = tables.map((name) => `(SELECT COUNT(*) FROM "${name}") AS "${name}"`).join(", ");
  return (await database.all<Record<string, number>>(`SELECT ${columns}`))[0] ?? {};
}

const bodyOf = (): Record<string, fc.Arbitrary<unknown>> => {
  const shaped = (schema: yup.AnySchema) => spoilt(shapedLike(schema));
  const draft = emptyDraft();
  const ladder = spoilt(
    fc.record({
      horse: fc.constant(known.horse),
      behaviour: fc.oneof(fc.constant({ ...draft.behaviour, name: "x" }), shapedLike(behaviourSchema)),
      plan: fc.oneof(fc.constant(draft.plan), shapedLike(planSchema)),
    }),
  );
  const edit = spoilt(
    fc.record({
      revision: fc.integer({ min: 0, max: 9 }),
      newVersion: fc.boolean(),
      behaviour: fc.oneof(fc.constant({ ...draft.behaviour, name: "x" }), shapedLike(behaviourSchema)),
      plan: fc.oneof(fc.constant(draft.plan), shapedLike(planSchema)),
    }),
  );
  const link = fc.record({ ladder: fc.constantFrom(known.ladder, "none"), rung: fc.integer({ min: 1, max: 4 }) });
  const chain = fc.record({
    name: fc.string(),
    direction: fc.constantFrom("forward", "backward"),
    links: fc.array(link, { maxLength: 4 }),
  });
  const event = fc.constantFrom(...EVENT_TYPES).chain((type) =>
    fc.record({
      id: fc.uuid(),
      session: fc.constantFrom(known.session, known.session.toUpperCase(), newId()),
      recorder: fc.string({ minLength: 1, maxLength: 20 }),
      load: fc.uuid(),
      seq: fc.nat(1000),
      mono_ms: fc.nat(1_000_000),
      wall_ms: fc.constant(Date.now()),
      type: fc.constant(type),
      payload: shapedLike(payloadSchemas[type]),
    }),
  );
  const batch = fc.record({
    store: fc.constant(known.store),
    recorder: fc.string({ minLength: 1, maxLength: 20 }),
    clocks: fc.dictionary(fc.uuid(), fc.integer({ min: -1e9, max: 1e9 }), { maxKeys: 2 }),
    events: fc.array(event, { maxLength: 5 }),
  });
  return {
    "/api/horses": shaped(horseSchema),
    "/api/horses/[id]": shaped(horseSchema),
    "/api/horses/[id]/resting": shaped(restingSchema),
    "/api/horses/[id]/away": shaped(awaySchema),
    "/api/horses/[id]/restrictions": shaped(restrictionSchema),
    "/api/horses/[id]/restrictions/[restriction]": spoilt(fc.oneof(shapedLike(restrictionSchema), shapedLike(restrictionEndSchema))),
    "/api/kit": shaped(kitSchema),
    "/api/kit/[id]": shaped(kitSchema),
    "/api/people": shaped(personSchema),
    "/api/people/[id]": shaped(personSchema),
    "/api/people/[id]/practice": shaped(practiceSchema),
    "/api/places": shaped(placeSchema),
    "/api/places/[id]": shaped(placeSchema),
    "/api/ladders": ladder,
    "/api/ladders/[id]": edit,
    "/api/chains": spoilt(
      fc.oneof(
        shapedLike(chainSchema),
        chain.map((one) => ({ ...one, horse: known.horse })),
      ),
    ),
    "/api/chains/[id]": spoilt(fc.oneof(shapedLike(chainSchema), chain)),
    "/api/sessions": spoilt(
      fc
        .tuple(shapedLike(newSessionSchema), fc.boolean())
        .map(([one, own]) =>
          own
            ? { ...(one as object), horse: known.horse, ladder: known.ladder, start_rung: 1, person: null, place: known.place, kit: [] }
            : one,
        ),
    ),
    // Things of their own, put in and brought back in turn; the horse itself stays, or all the rest would be refused.
    "/api/bin": spoilt(
      fc.record({
        kind: fc.constantFrom(...BIN_KINDS),
        id: fc.constantFrom(known.kit, known.person, known.chain, "none"),
        back: fc.boolean(),
      }),
    ),
    "/api/ladders/[id]/away": shaped(putAwaySchema),
    "/api/sessions/[id]/put-right": spoilt(
      fc
        .tuple(shapedLike(putRightSchema), fc.boolean())
        .map(([one, own]) => (own ? { place: null, started_ms: 1_700_000_000_000, reason: "x" } : one)),
    ),
    "/api/settings/word": spoilt(fc.constant(DEFAULT_SETTINGS)),
    "/api/events": spoilt(batch),
    "/api/join": shaped(joinSchema),
    "/api/sign-in": shaped(signInSchema),
    "/api/store": shaped(keepCopiesSchema),
    "/api/store/restore": shaped(restoreSchema),
    "/api/network": shaped(networkSchema),
  };
};

interface Request {
  readonly method: string;
  readonly url: string;
  readonly type: string;
  readonly body: string;
}

const HOSTILE_IDS = [
  "%00",
  "a%00b",
  "%",
  "%zz",
  "constructor",
  "__proto__",
  "toString",
  "..%2f..",
  "x".repeat(3000),
  "%F0%9F%90%B4",
  " ",
  "null",
];

function requests(): fc.Arbitrary<Request> {
  const bodies = bodyOf();
  const ids: Record<string, string> = {
    "/api/horses/": known.horse,
    "/api/kit/": known.kit,
    "/api/people/": known.person,
    "/api/places/": known.place,
    "/api/ladders/": known.ladder,
    "/api/chains/": known.chain,
    "/api/sessions/": known.session,
  };
  // Taps are answered before the framework, so no file of it names them.
  const all = [...routes(), { path: "/api/events", methods: ["POST"] }].flatMap(({ path, methods }) =>
    methods.map((method) => ({ path, method })),
  );
  expect(all.length).toBeGreaterThan(25);
  // What takes a body is asked more often than what does not.
  const weighted = all.flatMap((one) => Array<typeof one>(one.method === "POST" || one.method === "PUT" ? 4 : 1).fill(one));
  return fc.constantFrom(...weighted).chain(({ path, method }) => {
    const own = Object.entries(ids).find(([start]) => path.startsWith(start))?.[1] ?? "none";
    const id = fc.oneof({ weight: 4, arbitrary: fc.constant(own) }, { weight: 1, arbitrary: fc.constantFrom(...HOSTILE_IDS, newId()) });
    const body = method === "GET" || method === "DELETE" ? fc.constant(undefined) : (bodies[path] ?? hostileValue);
    return fc
      .record({
        id,
        body,
        query: fc.constantFrom("", "", "", "?after=-1", "?after=%00", "?after=1e999", "?__proto__=1"),
        type: fc.constantFrom("application/json", "application/json", "application/json", "application/json", "text/plain", ""),
        cut: fc.integer({ min: 0, max: 30 }),
      })
      .map(({ id, body, query, type, cut }) => {
        const text = body === undefined ? "" : hostileText(body);
        return {
          method,
          url: path.replace("[id]", id).replace("[restriction]", known.restriction) + query,
          type,
          body: cut === 0 ? text.slice(0, text.length >> 1) : text,
        };
      });
  });
}

describe("hostile bodies over every route", () => {
  it(`${BODIES} of them: each answered within a second, never with a 5xx, and a refusal writes no row`, async () => {
    const findings: string[] = [];
    let before = await rowCounts();
    const counts = { taken: 0, refused: 0 };
    let slowest = 0;
    const started = Date.now();
    for (const { method, url, type, body } of fc.sample(requests(), { numRuns: BODIES, seed: SEED })) {
      const at = performance.now();
      const found = (what: string) => findings.push(`${what}: ${method} ${url.slice(0, 120)} ${type} ${body.slice(0, 300)}`);
      let status = 0;
      try {
        const response = await fetch(`${server.url}${url}`, {
          method,
          headers: type === "" ? {} : { "content-type": type },
          body: method === "GET" || method === "DELETE" ? undefined : body,
          signal: AbortSignal.timeout(5000),
        });
        status = response.status;
        await response.arrayBuffer();
      } catch (error) {
        found(`unanswered (${String(error)})`);
      }
      const took = performance.now() - at;
      slowest = Math.max(slowest, took);
      if (status >= 500) found(`status ${status}`);
      if (took > SLOWEST_MS) found(`took ${Math.round(took)} ms`);
      const after = await rowCounts();
      if (status >= 400) {
        counts.refused++;
        for (const [table, rows] of Object.entries(after))
          if (rows !== before[table]) found(`${status}, yet ${table} ${before[table]} → ${rows}`);
      } else counts.taken++;
      before = after;
    }
    reported({
      name: "hostile bodies over all routes",
      rounds: BODIES,
      found: `${counts.refused} refused, ${counts.taken} taken, slowest ${Math.round(slowest)} ms`,
      ok: findings.length === 0,
      seconds: (Date.now() - started) / 1000,
    });
    expect(findings.slice(0, 25)).toEqual([]);
    // A run in which all is refused at the door would prove nothing.
    expect(counts.taken).toBeGreaterThan(BODIES / 20);
    expect(counts.refused).toBeGreaterThan(BODIES / 5);
  }, 900_000);

  it("left nothing half written: what belongs together is there together", async () => {
    const none = async (sql: string) => expect(await database.all(sql), sql).toEqual([]);
    await none(
      "SELECT id FROM ladder WHERE NOT EXISTS (SELECT 1 FROM ladder_plan v WHERE v.ladder_id = ladder.id AND v.version = ladder.version)",
    );
    await none(
      "SELECT id FROM ladder WHERE (SELECT json_array_length(document, '$.rungs') FROM ladder_plan p WHERE p.ladder_id = ladder.id AND p.version = ladder.version) < 2",
    );
    await none("SELECT id FROM behaviour WHERE NOT EXISTS (SELECT 1 FROM ladder WHERE behaviour_id = behaviour.id)");
    await none("SELECT id FROM chain WHERE (SELECT COUNT(*) FROM chain_link l WHERE l.chain_id = chain.id) < 2");
    await none("SELECT id FROM horse WHERE sample <> 0 OR TRIM(name) = ''");
    await none("SELECT id FROM event WHERE json_valid(payload) = 0");
    await none("PRAGMA foreign_key_check");
    expect(await database.all("PRAGMA integrity_check")).toEqual([{ integrity_check: "ok" }]);
  });
});
