// Bundles the command line, the export worker, the setup and their threads into dist/.
import { build } from "esbuild";

await build({
  entryPoints: {
    render: "cli/render.ts",
    web: "cli/web.ts",
    worker: "cli/worker.ts",
    check: "cli/check.ts",
    passphrase: "cli/passphrase.ts",
    setup: "cli/setup.ts",
    schema: "cli/schema.ts",
    gatherThread: "src/engine/node/gatherThread.ts",
    renderThread: "src/engine/node/renderThread.ts",
    planThread: "src/server/prints/planThread.ts",
    pictureThread: "src/engine/node/pictureThread.ts",
  },
  outdir: "dist",
  outExtension: { ".js": ".mjs" },
  bundle: true,
  // All but what brings a library of its own, or is only loaded by others: one file starts in half the time of a hundred.
  external: ["sharp", "next", "react", "react-dom"],
  banner: { js: 'import { createRequire as requireFrom } from "node:module"; const require = requireFrom(import.meta.url);' },
  platform: "node",
  format: "esm",
  target: "node20",
  tsconfig: "tsconfig.json",
  logLevel: "warning",
});
