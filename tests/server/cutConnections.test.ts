import { connect as connectSocket, createServer, type AddressInfo, type Server, type Socket } from "node:net";
import { afterAll, beforeAll, expect, inject, test } from "vitest";
import { connect } from "@/server/db";

// Connections that are cut at any moment, as when the database dies and comes back: none of them may be of no use afterwards.

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const open = new Set<Socket>();
let between: Server;
let url: string;

beforeAll(async () => {
  const database = new URL(inject("databaseUrl"));
  between = createServer((client) => {
    const server = connectSocket(Number(database.port), database.hostname);
    client.pipe(server).pipe(client);
    for (const socket of [client, server]) socket.on("error", () => {}).on("close", () => (client.destroy(), server.destroy()));
    open.add(client.on("close", () => open.delete(client)));
  });
  await new Promise<void>((resolve) => between.listen(0, "127.0.0.1", resolve));
  url = Object.assign(new URL(database), { port: String((between.address() as AddressInfo).port) }).href;
});

afterAll(() => {
  for (const socket of open) socket.destroy();
  between.close();
});

test("a connection cut while it was about to write, or within a transaction, serves again", async () => {
  const sql = connect(url, { max: 8, connect_timeout: 3 });
  const words = new Set<string>();
  let isOver = false;
  const busy = Array.from({ length: 24 }, async (_, i) => {
    while (!isOver) {
      const done = i % 2 ? sql`select ${i}::int` : sql.begin(async (tx) => [await tx`select ${i}::int`, await tx`select 2`]);
      await done.catch(async (error: Error & { code?: string }) => {
        words.add(error.code ?? error.message);
        if (i % 4 > 1) await pause(20); // some ask again at once, of a connection that is about to be closed too
      });
    }
  });
  for (let cut = 0; cut < 60; cut++) {
    await pause(40);
    for (const socket of open) socket.destroy();
  }
  isOver = true;
  await Promise.all(busy);
  // Each of them is used, and each answers.
  const answers = await Promise.allSettled(Array.from({ length: 24 }, () => sql`select pg_sleep(0.05)`));
  expect(answers.flatMap((answer) => (answer.status === "rejected" ? [String(answer.reason)] : []))).toEqual([]);
  expect([...words].filter((word) => !["CONNECTION_CLOSED", "ECONNRESET", "EPIPE"].includes(word))).toEqual([]);
  await sql.end({ timeout: 1 });
});

test("a connection closed before it wrote what it was asked writes again once it is back", async () => {
  let current: Socket;
  const socket = () =>
    new Promise<Socket>((resolve, reject) => {
      const { port, hostname } = new URL(inject("databaseUrl"));
      current = connectSocket(Number(port), hostname, () => resolve(current)).once("error", reject);
    });
  // Its types leave out the socket it may be given.
  const sql = connect(inject("databaseUrl"), { max: 1, connect_timeout: 2, ...({ socket } as object) });
  await sql`select 1`;
  // It writes in the next turn, and is closed in this one.
  const lost = await new Promise((resolve) =>
    setImmediate(() => {
      resolve(sql`select 2`.catch((error: { code: string }) => error.code));
      current.destroy();
    }),
  );
  expect(lost).toBe("CONNECTION_CLOSED");
  expect(await sql`select 3 as three`).toEqual([{ three: 3 }]);
  await sql.end({ timeout: 1 });
});

test("what a connection ended by is not the answer to what is asked of the next", async () => {
  const sql = connect(inject("databaseUrl"), { max: 1, connect_timeout: 2 });
  const admin = connect(inject("databaseUrl"), { max: 1 });
  const [{ pid } = { pid: 0 }] = await sql<{ pid: number }[]>`select pg_backend_pid() as pid`;
  const asked = sql`select pg_sleep(60)`.catch((error: { code: string }) => error.code);
  await pause(50);
  await admin`select pg_terminate_backend(${pid})`;
  expect(["57P01", "CONNECTION_CLOSED"]).toContain(await asked);
  expect(await sql`select 3 as three`).toEqual([{ three: 3 }]);
  await Promise.all([sql.end({ timeout: 1 }), admin.end({ timeout: 1 })]);
});
