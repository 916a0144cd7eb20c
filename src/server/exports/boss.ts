import PgBoss from "pg-boss";
import type { Sql } from "../db";

export const EXPORT_QUEUE = "export";

/** The job queue over the given pool, so that there is one driver and one pool. */
export function queueOver(sql: Sql): PgBoss {
  const boss = new PgBoss({
    db: {
      async executeSql(text: string, values?: unknown[]) {
        const result = values?.length
          ? await sql.unsafe(text, values.map((value) => value ?? null) as never[])
          : await runScript(sql, text);
        const rows = (Array.isArray(result[0]) ? (result as unknown as unknown[][]).flat() : [...result]) as never[];
        return { rows, rowCount: rows.length };
      },
    },
  });
  boss.on("error", (error) => console.error("job queue:", error.message));
  return boss;
}

/** Runs several statements, possibly with a transaction among them: on one connection, by the simple protocol. */
async function runScript(sql: Sql, text: string) {
  const connection = await sql.reserve();
  try {
    return await connection.unsafe(text).simple();
  } finally {
    connection.release();
  }
}
