export { HorseMap, MapLegend, type MapZone } from "./horse-map";
export { mapZones } from "./zones";
