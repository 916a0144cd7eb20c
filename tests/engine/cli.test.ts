import { execFile } from "node:child_process";
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";
import { expect, test } from "vitest";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { colourful, rgb16, wedge16 } from "../madePictures";
import { temporaryFolder } from "../temporary";

const folder = temporaryFolder();
const at = (name: string) => join(folder, name);

function render(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  return new Promise((resolve) => {
    execFile("./render", args, { maxBuffer: 1 << 24 }, (error, out, err) => resolve({ code: error ? Number(error.code) : 0, out, err }));
  });
}

const { levels, width, height } = wedge16();
await rgb16(levels, width, height).png().toFile(at("wedge.png"));
await rgb16(colourful(200, 100), 200, 100).tiff({ compression: "lzw" }).toFile(at("colours.tif"));
writeFileSync(at("words.jpg"), "only words");
writeFileSync(at("plan.json"), JSON.stringify(defaultPlan()));

test("--print-plan writes the default plan, which it then takes", async () => {
  const { code, out } = await render("--print-plan");
  expect(code).toBe(0);
  expect(JSON.parse(out)).toEqual(defaultPlan());
});

test("the wedge comes out unchanged as a file, several pictures go to a folder", async () => {
  expect((await render(at("wedge.png"), "--plan", at("plan.json"), "--out", at("wedge-out.tif"))).code).toBe(0);
  const { data } = await sharp(at("wedge-out.tif"))
    .keepIccProfile()
    .toColourspace("grey16")
    .raw({ depth: "ushort" })
    .toBuffer({ resolveWithObject: true });
  expect(
    new Uint16Array(data.buffer, data.byteOffset, data.length / 2).every((level, i) => Math.abs(level - Math.min(i, 65535)) <= 1),
  ).toBe(true);
  const both = await render(
    at("wedge.png"),
    at("colours.tif"),
    "--plan",
    at("plan.json"),
    "--out",
    at("prints"),
    "--format",
    "jpeg",
    "--size",
    "50",
    "--threads",
    "1",
  );
  expect(both.code).toBe(0);
  expect(readdirSync(at("prints")).sort()).toEqual(["colours.jpg", "wedge.jpg"]);
  expect(await sharp(at("prints/colours.jpg")).metadata()).toMatchObject({ width: 50, height: 25, format: "jpeg", channels: 1 });
});

test("a print that carries colour is written in it, in the space that is named or in grey, and one without is grey", async () => {
  const plan = defaultPlan();
  plan.passes.push(restingPass("tint", "tint", "Tint"));
  writeFileSync(at("tinted.json"), JSON.stringify(plan));
  const written = async (name: string, ...more: string[]) => {
    const { code } = await render(at("colours.tif"), "--plan", at(name), "--out", at("coloured.png"), "--overwrite", ...more);
    expect(code).toBe(0);
    const { channels, icc } = await sharp(at("coloured.png")).metadata();
    return { channels, profile: icc!.toString("latin1").replaceAll("\0", "") };
  };
  expect(await written("tinted.json")).toMatchObject({ channels: 3, profile: expect.stringContaining("sRGB primaries") as string });
  expect(await written("tinted.json", "--colour", "display-p3")).toMatchObject({
    channels: 3,
    profile: expect.stringContaining("Display P3") as string,
  });
  expect((await written("tinted.json", "--colour", "grey")).channels).toBe(1);
  expect((await written("plan.json")).channels).toBe(1);
  const refused = await render(at("colours.tif"), "--plan", at("tinted.json"), "--out", at("no.png"), "--colour", "mauve");
  expect(refused.code).toBe(2);
  expect(refused.err).toContain("--colour mauve");
});

test("a picture that cannot be read is named, the others are rendered, and the exit code says so", async () => {
  const { code, out, err } = await render(
    at("words.jpg"),
    at("nowhere.png"),
    at("colours.tif"),
    "--plan",
    at("plan.json"),
    "--out",
    at("some"),
  );
  expect(code).toBe(1);
  expect(err).toContain("words.jpg: this is not a JPEG");
  expect(err).toContain("nowhere.png: there is no such file");
  expect(out).toContain("colours.tif →");
  expect(readdirSync(at("some"))).toEqual(["colours.tif"]);
});

test("a plan that is not valid is refused with field and reason, and nothing is written", async () => {
  const plan = defaultPlan();
  plan.passes[0]!.strength = 7;
  writeFileSync(at("bad.json"), JSON.stringify(plan));
  writeFileSync(at("cut.json"), '{"version": 1,');
  const wrong = await render(at("colours.tif"), "--plan", at("bad.json"), "--out", at("none.tif"));
  expect(wrong.code).toBe(2);
  expect(wrong.err).toContain("passes[0].strength:");
  expect((await render(at("colours.tif"), "--plan", at("cut.json"), "--out", at("none.tif"))).code).toBe(2);
  expect((await render(at("colours.tif"), "--plan", at("missing.json"), "--out", at("none.tif"))).err).toContain(
    "missing.json cannot be read",
  );
  expect(existsSync(at("none.tif"))).toBe(false);
});

test.each([
  [["x.png"], /--plan is missing/],
  [["x.png", "--plan", "p"], /--out is missing/],
  [["--plan", "p", "--out", "o"], /no picture named/],
  [["x.png", "--colour"], /--colour/],
  [["x.png", "--plan", "PLAN", "--out", "a.bmp"], /none of .tif/],
  [["x.png", "--plan", "PLAN", "--out", "a.tif", "--size", "huge"], /--size huge/],
  [["x.png", "--plan", "PLAN", "--out", "a.tif", "--format", "bmp"], /--format bmp/],
  [["x.png", "--plan", "PLAN", "--out", "a.tif", "--threads", "0"], /--threads 0/],
  [["x.png", "y.png", "--plan", "PLAN", "--out", "FILE"], /is a file/],
  [["x.png", "y.png", "--plan", "PLAN", "--out", "-"], /takes one picture/],
  [["a/x.png", "b/X.tif", "--plan", "PLAN", "--out", "twins/"], /both be written as X; nothing was rendered/],
  [["x.png", "--plan", "PLAN", "--out", "a.tif", "--resolution", "0"], /--resolution 0/],
])("the call %j is explained", async (args, words) => {
  const { code, err } = await render(...args.map((arg) => ({ PLAN: at("plan.json"), FILE: at("plan.json") })[arg] ?? arg));
  expect(code).toBe(2);
  expect(err).toMatch(words);
});

test("--help names every option", async () => {
  const { code, out } = await render("--help");
  expect(code).toBe(0);
  const options = [
    "--plan",
    "--out",
    "--format",
    "--size",
    "--quality",
    "--threads",
    "--print-plan",
    "--overwrite",
    "--resolution",
    "--no-capture",
  ];
  for (const option of [...options, "--place", "-h", "--version", "Exit code"]) expect(out).toContain(option);
  expect((await render("-h")).out).toBe(out);
  expect((await render("--version")).out).toMatch(/^Nigrographe \d+\.\d+\.\d+, plans up to version \d+\n$/);
});

test("an existing file is replaced only by a whole one", async () => {
  writeFileSync(at("kept.tif"), "older work");
  writeFileSync(at("broken.png"), readFileSync(at("wedge.png")).subarray(0, 2000));
  expect((await render(at("broken.png"), "--plan", at("plan.json"), "--out", at("kept.tif"))).code).toBe(1);
  expect(readFileSync(at("kept.tif"), "utf8")).toBe("older work");
});

test("a file that is there is left alone unless it is said: a number is added to the name", async () => {
  const call = ["--plan", at("plan.json"), "--out", at("numbered"), "--format", "png8"];
  for (let k = 0; k < 3; k++) expect((await render(at("colours.tif"), ...call)).code).toBe(0);
  expect(readdirSync(at("numbered")).sort()).toEqual(["colours 2.png", "colours 3.png", "colours.png"]);
  expect((await render(at("colours.tif"), ...call, "--overwrite")).out).toContain("colours.png");
  expect(readdirSync(at("numbered"))).toHaveLength(3);
});

test("a picture goes from standard input to standard output, as the same file as by names; a plan may name its schema", async () => {
  writeFileSync(at("named.json"), JSON.stringify({ $schema: "../docs/plan.schema.json", ...defaultPlan() }));
  await render(at("colours.tif"), "--plan", at("plan.json"), "--out", at("by-name.png"));
  const child = execFile("./render", ["-", "--plan", at("named.json"), "--out", "-", "--format", "png16"], {
    encoding: "buffer",
    maxBuffer: 1 << 24,
  });
  const pieces: Buffer[] = [];
  child.stdout!.on("data", (piece: Buffer) => pieces.push(piece));
  child.stdin!.end(readFileSync(at("colours.tif")));
  expect(await new Promise((resolve) => child.on("close", resolve))).toBe(0);
  expect(Buffer.concat(pieces).equals(readFileSync(at("by-name.png")))).toBe(true);
});
