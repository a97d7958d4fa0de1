export {
  acrossMetresOf,
  cornerItems,
  liesInside,
  outlineOf,
  PLACE_ITEM_KINDS,
  PLACE_ITEM_WORDS,
  PLACE_SHAPES,
  type PlaceItem,
  type PlaceItemKind,
  type PlaceOutline,
  type PlaceShape,
  putInside,
} from "./geometry";
export { ZONE_RULE_WORDS, ZONE_RULES, type ZoneRule, zoneRuleLine } from "./zone-rule";
