import { spawn } from "node:child_process";
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

/** The whole application as a person starts it, with a data folder of its own. */
export default async function setup(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), "nigrographe-app-"));
  chmodSync(folder, 0o755);
  const port = await freePort();
  const env = {
    ...process.env,
    PORT: String(port),
    NIGROGRAPHE_DATA: folder,
    NIGROGRAPHE_DB_PORT: String(await freePort()),
    DATABASE_URL: "",
  };
  const application = spawn("./start", [], { env, detached: true, stdio: ["ignore", "pipe", "pipe"] });
  const ended = new Promise((resolve) => application.once("exit", resolve));
  let said = "";
  const isUp = new Promise<void>((resolve, reject) => {
    const listen = (chunk: Buffer) => {
      said += chunk.toString();
      if (said.includes("Nigrographe is at")) resolve();
    };
    application.stdout.on("data", listen);
    application.stderr.on("data", listen);
    setTimeout(() => reject(new Error(`the application did not start:\n${said}`)), READY_WITHIN_MS).unref();
    application.once("exit", () => reject(new Error(`the application ended:\n${said}`)));
  });
  await isUp;
  project.provide("address", `http://localhost:${port}`);
  return async () => {
    application.kill("SIGINT"); // as Ctrl+C does
    await ended;
    rmSync(folder, { recursive: true, force: true });
  };
}
