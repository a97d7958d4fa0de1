import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { DeviceQueue, type EventQueue } from "../queue";
import type { ServerClock } from "../server-clock";
import { Clocks } from "./clocks";
import { Keeping } from "./keeping";
import { SendingStatus } from "./status";

const clock = vi.hoisted(() => ({ now: { offsetMs: 0, roundTripMs: 0, store: "s", epoch: "", position: 0 } }));
vi.mock("../server-clock", () => ({ serverClock: () => Promise.resolve({ ...clock.now }) }));
const says = (offsetMs: number, roundTripMs: number) => Object.assign(clock.now, { offsetMs, roundTripMs } satisfies Partial<ServerClock>);

let stores = 0;
/** What is kept, over a real queue of which some of the work can be made to fail; it is opened anew when it did. */
function keeping(spoil: () => Partial<EventQueue> = () => ({})): Keeping {
  const id = `machines-${++stores}`;
  const open = async () => {
    const queue = await DeviceQueue.open(id, () => undefined);
    return new Proxy(queue, {
      get: (of, key) => {
        const own: unknown = Reflect.get(spoil(), key) ?? Reflect.get(of, key);
        return typeof own === "function" ? own.bind(of) : own;
      },
    }) as EventQueue;
  };
  return new Keeping(id, open, undefined, new SendingStatus());
}

const taps = (count: number) => {
  const w = new SessionWriter();
  for (let i = 0; i < count; i++) w.add(i, "note", { text: `tap ${i}` });
  return w.events;
};

beforeEach(() => {
  vi.stubGlobal("localStorage", { getItem: () => null, setItem: () => undefined, removeItem: () => undefined, length: 0, key: () => null });
});

describe("the clocks", () => {
  it("change an offset only by what the asking can tell from nothing", async () => {
    const clocks = new Clocks(keeping());
    const told: number[] = [];
    clocks.own("load", (offset) => told.push(offset));
    says(1000, 80);
    await clocks.tieOwn(await clocks.ask());
    says(1060, 80);
    await clocks.tieOwn(await clocks.ask());
    expect(await clocks.offsetOf("load")).toBe(1000);
    says(1200, 80);
    await clocks.tieOwn(await clocks.ask());
    expect(await clocks.offsetOf("load")).toBe(1200);
    expect(told).toEqual([1000, 1200]);
  });

  it("know a device's clock that was set, and no sleep", async () => {
    const clocks = new Clocks(keeping());
    expect(await clocks.wasSet()).toBe(false);
    says(1000, 80);
    await clocks.ask();
    says(1040, 80);
    expect(await clocks.wasSet()).toBe(true);
    says(-3_600_000, 80);
    expect(await clocks.wasSet()).toBe(false);
  });
});

describe("what is kept", () => {
  it("is sent no more once it was answered for, also where the device cannot mark it", async () => {
    const kept = keeping(() => ({ settle: () => Promise.reject(new Error("full")) }));
    const [one, two] = taps(2);
    if (one === undefined || two === undefined) throw new Error("two taps");
    await kept.keep([one, two]);
    expect((await kept.nextBatch()).map(({ id }) => id)).toEqual([one.id, two.id]);
    await kept.settle([one], "saved");
    expect((await kept.nextBatch()).map(({ id }) => id)).toEqual([two.id]);
  });

  it("is offered again to a store that went back, also what was confirmed and could not be marked", async () => {
    let full = true;
    const kept = keeping(() => (full ? { settle: () => Promise.reject(new Error("full")) } : {}));
    const [one] = taps(1);
    if (one === undefined) throw new Error("a tap");
    await kept.keep([one]);
    await kept.settle([one], "saved");
    expect(await kept.nextBatch()).toEqual([]);
    full = false;
    await kept.offerAgain();
    expect((await kept.nextBatch()).map(({ id }) => id)).toEqual([one.id]);
  });
});
