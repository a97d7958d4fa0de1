import type { QueryInterface } from "sequelize";
import { plansOfTables } from "./plans-of-tables";

/** A plan is one document, with the format it is written in. */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`CREATE TABLE ladder_plan (ladder_id TEXT NOT NULL REFERENCES ladder (id) ON DELETE CASCADE,
    version INTEGER NOT NULL, format INTEGER NOT NULL, document TEXT NOT NULL, created_ms REAL NOT NULL,
    PRIMARY KEY (ladder_id, version))`);
  await plansOfTables(query.sequelize);
  // Of an import that was cut off, what it had brought is known by its rows' own tables.
  await query.sequelize.query("UPDATE import_row SET name = 'ladder_plan' WHERE name = 'ladder_version'");
  await query.sequelize.query("DELETE FROM import_row WHERE name IN ('strand', 'rung', 'cue_phase')");
}
