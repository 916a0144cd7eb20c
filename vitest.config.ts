import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

const alias = { "@": fileURLToPath(new URL("./src", import.meta.url)) };

export default defineConfig({
  resolve: { alias },
  test: {
    // Two files at a time where there are two cores; pages are driven one after the other.
    maxWorkers: 2,
    projects: [
      {
        resolve: { alias },
        test: { name: "unit", include: ["src/**/*.test.ts", "tests/architecture.test.ts"], environment: "node", testTimeout: 30_000 },
      },
      {
        resolve: { alias },
        test: { name: "engine", include: ["tests/engine/**/*.test.ts"], environment: "node", testTimeout: 60_000 },
      },
      {
        resolve: { alias },
        test: {
          name: "server",
          include: ["tests/server/**/*.test.ts"],
          globalSetup: "tests/server/cluster.ts",
          testTimeout: 60_000,
          hookTimeout: 120_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "browser",
          include: ["tests/browser/**/*.test.ts"],
          globalSetup: "tests/browser/application.ts",
          testTimeout: 90_000,
          hookTimeout: 180_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
