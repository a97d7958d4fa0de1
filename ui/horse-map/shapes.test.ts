import { describe, expect, it } from "vitest";
import { besideZone, TOUCH_ZONES, TouchMap } from "@/core/know";
import { mapZones } from "./index";
import { HORSE_PART_NAMES, HORSE_PARTS, PART_HEIGHT_PX, partOfZone } from "./parts";
import { MAP_HEIGHT, MAP_WIDTH, ZONE_MIDDLES, ZONE_PATHS } from "./shapes";

/** Every point of a path but the handles of its curves. */
function corners(path: string): string[] {
  return [...path.matchAll(/([MLC])\s*([\d.\s]+)/g)].map(([, , numbers = ""]) => numbers.trim().split(/\s+/).slice(-2).join(" "));
}

describe("the drawing of the horse", () => {
  it("has every zone, closed, inside its box, with its middle inside the zone's own box", () => {
    for (const zone of TOUCH_ZONES) {
      // One outline, begun once and closed once.
      expect(ZONE_PATHS[zone]).toMatch(/^M\s*[\d.]+ [\d.]+( [LC]\s*[\d. ]+)+ Z$/);
      const points = corners(ZONE_PATHS[zone]).map((point) => point.split(" ").map(Number) as [number, number]);
      const xs = points.map(([x]) => x);
      const ys = points.map(([, y]) => y);
      for (const [x, y] of points) expect(x >= 0 && x <= MAP_WIDTH && y >= 0 && y <= MAP_HEIGHT).toBe(true);
      const [mx, my] = ZONE_MIDDLES[zone];
      expect(mx > Math.min(...xs) - 1 && mx < Math.max(...xs) + 1, zone).toBe(true);
      expect(my > Math.min(...ys) - 1 && my < Math.max(...ys) + 1, zone).toBe(true);
    }
  });

  it("draws zones that core calls neighbours with a corner in common", () => {
    for (const zone of TOUCH_ZONES)
      for (const next of besideZone(zone)) {
        const own = new Set(corners(ZONE_PATHS[zone]));
        expect(
          corners(ZONE_PATHS[next]).some((point) => own.has(point)),
          `${zone} and ${next}`,
        ).toBe(true);
      }
  });
});

describe("a part shown large", () => {
  /** The width a map has on a phone of 390 px. */
  const WIDTH_PX = 366;
  it("is one for every zone, whole in its box, and each zone takes a thumb of 44 px", () => {
    expect(HORSE_PART_NAMES.flatMap((part) => HORSE_PARTS[part].zones).toSorted()).toEqual([...TOUCH_ZONES].toSorted());
    for (const part of HORSE_PART_NAMES) {
      const [left, top, width, height] = HORSE_PARTS[part].box;
      const scale = Math.min(WIDTH_PX / width, PART_HEIGHT_PX / height);
      for (const zone of HORSE_PARTS[part].zones) {
        expect(partOfZone(zone)).toBe(part);
        const points = corners(ZONE_PATHS[zone]).map((point) => point.split(" ").map(Number) as [number, number]);
        const xs = points.map(([x]) => x);
        const ys = points.map(([, y]) => y);
        const [fromX, toX, fromY, toY] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
        expect(fromX >= left && toX <= left + width && fromY >= top && toY <= top + height, zone).toBe(true);
        expect(Math.min(toX - fromX, toY - fromY) * scale, zone).toBeGreaterThanOrEqual(44);
      }
    }
  });
});

describe("mapZones", () => {
  const map = new TouchMap([
    { wallMs: 1, zone: "neck", side: "L", tool: "rope", grade: 3 },
    { wallMs: 2, zone: "neck", side: "L", tool: "hand", grade: 1 },
  ]);
  it("shows one tool, or the last touch; off limits wins", () => {
    expect(mapZones(map, "L", "rope", []).neck).toEqual({ state: "accepted", words: "accepted, soft, with the rope" });
    expect(mapZones(map, "L", null, []).neck.state).toBe("worrying");
    expect(mapZones(map, "R", null, []).neck.state).toBe("untouched");
    expect(mapZones(map, "L", null, ["Neck"]).neck.state).toBe("off limits");
  });
});
