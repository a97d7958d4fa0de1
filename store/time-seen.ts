import { MILLISECONDS_PER_DAY } from "@/core/units";
import { readMeta, type Store, writeMeta } from "./store";

const KEY = "time_seen_ms";
/** At each start the time that is gone by may go on by no more: one reading of a clock is not believed further. */
const MOST_AT_A_START_MS = MILLISECONDS_PER_DAY;

/** How far a program's own steady clock had run when the time was seen last, by store. */
const last = new WeakMap<object, number>();

/**
 * The time as the program has seen it go by: it never runs ahead of the
 * machine's clock, never back, and while the program was away by a day at a
 * start at the most. What is removed for good by its age goes by it: a machine
 * that starts once a year ahead sweeps nothing. After a long rest it lags
 * behind, and things stay longer.
 * @param steadyMs a clock that nobody sets, in milliseconds.
 * @example await timeSeen(store) // the machine's time, where it has run on without a jump
 */
export async function timeSeen(store: Store, steadyMs: () => number = () => performance.now()): Promise<number> {
  const now = store.now();
  const kept = Number((await readMeta(store, KEY)) ?? Number.NaN);
  const steady = steadyMs();
  const before = last.get(store.sequelize);
  const most = before === undefined ? MOST_AT_A_START_MS : Math.max(0, steady - before);
  const seen = Number.isFinite(kept) ? kept + Math.min(Math.max(0, now - kept), most) : now;
  last.set(store.sequelize, steady);
  if (seen !== kept) await writeMeta(store, KEY, String(Math.round(seen)));
  return seen;
}
