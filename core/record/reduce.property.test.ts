import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { randomSession } from "@/tests/support/random-session";
import type { SessionEvent } from "../events";
import { reduceSession } from "./reduce-session";
import { summariseSession } from "./summary";

const seeds = fc.integer({ min: 1, max: 1_000_000 });

describe("the reducer, on sessions from random seeds", () => {
  it("gives the same for any order of arrival and any duplicates", () => {
    fc.assert(
      fc.property(seeds, fc.infiniteStream(fc.nat()), (seed, stream) => {
        const { events } = randomSession(seed, undefined, 40);
        const clean = reduceSession(events);
        const shuffled = events
          .map((event) => ({ event, key: stream.next().value as number }))
          .sort((a, b) => a.key - b.key)
          .map(({ event }) => event);
        const doubled = shuffled.flatMap((event, i) => (i % 3 === 0 ? [event, { ...event }] : [event]));
        expect(reduceSession(doubled)).toEqual(clean);
      }),
      { numRuns: 40 },
    );
  });

  it("undo and undo of the undo leave the log as it was", () => {
    fc.assert(
      fc.property(seeds, fc.nat(), (seed, at) => {
        const { events, id } = randomSession(seed, undefined, 30);
        const last = events.at(-1) as SessionEvent;
        const target = events[at % events.length] as SessionEvent;
        if (target.type === "undo") return;
        const later = (n: number, event: string): SessionEvent => ({
          id: `10000000-0000-4000-8000-${String(n).padStart(12, "0")}`,
          session: id,
          recorder: target.recorder,
          load: `20000000-0000-4000-8000-${String(n).padStart(12, "0")}`,
          seq: 0,
          mono_ms: 0,
          wall_ms: last.wall_ms + 1000 * n,
          type: "undo",
          payload: { event },
        });
        const undo = later(1, target.id);
        const clean = reduceSession(events);
        const back = reduceSession([...events, undo, later(2, undo.id)]);
        expect(back.trials).toEqual(clean.trials);
        expect(back.blocks).toEqual(clean.blocks);
      }),
      { numRuns: 60 },
    );
  });

  it("undoing everything a recorder logged leaves none of it", () => {
    const { events, id } = randomSession(77);
    const own = events.filter((event) => event.recorder === "tablet:bo" && event.type !== "undo");
    const wall = (events.at(-1) as SessionEvent).wall_ms + 10;
    const undos = own.map(
      (event, i): SessionEvent => ({
        id: `30000000-0000-4000-8000-${String(i).padStart(12, "0")}`,
        session: id,
        recorder: "tablet:bo",
        load: "40000000-0000-4000-8000-000000000000",
        seq: i,
        mono_ms: i,
        wall_ms: wall + i,
        type: "undo",
        payload: { event: event.id },
      }),
    );
    const record = reduceSession([...events, ...undos]);
    const left = new Set(record.facts.map((fact) => fact.id));
    expect(own.some((event) => left.has(event.id))).toBe(false);
  });

  it("keeps its promises: numbering, order, waiting, and counts that add up", () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const record = reduceSession(randomSession(seed).events);
        record.trials.forEach((trial, i) => {
          expect(trial.number).toBe(i + 1);
          expect(trial.endMs).toBeGreaterThanOrEqual(trial.askMs);
          if (trial.latencySeconds !== null) expect(trial.latencySeconds).toBeGreaterThanOrEqual(0);
          if (trial.tapped === "refused") expect(trial.latencySeconds).toBeNull();
        });
        const { measures, workSeconds } = summariseSession(record);
        expect(measures.met + measures.try + measures.miss + measures.refused).toBe(record.trials.length);
        expect(workSeconds).toBeGreaterThan(0);
      }),
      { numRuns: 60 },
    );
  });
});
