import type { QueryInterface } from "sequelize";

/**
 * Of work on the circle it is kept whether the fit was looked over before: those
 * sums are made anew. Of an experiment it is kept what each of its ways changes.
 */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query("ALTER TABLE try_both ADD COLUMN way_changes TEXT");
  await query.sequelize.query(
    "INSERT OR IGNORE INTO stale (session_no) SELECT session.no FROM session JOIN session_summary ON session_summary.session_no = session.no WHERE session_summary.circle IS NOT NULL AND session.binned_ms IS NULL",
  );
}
