import { describe, expect, it } from "vitest";
import { randomSession } from "@/tests/support/random-session";
import { chainRunsOf } from "../behaviour";
import { actCountsOf, wrongChoicesOf } from "../conversation";
import { analyseEvents, groupOutput, readEventsCsv, writeEventsCsv } from "../formats";
import { placeEvents } from "./clock";
import { evidenceOfSession } from "./evidence-scope";
import { reduceSession } from "./reduce-session";
import { summariseSession } from "./summary";
import { workSeconds } from "./time";

/** The exported events, as the route writes them. */
function exported(seed: number) {
  const { events } = randomSession(seed);
  const record = reduceSession(events);
  const start = record.startWallMs ?? 0;
  const seconds = new Map(placeEvents(events).map(({ event, ms }) => [event.id, (ms - start) / 1000]));
  return { record, file: readEventsCsv(writeEventsCsv(events, seconds)) };
}

describe("derived trials, for sessions from random seeds", () => {
  it.each(Array.from({ length: 40 }, (_, i) => 5000 + i * 37))("seed %d: those of the exported events, and analyse agrees", (seed) => {
    const { record, file } = exported(seed);
    const again = reduceSession(file.events, { givenSeconds: file.givenSeconds });
    expect(again.trials).toEqual(record.trials);
    expect(again.blocks).toEqual(record.blocks);
    // What happened between the asks too: wrong choices, own time, acts, runs, who handled.
    expect(again.timeLine).toEqual(record.timeLine);
    expect(wrongChoicesOf(again)).toEqual(wrongChoicesOf(record));
    expect(actCountsOf(again)).toEqual(actCountsOf(record));
    expect(chainRunsOf(again)).toEqual(chainRunsOf(record));
    expect(evidenceOfSession("s", again, "a")).toEqual(evidenceOfSession("s", record, "a"));
    expect(workSeconds(again)).toBeCloseTo(workSeconds(record), 9);
    const { overall, rows_refused } = analyseEvents(file);
    expect(rows_refused).toEqual([]);
    expect(overall).toEqual(groupOutput(summariseSession(record).measures));
  });
});
