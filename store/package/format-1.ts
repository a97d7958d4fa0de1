import { METHODS } from "@/core/ladder";
import { isRecord } from "@/core/typed";
import { PLAN_TABLES, plansOfTables } from "../migrations/plans-of-tables";
import type { Store } from "../store";
import { type Check, count, flag, id, json, oneOf, text, textsOf, time, within } from "../tables/checks";
import type { PackedTable } from "./tables";

/** The tables a plan stood in, with what each of their columns may hold. None of it changes any more. */
export const PLAN_FILES: readonly PackedTable[] = [
  { name: "ladder_version", key: ["ladder_id", "version"] },
  { name: "strand", key: ["ladder_id", "version", "position"] },
  { name: "rung", key: ["ladder_id", "version", "number"] },
  { name: "cue_phase", key: ["ladder_id", "version", "number"] },
];

export const PLAN_FILE_VALUES: Readonly<Record<string, Readonly<Record<string, Check>>>> = {
  ladder_version: {
    ladder_id: id,
    version: within(1, 1_000_000),
    method: oneOf(METHODS),
    maximum_s: within(0, 100_000),
    mastery: json(isRecord),
    schedule: json(isRecord),
    offers: text(40),
    working_strand: text(100),
    planned: count,
    hold_on_wrong: flag,
    first_touch_cm: within(0, 100_000),
    transfer_gap_s: within(0, 100_000),
    reinforcer: text(40),
    piece_g: within(0, 100_000),
    day_limit_g: within(0, 1_000_000),
    fed_where: text(400),
    polite_s: within(0, 100_000),
    ways: json((value) => Array.isArray(value) || isRecord(value)),
    conversation: json(isRecord),
    created_ms: time,
  },
  strand: {
    ladder_id: id,
    version: within(1, 1_000_000),
    position: count,
    strand_id: id,
    key: text(80),
    name: text(200),
    kind: oneOf(["number", "levels"]),
    unit: text(40),
    levels: json(textsOf(100)),
    harder: text(40),
  },
  rung: {
    ladder_id: id,
    version: within(1, 1_000_000),
    number: within(1, 1000),
    rung_values: json(isRecord),
    method: oneOf(METHODS),
    schedule: json(isRecord),
    percentile: json(isRecord),
    kept: text(400),
    least_movement: within(0, 4),
    handler_most: json(Array.isArray),
  },
  cue_phase: {
    ladder_id: id,
    version: within(1, 1_000_000),
    number: within(1, 100),
    label: text(200),
    kind: text(40),
    profile: text(40),
    dwell_s: within(0, 100_000),
    pulses_per_min: within(0, 100_000),
  },
};

/** Makes room for the plans of a package of format 1 in a store that is being filled. */
export async function makeRoom(store: Store): Promise<void> {
  await store.writer.write(async (transaction) => {
    for (const sql of Object.values(PLAN_TABLES)) await store.sequelize.query(sql, { transaction });
  });
}

/** Brings the plans forward as the migration does. */
export const bringForward = (store: Store): Promise<void> =>
  store.writer.write((transaction) => plansOfTables(store.sequelize, transaction));
