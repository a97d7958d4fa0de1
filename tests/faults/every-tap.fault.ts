import "fake-indexeddb/auto";
import { AsyncLocalStorage } from "node:async_hooks";
import { copyFileSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as newId } from "uuid";
import { afterAll, afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { problemOf } from "@/app/server/problem-of";
import { takeEvents } from "@/app/server/take-events";
import { type Chance, pick, seededChance } from "@/core/chance";
import type { SessionEvent } from "@/core/schemas";
import { DeviceQueue } from "@/features/device/queue";
import { Sender } from "@/features/device/sender";
import {
  addHorse,
  addSession,
  bringBack,
  closeStore,
  copyStore,
  eventReach,
  MIGRATION_NAMES,
  openStore,
  purgeExpired,
  putInBin,
  restoreStore,
  type Store,
  timeSeen,
} from "@/store";
import { PLAIN_HORSE } from "../support/plain-horse";
import { SessionWriter } from "../support/session-writer";
import { reported } from "./report";

const LONG = process.env.DEFT_FAULTS === "long";
/** Steps in all; each run of them is a yard of its own. */
const STEPS = Number(process.env.DEFT_TAP_STEPS ?? (LONG ? 2000 : 240));
const STEPS_A_RUN = 80;
const DAY_MS = 86_400_000;

const folder = mkdtempSync(join(tmpdir(), "every-tap-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The real store behind the real way taps go, with a machine that is killed, restored, and whose clock is set. */
class Machine {
  store!: Store;
  clockMs = 0;
  away = false;
  /** The next answers that are lost: before anything is written, or after the commit. */
  cuts: ("before" | "after")[] = [];
  copies: string[] = [];
  private restores = 0;
  readonly file: string;
  horse = "";

  constructor(private readonly name: string) {
    this.file = join(folder, `${name}.sqlite`);
  }

  private readonly now = () => Date.now() + this.clockMs;

  async open(): Promise<void> {
    this.store = await openStore(this.file, this.now);
    await timeSeen(this.store);
  }

  /** As a process that is killed: whatever was being written is cut off. */
  async kill(): Promise<void> {
    const old = this.store;
    this.away = true;
    await old.sequelize.close().catch(() => undefined);
    await old.caches.stop().catch(() => undefined);
    await this.open();
    this.away = false;
  }

  async copy(): Promise<void> {
    const path = join(folder, `${this.name}-copy-${this.copies.length}.sqlite`);
    await copyStore(this.file, path, MIGRATION_NAMES);
    this.copies.push(path);
  }

  async restore(path: string): Promise<void> {
    this.away = true;
    await closeStore(this.store);
    const again = `${path}.again`;
    copyFileSync(path, again);
    await restoreStore(this.file, again, MIGRATION_NAMES, `at-${this.restores++}`, newId);
    await this.open();
    this.away = false;
  }

  handle = async (url: string, init?: RequestInit): Promise<Response> => {
    const json = (value: unknown, status = 200) => new Response(JSON.stringify(value), { status });
    if (this.away) throw new TypeError("Failed to fetch");
    const cut = url === "/api/clock" ? undefined : this.cuts.shift();
    if (cut === "before") throw new TypeError("The connection was lost on the way there");
    const { store } = this;
    const work = async (): Promise<Response> => {
      if (url === "/api/clock")
        return json({ store: store.id, epoch: store.epoch, position: await eventReach(store.models), now_ms: store.now() });
      const body = JSON.parse(String(init?.body)) as { id: string };
      if (url === "/api/sessions") {
        // As the route takes what a device has begun: it is there once, whatever was done with it since.
        await addSession(
          store,
          { id: body.id, horseId: this.horse, ladderId: null, personId: null, placeId: null, startRung: null },
          { worked: true, createdMs: store.now() },
        );
        return json({ id: body.id }, 201);
      }
      const answer = await takeEvents(store, String(init?.body));
      return "receipt" in answer ? json(answer.receipt) : json(answer, answer.status);
    };
    let answer: Response;
    try {
      answer = await work();
    } catch (error) {
      // As the server says it; what it does not know is a store that was closed under it.
      const known = problemOf(error) ?? { status: 503, detail: `Something went wrong on the server: ${String(error).slice(0, 80)}` };
      answer = json(known, known.status);
    }
    if (cut === "after") throw new TypeError("The connection was lost on the way back");
    return answer;
  };
}

/** A phone with its own database and its own small store: pages come and go over it. */
class Phone {
  private sender!: Sender;
  private queue: DeviceQueue | null = null;
  private load = newId();
  private readonly storage = new Map<string, string>();
  readonly tapped: SessionEvent[] = [];

  constructor(
    readonly name: string,
    private readonly storeId: string,
  ) {
    this.reload();
  }

  /** On this phone's page. */
  on<T>(work: (sender: Sender) => T): T {
    return ownStorage.run(this.storage, () => work(this.sender));
  }

  /** The page goes, and another comes: what it had not brought to the database lies where it was put first. */
  reload(): void {
    this.queue?.close();
    this.sender?.end();
    this.load = newId();
    ownStorage.run(this.storage, () => {
      this.sender = new Sender(this.storeId, async (onLost) => {
        this.queue = await DeviceQueue.open(`${this.storeId}-${this.name}`, onLost);
        return this.queue;
      });
      this.sender.tieLoad(this.load);
    });
  }

  begin(session: string, horse: string): Promise<boolean> {
    const begun = { id: session, horse, kind: "work", ladder: null, person: null, place: null, start_rung: null, kit: [] };
    return this.on((sender) => sender.keepSession(begun as never, "waiting"));
  }

  async sessionStanding(id: string): Promise<string> {
    const kept = (await this.on((sender) => sender.sessions())).find((one) => one.id === id);
    return kept === undefined ? "is not kept" : `${kept.standing} ${kept.reason ?? ""}`;
  }

  async standing(id: string): Promise<string> {
    const { waiting } = this.on((sender) => sender.snapshot());
    const aside = (await this.on((sender) => sender.refusedTaps())).find(({ event }) => event.id === id);
    if (aside !== undefined) return aside.reason;
    if (waiting?.has(id) === true) return `waits on the phone: ${this.on((sender) => sender.snapshot()).held}`;
    const kept = await this.queue?.ofSession(this.tapped.find((one) => one.id === id)?.session ?? "");
    return kept?.some((one) => one.id === id) ? "on the phone, taken for saved" : "not on the phone";
  }

  /** Taps, waited for or not: a page may go before they are kept. */
  tap(session: string, count: number): Promise<boolean> {
    const w = new SessionWriter(session, Date.now());
    for (let i = 0; i < count; i++) w.add(i / 100, "mark", {}, `${this.name}:t`, this.load);
    const events = w.events.map((event) => ({ ...event, id: newId() }));
    this.tapped.push(...events);
    return this.on((sender) => sender.keep(events));
  }

  flush(ms: number): Promise<boolean> {
    return this.on((sender) => sender.flush(ms));
  }

  /** Everything that can be sent is sent, what was refused once more. */
  async settle(): Promise<void> {
    this.on((sender) => sender.reconnect());
    await this.flush(4000);
    const aside = await this.on((sender) => sender.refusedTaps());
    if (aside.length > 0) await this.on((sender) => sender.tryAgain(aside.map(({ event }) => event.id)));
    await this.flush(4000);
  }
}

/** The small store of whichever phone's page runs just now: each has its own. */
const ownStorage = new AsyncLocalStorage<Map<string, string>>();

beforeEach(() => {
  const kept = () => ownStorage.getStore() ?? new Map<string, string>();
  vi.stubGlobal("localStorage", {
    get length() {
      return kept().size;
    },
    key: (i: number) => [...kept().keys()][i] ?? null,
    getItem: (key: string) => kept().get(key) ?? null,
    setItem: (key: string, value: string) => kept().set(key, value),
    removeItem: (key: string) => kept().delete(key),
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const WHAT = [
  "tap",
  "tap",
  "tap",
  "send",
  "restore",
  "kill",
  "cut",
  "bin",
  "back",
  "sweep",
  "clock",
  "reload",
  "copy",
  "begin",
  "away",
] as const;

/** One yard and its two phones through so many steps, then everything settled. @returns what was found wrong. */
async function run(chance: Chance, name: string, steps: number): Promise<string[]> {
  const machine = new Machine(name);
  vi.stubGlobal("fetch", machine.handle);
  await machine.open();
  machine.horse = await addHorse(machine.store, PLAIN_HORSE);
  const phones = ["anna", "bo"].map((one) => new Phone(one, machine.store.id));
  const sessions: string[] = [];
  const begunBy = new Map<string, string>();
  const done: string[] = [];
  for (const phone of phones) {
    sessions.push(newId());
    begunBy.set(sessions.at(-1) ?? "", phone.name);
    await phone.begin(sessions.at(-1) ?? "", machine.horse);
  }
  await machine.copy();
  for (let step = 0; step < steps; step++) {
    const what = pick(chance, WHAT);
    const phone = pick(chance, phones);
    const session = pick(chance, sessions);
    done.push(what);
    if (what === "tap") {
      const kept = phone.tap(session, 1 + Math.floor(chance() * 8));
      if (chance() < 0.6) await kept;
    } else if (what === "send") await phone.flush(400);
    else if (what === "restore") await machine.restore(pick(chance, machine.copies));
    else if (what === "kill") {
      // In the middle of a sending, mostly.
      const sending = phone.flush(chance() < 0.7 ? 300 : 1);
      await machine.kill();
      await sending;
    } else if (what === "cut") machine.cuts.push(chance() < 0.5 ? "before" : "after");
    else if (what === "bin") await putInBin(machine.store, "session", session).catch(() => undefined);
    else if (what === "back") await bringBack(machine.store, "session", session).catch(() => undefined);
    else if (what === "sweep") await purgeExpired(machine.store, await timeSeen(machine.store));
    else if (what === "clock") machine.clockMs = (chance() < 0.4 ? 0 : (chance() - 0.5) * 800) * DAY_MS;
    else if (what === "reload") phone.reload();
    else if (what === "copy") await machine.copy();
    else if (what === "begin") {
      sessions.push(newId());
      begunBy.set(sessions.at(-1) ?? "", phone.name);
      await phone.begin(sessions.at(-1) ?? "", machine.horse);
    } else {
      machine.away = true;
      await phone.tap(session, 2);
      machine.away = false;
    }
  }
  // Settled: the server is there, its clock is right, and every page is loaded once more.
  machine.cuts = [];
  machine.clockMs = 0;
  for (const phone of phones) phone.reload();
  // Each in turn, twice: a phone may hear of the last restore, or of a session the other began, only after the other sent.
  for (const phone of [...phones, ...phones]) await phone.settle();
  const [rows] = (await machine.store.sequelize.query("SELECT id, COUNT(*) AS n FROM event_log GROUP BY id")) as [
    { id: string; n: number }[],
    unknown,
  ];
  const found = new Map(rows.map(({ id, n }) => [id, n]));
  const wrong: string[] = [];
  for (const phone of phones) {
    for (const { id, session } of phone.tapped.filter((tap) => found.get(tap.id) !== 1))
      wrong.push(
        `${phone.name}: tap ${id} of ${begunBy.get(session)}'s ${session} is there ${found.get(id) ?? 0} times (${await phone.standing(id)})`,
      );
  }
  const tapped = new Set(phones.flatMap((phone) => phone.tapped.map(({ id }) => id)));
  for (const { id } of rows) if (!tapped.has(id)) wrong.push(`${id} was never tapped`);
  await closeStore(machine.store);
  return wrong.length === 0 ? [] : [`after ${done.join(" ")}:`, ...wrong.slice(0, 5)];
}

describe("restores, kills, bins, set clocks and reloads in turn", () => {
  it(`${STEPS} of them leave every tap there exactly once`, { timeout: 1_500_000 }, async () => {
    const started = Date.now();
    const wrong: string[] = [];
    const runs = Math.ceil(STEPS / STEPS_A_RUN);
    for (let n = 0; n < runs; n++)
      wrong.push(...(await run(seededChance(4100 + n + Number(process.env.DEFT_TAP_SEED ?? 0)), `yard-${n}`, STEPS_A_RUN)));
    reported({
      name: "restores, kills, bins, set clocks, reloads in turn over the real store and sender",
      rounds: runs * STEPS_A_RUN,
      found: wrong.length === 0 ? "every tap once" : wrong.slice(0, 3).join("; "),
      ok: wrong.length === 0,
      seconds: (Date.now() - started) / 1000,
    });
    expect(wrong).toEqual([]);
  });
});
