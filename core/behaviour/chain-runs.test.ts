import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "../record";
import { type ChainRun, chainRunsOf, runsOfChain } from "./index";

const LINKS = ["to the ramp", "one foot", "in", "waits"];

/** A run as it is tapped: seconds at which each link is reached, then how it ended. */
function run(w: SessionWriter, at: number, reached: readonly number[], end: object | null = null, from = 1): void {
  w.add(at, "run.start", { chain: "c", name: "Loads", direction: "backward", links: LINKS, ...(from > 1 ? { from } : {}) });
  reached.forEach((seconds, i) => {
    w.add(at + seconds, "link", { link: from + i });
  });
  if (end !== null) w.add(at + (reached.at(-1) ?? 0) + 2, "run.end", end as Record<string, unknown>);
}
const runsOf = (w: SessionWriter) => chainRunsOf(reduceSession(w.events));

describe("runs of a chain", () => {
  it("are whole with the last link, or broken with reason and what was done; each link has its time", () => {
    const w = new SessionWriter();
    run(w, 0, [5, 9, 20, 26]);
    run(w, 60, [4], { link: 2, reason: "left", did: "asked again" });
    run(w, 120, [6, 8], { stopped: true });
    w.add(200, "session.end");
    expect(runsOf(w).runs.map(({ whole, broke, reason, did, linkSeconds }) => ({ whole, broke, reason, did, linkSeconds }))).toEqual([
      { whole: true, broke: null, reason: null, did: null, linkSeconds: [5, 4, 11, 6] },
      { whole: false, broke: 2, reason: "left", did: "asked again", linkSeconds: [4] },
      { whole: false, broke: null, reason: null, did: null, linkSeconds: [6, 2] },
    ]);
  });

  it("begin on a later link of a backward chain, and take links in their order only", () => {
    const w = new SessionWriter();
    run(w, 0, [5, 7], null, 3);
    w.add(20, "run.start", { chain: "c", links: LINKS });
    w.add(22, "link", { link: 3 });
    w.add(24, "link", { link: 1 });
    const { runs, running } = runsOf(w);
    expect(runs).toMatchObject([{ whole: true, from: 3, linkSeconds: [5, 2] }]);
    expect(running).toMatchObject({ link: 2, sinceMs: 24_000 });
  });

  it("are undone like any tap, and stay open until they end", () => {
    const w = new SessionWriter();
    w.add(0, "run.start", { chain: "c", links: LINKS });
    const one = w.add(5, "link", { link: 1 });
    w.add(6, "undo", { event: one });
    expect(runsOf(w).running?.link).toBe(1);
  });
});

const made = (text: string): ChainRun[] =>
  text.split(" ").map((one) => {
    const broke = one === "w" || one === "s" ? null : Number(one);
    const reached = one === "w" ? 4 : one === "s" ? 2 : Number(one) - 1;
    return {
      chain: "c",
      name: "Loads",
      direction: "forward",
      links: LINKS,
      from: 1,
      linkSeconds: Array.from({ length: reached }, () => 5),
      broke,
      reason: null,
      did: null,
      whole: one === "w",
      wallMs: 0,
    };
  });

describe("the runs of a chain together", () => {
  // Worked by hand: ten runs; link 1 breaks 1 of 10, link 2 none of 9, then one stopped after link 2; link 3 breaks 4 of 8.
  it("give the product-limit share past each link, and the weak one", () => {
    const found = runsOfChain(made("w w w w 1 3 3 3 3 s"), LINKS);
    expect(found.links.map(({ came, broke }) => [came, broke])).toEqual([
      [10, 1],
      [9, 0],
      [8, 4],
      [4, 0],
    ]);
    expect(found.links.map(({ past }) => past?.toFixed(3))).toEqual(["0.900", "0.900", "0.450", "0.450"]);
    expect(found.weakest).toBe(2);
    expect(found.sentence).toBe("4 of 10 runs whole. Most breaks for those who came to it: in, 4 of 8.");
  });

  it("name no weak link under five that came to one, and count no run of other links", () => {
    expect(runsOfChain(made("2 2 2 2"), LINKS).weakest).toBeNull();
    expect(runsOfChain(made("2 2 2 2 2"), [...LINKS].reverse()).runs).toBe(0);
    expect(runsOfChain([], LINKS).sentence).toBe("Not run as a whole yet.");
  });
});
