import { isDeepStrictEqual } from "node:util";
import type { Transaction } from "sequelize";
import { v4 as newId } from "uuid";
import type { CuePhase } from "@/core/cues";
import {
  type LadderPlan,
  type Method,
  type OfferRule,
  type Reinforcer,
  type Rung,
  type Schedule,
  unchangedRungs,
  wayOf,
} from "@/core/ladder";
import type { MasteryRule } from "@/core/mastery";
import type { BehaviourInput } from "@/core/schemas";
import type { Strand, StrandValue } from "@/core/strands";
import { getHorse } from "./horses";
import type { BehaviourRow, LadderRow, LadderVersionRow, RungRow } from "./models";
import { ConflictError, NotFoundError, plain } from "./rows";
import type { Store } from "./store";

/** A ladder with one version of its plan. */
export interface StoredLadder {
  readonly id: string;
  readonly horseId: string;
  readonly behaviour: BehaviourRow;
  readonly version: number;
  /** The version now in use; differs from `version` where an older one was asked for. */
  readonly presentVersion: number;
  /** Counts every edit, also those that make no new version. */
  readonly revision: number;
  readonly sample: boolean;
  /** Whether it is put away: kept with its evidence, and offered nowhere. */
  readonly away: boolean;
  readonly plan: LadderPlan;
}

/** What a store would give back: keys that hold nothing are not there. */
const withoutUndefined = (plan: LadderPlan) => JSON.parse(JSON.stringify(plan)) as LadderPlan;

const jsonOrNull = (value: object | undefined) => (value === undefined ? null : JSON.stringify(value));

/** A rung as it was written: what was left out stays left out. */
const asRung = (row: RungRow): Rung => ({
  values: JSON.parse(row.rung_values) as Record<string, StrandValue>,
  ...(row.method === null ? {} : { method: row.method as Method }),
  ...(row.schedule === null ? {} : { schedule: JSON.parse(row.schedule) as Schedule }),
  ...(row.percentile === null ? {} : { percentile: JSON.parse(row.percentile) as Rung["percentile"] }),
  ...(row.kept === null ? {} : { kept: row.kept }),
});

async function writeVersion(store: Store, ladderId: string, version: number, plan: LadderPlan, transaction: Transaction): Promise<void> {
  const { ladderVersion, strand, rung, cuePhase } = store.models;
  const key = { ladder_id: ladderId, version };
  for (const model of [strand, rung, cuePhase]) await (model as typeof strand).destroy({ where: key, transaction });
  await ladderVersion.upsert(
    {
      ...key,
      method: plan.method,
      maximum_s: plan.maximumSeconds,
      mastery: JSON.stringify(plan.mastery),
      schedule: JSON.stringify(plan.schedule),
      offers: plan.offers,
      working_strand: plan.workingStrandId,
      planned: plan.plannedRepetitions,
      hold_on_wrong: plan.holdOnWrong,
      first_touch_cm: plan.firstTouchCentimetres,
      transfer_gap_s: plan.transfer?.gapSeconds ?? null,
      reinforcer: plan.feeding.reinforcer,
      piece_g: plan.feeding.pieceGrams,
      day_limit_g: plan.feeding.dayLimitGrams,
      fed_where: plan.feeding.where,
      polite_s: plan.feeding.politeSeconds,
      ways: JSON.stringify(plan.ways),
      created_ms: store.now(),
    },
    { transaction },
  );
  await strand.bulkCreate(
    plan.strands.map((s, position) => ({
      ...key,
      position,
      strand_id: s.id,
      key: s.key,
      name: s.name,
      kind: s.kind,
      unit: s.unit,
      levels: JSON.stringify(s.levels),
      harder: s.harder,
    })),
    { transaction },
  );
  await rung.bulkCreate(
    plan.rungs.map((r, i) => ({
      ...key,
      number: i + 1,
      rung_values: JSON.stringify(r.values),
      method: r.method ?? null,
      schedule: jsonOrNull(r.schedule),
      percentile: jsonOrNull(r.percentile),
      kept: r.kept ?? null,
    })),
    { transaction },
  );
  await cuePhase.bulkCreate(
    plan.phases.map((p, i) => ({
      ...key,
      number: i + 1,
      label: p.label,
      kind: p.kind,
      profile: p.profile,
      dwell_s: p.dwellSeconds,
      pulses_per_min: p.pulsesPerMinute,
    })),
    { transaction },
  );
}

async function readPlan(store: Store, ladderId: string, version: number): Promise<LadderPlan> {
  const { ladderVersion, strand, rung, cuePhase } = store.models;
  const where = { ladder_id: ladderId, version };
  const head = await ladderVersion.findOne({ where });
  if (head === null) throw new NotFoundError("The ladder has no such version.");
  const row: LadderVersionRow = plain(head);
  const [strands, rungs, phases] = await Promise.all([
    strand.findAll({ where, order: [["position", "ASC"]] }),
    rung.findAll({ where, order: [["number", "ASC"]] }),
    cuePhase.findAll({ where, order: [["number", "ASC"]] }),
  ]);
  return {
    method: row.method as Method,
    maximumSeconds: row.maximum_s,
    mastery: JSON.parse(row.mastery) as MasteryRule,
    schedule: JSON.parse(row.schedule) as Schedule,
    offers: row.offers as OfferRule,
    workingStrandId: row.working_strand,
    plannedRepetitions: row.planned,
    holdOnWrong: row.hold_on_wrong,
    firstTouchCentimetres: row.first_touch_cm,
    transfer: row.transfer_gap_s === null ? null : { gapSeconds: row.transfer_gap_s },
    feeding: {
      reinforcer: row.reinforcer as Reinforcer,
      pieceGrams: row.piece_g,
      dayLimitGrams: row.day_limit_g,
      where: row.fed_where,
      politeSeconds: row.polite_s,
    },
    ways: JSON.parse(row.ways) as LadderPlan["ways"],
    strands: strands.map(plain).map(
      (s) =>
        ({
          id: s.strand_id,
          key: s.key,
          name: s.name,
          kind: s.kind,
          unit: s.unit,
          levels: JSON.parse(s.levels),
          harder: s.harder,
        }) as Strand,
    ),
    rungs: rungs.map(plain).map(asRung),
    phases: phases
      .map(plain)
      .map(
        (p) =>
          ({ label: p.label, kind: p.kind, profile: p.profile, dwellSeconds: p.dwell_s, pulsesPerMinute: p.pulses_per_min }) as CuePhase,
      ),
  };
}

async function ladderRow(store: Store, id: string): Promise<LadderRow> {
  const row = await store.models.ladder.findByPk(id);
  if (row === null) throw new NotFoundError("There is no such ladder.");
  return plain(row);
}

async function behaviourRow(store: Store, id: string): Promise<BehaviourRow> {
  const row = await store.models.behaviour.findByPk(id);
  if (row === null) throw new NotFoundError("There is no such behaviour.");
  return plain(row);
}

/** @throws NotFoundError where there is no such ladder or version. */
export async function getLadder(store: Store, id: string, version?: number): Promise<StoredLadder> {
  const ladder = await ladderRow(store, id);
  const wanted = version ?? ladder.version;
  return {
    id,
    horseId: ladder.horse_id,
    behaviour: await behaviourRow(store, ladder.behaviour_id),
    version: wanted,
    presentVersion: ladder.version,
    revision: ladder.revision,
    sample: ladder.sample,
    away: ladder.away_ms != null,
    plan: await readPlan(store, id, wanted),
  };
}

/** A horse's ladders, oldest first, each with its present plan. */
export async function listLadders(store: Store, horseId: string): Promise<StoredLadder[]> {
  const rows = (await store.models.ladder.findAll({ where: { horse_id: horseId }, order: [["created_ms", "ASC"]] })).map(plain);
  return Promise.all(rows.map((row) => getLadder(store, row.id)));
}

/** Puts a ladder away, or takes it up again. @throws NotFoundError where there is no such ladder. */
export async function setLadderAway(store: Store, id: string, away: boolean): Promise<void> {
  await ladderRow(store, id);
  const away_ms = away ? store.now() : null;
  await store.writer.write((transaction) => store.models.ladder.update({ away_ms }, { where: { id }, transaction }));
}

const behaviourColumns = ({ name, finished, cue, why, involves, movement, template, free, prerequisites }: BehaviourInput) => ({
  name,
  finished,
  cue,
  why,
  movement,
  template,
  free,
  involves: JSON.stringify(involves ?? []),
  prerequisites: JSON.stringify(prerequisites ?? []),
});

/** A behaviour as its form takes it. */
export function asBehaviour({ name, finished, cue, why, involves, movement, template, free, prerequisites }: BehaviourRow): BehaviourInput {
  return {
    name,
    finished,
    cue,
    why,
    involves: JSON.parse(involves) as BehaviourInput["involves"],
    movement: movement as BehaviourInput["movement"],
    template,
    free,
    prerequisites: JSON.parse(prerequisites) as BehaviourInput["prerequisites"],
  };
}

/** A version of a ladder with when it was made. */
export interface LadderVersion {
  readonly version: number;
  readonly createdMs: number;
  readonly plan: LadderPlan;
}

/** Every version of a ladder, oldest first. */
export async function listVersions(store: Store, ladderId: string): Promise<LadderVersion[]> {
  const rows = (await store.models.ladderVersion.findAll({ where: { ladder_id: ladderId }, order: [["version", "ASC"]] })).map(plain);
  return Promise.all(
    rows.map(async ({ version, created_ms }) => ({ version, createdMs: created_ms, plan: await readPlan(store, ladderId, version) })),
  );
}

/** For each earlier version of a ladder, its rungs that stand unchanged in the present one: old number → present number. */
export async function carriedRungs(store: Store, ladderId: string): Promise<Map<number, Map<number, number>>> {
  const versions = await listVersions(store, ladderId);
  const present = versions.at(-1);
  return new Map(
    present === undefined ? [] : versions.slice(0, -1).map(({ version, plan }) => [version, unchangedRungs(plan, present.plan)]),
  );
}

/** What a ladder's work involves that a restriction may name: what its behaviour says, and what its strands say by themselves. */
export function involvesOf(ladder: StoredLadder): string[] {
  const said = JSON.parse(ladder.behaviour.involves) as string[];
  const keys = ladder.plan.strands.map((strand) => strand.key);
  const circles = keys.includes("circle") || (ladder.behaviour.free && wayOf(ladder.plan.ways, "turning-in").value === "circle");
  return [...new Set([...said, ...(circles ? ["circling"] : []), ...(keys.includes("load") ? ["load"] : [])])];
}

/** Adds a behaviour and a ladder for it. @throws NotFoundError where there is no such horse. */
export async function addLadder(
  store: Store,
  horseId: string,
  behaviour: BehaviourInput,
  plan: LadderPlan,
  options: { id?: string; behaviourId?: string; sample?: boolean; check?: () => Promise<void> } = {},
): Promise<string> {
  const id = options.id ?? newId();
  const behaviourId = options.behaviourId ?? newId();
  const sample = options.sample ?? false;
  await store.writer.write(async (transaction) => {
    await getHorse(store, horseId);
    await options.check?.();
    await store.models.behaviour.create({ id: behaviourId, ...behaviourColumns(behaviour), sample }, { transaction });
    await store.models.ladder.create(
      { id, horse_id: horseId, behaviour_id: behaviourId, version: 1, revision: 1, sample, created_ms: store.now() },
      { transaction },
    );
    await writeVersion(store, id, 1, plan, transaction);
  });
  return id;
}

/** A chain's link stays on what it asked for: its rung may have another number now, or be gone. */
async function moveChainLinks(store: Store, ladderId: string, before: LadderPlan, after: LadderPlan, transaction: Transaction) {
  const { chainLink } = store.models;
  const moved = unchangedRungs(before, after);
  const links = (await chainLink.findAll({ where: { ladder_id: ladderId }, transaction })).map(plain);
  for (const { chain_id, position, rung } of links) {
    const next = moved.get(rung) ?? Math.min(rung, after.rungs.length);
    if (next !== rung) await chainLink.update({ rung: next }, { where: { chain_id, position }, transaction });
  }
}

/** Whether any block was worked on a version, also in a session that began on another ladder. */
async function blockWasWorked(store: Store, id: string, version: number, transaction: Transaction): Promise<boolean> {
  const [rows] = (await store.sequelize.query(
    `SELECT 1 FROM event WHERE type = 'block.start' AND json_extract(payload, '$.ladder') = :id
     AND json_extract(payload, '$.version') = :version LIMIT 1`,
    { replacements: { id, version }, transaction },
  )) as [unknown[], unknown];
  return rows.length > 0;
}

/** Thrown where a ladder was changed since the edit began: nothing is saved, and both are there to choose from. */
export class LadderConflictError extends ConflictError {
  constructor(readonly present: StoredLadder) {
    super("This ladder was changed in another window since you opened it.");
  }
}

/** How a change of a ladder is made. */
export interface LadderChange {
  /** Where taps on the present version may still be on their way, a change always makes a new one. */
  readonly newVersion?: boolean;
  /** The revision the edit began on; where the ladder has moved on, it is a conflict. */
  readonly revision?: number;
  /** What must hold of the whole yard; it throws where it does not. Asked inside the one writer, so that no other save comes between. */
  readonly check?: () => Promise<void>;
}

/**
 * Changes a ladder: read, checked and written inside the one writer. Where a
 * session was worked on its present version the change makes a new one, and
 * old trials keep pointing at theirs.
 * @returns the version that now holds the plan.
 * @throws LadderConflictError where it was changed since `revision`.
 */
export async function updateLadder(
  store: Store,
  id: string,
  behaviour: BehaviourInput,
  plan: LadderPlan,
  options: LadderChange = {},
): Promise<number> {
  return store.writer.write(async (transaction) => {
    const ladder = await ladderRow(store, id);
    if (options.revision !== undefined && options.revision !== ladder.revision) throw new LadderConflictError(await getLadder(store, id));
    await options.check?.();
    const begun = await store.models.session.count({ where: { ladder_id: id, ladder_version: ladder.version }, transaction });
    const worked = options.newVersion || begun > 0 || (await blockWasWorked(store, id, ladder.version, transaction));
    const present = await readPlan(store, id, ladder.version);
    const changed = !isDeepStrictEqual(present, withoutUndefined({ ...present, ...plan }));
    const version = worked && changed ? ladder.version + 1 : ladder.version;
    await store.models.behaviour.update(behaviourColumns(behaviour), { where: { id: ladder.behaviour_id }, transaction });
    if (changed) {
      await writeVersion(store, id, version, plan, transaction);
      await moveChainLinks(store, id, present, plan, transaction);
    }
    await store.models.ladder.update({ version, revision: ladder.revision + 1 }, { where: { id }, transaction });
    return version;
  });
}
