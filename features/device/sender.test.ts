import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { SessionEvent } from "@/core/schemas";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { takeIn, unsentOf } from "./carry";
import { DeviceQueue, type EventQueue } from "./queue";
import { Sender } from "./sender";
import { whereabouts } from "./status-line";

const json = (value: unknown, status = 200) => new Response(JSON.stringify(value), { status });
const never = (init?: RequestInit) =>
  new Promise<Response>((_, reject) => init?.signal?.addEventListener("abort", () => reject(new DOMException("late", "TimeoutError"))));

interface Posted {
  clocks: Record<string, number>;
  events: { id: string; session: string; load: string; wall_ms: number }[];
}

/** A server that can be away, swallow, be behind a slow way, dislike an event, have a wrong clock, or be put back to a backup. */
class FakeServer {
  saved = new Map<string, number>();
  away = false;
  swallows = false;
  confirmLost = 0;
  dislikes = new Set<string>();
  refusesTimes = false;
  requests = 0;
  position = 0;
  epoch = "";
  clockMs = 60_000;
  /** How long each asking of the clock takes, in turn. */
  clockDelaysMs: number[] = [];
  lastClocks: Record<string, number> = {};
  /** Sessions it has; null where every one is taken to be there. */
  sessions: Set<string> | null = null;
  sessionsPosted: Record<string, unknown>[] = [];
  refusesSessions: string | null = null;
  /** What stands in its confirmation in place of the truth. */
  says: Record<string, unknown> = {};

  /** Goes back to a copy from before anything was sent. */
  restore(epoch = `restore ${this.epoch}`): void {
    this.saved.clear();
    this.position = 0;
    this.epoch = epoch;
    if (this.sessions !== null) this.sessions.clear();
  }

  handle = async (url: string, init?: RequestInit): Promise<Response> => {
    this.requests++;
    if (this.away) throw new TypeError("Failed to fetch");
    if (this.swallows) return never(init);
    if (url === "/api/clock") {
      const at = Date.now();
      await new Promise((resolve) => setTimeout(resolve, this.clockDelaysMs.shift() ?? 0));
      return json({ store: "s", now_ms: at + this.clockMs, epoch: this.epoch, position: this.position });
    }
    if (url === "/api/sessions") {
      const asked = JSON.parse(String(init?.body)) as { id: string };
      this.sessionsPosted.push(asked);
      if (this.refusesSessions !== null) return json({ detail: this.refusesSessions }, 404);
      this.sessions?.add(asked.id);
      if (this.confirmLost-- > 0) throw new TypeError("The connection was lost on the way back");
      return json({ id: asked.id }, 201);
    }
    const body = JSON.parse(String(init?.body)) as Posted;
    if (this.sessions !== null && body.events.some(({ session }) => !this.sessions?.has(session)))
      return json({ detail: "The store has no such session.", code: "unknown-session" }, 404);
    this.lastClocks = body.clocks;
    if (body.events.some((event) => this.dislikes.has(event.id))) return json({ detail: "no such thing" }, 422);
    if (this.refusesTimes) return json({ detail: "before 1980", code: "clock" }, 422);
    const now = Date.now() + this.clockMs;
    if (body.events.some(({ load, wall_ms }) => wall_ms + (body.clocks[load] ?? 0) > now + 86_400_000))
      return json({ detail: "in the future", code: "clock" }, 422);
    for (const event of body.events) {
      if (!this.saved.has(event.id)) this.position++;
      this.saved.set(event.id, (this.saved.get(event.id) ?? 0) + 1);
    }
    if (this.confirmLost-- > 0) throw new TypeError("The connection was lost on the way back");
    const fresh = body.events.filter(({ id }) => this.saved.get(id) === 1).length;
    return json({
      store: "s",
      saved: fresh,
      known: body.events.length - fresh,
      position: this.position,
      epoch: this.epoch,
      ...this.says,
    });
  };
}

let server: FakeServer;
/** Senders of a test: none goes on into the next one's server. */
let begun: Sender[] = [];
function senderOf(...given: ConstructorParameters<typeof Sender>): Sender {
  const sender = new Sender(...given);
  begun.push(sender);
  return sender;
}
let name = 0;
beforeEach(() => {
  server = new FakeServer();
  vi.stubGlobal("fetch", server.handle);
  const kept = new Map<string, string>();
  vi.stubGlobal("localStorage", {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  });
});
afterEach(() => {
  for (const sender of begun) sender.end();
  begun = [];
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

let load = 1;
function taps(count: number): SessionEvent[] {
  const w = new SessionWriter(testId(900_000), Date.now());
  const own = testId(5000 + load++);
  for (let i = 0; i < count; i++) w.add(i, "mark", {}, "phone:a", own);
  return w.events;
}
const idsOf = (events: readonly SessionEvent[]) => events.map(({ id }) => id);
const noDevice = () => Promise.reject(new Error("The browser keeps nothing."));

const kinds: [string, () => () => Promise<EventQueue>][] = [
  ["on the device", () => () => DeviceQueue.open(`store-${name++}`)],
  ["in memory alone", () => noDevice],
];

describe.each(kinds)("the sender, with taps kept %s", (_, open) => {
  it("sends what it has, in order, and says so", async () => {
    const sender = senderOf("s", open());
    const list = taps(450);
    await sender.keep(list);
    expect(await sender.flush(5000)).toBe(true);
    expect([...server.saved.keys()]).toEqual(idsOf(list));
    expect(whereabouts(list, sender.snapshot())).toMatchObject({ onServer: 450, away: 0, refused: 0, unkept: 0 });
    expect(sender.snapshot()).toMatchObject({ held: null, stuckSinceMs: null });
  });

  it.each([
    ["another store", { store: "t" }],
    ["no store", { store: undefined }],
    ["fewer taps than were sent", { saved: 1, known: 0 }],
    ["nothing", { store: undefined, saved: undefined, known: undefined, position: undefined, epoch: undefined }],
  ])("takes a 200 that speaks of %s for no answer, and sends again", async (__, says) => {
    const sender = senderOf("s", open());
    server.says = says;
    const list = taps(4);
    await sender.keep(list);
    expect(await sender.flush(300)).toBe(false);
    expect(whereabouts(list, sender.snapshot()).away).toBe(4);
    server.says = {};
    expect(await sender.flush(5000)).toBe(true);
    expect(whereabouts(list, sender.snapshot())).toMatchObject({ onServer: 4, away: 0 });
  });

  it("keeps everything while the server is away and sends it when it is back", async () => {
    const sender = senderOf("s", open());
    server.away = true;
    const list = taps(5);
    await sender.keep(list);
    expect(await sender.flush(300)).toBe(false);
    expect(whereabouts(list, sender.snapshot())).toMatchObject({ onServer: 0, away: 5 });
    expect(sender.snapshot().held).toBe("The server does not answer.");
    server.away = false;
    sender.kick();
    expect(await sender.flush(5000)).toBe(true);
    expect(server.saved.size).toBe(5);
    expect(sender.snapshot().held).toBeNull();
  });

  it("sends again what was saved but not confirmed, under the same ids", async () => {
    const sender = senderOf("s", open());
    server.confirmLost = 1;
    await sender.keep(taps(3));
    expect(await sender.flush(5000)).toBe(true);
    expect([...server.saved.values()]).toEqual([2, 2, 2]);
  });

  it("gives up a request that is swallowed, says since when nothing went, and goes on", async () => {
    const timeout = AbortSignal.timeout.bind(AbortSignal);
    vi.spyOn(AbortSignal, "timeout").mockImplementation(() => timeout(40));
    const sender = senderOf("s", open());
    server.swallows = true;
    const before = Date.now();
    await sender.keep(taps(2));
    expect(await sender.flush(700)).toBe(false);
    expect(server.requests).toBeGreaterThan(1);
    expect(sender.snapshot().held).not.toBeNull();
    expect(sender.snapshot().stuckSinceMs).toBeGreaterThanOrEqual(before);
    expect(sender.snapshot().stuckSinceMs).toBeLessThan(before + 500);
    server.swallows = false;
    expect(await sender.flush(6000)).toBe(true);
    expect(server.saved.size).toBe(2);
  });

  it("keeps a refused event aside with its reason, lets the rest through, and sends it when tried again", async () => {
    const sender = senderOf("s", open());
    const list = taps(9);
    const bad = list[4]?.id ?? "";
    server.dislikes.add(bad);
    await sender.keep(list);
    expect(await sender.flush(5000)).toBe(true);
    expect(server.saved.size).toBe(8);
    expect(whereabouts(list, sender.snapshot())).toMatchObject({ onServer: 8, refused: 1, away: 0 });
    expect((await sender.refusedTaps()).map(({ event, reason }) => [event.id, reason])).toEqual([[bad, "no such thing"]]);
    server.dislikes.clear();
    await sender.tryAgain([bad]);
    expect(await sender.flush(5000)).toBe(true);
    expect(server.saved.get(bad)).toBe(1);
    expect(await sender.refusedTaps()).toEqual([]);
  });

  it("measures the clock anew where a wrong one made the server refuse a time", async () => {
    const sender = senderOf("s", open());
    // The server's clock is two years ahead while the page opens.
    server.clockMs = 2 * 366 * 86_400_000;
    const list = taps(3);
    sender.tieLoad(list[0]?.load ?? "");
    await sender.flush(1000);
    server.clockMs = 0;
    await sender.keep(list);
    expect(await sender.flush(5000)).toBe(true);
    expect(server.saved.size).toBe(3);
    expect(sender.snapshot().refused.size).toBe(0);
    expect(Math.abs(server.lastClocks[list[0]?.load ?? ""] ?? 1e9)).toBeLessThan(1000);
  });

  it("measures it anew for every page load whose taps wait, however many go at once", async () => {
    const store = open();
    server.clockMs = 2 * 366 * 86_400_000;
    server.away = true;
    const [first, second] = [taps(210), taps(210)];
    const load = "3f9a1c52-7a55-4c1e-9a53-6d3d3f0f7a10";
    const sender = senderOf("s", store);
    server.away = false;
    // Both loads were tied while the machine's clock was two years ahead.
    for (const one of [first[0]?.load ?? "", load]) sender.tieLoad(one);
    await sender.flush(1000);
    server.clockMs = 0;
    await sender.keep([...first, ...second.map((event) => ({ ...event, load }))]);
    expect(await sender.flush(8000)).toBe(true);
    expect(server.saved.size).toBe(420);
    expect(sender.snapshot().refused.size).toBe(0);
  });

  it("are sent by themselves once a server whose clock refused them has a right one", async () => {
    const store = open();
    const list = taps(2);
    // The device's clock and the server's cannot be reconciled while it counts from 1970.
    server.refusesTimes = true;
    const sender = senderOf("s", store);
    await sender.keep(list);
    expect(await sender.flush(5000)).toBe(true);
    expect(sender.snapshot().refused.size).toBe(2);
    server.refusesTimes = false;
    sender.reconnect();
    await vi.waitFor(() => expect(server.saved.size).toBe(2), 4000);
    expect(await sender.flush(2000)).toBe(true);
    expect(sender.snapshot().refused.size).toBe(0);
  });

  it("takes the offset whose asking came back quickest, at load and again after the server was away", async () => {
    const sender = senderOf("s", open());
    const [first, second] = [taps(1), taps(1)];
    server.clockDelaysMs = [300, 200, 0, 250];
    sender.tieLoad(first[0]?.load ?? "");
    await sender.keep(first);
    expect(await sender.flush(5000)).toBe(true);
    expect(Math.abs((server.lastClocks[first[0]?.load ?? ""] ?? 0) - 60_000)).toBeLessThan(60);
    server.away = true;
    await sender.keep([{ ...(second[0] as SessionEvent), load: first[0]?.load ?? "", seq: 1 }]);
    await sender.flush(200);
    server.clockMs = 95_000;
    server.away = false;
    sender.kick();
    expect(await sender.flush(6000)).toBe(true);
    expect(Math.abs((server.lastClocks[first[0]?.load ?? ""] ?? 0) - 95_000)).toBeLessThan(60);
  });
});

/** A device's store that can be made to fail, as a full or closed one does. */
class FailingQueue {
  fails = false;
  hangs = false;
  settles = true;
  opened = 0;
  constructor(private readonly storeName: string) {}
  open = async (): Promise<EventQueue> => {
    this.opened++;
    if (this.fails) throw new Error("QuotaExceededError");
    const queue = await DeviceQueue.open(this.storeName);
    const keep = queue.keep.bind(queue);
    const settle = queue.settle.bind(queue);
    queue.settle = (...args) => (this.settles ? settle(...args) : Promise.reject(new Error("QuotaExceededError")));
    queue.keep = (...args) => {
      if (this.hangs) return new Promise(() => undefined);
      return this.fails ? Promise.reject(new Error("QuotaExceededError")) : keep(...args);
    };
    return queue;
  };
}

describe("taps the device cannot keep", () => {
  it("are held in memory, counted as neither kept nor sent, and sent; the device is tried again", async () => {
    const device = new FailingQueue("failing");
    const sender = senderOf("s", device.open);
    const early = taps(4);
    await sender.keep(early);
    await sender.flush(2000);
    device.fails = true;
    server.away = true;
    const late = taps(59);
    expect(await sender.keep(late)).toBe(false);
    await sender.flush(300);
    const all = [...early, ...late];
    expect(whereabouts(all, sender.snapshot())).toEqual({ onDevice: 4, onServer: 4, away: 59, refused: 0, unkept: 59 });
    expect(sender.snapshot().keeps).toBe(false);
    server.away = false;
    sender.kick();
    expect(await sender.flush(8000)).toBe(true);
    expect(server.saved.size).toBe(63);
    expect(whereabouts(all, sender.snapshot())).toMatchObject({ onServer: 63, away: 0, unkept: 0 });
    device.fails = false;
    const last = taps(1);
    expect(await sender.keep(last)).toBe(true);
    expect(sender.snapshot().keeps).toBe(true);
    expect(await sender.flush(3000)).toBe(true);
    expect(await (await DeviceQueue.open("failing")).ofSession(last[0]?.session ?? "")).toContainEqual(last[0]);
  });

  it("that it kept and then cannot mark as saved are not sent for ever, nor called unsent", async () => {
    const device = new FailingQueue("unmarked");
    device.settles = false;
    const sender = senderOf("s", device.open);
    const list = taps(250);
    await sender.keep(list);
    expect(await sender.flush(3000)).toBe(true);
    expect([...server.saved.values()].every((times) => times === 1)).toBe(true);
    expect(server.saved.size).toBe(250);
    expect(whereabouts(list, sender.snapshot())).toMatchObject({ onServer: 250, away: 0 });
    expect(sender.snapshot().held).toBeNull();
    device.settles = true;
    sender.kick();
    await sender.flush(3000);
    expect(await (await DeviceQueue.open("unmarked")).waiting(10)).toEqual([]);
    expect([...server.saved.values()].every((times) => times === 1)).toBe(true);
  });

  it("are sent although the device never answers", async () => {
    const device = new FailingQueue("hanging");
    device.hangs = true;
    const sender = senderOf("s", device.open, 200);
    await sender.keep(taps(2));
    expect(await sender.flush(9000)).toBe(true);
    expect(server.saved.size).toBe(2);
  }, 20_000);
});

describe("a store that was put back to a backup", () => {
  const confirmed = async () => {
    const storeName = `back-${name++}`;
    const list = taps(30);
    const sender = senderOf("s", () => DeviceQueue.open(storeName));
    await sender.keep(list);
    expect(await sender.flush(5000)).toBe(true);
    return { storeName, list };
  };
  const lose = (list: readonly SessionEvent[], from: number) => {
    for (const { id } of list.slice(from)) server.saved.delete(id);
  };

  it("is offered what this device had confirmed, and has it all again", async () => {
    const { storeName, list } = await confirmed();
    lose(list, 12);
    server.position = 12;
    const sender = senderOf("s", () => DeviceQueue.open(storeName));
    sender.kick();
    await vi.waitFor(() => expect(server.saved.size).toBe(30), 5000);
    expect(await sender.flush(3000)).toBe(true);
  });

  it("by the command is noticed also where it has grown past the old mark since", async () => {
    const { storeName, list } = await confirmed();
    lose(list, 12);
    server.position = 500;
    server.epoch = "restored";
    const sender = senderOf("s", () => DeviceQueue.open(storeName));
    sender.kick();
    await vi.waitFor(() => expect(server.saved.size).toBe(30), 5000);
  });

  it("is not mistaken for one that was not: nothing is sent twice", async () => {
    const { storeName } = await confirmed();
    const sender = senderOf("s", () => DeviceQueue.open(storeName));
    sender.kick();
    await sender.keep(taps(1));
    expect(await sender.flush(3000)).toBe(true);
    expect([...server.saved.values()].every((times) => times === 1)).toBe(true);
  });
});

describe("the device's queue", () => {
  it("outlives the page: another page of the same store finds what waits", async () => {
    const first = await DeviceQueue.open("kept");
    const list = taps(4);
    await first.keep(list);
    await first.settle([list[0]?.id ?? ""], "saved");
    const second = await DeviceQueue.open("kept");
    expect((await second.waiting(10)).map((e) => e.id)).toEqual(list.slice(1).map((e) => e.id));
    expect(await second.ofSession(list[0]?.session ?? "")).toHaveLength(4);
    expect(await (await DeviceQueue.open("another")).waiting(10)).toEqual([]);
  });

  it("forgets what was confirmed long ago, and never what waits", async () => {
    const queue = await DeviceQueue.open("old");
    const list = taps(2);
    await queue.keep(list);
    await queue.settle([list[0]?.id ?? ""], "saved");
    vi.useFakeTimers({ now: Date.now() + 31 * 86_400_000, toFake: ["Date"] });
    await queue.prune();
    vi.useRealTimers();
    expect((await queue.ofSession(list[0]?.session ?? "")).map((e) => e.id)).toEqual([list[1]?.id]);
  });

  it("sends a tap kept in the very moment the sender thought it was done", async () => {
    const queue = await DeviceQueue.open("moment");
    const sender = senderOf("s", () => Promise.resolve(queue));
    const [first, second] = [taps(1), taps(1)];
    const idsOf = queue.idsOf.bind(queue);
    let once = true;
    queue.idsOf = async (standing) => {
      const ids = await idsOf(standing);
      if (standing === "refused" && once && server.saved.size > 0) {
        once = false;
        await sender.keep(second);
      }
      return ids;
    };
    await sender.keep(first);
    expect(await sender.flush(3000)).toBe(true);
    expect(server.saved.size).toBe(2);
  });
});

describe("a session begun on the device", () => {
  const begun = {
    id: testId(900_000),
    horse: "h",
    kind: "work",
    ladder: "l",
    person: null,
    place: null,
    start_rung: 1,
    kit: [],
    person_name: "Nell",
  } as const;

  it("goes to the server before its taps, once, with when it was made on the server's clock", async () => {
    const sender = senderOf("s", () => DeviceQueue.open(`store-${name++}`));
    server.sessions = new Set();
    server.away = true;
    const made = Date.now();
    expect(await sender.keepSession(begun, "waiting")).toBe(true);
    await sender.keep(taps(3));
    expect(await sender.flush(300)).toBe(false);
    expect(sender.snapshot().sessionsWaiting).toEqual(new Set([begun.id]));
    server.away = false;
    sender.kick();
    expect(await sender.flush(8000)).toBe(true);
    expect(server.sessionsPosted).toHaveLength(1);
    expect(server.sessionsPosted[0]).toMatchObject({ id: begun.id, horse: "h", person_name: "Nell" });
    expect(Math.abs(Number(server.sessionsPosted[0]?.made_ms) - (made + server.clockMs))).toBeLessThan(2000);
    expect(server.saved.size).toBe(3);
    expect(sender.snapshot()).toMatchObject({ refused: new Set(), sessionsWaiting: new Set() });
  });

  it("whose answer was lost is sent again under the same id", async () => {
    const sender = senderOf("s", () => DeviceQueue.open(`store-${name++}`));
    server.sessions = new Set();
    server.confirmLost = 1;
    await sender.keepSession(begun, "waiting");
    await sender.keep(taps(1));
    expect(await sender.flush(8000)).toBe(true);
    expect(server.sessionsPosted.map(({ id }) => id)).toEqual([begun.id, begun.id]);
    expect(server.saved.size).toBe(1);
  });

  it("is given again to a store that has lost it, also where it was the server's own", async () => {
    const device = `store-${name++}`;
    const sender = senderOf("s", () => DeviceQueue.open(device));
    server.sessions = new Set([begun.id]);
    await sender.keepSession(begun, "saved");
    await sender.keep(taps(4));
    expect(await sender.flush(8000)).toBe(true);
    expect(server.sessionsPosted).toEqual([]);
    // Back to a copy from before: session and taps are gone there.
    server.sessions = new Set();
    server.saved = new Map();
    server.position = 0;
    server.epoch = "restored";
    const later = senderOf("s", () => DeviceQueue.open(device));
    later.kick();
    await vi.waitFor(() => expect(server.saved.size).toBe(4), { timeout: 8000 });
    expect(server.sessionsPosted.map(({ id }) => id)).toEqual([begun.id]);
    expect(later.snapshot().refused.size).toBe(0);
  });

  it("that the server cannot take is kept with its taps, said, and tried again with them", async () => {
    const sender = senderOf("s", () => DeviceQueue.open(`store-${name++}`));
    server.sessions = new Set();
    server.refusesSessions = "There is no such horse.";
    await sender.keepSession(begun, "waiting");
    const list = taps(2);
    await sender.keep(list);
    await sender.flush(3000);
    expect(sender.snapshot().refused.size).toBe(2);
    expect((await sender.sessions())[0]).toMatchObject({ standing: "refused", reason: "There is no such horse." });
    const file = await unsentOf(sender);
    expect([file.sessions.length, file.events.length]).toEqual([1, 2]);
    server.refusesSessions = null;
    await sender.tryAgain(idsOf(list));
    expect(await sender.flush(8000)).toBe(true);
    expect(server.saved.size).toBe(2);
  });

  it("carried as a file to another device is sent from there, once", async () => {
    const from = senderOf("s", () => DeviceQueue.open(`store-${name++}`));
    server.sessions = new Set();
    server.away = true;
    await from.keepSession(begun, "waiting");
    await from.keep(taps(3));
    await from.flush(200);
    const file = JSON.parse(JSON.stringify(await unsentOf(from))) as { events: SessionEvent[] };
    const carried = idsOf(file.events);
    expect(carried).toHaveLength(3);
    server.away = false;
    const to = senderOf("s", () => DeviceQueue.open(`store-${name++}`));
    expect(await takeIn(to, file)).toBe(3);
    expect(await takeIn(to, file)).toBe(3);
    expect(await to.flush(8000)).toBe(true);
    // The first device may have found its way meanwhile and sent them as well: under the same ids they are three all the same.
    expect([...server.saved.keys()].sort()).toEqual(carried.sort());
    expect((await unsentOf(to)).events).toEqual([]);
    const elsewhere = senderOf("other", () => DeviceQueue.open(`store-${name++}`));
    await expect(takeIn(elsewhere, file)).rejects.toThrow(/other data/);
    await expect(takeIn(to, { what: "something" })).rejects.toThrow(/no file of taps/);
    await expect(takeIn(to, null)).rejects.toThrow(/no file of taps/);
  });
});

describe("a page whose sending has ended", () => {
  it("sends nothing more, also where it was in the middle of it: the next page does", async () => {
    const key = `ended-${name++}`;
    const sender = senderOf("s", () => DeviceQueue.open(key));
    const held: (() => void)[] = [];
    vi.stubGlobal("fetch", async (url: string, init?: RequestInit) => {
      if (url === "/api/clock") await new Promise<void>((go) => held.push(go));
      return server.handle(url, init);
    });
    const list = taps(3);
    await sender.keep(list);
    await vi.waitFor(() => expect(held.length).toBeGreaterThan(0), 5000);
    sender.end();
    vi.stubGlobal("fetch", server.handle);
    for (const go of held) go();
    await new Promise((resolve) => setTimeout(resolve, 500));
    expect(server.saved.size).toBe(0);
    const next = senderOf("s", () => DeviceQueue.open(key));
    expect(await next.flush(5000)).toBe(true);
    expect([...server.saved.keys()]).toEqual(idsOf(list));
  });
});

describe("taps that were refused before", () => {
  const keptAs = async (refusal: { reason: string; code: string | null }) => {
    const key = `refused-${name++}`;
    const list = taps(2);
    const queue = await DeviceQueue.open(key);
    await queue.keep(list, "refused", refusal);
    queue.close();
    const sender = senderOf("s", () => DeviceQueue.open(key));
    sender.kick();
    return { sender, list };
  };
  it.each([
    ["by their code, whatever the words are today", { reason: "Other words.", code: "clock" }],
    ["by the sentence an older program kept of the clock", { reason: "The server's clock says otherwise.", code: null }],
    ["by the sentence an older program kept of a session", { reason: "The server does not have this session.", code: null }],
  ])("are sent again %s", async (_, refusal) => {
    const { list } = await keptAs(refusal);
    await vi.waitFor(() => expect(server.saved.size).toBe(list.length), 5000);
  });
  it("stay aside where they were refused for what is in them, with their code", async () => {
    const { sender, list } = await keptAs({ reason: "Ease: a grade is needed.", code: "invalid" });
    expect(await sender.flush(3000)).toBe(true);
    expect(server.saved.size).toBe(0);
    expect(await sender.refusedTaps()).toEqual(list.map((event) => ({ event, reason: "Ease: a grade is needed.", code: "invalid" })));
  });
});

describe("taps of other data than the server has open", () => {
  it("stay whole on the device and wait: none is cut up and kept aside as refused", async () => {
    const sender = senderOf("s", () => DeviceQueue.open(`store-${name++}`));
    vi.stubGlobal("fetch", async (url: string, init?: RequestInit) =>
      url === "/api/events" ? json({ detail: "These taps belong to other data.", code: "another-store" }, 409) : server.handle(url, init),
    );
    const list = taps(3);
    await sender.keep(list);
    expect(await sender.flush(700)).toBe(false);
    expect(sender.snapshot()).toMatchObject({ refused: new Set(), held: "These taps belong to other data." });
    expect(sender.snapshot().waiting?.size).toBe(3);
    vi.stubGlobal("fetch", server.handle);
    sender.reconnect();
    expect(await sender.flush(5000)).toBe(true);
    expect([...server.saved.keys()]).toEqual(idsOf(list));
  });
});

describe("a store that goes back under an open page", () => {
  const open = () => {
    const key = `restored-${name++}`;
    return () => DeviceQueue.open(key);
  };
  it.each([
    ["by a restore", "r2"],
    ["by hand, under the same name", ""],
  ])("%s: the next confirmation offers again what it had confirmed, before the new mark is written", async (_, epoch) => {
    const sender = senderOf("s", open());
    const first = taps(4);
    await sender.keep(first);
    expect(await sender.flush(5000)).toBe(true);
    server.restore(epoch);
    const more = taps(1);
    await sender.keep(more);
    expect(await sender.flush(5000)).toBe(true);
    expect([...server.saved.keys()].toSorted()).toEqual(idsOf([...first, ...more]).toSorted());
    expect([...server.saved.values()].every((times) => times <= 2)).toBe(true);
  });
  it.each([
    ["its mark", false],
    ["nothing but the page's memory", true],
  ])("is remembered by %s where it was noticed while the device's store was shut: all is offered when it opens", async (_, markLost) => {
    const key = `shut-${name++}`;
    let shut = false;
    const sender = senderOf("s", async (onLost) => {
      const queue = await DeviceQueue.open(key, onLost);
      const offer = queue.offerAgain.bind(queue);
      queue.offerAgain = () => (shut ? Promise.reject(new Error("The browser has shut it.")) : offer());
      return queue;
    });
    const first = taps(4);
    await sender.keep(first);
    expect(await sender.flush(5000)).toBe(true);
    const before = localStorage.getItem("deft-mark-s");
    server.restore("r2");
    shut = true;
    sender.reconnect();
    await sender.flush(500);
    expect(server.saved.size).toBe(0);
    // The new mark is not written: another page would notice it too.
    expect(localStorage.getItem("deft-mark-s")).toBe(before);
    if (markLost) vi.stubGlobal("localStorage", { getItem: () => null, setItem: () => undefined });
    shut = false;
    sender.reconnect();
    await vi.waitFor(() => expect(server.saved.size).toBe(4), 5000);
  });
  it("is heard of over the live line with no tap at all", async () => {
    const sender = senderOf("s", open());
    sender.heardRestore("");
    const first = taps(4);
    await sender.keep(first);
    expect(await sender.flush(5000)).toBe(true);
    server.restore("r2");
    sender.heardRestore("r2");
    await vi.waitFor(() => expect(server.saved.size).toBe(4), 5000);
    // Told again of the same restore it offers nothing.
    const { requests } = server;
    sender.heardRestore("r2");
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(server.requests).toBe(requests);
  });
  it("has a session again in which this device tapped nothing: another device may wait for it", async () => {
    const sender = senderOf("s", open());
    server.sessions = new Set();
    await sender.keepSession({ id: testId(900_000) } as never, "waiting");
    expect(await sender.flush(3000)).toBe(true);
    server.restore();
    sender.reconnect();
    expect(await sender.flush(3000)).toBe(true);
    expect([...server.sessions]).toEqual([testId(900_000)]);
  });

  it("takes taps of a session it had lost as soon as another device has given it back", async () => {
    const sender = senderOf("s", open());
    server.sessions = new Set();
    await sender.keep(taps(3));
    expect(await sender.flush(3000)).toBe(true);
    expect(sender.snapshot().refused.size).toBe(3);
    server.sessions.add(testId(900_000));
    sender.reconnect();
    await vi.waitFor(() => expect(server.saved.size).toBe(3), 4000);
    expect(await sender.flush(3000)).toBe(true);
    expect(sender.snapshot().refused.size).toBe(0);
  });

  it("has its sessions again first, where it lost them too", async () => {
    const sender = senderOf("s", open());
    server.sessions = new Set([testId(900_000)]);
    const begun = {
      id: testId(900_000),
      horse: "h",
      kind: "work",
      ladder: null,
      person: null,
      place: null,
      start_rung: null,
      kit: [],
    } as const;
    await sender.keepSession(begun, "saved");
    const first = taps(3);
    await sender.keep(first);
    expect(await sender.flush(5000)).toBe(true);
    server.restore("r2");
    await sender.keep(taps(1));
    expect(await sender.flush(5000)).toBe(true);
    // Perhaps twice: asked for again it is there once.
    expect(new Set(server.sessionsPosted.map(({ id }) => id))).toEqual(new Set([testId(900_000)]));
    expect(server.saved.size).toBe(4);
  });
});
