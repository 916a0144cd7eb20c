import { randomBytes, scrypt, timingSafeEqual } from "node:crypto";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { Guessing, type Guesser } from "./guessing";

export const LEAST_LENGTH = 12;
/** 64 MB and about a fifth of a second for each guess (RFC 7914). */
const COST = { N: 2 ** 16, r: 8, p: 1, maxmem: 128 * 1024 ** 2 };
const HASH_BYTES = 32;

/** Sets the passphrase, and signs everybody out. Errors: AppError `invalid_input` for one that is too short. */
export async function setPassphrase(sql: Sql, passphrase: string): Promise<void> {
  if (passphrase.length < LEAST_LENGTH) throw new AppError("invalid_input", `a passphrase has ${LEAST_LENGTH} characters at the least`);
  const salt = randomBytes(16);
  const hash = await hashed(passphrase, salt);
  await sql.begin(async (tx) => {
    await tx`
      insert into passphrase (salt, hash) values (${salt}, ${hash})
      on conflict (one) do update set salt = excluded.salt, hash = excluded.hash, set_at = now()
    `;
    await tx`delete from session`;
  });
}

/** Whether one is set, so that it is asked for. */
export async function hasPassphrase(sql: Sql): Promise<boolean> {
  const [row] = await sql`select from passphrase`;
  return row !== undefined;
}

const guessing = new Guessing();
let lastGuess: Promise<unknown> = Promise.resolve();

/**
 * Whether a guess is right. After a few wrong ones the next has to wait. Guesses made at once
 * are looked at one after the other, so that many at a time are no way round the waiting, nor so many times the memory.
 *
 * Errors  AppError `slow_down` with the seconds to wait.
 */
export function isPassphrase(sql: Sql, guess: string, guesser: Guesser, now = Date.now()): Promise<boolean> {
  const looked = lastGuess.then(() => isRightGuess(sql, guess, guesser, now));
  lastGuess = looked.catch(() => {});
  return looked;
}

async function isRightGuess(sql: Sql, guess: string, guesser: Guesser, now: number): Promise<boolean> {
  guessing.needTurn(guesser, now);
  const [row] = await sql<{ salt: Buffer; hash: Buffer }[]>`select salt, hash from passphrase`;
  const isRight = row !== undefined && timingSafeEqual(await hashed(guess, row.salt), row.hash);
  guessing.note(guesser, isRight, now);
  return isRight;
}

function hashed(passphrase: string, salt: Buffer): Promise<Buffer> {
  return new Promise((resolve, reject) =>
    scrypt(passphrase.normalize("NFKC"), salt, HASH_BYTES, COST, (error, hash) => (error ? reject(error) : resolve(hash))),
  );
}
