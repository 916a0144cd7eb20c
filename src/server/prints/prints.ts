import { randomUUID } from "node:crypto";
import type postgres from "postgres";
import { z } from "zod";
import {
  MOST_NAME,
  PrintName,
  PrintSummary,
  Revision,
  RevisionSummary,
  type HeadMove,
  type NewRevision,
  type PrintChange,
} from "@/contracts/api";
import type { Plan } from "@/core/plan/plan";
import { cutText } from "@/core/text/text";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { stowPlan, unstowPlan } from "./planStore";

type Tx = postgres.TransactionSql;

/** Makes a print with its first revision; returns its id. Runs in the caller's transaction. */
export async function insertPrint(tx: Tx, pictureId: string, name: string, plan: Plan): Promise<string> {
  const id = randomUUID();
  const head = randomUUID();
  await tx`insert into print (id, picture_id, name, head) values (${id}, ${pictureId}, ${name}, ${head})`;
  await insertRevision(tx, id, { id: head, label: "As brought in", plan, parent: null });
  return id;
}

/** A further print of a picture. Named "Print 2" and so on where no name is given. Errors: AppError `not_found`. */
export async function addPrint(sql: Sql, pictureId: string, plan: Plan, name?: string): Promise<PrintSummary> {
  const id = await sql.begin(async (tx) => {
    const [picture] = await tx`select id from picture where id = ${pictureId} for update`;
    if (!picture) throw new AppError("not_found", "this picture is not here");
    const [count] = await tx<{ prints: number }[]>`select count(*)::int as prints from print where picture_id = ${pictureId}`;
    return insertPrint(tx, pictureId, name ?? `Print ${count!.prints + 1}`, plan);
  });
  return getPrint(sql, id);
}

/**
 * Another print with all that one has: its plan with the history it came by, and its pins; the name says that it is a copy. Returns the
 * copy.
 *
 * Errors  AppError `not_found`.
 */
export async function copyPrint(sql: Sql, id: string): Promise<PrintSummary> {
  const copy = randomUUID();
  await sql.begin(async (tx) => {
    await lockHead(tx, id);
    const [print] = await tx<{ name: string }[]>`select name from print where id = ${id}`;
    const name = cutText(`${cutText(print!.name, MOST_COPIED_NAME)}, copy`, MOST_NAME);
    // One statement: steps and print refer to each other, and every step to the one before it.
    await tx`
      with names as materialized (select id as old, gen_random_uuid() as new from revision where print_id = ${id}),
      steps as (
        insert into revision (id, print_id, parent, label, plan, created_at)
        select own.new, ${copy}, parent.new, r.label, r.plan, r.created_at
        from revision r join names own on own.old = r.id left join names parent on parent.old = r.parent
        where r.print_id = ${id} order by r.number
      )
      insert into print (id, picture_id, name, head, pins)
      select ${copy}, p.picture_id, ${name}, names.new, p.pins from print p join names on names.old = p.head where p.id = ${id}
    `;
  });
  return getPrint(sql, copy);
}
const MOST_COPIED_NAME = MOST_NAME - ", copy".length;

/** A print as its row tells it; pins that cannot be read are left out: one odd row never hides the others. */
function readablePrint(row: Record<string, unknown>): PrintSummary {
  const read = PrintSummary.safeParse(row);
  return read.success ? read.data : PrintSummary.parse({ ...row, pins: [] });
}

/** One print, deleted or not. Errors: AppError `not_found`. */
export async function getPrint(sql: Sql, id: string): Promise<PrintSummary> {
  const [row] = await sql`${selectPrints(sql)} where p.id = ${id}`;
  if (!row) throw new AppError("not_found", "this print is not here");
  return readablePrint(row);
}

/** The prints of a picture that are not deleted, by when they were made. */
export async function listPrints(sql: Sql, pictureId: string): Promise<PrintName[]> {
  const rows = await sql`select id, name from print where picture_id = ${pictureId} and deleted_at is null order by created_at, id`;
  return PrintName.array().parse(rows);
}

/** Renames, sets pins, deletes or brings back. Errors: AppError `not_found`. */
export async function changePrint(sql: Sql, id: string, change: PrintChange): Promise<PrintSummary> {
  const updated = await sql`
    update print set
      name = coalesce(${change.name ?? null}, name),
      pins = coalesce(${change.pins ? sql.json(change.pins) : null}, pins),
      deleted_at = case ${change.deleted ?? null}::boolean when true then now() when false then null else deleted_at end
    where id = ${id}
  `;
  if (updated.count === 0) throw new AppError("not_found", "this print is not here");
  return getPrint(sql, id);
}

/** Every step of a print's history, oldest first, without the plans. */
export async function listRevisions(sql: Sql, printId: string): Promise<RevisionSummary[]> {
  const rows = await sql`
    select id, parent, label, created_at as "createdAt" from revision where print_id = ${printId} order by number
  `;
  return z.array(RevisionSummary).parse(rows);
}

/** One revision with its plan. Errors: AppError `not_found`. */
export async function getRevision(sql: Sql, printId: string, id: string): Promise<Revision> {
  const [row] = await sql`
    select id, parent, label, created_at as "createdAt", plan from revision where print_id = ${printId} and id = ${id}
  `;
  if (!row) throw new AppError("not_found", "this step of the print is not here");
  return Revision.parse({ ...row, plan: await unstowPlan(sql, row.plan) });
}

/** Whether the plan of a revision is so large that reading it takes its time: it is long, or parts of it are put aside. */
export async function isLargePlan(sql: Sql, printId: string, id: string): Promise<boolean> {
  const [row] = await sql<{ isLarge: boolean }[]>`
    select octet_length(plan::text) > 65536 or plan::text ~ '"pieces?": ' as "isLarge" from revision where print_id = ${printId} and id = ${id}
  `;
  return row?.isLarge ?? false;
}

/**
 * Adds an edit to a print's history and moves the print to it. Sent again with the same id, it does nothing more.
 *
 * Errors  AppError `stale_base` when the print has moved on from the base; `id_taken` where the id is that of another edit; `not_found`.
 */
export async function appendRevision(sql: Sql, printId: string, revision: NewRevision): Promise<void> {
  await sql.begin(async (tx) => {
    const head = await lockHead(tx, printId);
    const [known] = await tx`select print_id as "printId", parent, label, plan from revision where id = ${revision.id}`;
    if (known) return sameRevision(tx, printId, known, revision);
    if (head !== revision.base) throw staleBase(head);
    await insertRevision(tx, printId, { ...revision, parent: revision.base });
    await tx`update print set head = ${revision.id} where id = ${printId}`;
  });
}

/** Sees that an edit that is here already is the one that was sent. */
async function sameRevision(tx: Tx, printId: string, known: postgres.Row, { base, label, plan }: NewRevision): Promise<void> {
  const [row] = await tx<{ same: boolean }[]>`select ${tx.json(await stowPlan(tx, plan))}::jsonb = ${tx.json(known.plan)}::jsonb as same`;
  if (known.printId !== printId || known.parent !== base || known.label !== label || !row?.same)
    throw new AppError("id_taken", "another step has this id already");
}

/** Moves a print to another of its revisions. Errors: AppError `stale_base`, `not_found`. */
export async function moveHead(sql: Sql, printId: string, { base, to }: HeadMove): Promise<void> {
  await sql.begin(async (tx) => {
    const head = await lockHead(tx, printId);
    if (head === to) return;
    if (head !== base) throw staleBase(head);
    const [target] = await tx`select id from revision where id = ${to} and print_id = ${printId}`;
    if (!target) throw new AppError("not_found", "this step of the print is not here");
    await tx`update print set head = ${to} where id = ${printId}`;
  });
}

async function lockHead(tx: Tx, printId: string): Promise<string> {
  const [print] = await tx<{ head: string }[]>`select head from print where id = ${printId} for update`;
  if (!print) throw new AppError("not_found", "this print is not here");
  return print.head;
}

function staleBase(head: string): AppError {
  return new AppError("stale_base", "this print was changed elsewhere in the meantime", { head });
}

async function insertRevision(
  tx: Tx,
  printId: string,
  revision: { id: string; label: string; plan: Plan; parent: string | null },
): Promise<void> {
  const plan = await stowPlan(tx, revision.plan);
  await tx`
    insert into revision (id, print_id, parent, label, plan)
    values (${revision.id}, ${printId}, ${revision.parent}, ${revision.label}, ${tx.json(plan)})
  `;
}

function selectPrints(sql: Sql) {
  return sql`
    select p.id, p.picture_id as "pictureId", p.name, p.head, p.pins, r.created_at as "changedAt"
    from print p join revision r on r.id = p.head
  `;
}
