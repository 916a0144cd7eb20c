import postgres from "postgres";
import { settings } from "./settings";

export type Sql = postgres.Sql;
/** A pool or a transaction. */
export type Queryable = postgres.ISql;

// One pool a process, kept over the reloads of a development server.
const kept = globalThis as unknown as { nigrographeSql?: Sql };

/** The process's connection pool. */
export function db(): Sql {
  kept.nigrographeSql ??= connect(settings().databaseUrl);
  return kept.nigrographeSql;
}

/** A database that is not there refuses at once; one that does not answer in this time is as good as away. */
const CONNECTED_WITHIN_S = 10;

/** A database that was gone is found again within a second of its return. */
const secondsBefore = (attempt: number) => Math.min(0.05 * 2 ** attempt, 1);

/** A connection pool. Notices are for the database's log, not ours. */
export function connect(url: string, options: postgres.Options<Record<string, never>> = {}): Sql {
  return postgres(url, { max: 10, onnotice: () => {}, connect_timeout: CONNECTED_WITHIN_S, backoff: secondsBefore, ...options }) as Sql;
}
