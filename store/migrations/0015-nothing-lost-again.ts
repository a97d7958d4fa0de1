import type { QueryInterface } from "sequelize";

/** A clock that moves finds every session its page load was tapped in, whatever the batch that tells of it. */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query("CREATE INDEX IF NOT EXISTS event_by_source ON event (source_no)");
}
