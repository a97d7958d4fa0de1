import { describe, expect, it } from "vitest";
import { besideZone, TOUCH_ZONES, TouchMap } from "@/core/know";
import { mapZones } from "./index";
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
