import { readFileSync } from "node:fs";
import { request as rawRequest } from "node:http";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ask, smallYard } from "../support/api";
import { Driver } from "../support/driver";
import { freePort, TestServer } from "../support/server";
import { reported } from "./report";

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const since = (started: number) => (Date.now() - started) / 1000;
let server: TestServer;
let yard: Awaited<ReturnType<typeof smallYard>>;

beforeAll(async () => {
  server = new TestServer(await freePort());
  await server.start();
  yard = await smallYard(server.url);
});
afterAll(() => server.stop());

interface State {
  readonly id: string;
  readonly step: string;
  readonly problem: string | null;
  readonly merged: { readonly sessions: number } | null;
}

/** The program's own memory and that of what it started, in MB. */
function memoryMb(): number {
  const children = readFileSync(`/proc/${server.pid}/task/${server.pid}/children`, "utf8").trim().split(/\s+/).filter(Boolean);
  return [String(server.pid), ...children].reduce((sum, pid) => {
    try {
      return sum + Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;
    } catch {
      return sum;
    }
  }, 0);
}

/** The yard's package as an older version made it, with files put in place of its own. */
async function packageWith(change: (files: Record<string, Uint8Array>) => Record<string, Uint8Array>): Promise<Uint8Array> {
  const whole = new Uint8Array(await (await fetch(`${server.url}/api/package`)).arrayBuffer());
  const { "datapackage.json": descriptor, ...tables } = unzipSync(whole);
  const read = JSON.parse(strFromU8(descriptor as Uint8Array)) as { resources: object[] };
  const resources = read.resources.map((one) => ({ ...one, hash: undefined, bytes: undefined }));
  return zipSync({ "datapackage.json": strToU8(JSON.stringify({ ...read, resources })), ...change(tables) }, { level: 9 });
}

async function upload(bytes: Uint8Array): Promise<State> {
  const begun = (await ask<State>(server.url, "POST", "/api/imports", { name: "yard.zip", size: bytes.length })).value;
  await fetch(`${server.url}/api/imports/${begun.id}?at=0`, {
    method: "PUT",
    headers: { "content-type": "application/octet-stream" },
    body: Buffer.from(bytes),
  });
  return (await ask<State>(server.url, "POST", `/api/imports/${begun.id}`, { horse: null, columns: null, outcomes: null })).value;
}

/** Takes a package in while somebody taps, and says how long the longest tap waited and what was taken of memory. */
async function bringing(bytes: Uint8Array): Promise<{ state: State; longestMs: number; grewMb: number }> {
  const before = memoryMb();
  const driver = new Driver(server.url, yard.store, yard.session, "phone:t");
  let { value: state } = { value: await upload(bytes) };
  let longestMs = 0;
  let most = before;
  const until = Date.now() + 60_000;
  while (!["done", "failed", "cancelled"].includes(state.step) && Date.now() < until) {
    driver.trial(1);
    const at = performance.now();
    const [sent] = await Promise.all([driver.send(1)]);
    expect(sent?.status).toBe(200);
    longestMs = Math.max(longestMs, performance.now() - at);
    most = Math.max(most, memoryMb());
    state = (await ask<State>(server.url, "GET", `/api/imports/${state.id}`)).value;
    await wait(5);
  }
  return { state, longestMs, grewMb: most - before };
}

describe("a package that is far larger inside", () => {
  it.each<[string, (files: Record<string, Uint8Array>) => Record<string, Uint8Array>, RegExp]>([
    [
      "one row without an end",
      (files) => ({ ...files, "person.csv": strToU8(`id,name,role,sample,created_ms\r\n"${"a".repeat(50_000_000)}`) }),
      /too long|damaged/,
    ],
    ["a row of ten million cells", (files) => ({ ...files, "person.csv": strToU8(",".repeat(10_000_000)) }), /too long|person.csv/],
    [
      "a million rows",
      (files) => ({
        ...files,
        "person.csv": strToU8(`id,name,role,sample,created_ms\r\n${"p,Somebody,handler,0,1700000000000\r\n".repeat(1_000_000)}`),
      }),
      /person.csv, line/,
    ],
  ])("%s is refused in bounded memory, and whoever taps meanwhile is answered", async (name, change, words) => {
    const started = Date.now();
    const bytes = await packageWith(change);
    expect(bytes.length).toBeLessThan(400_000);
    const { state, longestMs, grewMb } = await bringing(bytes);
    reported({
      name: `a package of ${Math.round(bytes.length / 1024)} kB with ${name}`,
      rounds: 1,
      found: `${state.step}: ${state.problem}; longest tap ${Math.round(longestMs)} ms; ${Math.round(grewMb)} MB more`,
      ok: state.step === "failed" && longestMs < 1000 && grewMb < 350,
      seconds: since(started),
    });
    expect(state.step).toBe("failed");
    expect(state.problem).toMatch(words);
    expect(longestMs).toBeLessThan(1000);
    // The reader beside the server is a program of its own: what it needs to stand at all is most of it.
    expect(grewMb).toBeLessThan(350);
  });

  it("and a whole one is taken", async () => {
    const { state } = await bringing(await packageWith((files) => files));
    expect(state.problem).toBeNull();
    expect(state.step).toBe("done");
    expect(state.merged?.sessions).toBe(0);
  });
});

describe("an upload that says nothing of its size", () => {
  it.each([
    ["a piece of a file", "PUT", "/api/imports/any?at=0", "application/octet-stream", 5 * 1024 * 1024],
    ["a picture", "PUT", "/api/horses/any/photo", "image/jpeg", 2 * 1024 * 1024],
    ["a form", "POST", "/api/horses", "application/json", 1024 * 1024],
    ["taps", "POST", "/api/events", "application/json", 3 * 1024 * 1024],
  ] as const)("of %s is refused at its bound while it comes", async (_, method, path, type, size) => {
    const status = await new Promise<number>((resolve, reject) => {
      const request = rawRequest(
        `${server.url}${path}`,
        { method, headers: { "content-type": type, "transfer-encoding": "chunked" } },
        (response) => {
          response.resume();
          resolve(response.statusCode ?? 0);
        },
      );
      request.on("error", reject);
      // Never ended: the answer comes while it is still being sent, or not at all.
      for (let sent = 0; sent < size; sent += 64 * 1024) request.write("x".repeat(64 * 1024));
      setTimeout(() => reject(new Error("no answer")), 10_000).unref();
    });
    expect(status).toBe(413);
  });
});
