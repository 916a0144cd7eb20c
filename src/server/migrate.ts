import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import type { Sql } from "./db";

/** Data that this version does not know how to read. */
export class NewerData extends Error {
  constructor(migrations: readonly string[]) {
    super(
      `the data are of a newer version of Nigrographe, which brought them up to date by ${migrations.join(", ")}. Nothing was changed; start that version, or one newer still`,
    );
  }
}

/** Held while migrating, so that two processes starting at once do not both do it. */
const MIGRATION_LOCK = 74_110_226;

/**
 * Brings the database up to date: every numbered .sql file not yet applied, in order, forward only,
 * all in one transaction. Returns the names of those applied now.
 *
 * Errors  NewerData where one was applied that is not known here; nothing is changed.
 */
export async function migrate(sql: Sql, folder: string): Promise<string[]> {
  const files = (await readdir(folder)).filter((name) => /^\d+-.*\.sql$/.test(name)).sort();
  return sql.begin(async (tx) => {
    await tx`select pg_advisory_xact_lock(${MIGRATION_LOCK})`;
    await tx`create table if not exists migration (name text primary key, applied_at timestamptz not null default now())`;
    const applied = new Set((await tx<{ name: string }[]>`select name from migration`).map((row) => row.name));
    const newer = [...applied].filter((name) => !files.includes(name));
    if (newer.length > 0) throw new NewerData(newer);
    const added = files.filter((name) => !applied.has(name));
    for (const name of added) {
      await tx.unsafe(await readFile(join(folder, name), "utf8")).simple();
      await tx`insert into migration (name) values (${name})`;
    }
    return added;
  });
}
