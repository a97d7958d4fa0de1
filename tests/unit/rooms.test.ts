import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { circlesIn, drawRooms, readRooms } from "@/scripts/rooms";

describe("the rooms", () => {
  const rooms = readRooms();

  it("are drawn in the docs as they are", () => {
    expect(readFileSync("docs/rooms.svg", "utf8")).toBe(drawRooms(rooms));
  });

  it("lean on one another one way only", () => {
    expect(circlesIn(rooms)).toEqual([]);
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
});
