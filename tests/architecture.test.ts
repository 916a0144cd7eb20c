import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { describe, expect, test } from "vitest";
import { PASS_KINDS } from "@/core/passes/passKinds";

// Imports point one way: core ← contracts ← engine ← features ← app, and core ← contracts ← engine ← server ← app.

const SRC = resolve("src");
const MAY_IMPORT: Record<string, readonly string[]> = {
  core: [],
  contracts: ["core", "zod"],
  engine: ["core", "contracts", "sharp", "exif-reader", "fast-xml-parser", "node:"],
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
  app: ["core", "contracts", "server", "features", "theme", "zod", "react", "next", "antd", "@ant-design"],
  "../cli": ["core", "contracts", "engine", "server", "zod", "next", "node:"],
};
/** Folders within a folder that some may not reach though they may reach the rest of it. */
const MAY_NOT_REACH: Record<string, readonly string[]> = { features: ["engine/node"], server: ["engine/browser"], app: ["engine"] };
/** What a file brings in: by import and export, by name or as text without gaps, by require, and as the address of a worker. */
const IMPORT = new RegExp(
  [
    /^(?:import|export)\s(?:[^"';=]*\sfrom\s*)?["']([^"']+)["']/,
    /\bimport\(\s*["'`]([^"'`$]+)["'`]\s*\)/,
    /\brequire\(\s*["'`]([^"'`$]+)["'`]\s*\)/,
    /\bnew URL\(\s*["'`](\.[^"'`$]*\.tsx?)["'`],\s*import\.meta\.url/,
  ]
    .map(({ source }) => source)
    .join("|"),
  "gm",
);
/** One whose text has gaps could reach anything. */
const UNTOLD = /\b(?:import|require)\(\s*(?:`[^`]*\$\{|[A-Za-z_$])/;

/** The folder or package an import reaches: "core" for "@/core/plane", "node:" for any part of Node. */
function reached(file: string, specifier: string): string {
  const path = pathOf(file, specifier);
  return path.startsWith("node:") ? "node:" : path.startsWith("../cli") ? "../cli" : path.split("/")[0]!;
}

function pathOf(file: string, specifier: string): string {
  return specifier.startsWith(".") ? relative(SRC, join(dirname(file), specifier)) : specifier.replace(/^@\//, "");
}

function filesIn(folder: string): string[] {
  return readdirSync(join(SRC, folder), { recursive: true, encoding: "utf8" })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$|\.generated\.ts$/.test(name))
    .map((name) => join(SRC, folder, name));
}

const importsIn = (text: string) => [...text.matchAll(IMPORT)].map((match) => match.slice(1).find((group) => group !== undefined)!);
const importsOf = (file: string) => importsIn(readFileSync(file, "utf8"));

test("imports of every kind are seen", () => {
  const text = `import a from "one";
export { b } from "two";
import "three";
import {
  c,
} from "four";
const d = await import("five");
const e = await import(\`six\`);
const f = require("seven");
new Worker(new URL("./eight.ts", import.meta.url));`;
  expect(importsIn(text)).toEqual(["one", "two", "three", "four", "five", "six", "seven", "./eight.ts"]);
  for (const untold of ["import(name)", "import(`./${name}`)", "require(name)"]) expect(UNTOLD.test(untold)).toBe(true);
});

describe.each(Object.entries(MAY_IMPORT))("src/%s", (folder, allowed) => {
  const files = filesIn(folder);
  test("has files to check", () => expect(files).not.toEqual([]));
  test.each(files)("%s", (file) => {
    const astray = importsOf(file)
      .map((specifier) => reached(file, specifier))
      .filter((to) => to !== folder && !allowed.includes(to));
    expect(astray).toEqual([]);
    const closed = MAY_NOT_REACH[folder] ?? [];
    expect(importsOf(file).filter((specifier) => closed.some((within) => `${pathOf(file, specifier)}/`.startsWith(`${within}/`)))).toEqual(
      [],
    );
    expect(readFileSync(file, "utf8")).not.toMatch(UNTOLD);
  });
});

test("the engine's browser part uses nothing of Node, and only its node part does", () => {
  const files = filesIn("engine").filter((file) => !file.includes("/engine/node/"));
  expect(files.length).toBeGreaterThan(3);
  for (const file of files) {
    const node = importsOf(file).filter(
      (specifier) =>
        specifier.startsWith("node:") || specifier === "sharp" || specifier === "fast-xml-parser" || specifier.includes("/node/"),
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

/** Where the folders of a folder may import each other one way only; its own files count as one more. */
const LAYERED = ["core", "engine", "features"];

/** Which folders within one are reached from which. */
function arrowsIn(folder: string): Map<string, Set<string>> {
  const partOf = (path: string) => (path.includes("/") ? path.split("/")[0]! : "");
  const arrows = new Map<string, Set<string>>();
  for (const file of filesIn(folder))
    for (const specifier of importsOf(file)) {
      const path = pathOf(file, specifier);
      if (!path.startsWith(`${folder}/`)) continue;
      const [from, to] = [partOf(relative(join(SRC, folder), file)), partOf(path.slice(folder.length + 1))];
      if (from !== to) arrows.set(from, (arrows.get(from) ?? new Set()).add(to));
    }
  return arrows;
}

test.each(LAYERED)("folders within src/%s import each other one way: none is reached from itself", (folder) => {
  const arrows = arrowsIn(folder);
  expect(arrows.size).toBeGreaterThan(2);
  const reachedFrom = (from: string, seen = new Set<string>()): Set<string> => {
    for (const to of arrows.get(from) ?? []) if (!seen.has(to)) reachedFrom(to, seen.add(to));
    return seen;
  };
  expect([...arrows.keys()].filter((from) => reachedFrom(from).has(from))).toEqual([]);
});

/** Files in a folder, besides its folders: more are not taken in at a glance. */
const MOST_FILES = 25;

test.each(["core", "engine", "server", "contracts", "app"])("no folder within src/%s has too many files", (folder) => {
  const counts = new Map<string, number>();
  for (const file of filesIn(folder)) counts.set(dirname(file), (counts.get(dirname(file)) ?? 0) + 1);
  expect([...counts].filter(([, count]) => count > MOST_FILES)).toEqual([]);
});

// What a kind of pass is and does is said in its own folders; elsewhere a kind is asked for by name alone.
test("no file outside the folders of kinds tells them apart", () => {
  const own = /\/passes\//;
  const telling = new RegExp(`\\bmove\\??\\.kind\\s*[!=]==\\s*["']|case "(?:${Object.keys(PASS_KINDS).join("|")})"`);
  const files = ["core", "contracts", "engine", "server", "features"].flatMap(filesIn).filter((file) => !own.test(file));
  expect(files.filter((file) => telling.test(readFileSync(file, "utf8")))).toEqual([]);
});

// As docs/decisions/0020-kinds.md says how one is added.
test.each(Object.keys(PASS_KINDS))("%s is where the description of adding a kind puts it", (kind) => {
  const camel = kind.replace(/-(.)/g, (_, letter: string) => letter.toUpperCase());
  const faces = ["face.ts", "face.tsx"].map((file) => join(SRC, "features/bench/passes", kind, file));
  expect(faces.some((file) => existsSync(file))).toBe(true);
  for (const file of [`core/passes/${kind}/move.ts`, `core/passes/${kind}/kind.ts`, `contracts/passes/${camel}.ts`])
    expect([file, existsSync(join(SRC, file))]).toEqual([file, true]);
  for (const file of ["docs/plan.schema.json", "tests/anyPlan.ts"])
    expect([file, readFileSync(file, "utf8").includes(`"${kind}"`)]).toEqual([file, true]);
});

test("the page on how it works names folders and files that are there", () => {
  const page = readFileSync("docs/how-it-works.md", "utf8");
  const named = [...page.matchAll(/\b((?:core|contracts|engine|features|server|app)\/[\w./-]+)/g)].map(([, path]) =>
    path!.replace(/[.…]+$/, "").replace(/\/$/, ""),
  );
  expect(named.length).toBeGreaterThan(25);
  const isThere = (path: string) => ["", ".ts", ".tsx"].some((ending) => existsSync(join(SRC, path + ending)));
  expect(named.filter((path) => !isThere(path) && !path.endsWith("passes"))).toEqual([]);
});

test("colours are the theme's: no style sheet makes its own", () => {
  const sheets = readdirSync(SRC, { recursive: true, encoding: "utf8" }).filter((file) => file.endsWith(".module.css"));
  expect(sheets.length).toBeGreaterThan(10);
  // Tokens, and what a component gives its own sheet.
  const tokens =
    readFileSync(join(SRC, "theme/tokens.css"), "utf8") +
    filesIn("features")
      .map((file) => readFileSync(file, "utf8"))
      .join("");
  for (const sheet of sheets) {
    const rules = readFileSync(join(SRC, sheet), "utf8");
    expect([sheet, rules.match(/#[0-9a-f]{3,8}\b|\brgba?\(/gi)]).toEqual([sheet, null]);
    const unknown = [...rules.matchAll(/var\((--[\w-]+)/g)]
      .map(([, name]) => name!)
      .filter((name) => !tokens.includes(`${name}:`) && !tokens.includes(`"${name}"`));
    expect([sheet, unknown]).toEqual([sheet, []]);
  }
});

/** Characters of a line of words. */
const LONGEST_COMMENT = 140;

test("lines of comments end where the eye still finds the next", () => {
  const files = ["core", "contracts", "engine", "server", "features", "app", "theme", "../cli"].flatMap(filesIn);
  const long = files.flatMap((file) =>
    readFileSync(file, "utf8")
      .split("\n")
      .flatMap((line, i) => (/^\s*(\/\/|\/?\*)/.test(line) && line.length > LONGEST_COMMENT ? [`${file}:${i + 1}`] : [])),
  );
  expect(long).toEqual([]);
});

/** Lines a component may have: more than a screen of it is two. */
const MOST_LINES = 125;

test("components are taken in at a glance", () => {
  const long = filesIn("features")
    .filter((file) => file.endsWith(".tsx"))
    .flatMap((file) => {
      const lines = readFileSync(file, "utf8").split("\n");
      const begins = lines.flatMap((line, i) => (/^(export )?(const \w+ = memo\()?function \w+/.test(line) ? [i] : []));
      return begins.flatMap((begin) => {
        const length = lines.slice(begin).findIndex((line) => /^\}\)?;?$/.test(line)) + 1;
        return length > MOST_LINES ? [`${file}:${begin + 1} has ${length} lines`] : [];
      });
    });
  expect(long).toEqual([]);
});
