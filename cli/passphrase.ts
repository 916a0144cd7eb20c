import { createInterface } from "node:readline/promises";
import { Writable } from "node:stream";
import { setPassphrase } from "@/server/access/passphrase";
import { connect } from "@/server/db";
import { migrate } from "@/server/migrate";
import { settings } from "@/server/settings";

// ./start passphrase: sets the one passphrase, typed twice without being shown, or read as one line from standard input.
const sql = connect(settings().databaseUrl);
try {
  await migrate(sql, "db");
  await setPassphrase(sql, await typed());
  console.log("The passphrase is set; everybody is signed out.");
} catch (error) {
  console.error(`passphrase: ${(error as Error).message}. Nothing was changed.`);
  process.exitCode = 2;
}
await sql.end();

async function typed(): Promise<string> {
  const isSeen = process.stdin.isTTY;
  const silent = new Writable({ write: (_chunk, _encoding, done) => done() });
  const ask = createInterface({ input: process.stdin, output: isSeen ? silent : undefined, terminal: isSeen });
  const lines = ask[Symbol.asyncIterator]();
  const line = async (words: string) => {
    if (isSeen) process.stdout.write(words);
    const { value } = (await lines.next()) as { value: string | undefined };
    if (isSeen) process.stdout.write("\n");
    return value ?? "";
  };
  const first = await line("A passphrase, 12 characters or more (not shown): ");
  const again = isSeen ? await line("The same again: ") : first;
  ask.close();
  if (again !== first) throw new Error("the two are not the same");
  return first;
}
