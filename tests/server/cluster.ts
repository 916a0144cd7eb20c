import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { createServer, type AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { TestProject } from "vitest/node";
import { startCluster } from "../../scripts/cluster.mjs";

declare module "vitest" {
  interface ProvidedContext {
    databaseUrl: string;
  }
}

/** A PostgreSQL of the suite's own, thrown away afterwards. */
export default async function setup(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), "nigrographe-cluster-"));
  chmodSync(folder, 0o755);
  const cluster = await startCluster({ folder, port: await freePort(), isThrowaway: true });
  project.provide("databaseUrl", cluster.url);
  return async () => {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}

/** A port nobody listens on just now. */
export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once("error", reject);
    server.listen(0, "127.0.0.1", () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });
}
