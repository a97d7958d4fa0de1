import { COUNTED } from "@/core/experiment";
import { isRecord } from "@/core/typed";
import * as is from "./checks";
import { choice, flag, key, optional, orNull, real, text, whole } from "./column";
import { binnable, table } from "./table";

const LONGEST_DOCUMENT = 500_000;
const plainDocument: is.Check = (value) =>
  typeof value !== "string" ? "is no text." : value.length > LONGEST_DOCUMENT ? `is longer than ${LONGEST_DOCUMENT} characters.` : null;

/** What a ladder teaches. */
export const behaviour = table(
  "behaviour",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    name: text(is.text(200)),
    finished: text(is.text()),
    cue: text(is.text()),
    why: text(is.text()),
    /** JSON list of what the behaviour involves that a restriction may name. */
    involves: text(is.json(is.textsOf(50))),
    movement: text(is.text(80)),
    template: orNull(text(is.text(100))),
    free: flag(),
    /** JSON list of what other behaviours must have reached. */
    prerequisites: text(is.json(is.listOf(100, isRecord))),
    sample: flag(),
  },
);

/** A horse's ladders; what each version asks stands in its plan. */
export const ladder = binnable(
  "ladder",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    horse_id: text(is.id),
    behaviour_id: text(is.id),
    version: whole(is.within(1, 1_000_000)),
    revision: whole(is.within(0, 10_000_000)),
    /** Since when it is put away; null where it is worked. */
    away_ms: optional(orNull(real(is.time))),
    sample: flag(),
    created_ms: real(is.time),
  },
);

/** One version of a ladder's plan, as one document. */
export const ladderPlan = table(
  "ladder_plan",
  { packed: ["ladder_id", "version"] },
  {
    ladder_id: key(text(is.id)),
    version: key(whole(is.within(1, 1_000_000))),
    /** The format its document is written in. */
    format: whole(is.within(1, 1000)),
    // What it says is judged when it is read: one that this version cannot read is kept, and named.
    document: text(plainDocument),
    created_ms: real(is.time),
  },
);

/** Behaviours asked one after another. */
export const chain = binnable(
  "chain",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    horse_id: text(is.id),
    name: text(is.text(200)),
    direction: text(is.text(40)),
    sample: flag(),
    created_ms: real(is.time),
  },
);

/** The links of a chain, in order. */
export const chainLink = table(
  "chain_link",
  { packed: ["chain_id", "position"] },
  {
    chain_id: key(text(is.id)),
    position: key(whole(is.count)),
    ladder_id: text(is.id),
    rung: whole(is.within(1, 1000)),
  },
);

/** An experiment that tries two ways on one rung of a ladder. */
export const tryBoth = table(
  "try_both",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    horse_id: text(is.id),
    ladder_id: text(is.id),
    ladder_version: whole(is.within(1, 1_000_000)),
    rung: whole(is.within(1, 1000)),
    question: text(is.text(400)),
    way_a: text(is.text(200)),
    way_b: text(is.text(200)),
    /** JSON of what each way changes of the plan; null in one begun before 0.14. */
    way_changes: orNull(text(is.json((value) => value === null || isRecord(value)))),
    counts: choice(COUNTED),
    /** JSON list of A and B, as drawn. */
    arms: text(is.json(is.listOf(200, (arm) => arm === "A" || arm === "B"))),
    most_alike: whole(is.within(1, 1000)),
    asks_each: whole(is.within(1, 10_000)),
    created_ms: real(is.time),
    ended_ms: orNull(real(is.time)),
    ended_why: orNull(text(is.text())),
  },
);
