import { Op, QueryTypes, type Transaction } from "sequelize";
import type { StruckNote } from "@/core/record";
import { BIN_DAYS, BIN_KINDS, type BinKind, type GoesWith } from "@/core/schemas";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { dropKept, markStale, openedOrNull, overlay, readKept } from "./caches";
import { packId } from "./ids";
import type { Binnable } from "./models";
import { ConflictError, NotFoundError, plain } from "./rows";
import type { Store, StoreParts } from "./store";

/** One thing in the bin. A note is struck from its session, and lies here for as long. */
export interface Binned {
  readonly kind: BinKind | "note";
  readonly id: string;
  readonly name: string;
  /** Whose it is or where it was, where that says more than the name. */
  readonly of: string;
  readonly binnedMs: number;
  readonly goneMs: number;
  readonly with: GoesWith;
}

type Table = Store["models"]["kit"];
type AnyRow = Binnable & Record<string, unknown> & { readonly id: string };
const tableOf = ({ models }: StoreParts, kind: BinKind) => models[kind] as unknown as Table;

const NOTHING: GoesWith = { ladders: 0, chains: 0, sessions: 0, restrictions: 0, sessionsStay: 0 };

/** What goes with something into the bin. */
export async function goesWith(store: Store, kind: BinKind, id: string): Promise<GoesWith> {
  const { models, sequelize } = store;
  const count = async (sql: string) =>
    Number((await sequelize.query<{ n: number }>(sql, { replacements: { id }, type: QueryTypes.SELECT }))[0]?.n ?? 0);
  const of = { horse_id: id };
  // A thing in the bin is asked about too: what went with it is what would.
  const alike = { [Op.or]: [{ binned_ms: null }, { binned_with: id }] };
  switch (kind) {
    case "horse":
      return {
        ...NOTHING,
        ladders: await models.ladder.unscoped().count({ where: { ...of, ...alike } }),
        chains: await models.chain.unscoped().count({ where: { ...of, ...alike } }),
        sessions: await count(
          "SELECT COUNT(*) AS n FROM session s WHERE s.horse_id = :id AND (s.binned_ms IS NULL OR s.binned_with = :id) AND EXISTS (SELECT 1 FROM event e WHERE e.session_no = s.no)",
        ),
        restrictions: await models.restriction.count({ where: of }),
      };
    case "ladder":
      return {
        ...NOTHING,
        chains: await count(
          "SELECT COUNT(DISTINCT c.id) AS n FROM chain c JOIN chain_link l ON l.chain_id = c.id WHERE l.ladder_id = :id AND (c.binned_ms IS NULL OR c.binned_with = :id)",
        ),
        sessionsStay: await count(
          "SELECT COUNT(DISTINCT b.session_no) AS n FROM block b WHERE b.ladder_no = (SELECT no FROM cache_key WHERE id = :id)",
        ),
      };
    case "person":
      return { ...NOTHING, sessionsStay: await count("SELECT COUNT(*) AS n FROM session WHERE person_id = :id AND binned_ms IS NULL") };
    case "place":
      return { ...NOTHING, sessionsStay: await count("SELECT COUNT(*) AS n FROM session WHERE place_id = :id AND binned_ms IS NULL") };
    case "kit":
      return {
        ...NOTHING,
        sessionsStay: await count(
          "SELECT COUNT(*) AS n FROM session s WHERE s.binned_ms IS NULL AND EXISTS (SELECT 1 FROM json_each(s.kit) WHERE value = :id)",
        ),
      };
    default:
      return NOTHING;
  }
}

/** The sums of sessions in the bin count nowhere; they are worked out anew when a session comes back. */
async function dropCaches(store: StoreParts, transaction: Transaction): Promise<void> {
  const rows = await store.sequelize.query<{ no: number }>("SELECT no FROM session WHERE binned_ms IS NOT NULL", {
    type: QueryTypes.SELECT,
    transaction,
  });
  await dropKept(
    store,
    rows.map(({ no }) => no),
    transaction,
  );
}

/** Puts something in the bin with what goes with it. @throws NotFoundError where there is no such thing, or it lies there already. */
export async function putInBin(store: Store, kind: BinKind, id: string): Promise<void> {
  await store.writer.write(async (transaction) => {
    if ((await tableOf(store, kind).count({ where: { id }, transaction })) === 0) throw new NotFoundError(`There is no such ${kind}.`);
    const binned_ms = store.now();
    await tableOf(store, kind).update({ binned_ms, binned_with: null }, { where: { id }, transaction });
    const along = { binned_ms, binned_with: id };
    // Whoever comes out of the bin signs in anew.
    if (kind === "person")
      await store.sequelize.query("UPDATE sign_in SET ended_ms = :at WHERE person_id = :id AND ended_ms IS NULL", {
        replacements: { at: binned_ms, id },
        transaction,
      });
    if (kind === "horse")
      for (const table of ["ladder", "chain", "session"] as const)
        await (store.models[table] as Store["models"]["chain"]).update(along, { where: { horse_id: id }, transaction });
    if (kind === "ladder") {
      const links = (await store.models.chainLink.findAll({ where: { ladder_id: id }, transaction })).map(plain);
      await store.models.chain.update(along, { where: { id: links.map(({ chain_id }) => chain_id) }, transaction });
    }
    await dropCaches(store, transaction);
  });
}

/** What something in the bin hangs on: it cannot come back before that does. */
async function hangsOn({ models }: Store, kind: BinKind, row: Record<string, unknown>, transaction: Transaction): Promise<string | null> {
  const horse = typeof row.horse_id === "string" ? await models.horse.unscoped().findByPk(row.horse_id, { transaction }) : null;
  if (horse !== null && horse.get("binned_ms") !== null)
    return `${String(horse.get("name"))} is in the bin too. Bring the horse back first.`;
  if (kind !== "chain") return null;
  const links = (await models.chainLink.findAll({ where: { chain_id: String(row.id) }, transaction })).map(plain);
  const gone = await models.ladder
    .unscoped()
    .count({ where: { id: links.map(({ ladder_id }) => ladder_id), binned_ms: { [Op.not]: null } }, transaction });
  return gone > 0 ? "A ladder of this chain is in the bin too. Bring that back first." : null;
}

/**
 * Brings something back from the bin, with what went with it.
 * @throws NotFoundError where it is not there, ConflictError where what it belongs to is still in it.
 */
export async function bringBack(store: Store, kind: BinKind, id: string): Promise<void> {
  await store.writer.write(async (transaction) => {
    const row = await tableOf(store, kind)
      .unscoped()
      .findOne({ where: { id, binned_ms: { [Op.not]: null } }, transaction });
    if (row === null) throw new NotFoundError(`There is no such ${kind} in the bin. After ${BIN_DAYS} days it is gone.`);
    const oldest = store.now() - BIN_DAYS * MILLISECONDS_PER_DAY;
    if (Math.max(Number(row.get("binned_ms")), (await lastTapsInBin(store, transaction)).get(id) ?? 0) <= oldest)
      throw new NotFoundError(`It lay in the bin for more than ${BIN_DAYS} days and is gone.`);
    const why = await hangsOn(store, kind, plain(row) as unknown as Record<string, unknown>, transaction);
    if (why !== null) throw new ConflictError(why);
    const back = { binned_ms: null, binned_with: null };
    const nos = (await store.models.session.unscoped().findAll({ where: { [Op.or]: [{ id }, { binned_with: id }] }, transaction })).map(
      (one) => plain(one).no,
    );
    await markStale(store, nos, transaction);
    await tableOf(store, kind).unscoped().update(back, { where: { id }, transaction });
    for (const one of ["ladder", "chain", "session"] as const)
      await tableOf(store, one)
        .unscoped()
        .update(back, { where: { binned_with: id } as never, transaction });
  });
}

interface StruckNoteInBin {
  readonly id: string;
  readonly text: string;
  readonly session_id: string;
  readonly horse: string;
  readonly struck_ms: number;
}

/** Notes that were struck and not brought back, with when the correction that struck them came. */
async function struckNotes(store: StoreParts, transaction?: Transaction): Promise<StruckNoteInBin[]> {
  const behind = await overlay(store, null);
  const rows = await store.sequelize.query<{ no: number; session_id: string; horse: string; struck_notes: string | null }>(
    `SELECT s.no, s.id AS session_id, h.name AS horse, c.struck_notes FROM session_summary c JOIN session s ON s.no = c.session_no
     JOIN horse h ON h.id = s.horse_id WHERE c.struck_notes IS NOT NULL AND s.binned_ms IS NULL
     UNION ALL SELECT s.no, s.id, h.name, NULL FROM session s JOIN horse h ON h.id = s.horse_id
     WHERE s.no IN (SELECT value FROM json_each($behind)) AND s.binned_ms IS NULL`,
    { bind: { behind: JSON.stringify([...behind.keys()]) }, type: QueryTypes.SELECT, transaction },
  );
  const found: StruckNoteInBin[] = [];
  const seen = new Set<string>();
  for (const { no, session_id, horse, struck_notes } of rows) {
    const struck = JSON.parse((behind.has(no) ? behind.get(no)?.summary.struck_notes : openedOrNull(struck_notes)) ?? "[]") as StruckNote[];
    for (const { note, by, text } of struck) {
      if (seen.has(note)) continue;
      seen.add(note);
      const strike = await store.models.event.findOne({ attributes: ["received_ms"], where: { id: packId(by) }, transaction });
      if (strike !== null) found.push({ id: note, text, session_id, horse, struck_ms: Number(strike.get("received_ms")) });
    }
  }
  return found;
}

/** A note in the bin is brought back by a correction of its session, so it says which. */
export interface BinnedNote extends Binned {
  readonly kind: "note";
  readonly sessionId: string;
}

/** Everything in the bin by itself, newest first; what went with something lies under it. */
export async function listBin(store: Store): Promise<(Binned | BinnedNote)[]> {
  const found: (Binned | BinnedNote)[] = [];
  const { models } = store;
  const lastTaps = await lastTapsInBin(store);
  const horseName = async (id: unknown) => String((await models.horse.unscoped().findByPk(String(id)))?.get("name") ?? "");
  for (const kind of BIN_KINDS) {
    const where = { binned_ms: { [Op.not]: null }, binned_with: null };
    for (const row of (await tableOf(store, kind).unscoped().findAll({ where })).map(plain)) {
      const { id, name = "", horse_id, behaviour_id, created_ms } = row as unknown as AnyRow;
      const behaviour = behaviour_id === undefined ? null : await models.behaviour.findByPk(String(behaviour_id));
      const binnedMs = Number(row.binned_ms);
      found.push({
        kind,
        id,
        name: kind === "session" ? String(created_ms) : String(behaviour?.get("name") ?? name),
        of: horse_id === undefined ? "" : await horseName(horse_id),
        binnedMs,
        goneMs: Math.max(binnedMs, lastTaps.get(id) ?? 0) + BIN_DAYS * MILLISECONDS_PER_DAY,
        with: await goesWith(store, kind, id),
      });
    }
  }
  for (const { id, text, session_id, horse, struck_ms } of await readKept(store, () => struckNotes(store)))
    found.push({
      kind: "note",
      id,
      sessionId: session_id,
      name: text,
      of: horse,
      binnedMs: struck_ms,
      goneMs: struck_ms + BIN_DAYS * MILLISECONDS_PER_DAY,
      with: NOTHING,
    });
  // What is past its days is gone, whenever it is swept out.
  return found.filter(({ goneMs }) => goneMs > store.now()).sort((a, b) => b.binnedMs - a.binnedMs);
}

/**
 * Removes for good what was put in the bin up to a time. What it was the
 * place, the handler or the ladder of stays, without it.
 * @returns how many things are gone, what went with them not counted.
 */
export async function purgeBin(store: Store, upToMs: number): Promise<number> {
  const { models, sequelize } = store;
  let gone = 0;
  // Sums that are damaged are made anew before the write that goes by them.
  await readKept(store, () => struckNotes(store));
  await store.writer.write(async (transaction) => {
    const run = (sql: string, replacements: Record<string, unknown> = {}) => sequelize.query(sql, { replacements, transaction });
    const notes = (await struckNotes(store, transaction)).filter(({ struck_ms }) => struck_ms <= upToMs);
    for (const { id, session_id } of notes) {
      const session = "(SELECT no FROM session WHERE id = :session_id)";
      await run(`DELETE FROM event WHERE session_no = ${session} AND type = 'correct' AND json_extract(payload, '$.event') = :id`, {
        id,
        session_id,
      });
      await run(`DELETE FROM event WHERE session_no = ${session} AND id = :packed`, { packed: packId(id), session_id });
      await run(`INSERT OR IGNORE INTO stale (session_no) VALUES (${session})`, { session_id });
    }
    gone += notes.length;
    for (const kind of ["session", "chain", "ladder", "horse", "person", "place", "kit"] as const) {
      const rows = (
        await tableOf(store, kind)
          .unscoped()
          .findAll({ where: { binned_ms: { [Op.not]: null, [Op.lte]: upToMs } }, transaction })
      ).map(plain) as unknown as AnyRow[];
      const lastTaps = await lastTapsInBin(store, transaction);
      for (const { id, behaviour_id, binned_with } of rows) {
        if ((lastTaps.get(id) ?? 0) > upToMs) continue;
        if (binned_with === null) gone++;
        // A session that began on a ladder outlives it; its own blocks say what was worked.
        if (kind === "ladder") await run("UPDATE session SET ladder_id = NULL, ladder_version = NULL WHERE ladder_id = :id", { id });
        await tableOf(store, kind).unscoped().destroy({ where: { id }, transaction });
        if (kind === "ladder" && typeof behaviour_id === "string")
          await models.behaviour.destroy({ where: { id: behaviour_id }, transaction });
      }
    }
  });
  return gone;
}

/** When a session in the bin got its last tap, by its id and by its horse's: what is worked still is not swept. */
async function lastTapsInBin({ sequelize }: StoreParts, transaction?: Transaction): Promise<ReadonlyMap<string, number>> {
  const rows = await sequelize.query<{ id: string; horse_id: string; ms: number | null }>(
    `SELECT s.id, s.horse_id, (SELECT MAX(e.received_ms) FROM event e WHERE e.session_no = s.no) AS ms
     FROM session s WHERE s.binned_ms IS NOT NULL`,
    { type: QueryTypes.SELECT, transaction },
  );
  const last = new Map<string, number>();
  for (const { id, horse_id, ms } of rows) for (const key of [id, horse_id]) last.set(key, Math.max(last.get(key) ?? 0, ms ?? 0));
  return last;
}

/** Removes for good what has been in the bin for longer than its days and got no tap since. */
export const purgeExpired = (store: Store, nowMs = store.now()): Promise<number> =>
  purgeBin(store, nowMs - BIN_DAYS * MILLISECONDS_PER_DAY);
