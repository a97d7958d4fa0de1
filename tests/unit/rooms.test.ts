import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { circlesIn, drawRooms, readRooms } from "@/scripts/rooms";
import { valueCircles, valuesUsed } from "@/scripts/value-circles";

describe("the rooms", () => {
  const rooms = readRooms(["core"]);
  const above = readRooms(["features", "store"]);

  it("are drawn in the docs as they are", () => {
    expect(readFileSync("docs/rooms.svg", "utf8")).toBe(drawRooms(rooms));
    expect(readFileSync("docs/rooms-above.svg", "utf8")).toBe(drawRooms(above));
  });

  it("lean on one another one way only", () => {
    expect(circlesIn(rooms)).toEqual([]);
    expect(circlesIn(above)).toEqual([]);
    // It would be found: the same with an arrow back.
    expect(
      circlesIn({
        rooms: ["a", "b", "c"],
        arrows: [
          ["a", "b"],
          ["b", "c"],
          ["c", "a"],
        ],
      }),
    ).toEqual([["a", "b", "c"]]);
  });

  it("each have a face", () => {
    for (const room of rooms.rooms.filter((one) => one.startsWith("core/")))
      expect(readFileSync(`${room}/index.ts`, "utf8").length).toBeGreaterThan(0);
  });

  it("hold no files that need each other to be loaded", () => {
    expect(valueCircles()).toEqual([]);
    // Types are gone by then; a value beside them is not.
    const uses = (text: string) => valuesUsed("core/day.ts", text);
    expect(uses('import type { Sky } from "./welfare";')).toEqual([]);
    expect(uses('import { type Sky } from "./welfare";')).toEqual([]);
    expect(uses('import { type Sky, heatCaution } from "./welfare";')).toEqual(["core/welfare/index.ts"]);
    expect(uses('export { counted } from "@/core/words";')).toEqual(["core/words.ts"]);
  });
});
