import { execFileSync, spawn } from "node:child_process";
import { chmodSync, cpSync, mkdirSync, readdirSync, readFileSync, statSync, symlinkSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { describe, expect, test } from "vitest";
import { connect } from "@/server/db";
import { isProcess, makePrivate, startCluster } from "../../scripts/cluster.mjs";
import { applicationPlace, startApplication } from "../browser/application";
import { temporaryFolder } from "../temporary";
import { freePort } from "./cluster";

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

function openFolder(): string {
  const folder = temporaryFolder();
  chmodSync(folder, 0o755);
  return folder;
}

describe("the database", () => {
  test("is waited for while it puts itself in order after a power cut, and nothing committed is lost", async () => {
    const [folder, port] = [openFolder(), await freePort()];
    const first = await startCluster({ folder, port });
    const sql = connect(first.url, { max: 1 });
    await sql`create table row (n int, filling text)`;
    await sql`insert into row select n, repeat(md5(n::text), 30) from generate_series(1, 60000) n`;
    process.kill(first.pid, "SIGKILL");
    await first.ended;
    await sql.end({ timeout: 0 }).catch(() => {});
    const again = await startCluster({ folder, port });
    const fresh = connect(again.url, { max: 1 });
    // The very first query is answered: it is not told that the database is starting up.
    expect((await fresh`select count(*)::int as rows from row`)[0]).toEqual({ rows: 60000 });
    await fresh.end();
    await again.stop();
    expect(await again.ended).toBe("code 0");
  });

  test("of an earlier start that was cut off is ended and its folder taken over", async () => {
    const folder = openFolder();
    const first = await startCluster({ folder, port: await freePort() });
    const said: string[] = [];
    const second = await startCluster({ folder, port: await freePort(), log: (text) => said.push(text) });
    expect(said.join("\n")).toContain(`ending the database of an earlier start that was cut off (process ${first.pid})`);
    expect(isProcess(first.pid, "postgres")).toBe(false);
    await second.stop();
  });

  test("that cannot be started says why, in its own words and plainly", async () => {
    const [folder, port] = [openFolder(), await freePort()];
    await (await startCluster({ folder, port })).stop();
    writeFileSync(join(folder, "postgres/PG_VERSION"), "9\n");
    await expect(startCluster({ folder, port })).rejects.toThrow(/another version of PostgreSQL[\s\S]*incompatible/);
  });

  test("keeps its password to itself, and listens on loopback alone", async () => {
    const [folder, port] = [openFolder(), await freePort()];
    const cluster = await startCluster({ folder, port });
    expect(execFileSync("stat", ["-c", "%a", join(folder, "postgres-password")], { encoding: "utf8" }).trim()).toBe("600");
    const sql = connect(cluster.url, { max: 1 });
    expect(await sql`show listen_addresses`).toEqual([{ listen_addresses: "127.0.0.1" }]);
    await sql.end();
    const wrong = connect(cluster.url.replace(/:[0-9a-f]+@/, ":wrong@"), { max: 1 });
    await expect(wrong`select 1`).rejects.toMatchObject({ code: "28P01" });
    await wrong.end();
    await cluster.stop();
  });
});

test("several set-ups at once on an empty database bring it up to date and lay in the demo series once", async () => {
  const cluster = await startCluster({ folder: openFolder(), port: await freePort(), isThrowaway: true });
  const place = openFolder();
  for (const name of ["dist", "db", "node_modules", "package.json"]) symlinkSync(resolve(name), join(place, name));
  mkdirSync(join(place, "demo"));
  const [first] = JSON.parse(readFileSync("demo/series.json", "utf8")) as { file: string }[];
  cpSync("demo/bench-target.png", join(place, "demo/small.png"));
  writeFileSync(join(place, "demo/series.json"), JSON.stringify([{ ...first, file: "small.png" }]));
  const env = { ...process.env, DATABASE_URL: cluster.url, NIGROGRAPHE_DATA: place };
  const codes = await Promise.all(
    [1, 2, 3].map(
      () =>
        new Promise((done) =>
          spawn(process.execPath, ["dist/setup.mjs"], { cwd: place, env, stdio: "ignore" }).once("exit", (code) => done(code)),
        ),
    ),
  );
  expect(codes).toEqual([0, 0, 0]);
  const sql = connect(cluster.url, { max: 1 });
  expect((await sql`select count(*)::int as pictures from picture`)[0]).toEqual({ pictures: 1 });
  await sql.end();
  await cluster.stop();
});

test("the data folder is shut to all others; one in which other things lie is left as it is", async () => {
  const mode = (path: string) => statSync(path).mode & 0o777;
  const place = temporaryFolder();
  const [data, mixed] = [join(place, "data"), join(place, "mixed")];
  mkdirSync(data, { mode: 0o755 });
  mkdirSync(mixed, { mode: 0o755 });
  writeFileSync(join(mixed, "letter.txt"), "not ours");
  for (const folder of [data, mixed, join(place, "made")]) makePrivate(folder);
  expect([mode(data), mode(join(place, "made"))].map((bits) => bits & 0o067)).toEqual([0, 0]);
  expect(mode(mixed)).toBe(0o755);
  chmodSync(place, 0o755);
  const cluster = await startCluster({ folder: data, port: await freePort() }); // the database reaches its own all the same
  expect(readdirSync(data)).toContain("postgres");
  await cluster.stop();
  expect(mode(data) & 0o067).toBe(0);
});

describe("a folder", () => {
  /** A process that takes a folder as ./start does, says so, and gives it up when told. */
  function taking(folder: string, note: object) {
    const script = `import("./scripts/folder.mjs").then(async ({ takeFolder, releaseFolder }) => {
      await takeFolder(${JSON.stringify(folder)}, ${JSON.stringify(note)}).then(() => console.log("taken"), ({ message }) => (console.log(message), process.exit(1)));
      process.stdin.once("data", () => (releaseFolder(${JSON.stringify(folder)}), process.exit()));
    })`;
    const child = spawn(process.execPath, ["-e", script, "start.mjs"]);
    let words = "";
    child.stdout.on("data", (chunk: Buffer) => (words += chunk.toString()));
    return { child, said: (what: string) => expect.poll(() => words, { timeout: 10_000 }).toContain(what), words: () => words };
  }

  test("that a backup works on is waited for, by a start and by another task; one that is served from is not", async () => {
    const folder = temporaryFolder();
    const backup = taking(folder, { task: "backup" });
    await backup.said("taken");
    for (const note of [{ port: 1 }, { task: "check" }]) {
      const next = taking(folder, note);
      await next.said(`waiting for "./start backup" on ${folder} to end (process ${backup.child.pid})`);
      expect(next.words()).not.toContain("taken");
      if (note.task) {
        backup.child.stdin.write("end");
        await next.said("taken");
      }
      next.child.kill("SIGKILL");
    }
    const serving = taking(folder, { port: 7 });
    await serving.said("taken"); // from one that was killed
    await taking(folder, { task: "check" }).said("http://localhost:7");
    serving.child.kill("SIGKILL");
  });
});

describe("the application", () => {
  test("runs on when any of its parts is killed, and a second start from the same folder is refused", async () => {
    const place = await applicationPlace();
    const application = await startApplication(place);
    const note = () => JSON.parse(readFileSync(join(place.folder, "running.json"), "utf8")) as { parts: Record<string, number> };
    const answers = () => fetch(application.address, { signal: AbortSignal.timeout(10_000) }).then((response) => response.status);
    expect(await answers()).toBe(200);

    const second = spawn("./start", [], { env: { ...process.env, PORT: String(await freePort()), NIGROGRAPHE_DATA: place.folder } });
    let said = "";
    second.stderr.on("data", (chunk: Buffer) => (said += chunk.toString()));
    expect(await new Promise((done) => second.once("exit", done))).toBe(1);
    expect(said).toMatch(/runs from .* already \(process \d+\)/);

    const database = Number(readFileSync(join(place.folder, "postgres/postmaster.pid"), "utf8").split("\n")[0]);
    for (const pid of [note().parts["export worker"]!, note().parts["web server"]!, database]) {
      process.kill(pid, "SIGKILL");
      let status = 0;
      for (let tries = 0; tries < 100 && status !== 200; tries++) {
        await pause(200);
        status = await answers().catch(() => 0);
      }
      expect(status).toBe(200);
    }
    for (let tries = 0; tries < 50 && !isProcess(note().parts["export worker"]!, "worker.mjs"); tries++) await pause(200);
    expect(isProcess(note().parts["export worker"]!, "worker.mjs")).toBe(true);
    await application.stop();
  }, 180_000);

  test("takes over what an earlier start, itself killed, left running", async () => {
    const place = await applicationPlace();
    const first = await startApplication(place);
    const { pid, parts } = JSON.parse(readFileSync(join(place.folder, "running.json"), "utf8")) as {
      pid: number;
      parts: Record<string, number>;
    };
    process.kill(pid, "SIGKILL"); // it alone: its parts run on
    await pause(200);
    expect(isProcess(parts["web server"]!, "web.mjs")).toBe(true);
    const again = await startApplication(place); // on the very port that they hold
    expect(isProcess(parts["web server"]!, "web.mjs")).toBe(false);
    expect(await fetch(again.address).then((response) => response.status)).toBe(200);
    await again.stop();
    await first.kill().catch(() => {});
  }, 180_000);
});
