import { randomUUID } from "node:crypto";
import { Agent, request } from "node:http";
import { setTimeout as pause } from "node:timers/promises";
import { defaultPlan } from "@/core/plan/defaultPlan";

// How long people who save wait while others send what only somebody who means harm would send. Usage: benchFlood ADDRESS

const [PEOPLE, HOSTILE_A_SECOND, SECONDS] = [20, 100, 20];
const address = process.argv[2]!;

interface Answer {
  status: number;
  text: string;
}

/** Each who asks has connections of his own: what is cut off for one is nothing to another. */
function asker(keepAlive: boolean): (method: string, path: string, body?: string) => Promise<Answer> {
  const agent = new Agent({ keepAlive });
  return (method, path, body) =>
    new Promise((resolve, reject) => {
      const headers = body === undefined ? {} : { "content-type": "application/json", "content-length": Buffer.byteLength(body) };
      const asked = request(address + path, { method, agent, headers }, (answer) => {
        let text = "";
        answer.setEncoding("utf8").on("data", (chunk: string) => (text += chunk));
        answer.once("end", () => resolve({ status: answer.statusCode!, text }));
        answer.once("error", reject);
      });
      asked.once("error", reject);
      asked.end(body);
    });
}

const send = asker(true);
const first = /\/prints\/([0-9a-f-]{36})/.exec((await send("GET", "/")).text)![1]!;
const { pictureId } = JSON.parse((await send("PATCH", `/api/prints/${first}`, "{}")).text) as { pictureId: string };
const revision = (label: string, plan: string) => `{"id":"${randomUUID()}","base":"${randomUUID()}","label":"${label}","plan":${plan}}`;

const BODIES: [string, string, string][] = [
  ["POST", `/api/prints/${first}/revisions`, revision("x".repeat(8e6), JSON.stringify(defaultPlan()))],
  ["POST", `/api/prints/${first}/revisions`, "[".repeat(1e6)],
  ["POST", `/api/prints/${first}/revisions`, `[${"1,".repeat(5e6)}1]`],
  ["POST", `/api/prints/${first}/revisions`, revision("x", `{"passes":[${'{"x":1},'.repeat(1e5)}{}]}`)],
  ["POST", "/api/session", `{"passphrase":${"[".repeat(1e5)}`],
  ["POST", "/api/placements", `{"strands":[${"{},".repeat(3e4)}{}]}`],
  ["PATCH", `/api/prints/${first}`, `{"name":"${"\\u0000".repeat(1e4)}"}`],
  ["POST", "/api/pictures?name=x", "P".repeat(1e6)],
  ["GET", `/api/pictures/${pictureId}/levels?level=0&x=0&y=0&width=100000&height=100000`, ""],
  ["GET", "/%ff", ""],
];

const refused: Record<string, number> = {};
let isOver = false;

async function flood(): Promise<void> {
  const hostile = asker(false);
  for (let n = 0; !isOver; n++) {
    const [method, path, body] = BODIES[n % BODIES.length]!;
    void hostile(method, path, method === "GET" ? undefined : body).then(
      ({ status }) => (refused[status] = (refused[status] ?? 0) + 1),
      () => (refused["cut off"] = (refused["cut off"] ?? 0) + 1),
    );
    await pause(1000 / HOSTILE_A_SECOND);
  }
}

/** One who saves a step five times a second; how long each took, in milliseconds. */
async function person(): Promise<number[]> {
  const send = asker(true);
  const made = JSON.parse((await send("POST", `/api/pictures/${pictureId}/prints`, "{}")).text) as { id: string; head: string };
  let base = made.head;
  const plan = defaultPlan();
  const took: number[] = [];
  while (!isOver) {
    const id = randomUUID();
    plan.passes[0]!.strength = Math.random();
    const begin = performance.now();
    const answer = await send("POST", `/api/prints/${made.id}/revisions`, JSON.stringify({ id, base, label: "Strength", plan }));
    took.push(performance.now() - begin);
    if (answer.status !== 204) throw new Error(`a step was not saved: ${answer.status} ${answer.text}`);
    base = id;
    await pause(200);
  }
  await send("PATCH", `/api/prints/${made.id}`, '{"deleted":true}');
  return took;
}

async function measured(isFlooded: boolean): Promise<void> {
  isOver = false;
  const people = Array.from({ length: PEOPLE }, person);
  if (isFlooded) void flood();
  await pause(1000 * SECONDS);
  isOver = true;
  const took = (await Promise.all(people)).flat().sort((a, b) => a - b);
  const at = (part: number) => took[Math.min(Math.floor(part * took.length), took.length - 1)]!.toFixed(0);
  console.log(
    `${PEOPLE} people saving${isFlooded ? ` beside ${HOSTILE_A_SECOND} hostile requests a second` : ""}: ${took.length} steps, half within ${at(0.5)} ms, 99 % within ${at(0.99)} ms, all within ${at(1)} ms`,
  );
}

await measured(false);
await measured(true);
console.log(`the hostile ones were answered ${JSON.stringify(refused)}`);
process.exit(0);
