export { HorseMap, MapLegend, type MapZone } from "./horse-map";
export { HORSE_PART_NAMES, type HorsePart, partOfZone } from "./parts";
export { mapZones } from "./zones";
