import { randomUUID } from "node:crypto";
import type { Queryable, Sql } from "../db";

// The life cycle of every job: waiting, running under a lease, and then done, failed or cancelled. docs/decisions/0017-jobs.md

/** A run that gives no sign of life for so long has lost its lease, and another may take the job up. */
export const LEASE_S = 20;
/** So often is a job tried that fails in passing, or whose worker dies. */
export const MOST_ATTEMPTS = 5;
const LONGEST_WAIT_S = 60;

/** A job taken up, and the lease under which alone it is reported on. */
export interface TakenJob {
  id: string;
  kind: string;
  lease: string;
  attempts: number;
}

/** Puts a job in line, in the caller's transaction. */
export async function addJob(sql: Queryable, kind: string, id: string = randomUUID()): Promise<string> {
  await sql`insert into job (id, kind) values (${id}, ${kind})`;
  return id;
}

/**
 * Takes up the oldest job of some kinds that waits, or whose lease ran out; undefined where there is none. One that has been
 * tried too often is ended instead.
 */
export async function takeJob(sql: Sql, kinds: readonly string[]): Promise<TakenJob | undefined> {
  for (;;) {
    const [job] = await sql<(TakenJob & { message: string | null })[]>`
      update job set state = 'running', progress = 0, attempts = attempts + 1, lease = ${randomUUID()},
        lease_until = now() + make_interval(secs => ${LEASE_S})
      where id = (
        select id from job
        where kind in ${sql(kinds)}
          and ((state = 'waiting' and not_before <= now()) or (state = 'running' and lease_until < now()))
        order by created_at
        for update skip locked
        limit 1
      )
      returning id, kind, lease, attempts, message
    `;
    if (!job) return undefined;
    if (job.attempts <= MOST_ATTEMPTS) return job;
    const before = job.message ? ` (before that: ${job.message})` : "";
    await failJob(sql, job, `given up: whoever worked on it ended ${MOST_ATTEMPTS} times in the middle${before}`);
  }
}

/** Renews a lease and notes progress, 0–1; false where the lease is lost, or the job no longer wanted. */
export async function renewLease(sql: Sql, { id, lease }: TakenJob, progress: number): Promise<boolean> {
  const renewed = await sql`
    update job set progress = ${progress}, lease_until = now() + make_interval(secs => ${LEASE_S})
    where id = ${id} and lease = ${lease} and state = 'running'
  `;
  return renewed.count === 1;
}

/** Ends a job well, in the transaction that stores what came of it; false where the lease is lost, or the job no longer wanted. */
export async function finishJob(sql: Queryable, { id, lease }: TakenJob): Promise<boolean> {
  const done = await sql`
    update job set state = 'done', progress = 1, message = null, finished_at = now(), lease = null
    where id = ${id} and lease = ${lease} and state = 'running'
  `;
  return done.count === 1;
}

/** Ends a job with its reason; false as above. */
export async function failJob(sql: Queryable, { id, lease }: TakenJob, message: string): Promise<boolean> {
  const failed = await sql`
    update job set state = 'failed', message = ${message}, finished_at = now(), lease = null
    where id = ${id} and lease = ${lease} and state = 'running'
  `;
  return failed.count === 1;
}

/** Puts a job back in line after a failure in passing, to be tried again the later the more often it was; ends it after too many. */
export async function retryJob(sql: Queryable, job: TakenJob, message: string): Promise<boolean> {
  if (job.attempts >= MOST_ATTEMPTS) return failJob(sql, job, message);
  const wait = Math.min(2 ** (job.attempts - 1), LONGEST_WAIT_S);
  const back = await sql`
    update job set state = 'waiting', message = ${message}, lease = null, not_before = now() + make_interval(secs => ${wait})
    where id = ${job.id} and lease = ${job.lease} and state = 'running'
  `;
  return back.count === 1;
}

/** Puts a job back in line whose worker was told to stop: that was no attempt. */
export async function giveJobBack(sql: Queryable, { id, lease }: TakenJob): Promise<boolean> {
  const back = await sql`
    update job set state = 'waiting', attempts = attempts - 1, lease = null where id = ${id} and lease = ${lease} and state = 'running'
  `;
  return back.count === 1;
}

/** Ends a job that is no longer wanted: at once while it waits, else when its worker next looks. */
export async function cancelJob(sql: Queryable, id: string): Promise<void> {
  await sql`
    update job set state = 'cancelled', finished_at = now(), lease = null where id = ${id} and state in ('waiting', 'running')
  `;
}
