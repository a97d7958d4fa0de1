// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { BegunSession } from "@/core/pack";
import type { Begun } from "../../device/begin-session";
import { useStartSession } from "./use-start-session";

const asked = vi.hoisted(() => ({ of: [] as unknown[][], answers: [] as unknown[], went: [] as string[] }));
vi.mock("../../device/begin-session", () => ({
  beginSession: async (...given: unknown[]) => {
    asked.of.push(given);
    return asked.answers.shift();
  },
}));
vi.mock("../../device/go-to-session", () => ({ goToSession: (_way: unknown, _begun: unknown, path: string) => asked.went.push(path) }));
vi.mock("@/ui/way", () => ({ useWay: () => ({ pen: false, push: () => undefined }) }));

const TO_BEGIN = { ladder: { id: "l", rung: 3 }, person: { id: "p", name: "" }, place: { id: null, name: "Barn" }, kit: new Set(["k"]) };
const refused = (code: string): Begun => ({ ok: false, message: `refused: ${code}`, code });
const HERE: Begun = { ok: true, where: "server" };

const start = (oneRuns = false) => renderHook(() => useStartSession("h", "store", oneRuns)).result;
const begin = (hook: ReturnType<typeof start>, what = TO_BEGIN) => act(() => hook.current.begin(what));
const sent = (i: number) => asked.of[i]?.[1] as BegunSession;
const beside = (i: number) => asked.of[i]?.[2];

beforeEach(() => {
  asked.of.length = 0;
  asked.answers.length = 0;
  asked.went.length = 0;
});
afterEach(cleanup);

describe("beginning a session of work", () => {
  it("sends what was chosen, a new place by its name, and goes to it", async () => {
    asked.answers.push(HERE);
    const hook = start();
    await begin(hook);
    const { id, ...rest } = sent(0);
    expect(rest).toEqual({
      horse: "h",
      kind: "work",
      ladder: "l",
      person: "p",
      place: null,
      start_rung: 3,
      kit: ["k"],
      place_name: "Barn",
    });
    expect(beside(0)).toEqual({ beside: false });
    expect(asked.went).toEqual([`/horses/h/work/${id}`]);
    expect(hook.current.problem).toBeNull();
  });

  it("sent again it is the same session; with anything changed it is another", async () => {
    asked.answers.push(refused("x"), refused("x"), refused("x"));
    const hook = start();
    await begin(hook);
    await begin(hook);
    await begin(hook, { ...TO_BEGIN, ladder: { id: "l", rung: 4 } });
    expect(hook.current.problem).toBe("refused: x");
    expect(hook.current.busy).toBe(false);
    expect(sent(1).id).toBe(sent(0).id);
    expect(sent(2).id).not.toBe(sent(0).id);
    expect(asked.went).toEqual([]);
  });

  it("begins no second one unasked: where one runs it is said, and the next press begins one beside it", async () => {
    asked.answers.push(refused("session-running"), HERE);
    const hook = start();
    await begin(hook);
    expect(hook.current.running).toBe(true);
    await begin(hook);
    expect(beside(1)).toEqual({ beside: true });
    expect(sent(1).id).not.toBe(sent(0).id);
    expect(start(true).current.running).toBe(true);
  });

  it("asks for a word of why where the cap on circling is used up, and sends it without the space around it", async () => {
    asked.answers.push(refused("circling-cap"), HERE);
    const hook = start();
    expect(hook.current.capped).toBe(false);
    await begin(hook);
    expect(hook.current.capped).toBe(true);
    expect(sent(0)).not.toHaveProperty("against");
    act(() => hook.current.setAgainst("  the vet asked for it "));
    await begin(hook);
    expect(sent(1).against).toBe("the vet asked for it");
  });
});
