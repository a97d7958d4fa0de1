import { randomUUID as newId } from "node:crypto";
import { isDeepStrictEqual } from "node:util";
import { QueryTypes, type Transaction } from "sequelize";
import type * as z from "zod";
import { prerequisitesDocument } from "@/core/behaviour/document";
import { involvedIn, type LadderPlan, unchangedRungs } from "@/core/ladder";
import type { BehaviourInput } from "@/core/schemas";
import { INVOLVEMENTS } from "@/core/welfare";
import { involvementsDocument } from "@/core/welfare/document";
import { getHorse } from "./horses";
import { keptJson } from "./kept-json";
import type { BehaviourRow, LadderRow } from "./models";
import { readPlan, readPlans, type UnreadPlan, unreadPlan, writePlan } from "./plans";
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

/** JSON of a behaviour's column. @throws UnreadError where it is not what it should be. */
function readOrThrow<T>(text: unknown, schema: z.ZodType<T>, what: string): T {
  const value = keptJson(text, schema);
  if (value === undefined) throw new UnreadError(what);
  return value;
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

/** @throws NotFoundError where there is no such ladder or version. UnreadError where its plan cannot be read, or the present one is lost. */
export async function getLadder(store: Store, id: string, version?: number): Promise<StoredLadder> {
  const ladder = await ladderRow(store, id);
  const wanted = version ?? ladder.version;
  const behaviour = await behaviourRow(store, ladder.behaviour_id);
  try {
    return storedLadder(ladder, behaviour, wanted, await readPlan(store, id, wanted));
  } catch (error) {
    if (wanted === ladder.version && isOfCode(error, "not-found")) throw new UnreadError("its plan");
    throw error;
  }
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
  keptJson(involves, involvementsDocument) !== undefined && keptJson(prerequisites, prerequisitesDocument) !== undefined;

/** Ladders of a horse, or of the whole yard, whose plan this version cannot read, by name. They are offered nowhere; nothing of them is lost. */
export async function unreadLadders(
  store: Store,
  horseId?: string,
): Promise<{ readonly id: string; readonly horseId: string; readonly name: string }[]> {
  const rows = await rowsOf(store.models.ladder, horseId === undefined ? "1" : "horse_id = :horse", { horse: horseId ?? "" });
  const read = new Set((await withPlans(store, rows)).map(({ id }) => id));
  const lost = rows.filter(({ id }) => !read.has(id));
  const behaviours = new Map((await rowsOf(store.models.behaviour)).map(({ id, name }) => [id, name]));
  return lost.map(({ id, horse_id, behaviour_id }) => ({ id, horseId: horse_id, name: behaviours.get(behaviour_id) ?? "a ladder" }));
}

/** A ladder that this version cannot read, as far as it can be read. */
export interface BrokenLadder {
  readonly id: string;
  readonly horseId: string;
  readonly revision: number;
  /** What its form takes. What it involves is all there is where that cannot be read: a restriction may name any of it. */
  readonly behaviour: BehaviourInput;
  /** Whether what it involves, or what it rests on, could not be read. */
  readonly lost: { readonly involves: boolean; readonly prerequisites: boolean };
  /** Its plan, where that is what cannot be read. */
  readonly unread: UnreadPlan | null;
  readonly plan: LadderPlan | null;
}

/** A ladder opened for repair. @throws NotFoundError where there is no such ladder. */
export async function brokenLadder(store: Store, id: string): Promise<BrokenLadder> {
  const row = await ladderRow(store, id);
  const behaviour = await behaviourRow(store, row.behaviour_id);
  const lost = {
    involves: keptJson(behaviour.involves, involvementsDocument) === undefined,
    prerequisites: keptJson(behaviour.prerequisites, prerequisitesDocument) === undefined,
  };
  return {
    id,
    horseId: row.horse_id,
    revision: row.revision,
    behaviour: asBehaviour({
      ...behaviour,
      ...(lost.involves ? { involves: JSON.stringify(INVOLVEMENTS) } : {}),
      ...(lost.prerequisites ? { prerequisites: "[]" } : {}),
    }),
    lost,
    unread: await unreadPlan(store, id, row.version),
    plan: await presentPlan(store, row),
  };
}

/** A horse's ladders, oldest first, each with its present plan. Three questions, whatever their number. */
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
    involves: [...readOrThrow(involves, involvementsDocument, "what it involves")],
    movement: movement as BehaviourInput["movement"],
    template,
    free,
    prerequisites: [...readOrThrow(prerequisites, prerequisitesDocument, "what it rests on")],
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
  return involvedIn(readOrThrow(ladder.behaviour.involves, involvementsDocument, "what it involves"), ladder.plan, ladder.behaviour.free);
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
    await writePlan(store, { ladder: id, version: 1 }, plan, transaction);
  });
  return id;
}

/** A chain's link stays on what it asked for: its rung may have another number now, or be gone. */
async function moveChainLinks(store: Store, ladderId: string, moved: ReadonlyMap<number, number>, rungs: number, transaction: Transaction) {
  const { chainLink } = store.models;
  const links = (await chainLink.findAll({ where: { ladder_id: ladderId }, transaction })).map(plain);
  for (const { chain_id, position, rung } of links) {
    const next = moved.get(rung) ?? Math.min(rung, rungs);
    if (next !== rung) await chainLink.update({ rung: next }, { where: { chain_id, position }, transaction });
  }
}

/** The plan a ladder has now; null where this version cannot read it. */
async function presentPlan(store: Store, { id, version }: LadderRow): Promise<LadderPlan | null> {
  const [read] = await readPlans(store, { versions: [{ ladder: id, version }] });
  return read?.plan ?? null;
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
    const present = await presentPlan(store, ladder);
    const changed = present === null || !isDeepStrictEqual(present, withoutUndefined({ ...present, ...plan }));
    // A plan that cannot be read stays as it is: what mends it is the next version.
    const version = (worked || present === null) && changed ? ladder.version + 1 : ladder.version;
    await store.models.behaviour.update(behaviourColumns(behaviour), { where: { id: ladder.behaviour_id }, transaction });
    if (changed) {
      await writePlan(store, { ladder: id, version }, plan, transaction);
      await moveChainLinks(store, id, present === null ? new Map() : unchangedRungs(present, plan), plan.rungs.length, transaction);
    }
    await store.models.ladder.update({ version, revision: ladder.revision + 1 }, { where: { id }, transaction });
    return version;
  });
}
