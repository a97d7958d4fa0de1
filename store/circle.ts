import { randomUUID as newId } from "node:crypto";
import { type ChangedSound, type CirclePlan, type CircleSetup, type KitFit, USUAL_SETUP } from "@/core/circle";
import { circleSetupDocument, kitFitDocument } from "@/core/circle/document";
import { addDays, type Day } from "@/core/day";
import { kindsWhere } from "@/core/events";
import { toLog } from "@/core/events/circle-log";
import type { CircleSetupInput, HandLoadInput } from "@/core/schemas";
import { keysOf } from "@/core/typed";
import { getHorse } from "./horses";
import { keptJson } from "./kept-json";
import type { HandLoadRow } from "./models";
import { NotFoundError, rowsOf } from "./rows";
import type { Store } from "./store";

/** How a horse works on the circle; the usual way where nobody said. */
export async function circleSetup(store: Store, horseId: string): Promise<CircleSetup> {
  const [row] = await rowsOf(store.models.circleSetup, "horse_id = :horse", { horse: horseId });
  if (row === undefined) return USUAL_SETUP;
  return keptJson(row.body, circleSetupDocument) ?? UNREAD_SETUP;
}

/** What a setup that cannot be read stands at until somebody sets it anew: the least there is. */
const UNREAD_SETUP: CircleSetup = { ...USUAL_SETUP, caps: { sessionMinutes: 1, weekMinutes: 1, weekVisits: 1 } };

/** Whether how a horse works on the circle was kept and cannot be read. @returns what was kept, or null. */
export async function unreadCircleSetup(store: Store, horseId: string): Promise<string | null> {
  const [row] = await rowsOf(store.models.circleSetup, "horse_id = :horse", { horse: horseId });
  return row !== undefined && (await circleSetup(store, horseId)) === UNREAD_SETUP ? String(row.body).slice(0, 300) : null;
}

/** A changed sound is new to the horse for so many days, unless it is changed back. */
const NEW_DAYS = 60;

/** Which sounds mean something else now than the horse has learned. */
function changedSounds(before: CircleSetup, now: CircleSetupInput, today: Day, worked: boolean): ChangedSound[] {
  const calls = keysOf(now.sounds);
  return calls.flatMap((call) => {
    const known = before.changed.find((one) => one.call === call);
    const learned = known?.before ?? before.sounds[call];
    // Before the first session no sound means anything to the horse yet.
    if (now.sounds[call] === learned || !worked) return [];
    if (known !== undefined && before.sounds[call] === now.sounds[call]) return known.since < addDays(today, -NEW_DAYS) ? [] : [known];
    return [{ call, before: learned, since: today }];
  });
}

/** Keeps how a horse works on the circle. @throws NotFoundError where there is no such horse. */
export async function saveCircleSetup(store: Store, horseId: string, input: CircleSetupInput, today: Day): Promise<CircleSetup> {
  await getHorse(store, horseId);
  return store.writer.write(async (transaction) => {
    const before = await circleSetup(store, horseId);
    const worked =
      (await store.models.session.count({
        where: { horse_id: horseId, kind: [...kindsWhere(({ plan }) => plan === "circle")] },
        transaction,
      })) > 0;
    const setup: CircleSetup = { ...input, changed: changedSounds(before, input, today, worked) };
    await store.models.circleSetup.upsert(
      { horse_id: horseId, body: JSON.stringify(toLog(setup)), updated_ms: store.now() },
      { transaction },
    );
    return setup;
  });
}

/** Keeps the plan to begin with, and nothing else of how the horse works: another page may have changed that meanwhile. */
export async function saveCirclePlan(store: Store, horseId: string, plan: CirclePlan): Promise<void> {
  await getHorse(store, horseId);
  await store.writer.write(async (transaction) => {
    const body = JSON.stringify(toLog({ ...(await circleSetup(store, horseId)), plan }));
    await store.models.circleSetup.upsert({ horse_id: horseId, body, updated_ms: store.now() }, { transaction });
  });
}

/** Fit cards of a horse, by kit. */
export async function kitFits(store: Store, horseId: string): Promise<Map<string, KitFit>> {
  const rows = await rowsOf(store.models.kitFit, "horse_id = :horse", { horse: horseId });
  // A card that cannot be read is none: the kit is fitted anew.
  return new Map(
    rows.flatMap(({ kit_id, body }) => {
      const fit = keptJson(body, kitFitDocument);
      return fit === undefined ? [] : [[kit_id, fit] as const];
    }),
  );
}

/** Keeps a fit card. @throws NotFoundError where horse or kit is not there. */
export async function saveKitFit(store: Store, horseId: string, kitId: string, fit: KitFit): Promise<void> {
  await getHorse(store, horseId);
  await store.writer.write(async (transaction) => {
    if ((await store.models.kit.count({ where: { id: kitId } as never, transaction })) === 0)
      throw new NotFoundError("This kit is no longer there.");
    await store.models.kitFit.upsert(
      { horse_id: horseId, kit_id: kitId, body: JSON.stringify(toLog(fit)), updated_ms: store.now() },
      { transaction },
    );
  });
}

/** Work entered by hand since a day, oldest first. */
export const handLoad = (store: Store, horseId: string, since: Day): Promise<HandLoadRow[]> =>
  rowsOf(store.models.handLoad, "horse_id = :horse AND day >= :since ORDER BY day, created_ms", { horse: horseId, since });

/** Adds work by hand. @returns its id. */
export async function addHandLoad(store: Store, horseId: string, input: HandLoadInput): Promise<string> {
  await getHorse(store, horseId);
  const id = newId();
  await store.writer.write((transaction) =>
    store.models.handLoad.create({ id, horse_id: horseId, ...input, created_ms: store.now() }, { transaction }),
  );
  return id;
}

/** Takes an entry out again. @throws NotFoundError where it is not there. */
export async function removeHandLoad(store: Store, horseId: string, id: string): Promise<void> {
  const gone = await store.writer.write((transaction) => store.models.handLoad.destroy({ where: { id, horse_id: horseId }, transaction }));
  if (gone === 0) throw new NotFoundError("This entry is no longer there.");
}
