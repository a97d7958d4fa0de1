import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { MemoryQueue } from "./memory-queue";
import { DeviceQueue, type EventQueue } from "./queue";
import { Sender } from "./sender";

const json = (value: unknown, status = 200) => new Response(JSON.stringify(value), { status });

/** A server that can be away, busy, or dislike an event. */
class FakeServer {
  readonly saved = new Map<string, number>();
  away = false;
  confirmLost = 0;
  dislikes = new Set<string>();
  requests = 0;

  handle = async (url: string, init?: RequestInit): Promise<Response> => {
    this.requests++;
    if (this.away) throw new TypeError("Failed to fetch");
    if (url === "/api/clock") return json({ store: "s", now_ms: Date.now() + 60_000 });
    const body = JSON.parse(String(init?.body)) as { clocks: Record<string, number>; events: { id: string; load: string }[] };
    for (const event of body.events) expect(body.clocks[event.load]).toBeGreaterThan(50_000);
    if (body.events.some((event) => this.dislikes.has(event.id))) return json({ detail: "no" }, 422);
    for (const event of body.events) this.saved.set(event.id, (this.saved.get(event.id) ?? 0) + 1);
    if (this.confirmLost-- > 0) throw new TypeError("The connection was lost on the way back");
    return json({ saved: body.events.length });
  };
}

let server: FakeServer;
let name = 0;
beforeEach(() => {
  server = new FakeServer();
  vi.stubGlobal("fetch", server.handle);
});
afterEach(() => vi.unstubAllGlobals());

function events(count: number) {
  const w = new SessionWriter();
  for (let i = 0; i < count; i++) w.add(i, "mark");
  return w.events;
}

const kinds: [string, () => Promise<EventQueue>][] = [
  ["on the device", () => DeviceQueue.open(`store-${name++}`)],
  ["in memory", async () => new MemoryQueue()],
];

describe.each(kinds)("the sender, with taps kept %s", (_, open) => {
  it("sends what is kept, in order, and says so", async () => {
    const sender = new Sender("s", open());
    const list = events(450);
    await sender.keep(list);
    expect(await sender.flush(5000)).toBe(true);
    expect([...server.saved.keys()]).toEqual(list.map((e) => e.id));
    expect(sender.snapshot()).toEqual({ unkept: 0, waiting: 0, refused: 0, held: null });
  });

  it("sends a tap kept in the very moment it thought it was done", async () => {
    const queue = await open();
    const sender = new Sender("s", Promise.resolve(queue));
    const [first, second] = [events(1), events(1)];
    const count = queue.countRefused.bind(queue);
    let once = true;
    queue.countRefused = async () => {
      const refused = await count();
      if (once) {
        once = false;
        await sender.keep(second);
      }
      return refused;
    };
    await sender.keep(first);
    expect(await sender.flush(3000)).toBe(true);
    expect(server.saved.size).toBe(2);
  });

  it("keeps everything while the server is away and sends it when it is back", async () => {
    const sender = new Sender("s", open());
    server.away = true;
    await sender.keep(events(5));
    expect(await sender.flush(300)).toBe(false);
    expect(sender.snapshot()).toMatchObject({ waiting: 5, held: "The server does not answer." });
    server.away = false;
    sender.kick();
    expect(await sender.flush(5000)).toBe(true);
    expect(server.saved.size).toBe(5);
    expect(sender.snapshot().held).toBeNull();
  });

  it("sends again what was saved but not confirmed, under the same ids", async () => {
    const sender = new Sender("s", open());
    server.confirmLost = 1;
    await sender.keep(events(3));
    expect(await sender.flush(5000)).toBe(true);
    expect([...server.saved.values()]).toEqual([2, 2, 2]);
  });

  it("keeps a refused event aside and lets the rest through", async () => {
    const sender = new Sender("s", open());
    const list = events(9);
    server.dislikes.add(list[4]?.id ?? "");
    await sender.keep(list);
    expect(await sender.flush(5000)).toBe(true);
    expect(server.saved.size).toBe(8);
    expect(sender.snapshot().refused).toBe(1);
  });
});

describe("the device's queue", () => {
  it("outlives the page: another page of the same store finds what waits", async () => {
    const first = await DeviceQueue.open("kept");
    const list = events(4);
    await first.keep(list);
    await first.settle([list[0]?.id ?? ""], "saved");
    const second = await DeviceQueue.open("kept");
    expect((await second.waiting(10)).map((e) => e.id)).toEqual(list.slice(1).map((e) => e.id));
    expect(await second.ofSession(list[0]?.session ?? "")).toHaveLength(4);
    expect(await (await DeviceQueue.open("another")).waiting(10)).toEqual([]);
  });

  it("forgets what was confirmed long ago, and never what waits", async () => {
    const queue = await DeviceQueue.open("old");
    const list = events(2);
    await queue.keep(list);
    await queue.settle([list[0]?.id ?? ""], "saved");
    vi.useFakeTimers({ now: Date.now() + 31 * 86_400_000, toFake: ["Date"] });
    await queue.prune();
    vi.useRealTimers();
    expect((await queue.ofSession(list[0]?.session ?? "")).map((e) => e.id)).toEqual([list[1]?.id]);
  });
});
