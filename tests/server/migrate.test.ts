import { randomBytes, randomUUID } from "node:crypto";
import { cpSync, mkdirSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { expect, inject, test } from "vitest";
import { connect } from "@/server/db";
import { getExport, listExports } from "@/server/exports/exports";
import { takeJob } from "@/server/jobs/jobs";
import { migrate } from "@/server/migrate";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { temporaryFolder } from "../temporary";

/** A database as it was after the first migrations. */
async function databaseAt(last: string) {
  const name = `test_${randomBytes(6).toString("hex")}`;
  const admin = connect(inject("databaseUrl"));
  await admin.unsafe(`create database ${name}`);
  await admin.end();
  const sql = connect(inject("databaseUrl").replace(/\/postgres$/, `/${name}`));
  const early = join(temporaryFolder(), "db");
  mkdirSync(early);
  for (const file of readdirSync("db").filter((each) => each <= last)) cpSync(join("db", file), join(early, file));
  await migrate(sql, early);
  return sql;
}

test("exports of a time before jobs keep their state; those that ran are done anew; the old queue goes", async () => {
  const sql = await databaseAt("004-z");
  await sql.unsafe("create schema pgboss; create table pgboss.job (id uuid)");
  const [blob, picture, print, revision] = Array.from({ length: 4 }, () => randomUUID()) as [string, string, string, string];
  await sql.begin(async (tx) => {
    await tx`insert into blob (id, bytes, sha256) values (${blob}, 9, 'x')`;
    await tx`insert into picture (id, name, blob_id, width, height, facts) values (${picture}, 'Dunes', ${blob}, 3, 2, '{}')`;
    await tx`insert into print (id, picture_id, name, head) values (${print}, ${picture}, 'Print 1', ${revision})`;
    await tx`insert into revision (id, print_id, label, plan) values (${revision}, ${print}, 'As brought in', ${tx.json({ ...defaultPlan() } as never)})`;
  });
  const states = ["waiting", "running", "done", "failed", "cancelled"];
  const ids = new Map<string, string>();
  for (const state of states) {
    const id = randomUUID();
    ids.set(state, id);
    await sql`
      insert into export (id, print_id, revision_id, settings, file_name, state, progress, message, blob_id, finished_at)
      values (${id}, ${print}, ${revision}, '{"format": "jpeg"}', 'a.jpg', ${state}, 0.5,
        ${state === "failed" ? "no such file" : null}, ${state === "done" ? blob : null}, ${state === "done" ? new Date() : null})
    `;
  }
  await migrate(sql, "db");
  expect((await listExports(sql, print)).length).toBe(5);
  for (const state of states)
    expect(await getExport(sql, ids.get(state)!)).toMatchObject({
      state: state === "running" ? "waiting" : state,
      message: state === "failed" ? "no such file" : null,
      bytes: state === "done" ? 9 : null,
    });
  const taken = [await takeJob(sql, ["export"]), await takeJob(sql, ["export"]), await takeJob(sql, ["export"])].map((job) => job?.id);
  expect(new Set(taken)).toEqual(new Set([ids.get("waiting"), ids.get("running"), undefined]));
  expect(await sql`select to_regnamespace('pgboss') as gone`).toEqual([{ gone: null }]);
  await sql.end();
});

test("every foreign key is indexed where it stands: deleting what it refers to never reads a whole table for each row", async () => {
  const sql = await databaseAt("999");
  const keys = await sql<{ key: string; indexed: boolean }[]>`
    select conname as key, exists (
      select from pg_index where indrelid = conrelid and indpred is null and indisvalid
        and (string_to_array(indkey::text, ' ')::smallint[])[1:cardinality(conkey)] @> conkey
    ) as indexed
    from pg_constraint where contype = 'f' and connamespace = 'public'::regnamespace
  `;
  expect(keys.length).toBeGreaterThan(7);
  expect(keys.filter(({ indexed }) => !indexed)).toEqual([]);
  await sql.end();
});
