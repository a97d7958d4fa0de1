import * as z from "zod";
import type { PinnedSign } from "@/core/ladder";
import { pinnedSignDocument } from "@/core/ladder/document";
import { keptJson } from "./kept-json";
import { NotFoundError, rowsOf } from "./rows";
import type { Store } from "./store";

/** The signs the yard has added to the product's own, newest first. */
export async function listOwnSigns(store: Store): Promise<PinnedSign[]> {
  const rows = await rowsOf(store.models.ownSign, "1 = 1 ORDER BY created_ms DESC");
  return rows.map((row) => ({ name: row.name, class: row.class }));
}

/** Adds a sign; one that is there already stays as it is. */
export async function addOwnSign(store: Store, { name, class: kind }: PinnedSign): Promise<void> {
  await store.writer.write((transaction) =>
    store.sequelize.query("INSERT OR IGNORE INTO own_sign (class, name, created_ms) VALUES (:kind, :name, :now)", {
      replacements: { kind, name, now: store.now() },
      transaction,
    }),
  );
}

/** Takes a sign off the yard's list; what was logged under it stays. */
export async function removeOwnSign(store: Store, { name, class: kind }: PinnedSign): Promise<void> {
  await store.writer.write((transaction) => store.models.ownSign.destroy({ where: { class: kind, name }, transaction }));
}

/** Pins signs to a horse. @throws NotFoundError where there is no such horse. */
export async function setPinnedSigns(store: Store, horseId: string, signs: readonly PinnedSign[]): Promise<void> {
  const [changed] = await store.writer.write((transaction) =>
    store.models.horse.update({ pinned_signs: JSON.stringify(signs) }, { where: { id: horseId }, transaction }),
  );
  if (changed === 0) throw new NotFoundError("There is no such horse.");
}

/** Each sign by itself: one that cannot be read takes no other along. */
const signsDocument = z.array(pinnedSignDocument.nullable().catch(null));

/** The signs pinned to a horse; what cannot be read is none. */
export const pinnedSigns = (row: { readonly pinned_signs: string | null }): PinnedSign[] =>
  (keptJson(row.pinned_signs, signsDocument) ?? []).filter((sign) => sign !== null);
