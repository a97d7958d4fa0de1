import { isDeepStrictEqual } from "node:util";
import { type Model, type ModelStatic, QueryTypes, type Transaction } from "sequelize";
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
import { isList, isRecord, isTexts, keptJson } from "./kept-json";
import type { BehaviourRow, CuePhaseRow, LadderRow, LadderVersionRow, RungRow, StrandRow } from "./models";
import { ConflictError, isOfCode, NotFoundError, plain, rowsOf, UnreadError } from "./rows";
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

/** JSON of a plan's column. @throws UnreadError where it is not what it should be. */
function planJson<T>(text: unknown, is: (value: unknown) => boolean, what: string): T {
  const value = keptJson<T>(text, is);
  if (value === undefined) throw new UnreadError(what);
  return value;
}

const jsonOrNull = (value: object | undefined) => (value === undefined ? null : JSON.stringify(value));

/** A rung as it was written: what was left out stays left out. */
const asRung = (row: RungRow): Rung => ({
  values: planJson<Record<string, StrandValue>>(row.rung_values, isRecord, "a rung"),
  ...(row.method === null ? {} : { method: row.method as Method }),
  ...(row.schedule === null ? {} : { schedule: planJson<Schedule>(row.schedule, isRecord, "a rung's reinforcement") }),
  ...(row.percentile === null ? {} : { percentile: planJson<Rung["percentile"]>(row.percentile, isRecord, "a rung") }),
  ...(row.kept === null ? {} : { kept: row.kept }),
  ...(row.least_movement === null ? {} : { leastMovement: row.least_movement }),
  ...(row.handler_most === null ? {} : { handlerMost: planJson<Rung["handlerMost"]>(row.handler_most, isList, "a rung") }),
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
      conversation: jsonOrNull(plan.conversation),
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
      least_movement: r.leastMovement ?? null,
      handler_most: jsonOrNull(r.handlerMost),
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

/** One version of a ladder, as it is asked for. */
interface VersionKey {
  readonly ladder: string;
  readonly version: number;
}

interface ReadVersion extends VersionKey {
  readonly createdMs: number;
  readonly plan: LadderPlan;
}

const byVersion = <Row extends { ladder_id: string; version: number }>(rows: readonly Row[]) => {
  const found = new Map<string, Row[]>();
  for (const row of rows) {
    const key = `${row.version} ${row.ladder_id}`;
    const list = found.get(key);
    if (list === undefined) found.set(key, [row]);
    else list.push(row);
  }
  return ({ ladder, version }: VersionKey) => found.get(`${version} ${ladder}`) ?? [];
};

/** The plans of these versions, or of every version of these ladders: four questions, whatever their number. */
async function readPlans(store: Store, wanted: { readonly versions: readonly VersionKey[] } | { readonly ladders: readonly string[] }) {
  const { ladderVersion, strand, rung, cuePhase } = store.models;
  const keys =
    "ladders" in wanted ? wanted.ladders.map((ladder) => [ladder]) : wanted.versions.map(({ ladder, version }) => [ladder, version]);
  // A row's own table is read through the list of what is asked for, by its key.
  const of = `ladder_id IN (SELECT value->>0 FROM json_each(:keys))${
    "ladders" in wanted ? "" : " AND (ladder_id, version) IN (SELECT value->>0, value->>1 FROM json_each(:keys))"
  }`;
  const rows = <Row extends object>(table: ModelStatic<Model<Row, Partial<Row>>>, by: string) =>
    rowsOf(table, `${of} ORDER BY ${by}`, { keys: JSON.stringify(keys) });
  const [heads, strands, rungs, phases] = await Promise.all([
    rows<LadderVersionRow>(ladderVersion, "version"),
    rows<StrandRow>(strand, "position"),
    rows<RungRow>(rung, "number"),
    rows<CuePhaseRow>(cuePhase, "number"),
  ]);
  const strandsOf = byVersion(strands);
  const rungsOf = byVersion(rungs);
  const phasesOf = byVersion(phases);
  return heads.flatMap((head): ReadVersion[] => {
    const key = { ladder: head.ladder_id, version: head.version };
    try {
      return [{ ...key, createdMs: head.created_ms, plan: asPlan(head, strandsOf(key), rungsOf(key), phasesOf(key)) }];
    } catch (error) {
      // One plan that cannot be read keeps nobody from the others.
      if (!isOfCode(error, "unread")) throw error;
      return [];
    }
  });
}

/** The plans of these versions of ladders, also of ladders in the bin; those that are gone or cannot be read are left out. */
export const plansOf = (store: Store, versions: readonly VersionKey[]): Promise<ReadVersion[]> =>
  versions.length === 0 ? Promise.resolve([]) : readPlans(store, { versions });

async function readPlan(store: Store, ladder: string, version: number): Promise<LadderPlan> {
  const [found] = await readPlans(store, { versions: [{ ladder, version }] });
  if (found !== undefined) return found.plan;
  if ((await store.models.ladderVersion.count({ where: { ladder_id: ladder, version } })) > 0) throw new UnreadError("its plan");
  throw new NotFoundError("The ladder has no such version.");
}

function asPlan(
  row: LadderVersionRow,
  strands: readonly StrandRow[],
  rungs: readonly RungRow[],
  phases: readonly CuePhaseRow[],
): LadderPlan {
  return {
    method: row.method as Method,
    maximumSeconds: row.maximum_s,
    mastery: planJson<MasteryRule>(row.mastery, isRecord, "its rule"),
    schedule: planJson<Schedule>(row.schedule, isRecord, "its reinforcement"),
    offers: row.offers as OfferRule,
    workingStrandId: row.working_strand,
    plannedRepetitions: row.planned,
    holdOnWrong: Boolean(row.hold_on_wrong),
    firstTouchCentimetres: row.first_touch_cm,
    transfer: row.transfer_gap_s === null ? null : { gapSeconds: row.transfer_gap_s },
    feeding: {
      reinforcer: row.reinforcer as Reinforcer,
      pieceGrams: row.piece_g,
      dayLimitGrams: row.day_limit_g,
      where: row.fed_where,
      politeSeconds: row.polite_s,
    },
    ways: planJson<LadderPlan["ways"]>(row.ways, isRecord, "its ways"),
    ...(row.conversation === null
      ? {}
      : { conversation: planJson<LadderPlan["conversation"]>(row.conversation, isRecord, "what is logged between asks") }),
    strands: strands.map(
      (s) =>
        ({
          id: s.strand_id,
          key: s.key,
          name: s.name,
          kind: s.kind,
          unit: s.unit,
          levels: planJson<string[]>(s.levels, isTexts, "a strand"),
          harder: s.harder,
        }) as Strand,
    ),
    rungs: rungs.map(asRung),
    phases: phases.map(
      (p) => ({ label: p.label, kind: p.kind, profile: p.profile, dwellSeconds: p.dwell_s, pulsesPerMinute: p.pulses_per_min }) as CuePhase,
    ),
  };
}

async function ladderRow(store: Store, id: string): Promise<LadderRow> {
  const [row] = await rowsOf(store.models.ladder, "id = :id", { id });
  if (row === undefined) throw new NotFoundError("There is no such ladder.");
  return row;
}

async function behaviourRow(store: Store, id: string): Promise<BehaviourRow> {
  const [row] = await rowsOf(store.models.behaviour, "id = :id", { id });
  if (row === undefined) throw new NotFoundError("There is no such behaviour.");
  return row;
}

const storedLadder = (ladder: LadderRow, behaviour: BehaviourRow, version: number, plan: LadderPlan): StoredLadder => ({
  id: ladder.id,
  horseId: ladder.horse_id,
  behaviour,
  version,
  presentVersion: ladder.version,
  revision: ladder.revision,
  sample: ladder.sample,
  away: ladder.away_ms != null,
  plan,
});

/** @throws NotFoundError where there is no such ladder or version. */
export async function getLadder(store: Store, id: string, version?: number): Promise<StoredLadder> {
  const ladder = await ladderRow(store, id);
  const wanted = version ?? ladder.version;
  return storedLadder(ladder, await behaviourRow(store, ladder.behaviour_id), wanted, await readPlan(store, id, wanted));
}

async function withPlans(store: Store, rows: readonly LadderRow[]): Promise<StoredLadder[]> {
  if (rows.length === 0) return [];
  const behaviours = await rowsOf(store.models.behaviour, "id IN (:ids)", { ids: rows.map(({ behaviour_id }) => behaviour_id) });
  const plans = await readPlans(store, { versions: rows.map(({ id, version }) => ({ ladder: id, version })) });
  return rows.flatMap((row) => {
    const behaviour = behaviours.find(({ id }) => id === row.behaviour_id);
    const read = plans.find(({ ladder }) => ladder === row.id);
    // Named by unreadLadders; what it involves is not known, so it is offered nowhere.
    if (behaviour === undefined || read === undefined || !behaviourIsRead(behaviour)) return [];
    return [storedLadder(row, behaviour, row.version, read.plan)];
  });
}

const behaviourIsRead = ({ involves, prerequisites }: BehaviourRow): boolean =>
  keptJson(involves, isTexts) !== undefined && keptJson(prerequisites, isList) !== undefined;

/** Ladders of a horse, or of the whole yard, whose plan this version cannot read, by name. They are offered nowhere; nothing of them is lost. */
export async function unreadLadders(store: Store, horseId?: string): Promise<{ readonly horseId: string; readonly name: string }[]> {
  const rows = await rowsOf(store.models.ladder, horseId === undefined ? "1" : "horse_id = :horse", { horse: horseId ?? "" });
  const read = new Set((await withPlans(store, rows)).map(({ id }) => id));
  const lost = rows.filter(({ id }) => !read.has(id));
  const behaviours = new Map((await rowsOf(store.models.behaviour)).map(({ id, name }) => [id, name]));
  return lost.map(({ horse_id, behaviour_id }) => ({ horseId: horse_id, name: behaviours.get(behaviour_id) ?? "a ladder" }));
}

/** A horse's ladders, oldest first, each with its present plan. Six questions, whatever their number. */
export async function listLadders(store: Store, horseId: string): Promise<StoredLadder[]> {
  return withPlans(store, await rowsOf(store.models.ladder, "horse_id = :horse ORDER BY created_ms", { horse: horseId }));
}

/** A ladder without its plan. */
export interface LadderHead {
  readonly id: string;
  readonly horseId: string;
}

/** Every ladder of the yard that is not put away, oldest first, without its plan. */
export const ladderHeads = (store: Store): Promise<LadderHead[]> =>
  store.sequelize.query<LadderHead>(
    "SELECT id, horse_id AS horseId FROM ladder WHERE away_ms IS NULL AND binned_ms IS NULL ORDER BY created_ms",
    {
      type: QueryTypes.SELECT,
    },
  );

/** These ladders with their present plans. */
export async function laddersWithPlans(store: Store, ids: readonly string[]): Promise<StoredLadder[]> {
  if (ids.length === 0) return [];
  return withPlans(store, await rowsOf(store.models.ladder, "id IN (:ids) ORDER BY created_ms", { ids }));
}

/** The names of every ladder of the yard, by horse, oldest first: what the command box goes to. */
export async function ladderNames(store: Store): Promise<{ readonly id: string; readonly horseId: string; readonly name: string }[]> {
  return store.sequelize.query<{ id: string; horseId: string; name: string }>(
    `SELECT l.id, l.horse_id AS horseId, b.name FROM ladder l JOIN behaviour b ON b.id = l.behaviour_id
     WHERE l.binned_ms IS NULL ORDER BY l.created_ms`,
    { type: QueryTypes.SELECT },
  );
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
    involves: planJson<BehaviourInput["involves"]>(involves, isTexts, "what it involves"),
    movement: movement as BehaviourInput["movement"],
    template,
    free,
    prerequisites: planJson<BehaviourInput["prerequisites"]>(prerequisites, isList, "what it rests on"),
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
  return (await readPlans(store, { ladders: [ladderId] })).map(({ version, createdMs, plan }) => ({ version, createdMs, plan }));
}

/** For each earlier version of these ladders, its rungs that stand unchanged in the present one: old number → present number. */
export async function carriedRungsOf(
  store: Store,
  ladders: readonly Pick<StoredLadder, "id" | "presentVersion">[],
): Promise<ReadonlyMap<string, ReadonlyMap<number, Map<number, number>>>> {
  // A ladder in its first version carries nothing over: its plan need not be read for that.
  const changed = ladders.filter(({ presentVersion }) => presentVersion > 1).map(({ id }) => id);
  const read = changed.length === 0 ? [] : await readPlans(store, { ladders: changed });
  return new Map(
    ladders.map(({ id }) => {
      const versions = read.filter(({ ladder }) => ladder === id);
      const present = versions.at(-1);
      return [
        id,
        new Map(
          present === undefined ? [] : versions.slice(0, -1).map(({ version, plan }) => [version, unchangedRungs(plan, present.plan)]),
        ),
      ];
    }),
  );
}

/** The same of one ladder. */
export async function carriedRungs(store: Store, ladder: Pick<StoredLadder, "id" | "presentVersion">) {
  return (await carriedRungsOf(store, [ladder])).get(ladder.id) ?? new Map<number, Map<number, number>>();
}

/** What a ladder's work involves that a restriction may name: what its behaviour says, and what its strands say by themselves. */
export function involvesOf(ladder: StoredLadder): string[] {
  const said = planJson<string[]>(ladder.behaviour.involves, isTexts, "what it involves");
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
async function blockWasWorked(store: Store, { id, horse_id, version }: LadderRow, transaction: Transaction): Promise<boolean> {
  const [kept] = await store.sequelize.query<{ n: number }>(
    "SELECT COUNT(*) AS n FROM cache_key k CROSS JOIN block b ON b.ladder_no = k.no AND b.version = :version WHERE k.id = :id",
    { replacements: { id, version }, type: QueryTypes.SELECT, transaction },
  );
  if ((kept?.n ?? 0) > 0) return true;
  // What was tapped a moment ago stands in the events alone.
  const [fresh] = await store.sequelize.query<{ n: number }>(
    `SELECT COUNT(*) AS n FROM stale t CROSS JOIN session s ON s.no = t.session_no AND s.horse_id = :horse
     CROSS JOIN event e ON e.session_no = s.no WHERE e.type = 'block.start'
     AND json_extract(e.payload, '$.ladder') = :id AND json_extract(e.payload, '$.version') = :version`,
    { replacements: { id, version, horse: horse_id }, type: QueryTypes.SELECT, transaction },
  );
  return (fresh?.n ?? 0) > 0;
}

/** Thrown where a ladder was changed since the edit began: nothing is saved, and both are there to choose from. */
export class LadderConflictError extends ConflictError {
  override readonly code = "ladder-conflict";
  constructor(readonly present: StoredLadder) {
    super("This ladder was changed in another window since you opened it.");
  }
}

export const isLadderConflict = (error: unknown): error is LadderConflictError => isOfCode(error, "ladder-conflict");

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
    const worked = options.newVersion || begun > 0 || (await blockWasWorked(store, ladder, transaction));
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
