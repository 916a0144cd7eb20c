// npm run faults: kills parts of the application at random moments while it is worked with, sends it broken files, plans and many requests,
// and then looks whether all it acknowledged is there. Not a part of ./check but in its short form.
//
// usage: node scripts/faults.mjs [--short] [--kills N] [--files N] [--clients N] [--seconds N] [--seed N]
import { execFileSync, spawn } from "node:child_process";
import { randomUUID } from "node:crypto";
import { chmodSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import sharp from "sharp";
import { root } from "./install.mjs";

const { values } = parseArgs({
  options: {
    short: { type: "boolean" },
    ...Object.fromEntries(["kills", "files", "clients", "seconds", "seed"].map((name) => [name, { type: "string" }])),
  },
});
const [kills, files, clients, seconds] = values.short ? [8, 60, 4, 5] : [200, 5000, 20, 120];
const wanted = {
  kills: Number(values.kills ?? kills),
  files: Number(values.files ?? files),
  clients: Number(values.clients ?? clients),
  seconds: Number(values.seconds ?? seconds),
};
const random = seeded(Number(values.seed ?? 1));
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const pick = (list) => list[Math.floor(random() * list.length)];

const folder = mkdtempSync(join(tmpdir(), "nigrographe-faults-"));
chmodSync(folder, 0o755);
const place = { port: await freePort(), database: await freePort() };
const env = {
  ...process.env,
  DATABASE_URL: "",
  NIGROGRAPHE_DATA: folder,
  NIGROGRAPHE_DB_PORT: String(place.database),
  PORT: String(place.port),
};
const address = `http://localhost:${place.port}`;
const lost = [];
let application = await start();

/**
 * @type {{ steps: { print: string, id: string, base: string, strength: number }[], pictures: number, exports: string[], backups: number }}
 */
const acknowledged = { steps: [], pictures: 0, exports: [], backups: 0 };
await killAtRandom();
await look();
await sendBrokenFiles();
await sendBrokenPlans();
await manyClients();
await application.stop();
const { status, words } = await run(["check"]);
console.log(words.trim().split("\n")[0]);
if (status !== 0) lost.push(`./start check: ${words}`);
rmSync(folder, { recursive: true, force: true });
for (const what of lost) console.error(`LOST: ${what}`);
console.log(lost.length ? `${lost.length} lost` : "nothing lost");
process.exit(lost.length ? 1 : 0);

/** Kills one part after the other while several work; everything acknowledged is noted. */
async function killAtRandom() {
  let isOver = false;
  const worked = Promise.all([edit(), edit(), upload(), exportPrints(), backUp()].map((actor) => actor(() => isOver)));
  const count = {};
  for (let done = 0; done < wanted.kills;) {
    await pause(3000 + 2000 * random()); // slowly enough that no part dies ten times in a minute, which ends it all
    const [name, pid] = pick(victims());
    if (!pid) continue; // it is dead still
    done++;
    count[name] = (count[name] ?? 0) + 1;
    signal(pid, "SIGKILL");
    if (name !== "everything that keeps the others") continue;
    await application.ended;
    application = await start();
  }
  isOver = true;
  await worked;
  console.log(
    `killed: ${Object.entries(count)
      .map(([name, times]) => `${name} ${times}`)
      .join(", ")}`,
  );
  console.log(
    `acknowledged meanwhile: ${acknowledged.steps.length} steps, ${acknowledged.pictures} pictures, ${acknowledged.exports.length} exports asked for, ${acknowledged.backups} backups`,
  );
}

function victims() {
  let note;
  try {
    note = JSON.parse(readFileSync(join(folder, "running.json"), "utf8"));
  } catch {
    return [["nothing", undefined]];
  }
  const postmaster = Number(readText(join(folder, "postgres/postmaster.pid"))?.split("\n")[0]);
  const backends = postmaster ? childrenOf(postmaster) : [];
  return [
    ["web server", note.parts["web server"]],
    ["worker", note.parts["export worker"]],
    ["worker", note.parts["export worker"]],
    ["database", postmaster],
    ["a database connection", backends.length ? pick(backends) : undefined],
    ...(random() < 0.15 ? [["everything that keeps the others", note.pid]] : []),
  ];
}

function edit() {
  return async (isOver) => {
    const print = await firstPrint();
    const made = await until(() => ask("POST", `/api/pictures/${print.pictureId}/prints`, {}));
    let { id, head } = await made.json();
    const { plan } = await (await until(() => ask("GET", `/api/prints/${id}/revisions/${head}`))).json();
    for (let n = 0; !isOver(); n++) {
      plan.passes[0].strength = Math.round(1000 * random()) / 1000;
      const step = { id: randomUUID(), base: head, label: `Step ${n}`, plan };
      await until(() => ask("POST", `/api/prints/${id}/revisions`, step)); // sent again under the same id until it is answered
      acknowledged.steps.push({ print: id, id: step.id, base: head, strength: plan.passes[0].strength });
      head = step.id;
      await pause(20);
    }
  };
}

function upload() {
  return async (isOver) => {
    for (let n = 0; !isOver(); n++) {
      const bytes = await picture("png", 40 + (n % 50));
      const answer = await ask("POST", `/api/pictures?name=upload-${n}.png`, bytes).catch(() => undefined);
      if (answer?.status === 201) acknowledged.pictures++;
      else if (answer && answer.status < 500) lost.push(`a sound picture was refused: ${answer.status} ${await answer.text()}`);
      await pause(100);
    }
  };
}

function exportPrints() {
  return async (isOver) => {
    const print = await firstPrint();
    while (!isOver()) {
      const settings = { format: pick(["jpeg", "png16", "tiff8"]), longEdge: 400 };
      const answer = await ask("POST", `/api/prints/${print.id}/exports`, { settings, revision: print.head }).catch(() => undefined);
      if (answer?.status === 201) acknowledged.exports.push((await answer.json()).id);
      await pause(700);
    }
  };
}

function backUp() {
  return async (isOver) => {
    for (let n = 0; !isOver(); n++) {
      await pause(4000);
      const file = join(folder, `${n}.backup`);
      const { status } = await run(["backup", file]);
      if (status === 0) acknowledged.backups++;
      rmSync(file, { force: true });
    }
  };
}

/** Whether all that was acknowledged is there, and every export comes to an end. */
async function look() {
  for (const { print, id, base, strength } of acknowledged.steps) {
    const answer = await until(() => ask("GET", `/api/prints/${print}/revisions/${id}`));
    const step = answer.ok ? await answer.json() : undefined;
    if (step?.parent !== base || step?.plan.passes[0].strength !== strength) lost.push(`step ${id} of print ${print}`);
  }
  const ends = {};
  const givenUp = [];
  for (const id of acknowledged.exports) {
    let status;
    for (let tries = 0; tries < 600; tries++) {
      status = await (await until(() => ask("GET", `/api/exports/${id}`))).json();
      if (status.state !== "waiting" && status.state !== "running") break;
      await pause(200);
    }
    ends[status.state] = (ends[status.state] ?? 0) + 1;
    if (status.state === "done") {
      const file = await (await until(() => ask("GET", `/api/exports/${id}/file`))).arrayBuffer();
      if (file.byteLength !== status.bytes) lost.push(`the file of export ${id}: ${file.byteLength} of ${status.bytes} bytes`);
    } else if (status.state === "failed" && status.message.startsWith("given up")) givenUp.push(id);
    else lost.push(`export ${id} is ${status.state}: ${status.message}`);
  }
  // One that five kills hit ends with that as its reason; were it many, something else would be wrong.
  if (givenUp.length > 1 + acknowledged.exports.length / 100) lost.push(`${givenUp.length} exports were given up`);
  console.log(
    `exports: ${Object.entries(ends)
      .map(([state, times]) => `${times} ${state}`)
      .join(", ")}`,
  );
}

/** Pictures with bytes changed, cut off or put in: each is taken or refused with a reason. */
async function sendBrokenFiles() {
  const sound = await Promise.all(["png", "jpeg", "tiff", "webp", "avif"].map((format) => picture(format, 90)));
  const count = { taken: 0, refused: 0 };
  for (let i = 0; i < wanted.files; i++) {
    const answer = await ask("POST", `/api/pictures?name=broken-${i}`, mutated(pick(sound))).catch((error) => error);
    if (answer instanceof Error || answer.status >= 500) lost.push(`broken file ${i}: ${answer.status ?? answer.message}`);
    else count[answer.status === 201 ? "taken" : "refused"]++;
  }
  console.log(`broken files: ${count.taken} taken, ${count.refused} refused`);
  await sheetAnswers();
}

async function sendBrokenPlans() {
  const print = await firstPrint();
  const { plan } = await (await ask("GET", `/api/prints/${print.id}/revisions/${print.head}`)).json();
  const count = { taken: 0, refused: 0 };
  let { head } = print;
  for (let i = 0; i < wanted.files; i++) {
    const id = randomUUID();
    const text = mutatedText(JSON.stringify({ id, base: head, label: "Broken", plan }));
    const answer = await ask("POST", `/api/prints/${print.id}/revisions`, text, "application/json").catch((error) => error);
    if (answer instanceof Error || answer.status >= 500) lost.push(`broken plan ${i}: ${answer.status ?? answer.message}\n${text}`);
    else if (answer.status === 204) {
      count.taken++;
      head = JSON.parse(text).id;
      const back = await ask("GET", `/api/prints/${print.id}/revisions/${head}`);
      if (!back.ok) lost.push(`a plan that was taken cannot be read: ${text}`);
    } else count.refused++;
  }
  console.log(`broken plans: ${count.taken} taken, ${count.refused} refused`);
  await sheetAnswers();
}

async function manyClients() {
  const print = await firstPrint();
  const paths = [
    "/",
    `/prints/${print.id}`,
    `/api/prints/${print.id}/exports`,
    `/api/prints/${print.id}/thumbnail`,
    `/api/pictures/${print.pictureId}/levels?level=0&x=0&y=0&width=64&height=64`,
    "/api/placements",
    "/api/nothing",
  ];
  const end = Date.now() + 1000 * wanted.seconds;
  let [answers, failures] = [0, 0];
  await Promise.all(
    Array.from({ length: wanted.clients }, async () => {
      while (Date.now() < end) {
        const path = pick(paths);
        const answer = await ask("GET", path).catch((error) => error);
        if (answer instanceof Error || answer.status >= 500) {
          failures++;
          lost.push(`${path}: ${answer instanceof Error ? answer.message : `${answer.status} ${(await answer.text()).slice(0, 300)}`}`);
        } else await answer.arrayBuffer();
        answers++;
      }
    }),
  );
  if (failures > 0)
    console.log(
      application
        .said()
        .split("\n")
        .filter((line) => line.includes("away"))
        .join("\n"),
    );
  console.log(`${wanted.clients} clients, ${wanted.seconds} s: ${answers} answers, ${failures} failures`);
}

async function sheetAnswers() {
  const answer = await ask("GET", "/");
  if (!answer.ok) lost.push(`the contact sheet answers ${answer.status}`);
}

/** Starts the application as a person does, and waits until it answers. */
async function start() {
  const child = spawn("./start", [], { cwd: root, env, detached: true, stdio: ["ignore", "pipe", "pipe"] });
  let said = "";
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (chunk) => (said = (said + chunk).slice(-20_000)));
  const ended = new Promise((resolve) => child.once("exit", resolve));
  while (!said.includes("Nigrographe is at")) {
    if (child.exitCode !== null) throw new Error(`the application ended:\n${said}`);
    await pause(100);
  }
  return {
    ended,
    said: () => said,
    async stop() {
      child.kill("SIGINT");
      await ended;
    },
  };
}

function run(args) {
  const child = spawn("./start", args, { cwd: root, env, stdio: ["ignore", "pipe", "pipe"] });
  let words = "";
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (chunk) => (words += chunk));
  return new Promise((resolve) => child.once("close", (status) => resolve({ status, words })));
}

async function ask(method, path, body, type) {
  const isBytes = body instanceof Uint8Array;
  const headers = body === undefined ? {} : { "content-type": type ?? (isBytes ? "application/octet-stream" : "application/json") };
  const sent = body === undefined || isBytes || typeof body === "string" ? body : JSON.stringify(body);
  const answer = await fetch(address + path, { method, headers, body: sent, signal: AbortSignal.timeout(60_000) });
  // Read to its end at once: one that is cut off on the way is no answer, and asked for again.
  const bytes = await answer.arrayBuffer();
  return new Response(answer.status === 204 ? null : bytes, { status: answer.status, headers: answer.headers });
}

/** Asks again until it is answered by something that is not away. */
async function until(work) {
  for (let tries = 0; tries < 600; tries++) {
    const answer = await work().catch(() => undefined);
    if (answer && answer.status < 500) {
      if (answer.ok || tries > 40) return answer;
    }
    await pause(100);
  }
  throw new Error("no answer within a minute");
}

async function firstPrint() {
  const page = await (await until(() => ask("GET", "/"))).text();
  const id = /\/prints\/([0-9a-f-]{36})/.exec(page)[1];
  const answer = await until(() => ask("PATCH", `/api/prints/${id}`, { name: "Print 1" }));
  return answer.json();
}

function picture(format, edge) {
  const pixels = Uint8Array.from({ length: 3 * edge * edge }, () => 256 * random());
  return sharp(pixels, { raw: { width: edge, height: edge, channels: 3 } })
    .toFormat(format)
    .toBuffer();
}

function mutated(bytes) {
  const out = Buffer.from(bytes);
  const way = random();
  if (way < 0.25) return out.subarray(0, Math.floor(random() * out.length));
  if (way < 0.35) return Buffer.concat([out.subarray(0, Math.floor(random() * out.length)), Buffer.from("inserted"), out]);
  const near = random() < 0.6 ? 200 : out.length; // what says what it is lies at the beginning
  for (let k = 0; k < 1 + 20 * random(); k++) out[Math.floor(random() * near)] = 256 * random();
  return out;
}

function mutatedText(text) {
  const at = Math.floor(random() * text.length);
  const way = random();
  if (way < 0.3)
    return text.replace(/-?\d+(\.\d+)?/g, (number) =>
      random() < 0.05 ? pick(["1e400", "-1", "null", "1e-320", "0", "99999999", '"7"', "NaN"]) : number,
    );
  if (way < 0.5)
    return text.replace(/"[a-zA-Z-]+"/g, (word) =>
      random() < 0.03 ? pick(['"\\u0000"', '"\\ud800"', '"__proto__"', "[]", "{}", '""']) : word,
    );
  if (way < 0.6) return text.slice(0, at);
  if (way < 0.7) return text.slice(0, at) + pick(["{", "]", "\u0000", "é", '"']) + text.slice(at);
  return text; // sound ones among them
}

function childrenOf(pid) {
  try {
    return execFileSync("ps", ["-o", "pid=", "--ppid", String(pid)], { encoding: "utf8" })
      .trim()
      .split(/\s+/)
      .map(Number);
  } catch {
    return [];
  }
}

function signal(pid, name) {
  try {
    process.kill(pid, name);
  } catch {
    // gone already
  }
}

function readText(path) {
  try {
    return readFileSync(path, "utf8");
  } catch {
    return undefined;
  }
}

function freePort() {
  return new Promise((resolve) => {
    const server = createServer().listen(0, "127.0.0.1", () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}

function seeded(state) {
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
