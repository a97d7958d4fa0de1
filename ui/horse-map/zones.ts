import { stateOfGrade, TOUCH_ZONES, type TouchMap, type TouchTool, type TouchZone } from "@/core/know";
import { EASE_GRADES } from "@/core/strands";
import type { MapZone } from "./horse-map";

/**
 * How a side of the map is drawn: with one tool, or with whatever touched each
 * zone last. Zones a restriction names are off limits, whatever was touched.
 */
export function mapZones(map: TouchMap, side: "L" | "R", tool: TouchTool | null, offLimits: readonly string[]): Record<TouchZone, MapZone> {
  const barred = offLimits.map((zone) => zone.toLowerCase());
  return Object.fromEntries(
    TOUCH_ZONES.map((zone): [TouchZone, MapZone] => {
      if (barred.includes(zone)) return [zone, { state: "off limits", words: "off limits" }];
      const record = tool === null ? map.latest(side, zone) : map.of(side, zone, tool);
      const state = stateOfGrade(record?.grade ?? null);
      const words = record === null ? "not touched" : `${state}, ${EASE_GRADES[record.grade]}, with the ${record.tool}`;
      return [zone, { state, words }];
    }),
  ) as Record<TouchZone, MapZone>;
}
