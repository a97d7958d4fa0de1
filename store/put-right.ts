import { randomUUID as newId } from "node:crypto";
import type { Block } from "@/core/record";
import { eventOf, type Fact, type PutRightInput, type SessionEvent } from "@/core/schemas";
import { getHorse } from "./horses";
import { addLadder, asBehaviour, carriedRungsOf, getLadder, listLadders, type StoredLadder } from "./ladders";
import { ConflictError, GoneError, NotFoundError } from "./rows";
import { loadSession } from "./sessions";
import type { Store } from "./store";

/** Who puts right here: the pages, no recorder of its own. */
const RECORDER = "review:";

async function nameOf(store: Store, kind: "person" | "place", id: string | null): Promise<string> {
  if (id === null) return "";
  const row = await store.models[kind as "person"].findByPk(id);
  if (row === null) throw new GoneError(`This ${kind} is no longer there. Choose another, or none.`);
  return String(row.get("name"));
}

/**
 * Puts the horse, handler, place or time of a session right. What was is kept
 * as events; its row follows, so that it is found where it belongs now. Work
 * moved to another horse counts for the ladder named there, rung by rung as
 * far as that one goes, or for none.
 * @throws NotFoundError where there is no such session, horse or ladder, GoneError where a person or place has gone.
 */
export async function putSessionRight(store: Store, id: string, input: PutRightInput): Promise<void> {
  const { session, record } = await loadSession(store, id);
  const horse = await getHorse(store, input.horse ?? session.horse_id);
  const moved = horse.id !== session.horse_id;
  const ladder = moved && input.ladder != null ? await getLadder(store, input.ladder) : null;
  if (ladder !== null && ladder.horseId !== horse.id) throw new NotFoundError("This ladder belongs to another horse.");
  const changes: Partial<Record<"horse" | "handler" | "place", string> & { shift_s: number }> = moved ? { horse: horse.name } : {};
  if (input.person !== undefined) changes.handler = await nameOf(store, "person", input.person ?? null);
  if (input.place !== undefined) changes.place = await nameOf(store, "place", input.place ?? null);
  const shiftedMs = input.started_ms === undefined || record.startWallMs === null ? 0 : input.started_ms - record.startWallMs;
  if (shiftedMs !== 0) changes.shift_s = (record.shiftMs + shiftedMs) / 1000;

  const load = newId();
  const events: SessionEvent[] = [];
  const add = (fact: Fact) => {
    const made = eventOf(
      { id: newId(), session: session.id, recorder: RECORDER, load, seq: events.length, mono_ms: 0, wall_ms: store.now() },
      fact,
    );
    events.push(made);
    return made.id;
  };
  if (Object.keys(changes).length > 0) {
    const header = record.facts.find(({ type }) => type === "session.start");
    const target = header?.id ?? add({ type: "session.start", payload: { horse: horse.name, method: ladder?.plan.method ?? "combined" } });
    add({ type: "correct", payload: { event: target, payload: changes, reason: input.reason } });
  }
  const along = moved && input.take_along === true ? await takeAlong(store, session.horse_id, horse.id, record.blocks) : null;
  if (moved)
    for (const block of record.blocks.filter((one) => one.ladder !== null)) {
      const to = along === null ? onLadder(ladder, Number(block.rung)) : along(block);
      add({ type: "correct", payload: { event: block.eventId, payload: to, reason: input.reason } });
    }
  const now = along === null ? ladder : (along.of(session.ladder_id) ?? null);
  if (events.length > 0) await store.events.append({ recorder: RECORDER, events, clocks: {} });
  await store.writer.write((transaction) =>
    store.models.session.update(
      {
        horse_id: horse.id,
        ...(moved ? { ladder_id: now?.id ?? null, ladder_version: now?.version ?? null, start_rung: null } : {}),
        ...(input.person === undefined ? {} : { person_id: input.person ?? null }),
        ...(input.place === undefined ? {} : { place_id: input.place ?? null }),
        // Lists go by it, so it moves with the session.
        created_ms: session.created_ms + shiftedMs,
      },
      { where: { id: session.id }, transaction },
    ),
  );
}

/** What a block says of its ladder from now on. */
interface OnLadder {
  readonly ladder: string;
  readonly version?: number;
  readonly behaviour?: string;
  readonly rung?: number;
}

/** A block on a ladder of the other horse, as far as that one has such a rung. */
const onLadder = (ladder: StoredLadder | null, rung: number): OnLadder =>
  ladder !== null && rung <= ladder.plan.rungs.length
    ? { ladder: ladder.id, version: ladder.version, behaviour: ladder.behaviour.name }
    : { ladder: "" };

/**
 * Makes ladders of another horse like those some blocks were worked on, as they
 * stand now. A rung of an earlier version that stands unchanged goes along under its present number.
 * @throws ConflictError where that horse has a ladder of the name.
 */
async function takeAlong(store: Store, fromHorseId: string, horseId: string, blocks: readonly Block[]) {
  const worked = [...new Set(blocks.flatMap(({ ladder }) => ladder ?? []))];
  const found = (await listLadders(store, fromHorseId)).filter(({ id }) => worked.includes(id));
  const names = new Set((await listLadders(store, horseId)).map(({ behaviour }) => behaviour.name.toLowerCase()));
  const double = found.find(({ behaviour }) => names.has(behaviour.name.toLowerCase()));
  if (double !== undefined) throw new ConflictError(`There is a ladder “${double.behaviour.name}” there already. Choose it, or none.`);
  const carried = await carriedRungsOf(store, found);
  const made = new Map<string, StoredLadder>();
  for (const one of found) made.set(one.id, await getLadder(store, await addLadder(store, horseId, asBehaviour(one.behaviour), one.plan)));
  const to = ({ ladder, version, rung }: Block): OnLadder => {
    const [from, copy] = [found.find(({ id }) => id === ladder), made.get(ladder ?? "")];
    if (from === undefined || copy === undefined) return { ladder: "" };
    const now =
      version === from.presentVersion
        ? Number(rung)
        : carried
            .get(from.id)
            ?.get(version ?? 0)
            ?.get(Number(rung));
    return now === undefined ? { ladder: "" } : { ladder: copy.id, version: copy.version, behaviour: copy.behaviour.name, rung: now };
  };
  return Object.assign(to, { of: (ladder: string | null) => made.get(ladder ?? "") });
}
