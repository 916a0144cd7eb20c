// Compiles the AssemblyScript kernels and writes them as a base64 string in a module, so that browser
// and Node load the same bytes without a bundler rule or a path.
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import asc from "assemblyscript/asc";

const root = new URL("..", import.meta.url).pathname;
const folder = "src/core/kernels/as";
const source = `${folder}/kernels.ts`;
const target = join(root, "src/core/kernels/wasmBytes.generated.ts");
const sources = [...readdirSync(join(root, folder)).map((file) => join(root, folder, file)), new URL(import.meta.url).pathname];
const built = join(root, "build/kernels.wasm");

const isFresh = () => {
  try {
    return statSync(target).mtimeMs > Math.max(...sources.map((file) => statSync(file).mtimeMs));
  } catch {
    return false;
  }
};

if (!isFresh()) {
  mkdirSync(join(root, "build"), { recursive: true });
  const { error } = await asc.main([
    source,
    "--baseDir",
    root,
    "-O3",
    "--noAssert",
    "--runtime",
    "stub",
    "--importMemory",
    "--enable",
    "simd",
    "-o",
    "build/kernels.wasm",
  ]);
  if (error) {
    console.error(error);
    process.exit(1);
  }
  const bytes = readFileSync(built);
  writeFileSync(
    target,
    `// Made by scripts/build-kernels.mjs from as/kernels.ts.\nexport const WASM_BASE64 =\n  "${bytes.toString("base64")}";\n`,
  );
  rmSync(built);
  console.log(`kernels: ${bytes.length} bytes of WebAssembly`);
}
