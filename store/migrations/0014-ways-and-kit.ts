import type { QueryInterface } from "sequelize";

/**
 * Of work on the circle it is kept whether the fit was looked over before: those
 * sums are made anew, and those of watches, which count where nothing was shown too. Of an experiment it is kept what each of its ways changes.
 */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query("ALTER TABLE try_both ADD COLUMN way_changes TEXT");
  await query.sequelize.query(
    `INSERT OR IGNORE INTO stale (session_no) SELECT s.no FROM session s LEFT JOIN session_summary c ON c.session_no = s.no
     WHERE (c.circle IS NOT NULL OR s.kind IN ('signs', 'connection')) AND s.binned_ms IS NULL`,
  );
}
