import { mkdirSync, mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { crc32 } from "node:zlib";
import { afterAll, beforeEach, expect, test, vi } from "vitest";

/** What was done to the disk, in its order. */
const done = vi.hoisted((): string[] => []);

vi.mock("node:fs", async (original) => {
  const fs = await original<typeof import("node:fs")>();
  const paths = new Map<number, string>();
  return {
    ...fs,
    openSync(path: string, flags: string) {
      const descriptor = fs.openSync(path, flags);
      paths.set(descriptor, path);
      return descriptor;
    },
    fsyncSync(descriptor: number) {
      done.push(`flush ${paths.get(descriptor)}`);
      fs.fsyncSync(descriptor);
    },
  };
});
vi.mock("node:fs/promises", async (original) => {
  const fs = await original<typeof import("node:fs/promises")>();
  return {
    ...fs,
    async open(path: string, flags: string) {
      const handle = await fs.open(path, flags);
      const sync = handle.sync.bind(handle);
      handle.sync = () => (done.push(`flush ${path}`), sync());
      return handle;
    },
    rename(from: string, to: string) {
      done.push(`rename ${from} ${to}`);
      return fs.rename(from, to);
    },
  };
});
const { nameFolder, readSealed, sealOf, writeSealed } = await import("./sealed");
const { damagedLevels, readSealedLevels, writeSealedLevels } = await import("./sealedLevels");

const folder = mkdtempSync(join(tmpdir(), "nigrographe-sealed-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
beforeEach(() => void done.splice(0));

test("a file is flushed before it has its name, and its name after", async () => {
  const file = join(folder, "small");
  await writeSealed(file, Buffer.from("of some bytes"));
  expect(done).toHaveLength(3);
  const [flushed, renamed, named] = done;
  const unfinished = flushed!.replace("flush ", "");
  expect(unfinished).not.toBe(file);
  expect([renamed, named]).toEqual([`rename ${unfinished} ${file}`, `flush ${folder}`]);
  expect((await readSealed(file))!.toString()).toBe("of some bytes");
});

test("levels in a folder are all flushed before it has its name", async () => {
  const [unfinished, whole] = [join(folder, "unfinished"), join(folder, "whole")];
  mkdirSync(unfinished);
  const names = ["full.raw", "preview.raw", "preview.grain"];
  for (const name of names) writeFileSync(join(unfinished, name), Buffer.alloc(3_000_000, name));
  const level = { offset: 0, width: 1, height: 1, depth: 8, space: null as never } as const;
  const [full, preview, grain] = names.map((name) => join(unfinished, name)) as [string, string, string];
  await writeSealedLevels(unfinished, "index.json", {
    files: [
      { ...level, file: full },
      { ...level, file: preview, grain },
    ],
  });
  await nameFolder(unfinished, whole);
  const named = done.indexOf(`rename ${unfinished} ${whole}`);
  for (const path of [full, preview, grain, unfinished]) {
    expect(done).toContain(`flush ${path}`);
    expect(done.indexOf(`flush ${path}`)).toBeLessThan(named);
  }
  expect(done.slice(named + 1)).toEqual([`flush ${folder}`]);
  expect((await readSealedLevels<{ files: { file: string }[] } & { files: never[] }>(whole, "index.json"))!.files).toMatchObject([
    { file: join(whole, "full.raw") },
    { file: join(whole, "preview.raw"), grain: join(whole, "preview.grain") },
  ]);
  expect(await damagedLevels(whole, "index.json")).toEqual([]);
  truncateSync(join(whole, "preview.grain"), 7);
  expect(await readSealedLevels(whole, "index.json")).toBeUndefined();
  expect(await damagedLevels(whole, "index.json")).toEqual(["preview.grain"]);
});

test("a seal is the length and the checksum of all of a file, however it is read", () => {
  const file = join(folder, "large");
  const bytes = Buffer.alloc((1 << 21) + 12_345, "nigrographe");
  writeFileSync(file, bytes);
  expect(sealOf(file)).toEqual({ bytes: bytes.length, crc32: crc32(bytes) });
});

test("a file that ends in what looks like a seal is read as it was written", async () => {
  const file = join(folder, "odd");
  await writeSealed(file, Buffer.from("x\nsealed 1 00000000\n"));
  expect((await readSealed(file))!.toString()).toBe("x\nsealed 1 00000000\n");
  writeFileSync(file, readFileSync(file).subarray(0, -1));
  expect(await readSealed(file)).toBeUndefined();
});
