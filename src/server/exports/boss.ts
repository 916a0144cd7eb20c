import PgBoss from "pg-boss";
import type { Sql } from "../db";

export const EXPORT_QUEUE = "export";

/** The job queue over the given pool, so that there is one driver and one pool. */
export function queueOver(sql: Sql): PgBoss {
  const boss = new PgBoss({
    db: {
      // Statements without values may be several at once, which only the simple protocol takes.
      async executeSql(text: string, values?: unknown[]) {
        const result = values?.length ? await sql.unsafe(text, values as never[]) : await sql.unsafe(text).simple();
        const rows = (Array.isArray(result[0]) ? (result as unknown as unknown[][]).flat() : [...result]) as never[];
        return { rows, rowCount: rows.length };
      },
    },
  });
  boss.on("error", (error) => console.error("job queue:", error.message));
  return boss;
}
