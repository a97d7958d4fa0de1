import { PLACE_ITEM_KINDS, PLACE_SHAPES } from "@/core/place";
import { SIGN_KINDS } from "@/core/signs";
import { KIT_KINDS } from "@/core/welfare";
import * as is from "./checks";
import { choice, flag, key, orNull, real, text, whole } from "./column";
import { binnable, table } from "./table";

/** What the store says of itself. */
export const meta = table(
  "store_meta",
  {},
  {
    key: key(text()),
    value: text(),
  },
);

/** People of the yard. */
export const person = binnable(
  "person",
  { packed: ["id"], stays: ["access", "passphrase"] },
  {
    id: key(text(is.id)),
    name: text(is.name),
    role: text(is.text(40)),
    sample: flag(),
    created_ms: real(is.time),
  },
);

/** Places, with their size and footing. */
export const place = binnable(
  "place",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    name: text(is.name),
    shape: choice(PLACE_SHAPES),
    length_m: orNull(real(is.within(0.1, 100_000))),
    width_m: orNull(real(is.within(0.1, 100_000))),
    footing: text(is.text(80)),
    fence: text(is.text(80)),
    sample: flag(),
    created_ms: real(is.time),
  },
);

/** Zones and objects of a place, in metres from its corner. */
export const placeItem = table(
  "place_item",
  { packed: ["place_id", "position"] },
  {
    place_id: key(text(is.id)),
    position: key(whole(is.count)),
    name: text(is.name),
    kind: choice(PLACE_ITEM_KINDS),
    x_m: real(is.within(-100_000, 100_000)),
    y_m: real(is.within(-100_000, 100_000)),
    across_m: real(is.within(0, 100_000)),
    down_m: real(is.within(0, 100_000)),
    rule: orNull(text(is.text(400))),
  },
);

/** Kit in the tack room. */
export const kit = binnable(
  "kit",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    name: text(is.name),
    kind: choice(KIT_KINDS),
    length_m: orNull(real(is.within(0, 1000))),
    mass_g: orNull(real(is.within(0, 10_000_000))),
    buckles_equal: orNull(flag()),
    note: text(is.text()),
    sample: flag(),
    created_ms: real(is.time),
  },
);

/** What a person practised without a horse. */
export const practice = table(
  "practice",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    person_id: text(is.id),
    day: text(is.day),
    what: text(is.text(200)),
    minutes: whole(is.within(0, 1440)),
    note: text(is.text()),
    created_ms: real(is.time),
  },
);

/** A sign the yard has added to the product's own. */
export const ownSign = table(
  "own_sign",
  { packed: ["class", "name"] },
  {
    class: key(choice(SIGN_KINDS)),
    name: key(text(is.name)),
    created_ms: real(is.time),
  },
);
