import type { Transaction } from "sequelize";
import type { FieldProblem } from "@/core/checks/common";
import type { LadderPlan } from "@/core/ladder";
import { PLAN_FORMAT, planText, type ReadPlan, readPlanText } from "@/core/ladder/document";
import type { LadderPlanRow } from "./models";
import { NotFoundError, rowsOf, UnreadError } from "./rows";
import type { Store } from "./store";

/** One version of a ladder, as it is asked for. */
export interface VersionKey {
  readonly ladder: string;
  readonly version: number;
}

/** A plan that was read, with when it was made. */
export interface ReadVersion extends VersionKey {
  readonly createdMs: number;
  readonly plan: LadderPlan;
}

/** Plans that stay read: a yard's present plans and the older versions its evidence stands on. */
const MOST_READ = 1000;
/** Far longer than any ladder: what is longer, out of a stranger's package perhaps, is read each time rather than held. */
const LONGEST_HELD = 100_000;
const read = new Map<string, ReadPlan>();

/** A plan of a row, checked by its schema; the same text only once, the one not asked for longest makes room. */
function planOf({ format, document }: Pick<LadderPlanRow, "format" | "document">): ReadPlan {
  const key = `${format} ${document}`;
  const found = read.get(key) ?? readPlanText(format, document);
  read.delete(key);
  if (document.length > LONGEST_HELD) return found;
  read.set(key, found);
  const [oldest] = read.keys();
  if (read.size > MOST_READ && oldest !== undefined) read.delete(oldest);
  return found;
}

type Wanted = { readonly versions: readonly VersionKey[] } | { readonly ladders: readonly string[] };

function planRows(store: Store, wanted: Wanted): Promise<LadderPlanRow[]> {
  const keys =
    "ladders" in wanted ? wanted.ladders.map((ladder) => [ladder]) : wanted.versions.map(({ ladder, version }) => [ladder, version]);
  // The table is read through the list of what is asked for, by its key.
  const of = `ladder_id IN (SELECT value->>0 FROM json_each(:keys))${
    "ladders" in wanted ? "" : " AND (ladder_id, version) IN (SELECT value->>0, value->>1 FROM json_each(:keys))"
  }`;
  return rowsOf(store.models.ladderPlan, `${of} ORDER BY version`, { keys: JSON.stringify(keys) });
}

/** The plans of these versions, or of every version of these ladders: one question. One that cannot be read keeps nobody from the others. */
export async function readPlans(store: Store, wanted: Wanted): Promise<ReadVersion[]> {
  return (await planRows(store, wanted)).flatMap((row): ReadVersion[] => {
    const found = planOf(row);
    return "plan" in found ? [{ ladder: row.ladder_id, version: row.version, createdMs: row.created_ms, plan: found.plan }] : [];
  });
}

/** The plans of these versions of ladders, also of ladders in the bin; those that are gone or cannot be read are left out. */
export const plansOf = (store: Store, versions: readonly VersionKey[]): Promise<ReadVersion[]> =>
  versions.length === 0 ? Promise.resolve([]) : readPlans(store, { versions });

/** @throws NotFoundError where there is no such version. UnreadError where its plan cannot be read. */
export async function readPlan(store: Store, ladder: string, version: number): Promise<LadderPlan> {
  const [row] = await planRows(store, { versions: [{ ladder, version }] });
  if (row === undefined) throw new NotFoundError("The ladder has no such version.");
  const found = planOf(row);
  if ("plan" in found) return found.plan;
  throw new UnreadError("its plan");
}

/** A plan that cannot be read: its text as it stands there, and what is wrong with it. */
export interface UnreadPlan {
  readonly text: string;
  readonly problems: readonly FieldProblem[];
}

/** What stands where a version's plan should; null where its plan can be read. Where there is no row at all, its text is empty. */
export async function unreadPlan(store: Store, ladder: string, version: number): Promise<UnreadPlan | null> {
  const [row] = await planRows(store, { versions: [{ ladder, version }] });
  if (row === undefined) return { text: "", problems: [{ path: "", message: "Its plan is gone." }] };
  const found = planOf(row);
  return "plan" in found ? null : { text: row.document, problems: found.problems };
}

/** Keeps a plan as one document. @throws RangeError where it could not be read back: no form lets such a plan through. */
export async function writePlan(store: Store, { ladder, version }: VersionKey, plan: LadderPlan, transaction: Transaction): Promise<void> {
  const document = planText(plan);
  const back = planOf({ format: PLAN_FORMAT, document });
  if ("problems" in back) throw new RangeError(`A plan that cannot be worked: ${back.problems[0]?.path} ${back.problems[0]?.message}`);
  await store.models.ladderPlan.upsert(
    { ladder_id: ladder, version, format: PLAN_FORMAT, document, created_ms: store.now() },
    { transaction },
  );
}
