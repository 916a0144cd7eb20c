import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { describe, expect, test } from "vitest";

// Imports point one way: core ← contracts ← engine ← features ← app, and core ← contracts ← engine ← server ← app.

const SRC = resolve("src");
const MAY_IMPORT: Record<string, readonly string[]> = {
  core: [],
  contracts: ["core", "zod"],
  engine: ["core", "contracts", "sharp", "exif-reader", "node:"],
  server: ["core", "contracts", "engine", "zod", "postgres", "node:"],
  features: [
    "core",
    "contracts",
    "engine",
    "theme",
    "zod",
    "react",
    "react-dropzone",
    "next",
    "antd",
    "@ant-design",
    "@dnd-kit",
    "@tanstack",
    "d3",
    "zustand",
    "idb-keyval",
    "uuid",
    "pdf-lib",
  ],
  theme: ["antd"],
};
const IMPORT = /^(?:import|export)\s(?:[^"';=]*\sfrom\s*)?["']([^"']+)["']|\bimport\(\s*["']([^"']+)["']\s*\)/gm;

/** The folder or package an import reaches: "core" for "@/core/plane", "node:" for any part of Node. */
function reached(file: string, specifier: string): string {
  if (specifier.startsWith(".")) specifier = relative(SRC, join(dirname(file), specifier));
  if (specifier.startsWith("node:")) return "node:";
  return specifier.replace(/^@\//, "").split("/")[0]!;
}

function filesIn(folder: string): string[] {
  return readdirSync(join(SRC, folder), { recursive: true, encoding: "utf8" })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$|\.generated\.ts$/.test(name))
    .map((name) => join(SRC, folder, name));
}

const importsOf = (file: string) => [...readFileSync(file, "utf8").matchAll(IMPORT)].map((match) => (match[1] ?? match[2])!);

describe.each(Object.entries(MAY_IMPORT))("src/%s", (folder, allowed) => {
  const files = filesIn(folder);
  test("has files to check", () => expect(files).not.toEqual([]));
  test.each(files)("%s", (file) => {
    const astray = importsOf(file)
      .map((specifier) => reached(file, specifier))
      .filter((to) => to !== folder && !allowed.includes(to));
    expect(astray).toEqual([]);
  });
});

test("the engine's browser part uses nothing of Node, and only its node part does", () => {
  const files = filesIn("engine").filter((file) => !file.includes("/engine/node/"));
  expect(files.length).toBeGreaterThan(3);
  for (const file of files) {
    const node = importsOf(file).filter(
      (specifier) => specifier.startsWith("node:") || specifier === "sharp" || specifier.includes("/node/"),
    );
    expect([file, node]).toEqual([file, []]);
  }
});

test("the core asks for no clock, no chance and no page", () => {
  for (const file of filesIn("core")) {
    const found = readFileSync(file, "utf8").match(/\b(Date\.now|new Date|performance\.|Math\.random|document\.|window\.|process\.)/);
    expect([file, found?.[0]]).toEqual([file, undefined]);
  }
});

// What a kind of pass is and does is said in its own folders; elsewhere a kind is asked for by name alone.
test("no file outside the folders of kinds tells them apart", () => {
  const own = /\/passes\//;
  const telling = /\bmove\??\.kind\s*[!=]==\s*["']|case "(?:placement|exposure|edge-burn|contrast|contrast-mask)"/;
  const files = ["core", "contracts", "engine", "server", "features"].flatMap(filesIn).filter((file) => !own.test(file));
  expect(files.filter((file) => telling.test(readFileSync(file, "utf8")))).toEqual([]);
});
