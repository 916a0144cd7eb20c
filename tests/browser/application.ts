import { execFileSync, spawn } from "node:child_process";
import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { TestProject } from "vitest/node";
import { freePort } from "../server/cluster";

declare module "vitest" {
  interface ProvidedContext {
    address: string;
  }
}

const READY_WITHIN_MS = 170_000;

export interface Application {
  address: string;
  /** Ends it as Ctrl+C does. */
  stop(): Promise<void>;
  /** Ends every process of it at once, the database too, with no chance to tidy up. */
  kill(): Promise<void>;
}

/** A data folder, and ports, that one application after another can be started with. */
export async function applicationPlace() {
  const folder = mkdtempSync(join(tmpdir(), "nigrographe-app-"));
  chmodSync(folder, 0o755);
  return { folder, port: await freePort(), databasePort: await freePort() };
}

export type Place = Awaited<ReturnType<typeof applicationPlace>>;

/** Calls ./start at a place, in a group of processes of its own. */
export function callStart({ port, folder, databasePort }: Place) {
  const own = { NIGROGRAPHE_TEST_PAGES: "1", DATABASE_URL: "" };
  const env = { ...process.env, ...own, PORT: String(port), NIGROGRAPHE_DATA: folder, NIGROGRAPHE_DB_PORT: String(databasePort) };
  return spawn("./start", [], { env, detached: true, stdio: ["ignore", "pipe", "pipe"] });
}

/** Starts the whole application as a person does. */
export async function startApplication(place: Place): Promise<Application> {
  const application = callStart(place);
  const ended = new Promise((resolve) => application.once("exit", resolve));
  let said = "";
  await new Promise<void>((resolve, reject) => {
    const listen = (chunk: Buffer) => {
      said += chunk.toString();
      if (said.includes("Nigrographe is at")) resolve();
    };
    application.stdout.on("data", listen);
    application.stderr.on("data", listen);
    setTimeout(() => reject(new Error(`the application did not start:\n${said}`)), READY_WITHIN_MS).unref();
    application.once("exit", () => reject(new Error(`the application ended:\n${said}`)));
  });
  return {
    address: `http://localhost:${place.port}`,
    async stop() {
      application.kill("SIGINT");
      await ended;
    },
    async kill() {
      const family = withDescendants(application.pid!);
      for (const pid of family) signal(pid, "SIGKILL");
      await ended;
      while (family.some((pid) => signal(pid, 0))) await new Promise((resolve) => setTimeout(resolve, 20));
    },
  };
}

/** Whether there was such a process to signal. */
function signal(pid: number, name: "SIGKILL" | 0): boolean {
  try {
    return process.kill(pid, name);
  } catch {
    return false;
  }
}

/** A process and all that it and its children started, parents first. */
function withDescendants(pid: number): number[] {
  const rows = execFileSync("ps", ["-eo", "pid=,ppid="], { encoding: "utf8" })
    .trim()
    .split("\n")
    .map((row) => row.trim().split(/\s+/).map(Number) as [number, number]);
  const family = [pid];
  for (const parent of family) family.push(...rows.filter(([, ppid]) => ppid === parent).map(([child]) => child));
  return family;
}

/** One application for all browser tests. */
export default async function setup(project: TestProject) {
  const place = await applicationPlace();
  const application = await startApplication(place);
  project.provide("address", application.address);
  return async () => {
    await application.stop();
    rmSync(place.folder, { recursive: true, force: true });
  };
}
