import { spawnSync } from "node:child_process";
import { linkSync, mkdtempSync, rmSync, statfsSync, symlinkSync, writeFileSync } from "node:fs";
import { request as rawRequest } from "node:http";
import { connect as openSocket } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as newId } from "uuid";
import { afterEach, describe, expect, it } from "vitest";
import type { SessionEvent } from "@/core/schemas";
import { closeStore, openStore } from "@/store";
import { withRaw } from "@/store/file";
import { ask, smallYard } from "../support/api";
import { compare, Driver, eventsOnDisk, NOTHING_FOUND, soundAfter } from "../support/driver";
import { emptyDraft } from "../support/plan";
import { freePort, launch, TestServer } from "../support/server";
import { reported } from "./report";

const LONG = process.env.DEFT_FAULTS === "long";
const rounds = (short: number, long: number) => (LONG ? long : short);
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const since = (started: number) => (Date.now() - started) / 1000;

let server: TestServer | null = null;
async function started(folder?: string): Promise<TestServer> {
  server = new TestServer(await freePort(), "own", folder);
  await server.start();
  return server;
}
afterEach(async () => {
  await server?.stop();
  server = null;
});

const withFile = async (file: string, sql: string) => {
  const { default: sqlite3 } = await import("sqlite3");
  const database = new sqlite3.Database(file);
  await new Promise((resolve) => database.exec(sql, resolve));
  await new Promise((resolve) => database.close(resolve));
};

const drivers = (url: string, { store, session }: { store: string; session: string }, count: number) =>
  Array.from({ length: count }, (_, i) => new Driver(url, store, session, `phone-${i}:t`));
const tappedBy = (all: readonly Driver[]) => all.flatMap(({ log }) => log);

describe("killed in the middle of a write", () => {
  it("loses no tap, doubles none and alters none, with four recorders sending at once", async () => {
    const at = Date.now();
    const one = await started();
    const yard = await smallYard(one.url);
    const all = drivers(one.url, yard, 4);
    let cut = 0;
    const kills = rounds(3, 50);
    for (let round = 0; round < kills; round++) {
      for (const driver of all) driver.trial(60);
      const sending = Promise.all(all.map((driver) => driver.send(60)));
      // From the request on its way to the answer on its way back: each round a little later into the write.
      await wait((round % 10) * 5);
      await one.kill();
      cut += (await sending).filter(({ status }) => status === 0).length;
      // What was confirmed is on the disk now, before anything is sent again.
      expect(
        compare(
          all.flatMap(({ confirmed }) => confirmed),
          await eventsOnDisk(one.file, yard.session),
        ),
      ).toEqual(NOTHING_FOUND);
      await one.start();
    }
    expect(cut).toBeGreaterThan(0);
    for (const driver of all) await driver.sendAll();
    const found = compare(tappedBy(all), await eventsOnDisk(one.file, yard.session));
    reported({
      name: "server killed in mid-write, four recorders",
      rounds: kills,
      found: `${tappedBy(all).length} taps, ${cut} batches cut off, ${JSON.stringify(found)}`,
      ok: true,
      seconds: since(at),
    });
    expect(found).toEqual(NOTHING_FOUND);
    const trials = tappedBy(all).length;
    expect(await soundAfter(one.file, yard.session, tappedBy(all))).toEqual({ integrity: "ok", trials, sameTrials: true });
    // And it would be seen: one tap less is another list of trials.
    expect(await soundAfter(one.file, yard.session, tappedBy(all).slice(1))).toMatchObject({ sameTrials: false });
  });

  it("would be noticed: a tap lost, one doubled under a new id and one altered are each found", async () => {
    const one = await started();
    const yard = await smallYard(one.url);
    const [driver] = drivers(one.url, yard, 1);
    if (driver === undefined) throw new Error("a driver");
    driver.tap(10);
    const sent = [...driver.log];
    await driver.sendAll();
    driver.unconfirmed = sent.slice(0, 3).map((event) => ({ ...event, id: newId() }));
    await driver.sendAll();
    const [first, , , fourth] = sent;
    if (first === undefined || fourth === undefined) throw new Error("taps");
    const tapped = [...sent.filter((event) => event !== fourth), { ...fourth, mono_ms: 99 }, { ...first, seq: 500 }];
    expect(compare(tapped, await eventsOnDisk(one.file, yard.session))).toEqual({ lost: 1, doubled: 3, altered: 1 });
  });
});

/** A real small file system, or null where none may be made here. */
function smallDisk(megabytes: number): { folder: string; release: () => void } | null {
  const folder = mkdtempSync(join(tmpdir(), "deft-small-"));
  const mounted = spawnSync("mount", ["-t", "tmpfs", "-o", `size=${megabytes}m`, "tmpfs", folder]);
  if (mounted.status !== 0) {
    rmSync(folder, { recursive: true });
    return null;
  }
  return {
    folder,
    release: () => {
      spawnSync("umount", ["-l", folder]);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
const freeBytes = (folder: string) => {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
};
/** Fills a disk up to so many bytes. */
const fillUp = (folder: string, leave: number) =>
  writeFileSync(join(folder, "filler"), Buffer.alloc(Math.max(0, freeBytes(folder) - leave)));

describe("a full disk", () => {
  it("is answered as such, nothing acknowledged is missing, pages go on, and what was refused is taken once there is room", async () => {
    const at = Date.now();
    const disk = smallDisk(8);
    if (disk === null) return void (await fullByPages(at));
    try {
      const one = await started(disk.folder);
      const yard = await smallYard(one.url);
      const all = drivers(one.url, yard, 8);
      fillUp(disk.folder, 400_000);
      const statuses: number[] = [];
      // As much as the whole disk could hold beside the -wal, so that all of it fits once there is room.
      for (let round = 0; round < rounds(6, 12); round++) {
        for (const driver of all) driver.tap(20, "x".repeat(600));
        statuses.push(...(await Promise.all(all.map((driver) => driver.send(20)))).map(({ status }) => status));
      }
      expect(new Set(statuses)).toEqual(new Set([200, 507]));
      for (const path of [
        "/",
        `/horses/${yard.horse}/review`,
        `/horses/${yard.horse}/review/${yard.session}`,
        `/horses/${yard.horse}/work`,
      ])
        expect((await fetch(`${one.url}${path}`)).status, path).toBe(200);
      // Nothing is confirmed that would not be there after a cut at this very moment.
      await one.kill();
      const confirmed = all.flatMap((driver) => driver.confirmed);
      rmSync(join(disk.folder, "filler"));
      expect(compare(confirmed, await eventsOnDisk(one.file, yard.session))).toEqual(NOTHING_FOUND);
      // The check bites: had the refused ones been acknowledged, they would be missing.
      const refused = all.flatMap((driver) => driver.unconfirmed);
      expect(compare([...confirmed, ...refused], await eventsOnDisk(one.file, yard.session)).lost).toBe(refused.length);

      // Started with no room at all it says so or starts; it never ends in a trace.
      fillUp(disk.folder, 0);
      const starved = launch(disk.folder, ["--port", String(one.port)]);
      const until = Date.now() + 20_000;
      while (Date.now() < until && starved.child.exitCode === null && !starved.output().includes("is running on")) await wait(50);
      expect(starved.output()).toMatch(/is running on|disk is full|cannot be/);
      expect(starved.output()).not.toMatch(/\n\s+at /);
      starved.child.kill("SIGKILL");
      await starved.ended;

      rmSync(join(disk.folder, "filler"));
      await one.start();
      for (const driver of all) await driver.sendAll();
      const found = compare(tappedBy(all), await eventsOnDisk(one.file, yard.session));
      reported({
        name: "full disk of 8 MB, eight recorders",
        rounds: statuses.length,
        found: `${statuses.filter((status) => status === 507).length} batches answered 507, ${confirmed.length} taps acknowledged, ${JSON.stringify(found)}`,
        ok: true,
        seconds: since(at),
      });
      expect(found).toEqual(NOTHING_FOUND);
    } finally {
      await server?.kill();
      disk.release();
    }
  });

  /** Where no file system may be made: the store itself is told that it may grow no further. */
  async function fullByPages(at: number): Promise<void> {
    const folder = mkdtempSync(join(tmpdir(), "deft-pages-"));
    const store = await openStore(join(folder, "own.sqlite"));
    await store.models.horse.create({
      id: "h",
      name: "x",
      kind: "",
      history: "",
      triggers: "",
      preferred_reinforcers: "",
      away_note: "",
      sample: false,
      created_ms: 0,
    });
    const session = newId();
    await store.models.session.create({ id: session, horse_id: "h", kind: "work", kit: "[]", sample: false, created_ms: 0 });
    await store.writer.write(async (transaction) => {
      const [rows] = (await store.sequelize.query("PRAGMA page_count", { transaction })) as [{ page_count: number }[], unknown];
      await store.sequelize.query(`PRAGMA max_page_count = ${(rows[0]?.page_count ?? 0) + 20}`, { transaction });
    });
    const driver = new Driver("", store.id, session, "phone:t");
    const kept: SessionEvent[] = [];
    let refused = 0;
    for (let round = 0; round < 30; round++) {
      driver.tap(20, "x".repeat(600));
      const events = driver.log.slice(-20);
      await store.events.append({ recorder: "phone:t", events, clocks: {} }).then(
        () => kept.push(...events),
        () => refused++,
      );
    }
    await closeStore(store);
    expect(refused).toBeGreaterThan(0);
    expect(compare(kept, await eventsOnDisk(store.file, session))).toEqual(NOTHING_FOUND);
    reported({
      name: "full store (no small disk may be made here: max_page_count)",
      rounds: 30,
      found: `${refused} batches refused`,
      ok: true,
      seconds: since(at),
    });
    rmSync(folder, { recursive: true, force: true });
  }
});

describe("the data held by another program", () => {
  it("is answered within seconds, never left silent, and taps are taken as soon as it lets go", async () => {
    const at = Date.now();
    const one = await started();
    const yard = await smallYard(one.url);
    const all = drivers(one.url, yard, 3);
    await withRaw(one.file, "write", async (other) => {
      await other.exec("BEGIN IMMEDIATE");
      const asked = Date.now();
      for (const driver of all) driver.tap(5);
      const forms = [1, 2, 3].map((n) => ask(one.url, "POST", "/api/people", { name: `Held ${n}`, role: "handler" }));
      const answers = await Promise.all([...all.map((driver) => driver.send()), ...forms]);
      expect(answers.map(({ status }) => status)).toEqual(Array(6).fill(503));
      expect(Date.now() - asked).toBeLessThan(9000);
      expect((await fetch(one.url)).status).toBe(200);
      await other.exec("ROLLBACK");
    });
    for (const driver of all) await driver.sendAll();
    const found = compare(tappedBy(all), await eventsOnDisk(one.file, yard.session));
    reported({
      name: "data held by another program",
      rounds: 6,
      found: `503 each, then ${JSON.stringify(found)}`,
      ok: true,
      seconds: since(at),
    });
    expect(found).toEqual(NOTHING_FOUND);
  });
});

describe("a first start killed early", () => {
  it("starts the next time, whenever it was", async () => {
    const at = Date.now();
    const kills = rounds(3, 48);
    let before = 0;
    for (let round = 0; round < kills; round++) {
      const folder = mkdtempSync(join(tmpdir(), "deft-first-"));
      const first = launch(folder, ["--port", String(await freePort())]);
      await wait(150 + (round * 2400) / kills);
      if (!first.output().includes("is running on")) before++;
      first.child.kill("SIGKILL");
      await first.ended;
      const again = new TestServer(await freePort(), "own", folder);
      await again.start();
      expect((await fetch(again.url)).status).toBe(200);
      await again.stop();
    }
    expect(before).toBeGreaterThan(0);
    reported({
      name: "first start killed",
      rounds: kills,
      found: `${before} before it ran; each started again`,
      ok: true,
      seconds: since(at),
    });
  });

  it("would be noticed: what cannot start says so", async () => {
    const folder = mkdtempSync(join(tmpdir(), "deft-first-"));
    writeFileSync(join(folder, "own.sqlite"), "");
    const start = launch(folder, ["--port", String(await freePort())]);
    expect(await start.ended).toBe(1);
    expect(start.output()).toMatch(/is empty\. Nothing was changed\./);
    expect(start.output()).not.toMatch(/\n\s+at /);
    rmSync(folder, { recursive: true });
  });
});

describe("data that cannot be opened", () => {
  it.each([
    ["emptied", "is empty", (file: string) => writeFileSync(file, "")],
    ["damaged", "is damaged", (file: string) => writeFileSync(file, "SQLite format 3\0 and nothing that follows from it".repeat(40))],
    ["of another program", "another program", (file: string) => withFile(file, "CREATE TABLE theirs (x)")],
    [
      "of a newer version",
      "a newer version",
      (file: string) => withFile(file, "CREATE TABLE migration (name TEXT); INSERT INTO migration VALUES ('9999-later')"),
    ],
  ])("%s has a page that says so, what was kept and what to do", async (_, words, make) => {
    const folder = mkdtempSync(join(tmpdir(), "deft-trouble-"));
    const file = join(folder, "own.sqlite");
    writeFileSync(file, "");
    rmSync(file);
    await make(file);
    const port = await freePort();
    const { child, output, ended } = launch(folder, ["--page", "--port", String(port)]);
    const until = Date.now() + 30_000;
    while (!output().includes("The same stands on") && child.exitCode === null && Date.now() < until) await wait(50);
    const page = await fetch(`http://127.0.0.1:${port}/horses/h/work`);
    const text = await page.text();
    expect([page.status, page.headers.get("content-type")]).toEqual([503, "text/html; charset=utf-8"]);
    expect(text).toContain(words);
    expect(text).toContain("Nothing was changed");
    expect(text).toContain("Taps that devices have not sent yet stay on them");
    expect(text).not.toMatch(/\bat .*\.(ts|js|mjs):\d/);
    // A recorder that is still open hears that its taps are not taken, and keeps them.
    const taps = await fetch(`http://127.0.0.1:${port}/api/events`, { method: "POST", body: "{}" });
    expect([taps.status, ((await taps.json()) as { code: string }).code]).toEqual([503, "not-open"]);
    child.kill("SIGTERM");
    await ended;
    rmSync(folder, { recursive: true, force: true });
  });
});

describe("one data file", () => {
  it("has one server, whatever path leads to it", async () => {
    const one = await started();
    const other = mkdtempSync(join(tmpdir(), "deft-link-"));
    symlinkSync(one.file, join(other, "soft.sqlite"));
    linkSync(one.file, join(other, "hard.sqlite"));
    symlinkSync(one.folder, join(other, "folder"));
    for (const path of ["soft.sqlite", "hard.sqlite", "folder", "hard.sqlite with temporary files elsewhere"]) {
      const elsewhere = path.endsWith("elsewhere") ? { TMPDIR: mkdtempSync(join(tmpdir(), "deft-tmp-")) } : {};
      const second = launch(join(other, path.split(" ")[0] ?? ""), ["--port", String(await freePort())], elsewhere);
      expect(await second.ended, path).toBe(0);
      expect(second.output(), path).toContain(`Already running with this data: ${one.url}`);
    }
    rmSync(other, { recursive: true });
    reported({
      name: "second start over a symlink, a hard link, a linked folder, a hard link with another folder for temporary files",
      rounds: 4,
      found: "each named the running one",
      ok: true,
      seconds: 0,
    });
  });
});

describe("two saves of one ladder at once", () => {
  it("one is taken, the other is a conflict that brings both; circles are refused however they come", async () => {
    const at = Date.now();
    const one = await started();
    const { horse, ladder } = await smallYard(one.url);
    const { behaviour, plan } = emptyDraft();
    let revision = 1;
    const tries = rounds(8, 30);
    for (let round = 0; round < tries; round++) {
      const save = (name: string) =>
        ask<{ revision: number; present: { behaviour: { name: string }; revision: number } }>(one.url, "PUT", `/api/ladders/${ladder}`, {
          behaviour: { ...behaviour, name },
          plan,
          revision,
        });
      const both = await Promise.all([save(`a${round}`), save(`b${round}`)]);
      expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
      const [won, lost] = both[0]?.status === 200 ? both : [...both].reverse();
      expect(lost?.value.present.behaviour.name).toBe(both[0]?.status === 200 ? `a${round}` : `b${round}`);
      expect(lost?.value.present.revision).toBe(won?.value.revision);
      revision = won?.value.revision ?? 0;
    }
    const circles = rounds(5, 20);
    for (let round = 0; round < circles; round++) {
      const names = [`first ${round}`, `second ${round}`];
      const made = await Promise.all(
        names.map(async (name) => ({
          name,
          id: (await ask(one.url, "POST", "/api/ladders", { horse, behaviour: { ...behaviour, name }, plan })).value.id,
        })),
      );
      const rest = (i: number) =>
        ask(one.url, "PUT", `/api/ladders/${made[i]?.id}`, {
          behaviour: { ...behaviour, name: names[i], prerequisites: [{ behaviour: names[1 - i], values: {} }] },
          plan,
          revision: 1,
        });
      expect((await Promise.all([rest(0), rest(1)])).map(({ status }) => status).sort()).toEqual([200, 422]);
    }
    reported({
      name: "two saves of a ladder at once",
      rounds: tries + circles,
      found: "one taken, one 409 with both; no circle",
      ok: true,
      seconds: since(at),
    });
  });
});

describe("connections that are not what they seem", () => {
  it("an upgrade nobody uses is closed, half a request holds nobody up, and every answer carries its headers", async () => {
    const one = await started();
    const { session } = await smallYard(one.url);
    const closed = await new Promise<string>((resolve, reject) => {
      const sent = rawRequest(one.url, {
        headers: { connection: "Upgrade", upgrade: "websocket", "sec-websocket-key": "x", "sec-websocket-version": "13" },
      });
      sent.setTimeout(4000, () => reject(new Error("still open")));
      sent.once("response", (response) => resolve(String(response.statusCode)));
      sent.once("upgrade", () => reject(new Error("upgraded")));
      sent.once("error", (error) => resolve(error.message));
      sent.end();
    });
    expect(closed).toMatch(/426|hang up|reset/);
    const halves = Array.from({ length: rounds(20, 500) }, () => {
      const socket = openSocket(one.port, "127.0.0.1");
      socket.on("error", () => undefined);
      socket.write('POST /api/events HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{"store"');
      return socket;
    });
    await wait(200);
    const asked = Date.now();
    expect((await fetch(`${one.url}/api/clock`)).status).toBe(200);
    expect(Date.now() - asked).toBeLessThan(1000);
    for (const socket of halves) socket.destroy();
    const page = await fetch(one.url);
    for (const path of ["/api/clock", "/api/none", `/api/sessions/${session}/trials.csv`, "/api/horses/%00", "/api/events"]) {
      const response = await fetch(`${one.url}${path}`, path === "/api/events" ? { method: "POST", body: "x" } : {});
      for (const name of ["x-content-type-options", "referrer-policy", "cross-origin-opener-policy", "cross-origin-resource-policy"])
        expect(response.headers.get(name), `${path} ${name}`).toBe(page.headers.get(name));
      expect(response.headers.get("content-security-policy"), path).toContain("frame-ancestors 'none'");
    }
  });
});
