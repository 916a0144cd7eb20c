import { randomBytes } from "node:crypto";
import { afterAll, beforeAll, inject } from "vitest";
import { connect, db, type Sql } from "@/server/db";
import { migrate } from "@/server/migrate";
import { closePictureThreads } from "@/server/pictures/preparedFolder";
import { closePlanThread } from "@/server/prints/planWork";
import { temporaryFolder } from "../temporary";

/** A fresh migrated database for this test file, and an empty cache; the server code under test uses both. */
export function ownDatabase(): { sql: () => Sql; folder: string; url: () => string } {
  const folder = temporaryFolder();
  let sql: Sql;
  let url = "";
  beforeAll(async () => {
    const name = `test_${randomBytes(6).toString("hex")}`;
    const admin = connect(inject("databaseUrl"));
    await admin.unsafe(`create database ${name}`);
    await admin.end();
    url = inject("databaseUrl").replace(/\/postgres$/, `/${name}`);
    process.env.DATABASE_URL = url;
    process.env.NIGROGRAPHE_DATA = folder;
    sql = db();
    await migrate(sql, "db");
  });
  afterAll(async () => {
    await closePictureThreads();
    await closePlanThread();
    await sql.end({ timeout: 1 });
  });
  return { sql: () => sql, folder, url: () => url };
}

/** Bytes as a stream in pieces of a size that fits nothing. */
export async function* pieces(bytes: Uint8Array, size = 70_001): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}
