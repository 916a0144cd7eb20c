// A conversation with a database by PostgreSQL's own psql: what is asked in one session, an answer at a time.
import { spawn } from "node:child_process";
import { randomUUID } from "node:crypto";
import { join } from "node:path";
import { binaries } from "./cluster.mjs";

/** A session that ends at the first error. */
export class Psql {
  #child;
  #ended;
  #said = "";
  #heard = () => {};

  constructor(url) {
    const { address, env } = connection(url);
    const options = ["-qAtX", "-v", "ON_ERROR_STOP=1", address];
    this.#child = spawn(join(binaries(), "psql"), options, { env, stdio: ["pipe", "pipe", "pipe"] });
    this.#child.stdin.on("error", () => {}); // its own words say more
    this.#child.stdout.setEncoding("utf8").on("data", (text) => {
      this.#said += text;
      this.#heard();
    });
    this.#ended = endOf(this.#child);
  }

  /** For whoever has more to say than fits in words; it must end with a whole statement. */
  get input() {
    return this.#child.stdin;
  }

  /**
   * Has statements carried out; the lines of what they give, with those since the last were asked. Throws what went wrong, in the
   * database's own words.
   */
  async ask(sql) {
    const mark = randomUUID();
    this.#child.stdin.write(`${sql}\n;\n\\echo ${mark}\n`);
    const answered = new Promise((resolve) => {
      this.#heard = () => this.#said.includes(`${mark}\n`) && resolve(true);
    });
    const end = await Promise.race([answered, this.#ended]);
    if (end !== true) throw new Error(end.words || "the database went away");
    const [before, after] = this.#said.split(`${mark}\n`);
    this.#said = after;
    return before.split("\n").filter(Boolean);
  }

  /** Ends it; what was begun and not committed is as if it had never been. */
  async end() {
    this.#child.stdin.end();
    await this.#ended;
  }
}

/** An address without its password, which goes by the environment: what a program is called with everybody on the machine can read. */
export function connection(url) {
  const address = new URL(url);
  const env = { ...process.env, PGPASSWORD: decodeURIComponent(address.password) };
  address.password = "";
  return { address: address.href, env };
}

/** How a program ended: its code, null where it was killed, and its last words. */
export function endOf(child) {
  let words = "";
  child.stderr.on("data", (chunk) => (words = (words + chunk).slice(-2000)));
  return new Promise((resolve, reject) => {
    child.once("error", reject);
    child.once("close", (code) => resolve({ code, words: words.trim().split("\n").slice(-3).join(" ") }));
  });
}
