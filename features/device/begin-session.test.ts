import "fake-indexeddb/auto";
import { afterEach, describe, expect, it, vi } from "vitest";
import { beginSession } from "./begin-session";

const begun = { id: "s", horse: "h", kind: "work", ladder: "l", person: null, place: null, start_rung: 1, kit: [] } as const;
const answers = (status: number, body: object) =>
  vi.stubGlobal("fetch", async (url: string) =>
    url === "/api/sessions" ? new Response(JSON.stringify(body), { status }) : Promise.reject(new TypeError("away")),
  );
afterEach(() => vi.unstubAllGlobals());

describe("beginning a session", () => {
  it.each([
    ["the server takes it", 201, { id: "s" }, { ok: true, where: "server" }],
    ["today's limits bar it", 409, { detail: "Not today." }, { ok: false, message: "Not today." }],
    ["one runs", 409, { detail: "Running.", code: "session-running" }, { ok: false, code: "session-running" }],
    ["the sign-in has run out", 401, { detail: "Sign in.", code: "sign-in" }, { ok: true, where: "device" }],
    ["the disk is full", 507, { detail: "Full." }, { ok: true, where: "device" }],
    ["the data is being exchanged", 503, { code: "swapping" }, { ok: true, where: "device" }],
  ])("%s", async (_, status, body, came) => {
    answers(status, body);
    expect(await beginSession(`store-${status}-${JSON.stringify(body).length}`, begun)).toMatchObject(came);
  });

  it("no server answers", async () => {
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("away")));
    expect(await beginSession("store-away", begun)).toEqual({ ok: true, where: "device" });
  });
});
