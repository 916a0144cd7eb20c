import { createReadStream, createWriteStream } from "node:fs";
import { mkdir, mkdtemp, readFile, rm, stat } from "node:fs/promises";
import { tmpdir } from "node:os";
import { basename, extname, join, parse } from "node:path";
import { pipeline } from "node:stream/promises";
import { parseArgs } from "node:util";
import {
  EXPORT_FORMATS,
  EXPORT_FORMAT_FACTS,
  exportNoise,
  exportSpace,
  ExportSettings,
  JPEG_QUALITY,
  type ExportFormat,
} from "@/contracts/exportSettings";
import { parsePlan } from "@/contracts/plan";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { PLAN_VERSION, type Plan } from "@/core/plan/plan";
import { cleanLevel } from "@/engine/node/cleanPicture";
import { decodePicture } from "@/engine/node/decodePicture";
import { OUTPUT_SPACES } from "@/core/colour/printColour";
import { OUTPUT_SHARPENINGS, sharpeningFor } from "@/core/passes/sharpen/forOutput";
import { renderToFile, type RenderOptions } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";

const USAGE = `Renders pictures to monochrome through a print plan, without server or database.

  ./render PICTURE... --plan PLAN.json --out FOLDER|FILE|- [options]
  ./render --print-plan                 writes the default plan (JSON; schema in docs/plan.schema.json)

  PICTURE            a file, or - for one on standard input
  --plan FILE        the print plan
  --out PATH         a folder, or, for a single picture, a file, or - for standard output
  --overwrite        write over files that are there; else a number is added to the name
  --format NAME      ${EXPORT_FORMATS.join(", ")} (default: from the file name of --out, else tiff16)
  --size N           long edge in pixels; never enlarges
  --quality N        of a JPEG, 1 to 100 (default ${JPEG_QUALITY})
  --colour NAME      of a print that carries colour: ${OUTPUT_SPACES.join(", ")} or grey (default srgb)
  --sharpen NAME     for the size of the output: ${OUTPUT_SHARPENINGS.join(", ")} (default none)
  --resolution N     pixels to an inch of paper, noted in the file (default 300)
  --no-capture       leave out what the camera noted
  --place            keep where the picture was taken
  --threads N        default 2
  -h, --help         this
  --version

Exit code 0 when every picture was rendered, 1 when one was not, 2 when the call or the plan is wrong.
`;

/** Standard input as a picture, standard output as a place for one. */
const STANDARD = "-";

/** A call that cannot be carried out as given. */
class UsageError extends Error {}

interface Call {
  pictures: string[];
  plan: Plan;
  out: string;
  outIsFolder: boolean;
  overwrite: boolean;
  settings: ExportSettings;
  threads: number;
}

async function main(args: string[]): Promise<number> {
  if (args.includes("--version")) {
    const { version } = JSON.parse(await readFile(new URL("../package.json", import.meta.url), "utf8")) as { version: string };
    process.stdout.write(`Nigrographe ${version}, plans up to version ${PLAN_VERSION}\n`);
    return 0;
  }
  if (args.length === 0 || args.includes("--help") || args.includes("-h")) {
    process.stdout.write(USAGE);
    return args.length === 0 ? 2 : 0;
  }
  if (args.includes("--print-plan")) {
    process.stdout.write(`${JSON.stringify(defaultPlan(), null, 2)}\n`);
    return 0;
  }
  const call = await readCall(args);
  let failures = 0;
  for (const [i, picture] of call.pictures.entries()) {
    const progress = progressOf(`${call.pictures.length > 1 ? `${i + 1} of ${call.pictures.length}, ` : ""}${picture}`);
    try {
      const written = await renderOne(picture, call, progress.show);
      progress.end();
      if (written !== STANDARD) console.log(`${picture} → ${written}`);
    } catch (error) {
      progress.end();
      failures++;
      console.error(`${picture}: ${(error as Error).message}`);
    }
  }
  return failures === 0 ? 0 : 1;
}

async function readCall(args: string[]): Promise<Call> {
  const { values, positionals } = parseOptions(args);
  if (positionals.length === 0) throw new UsageError("no picture named");
  if (!values.plan) throw new UsageError("--plan is missing; ./render --print-plan writes one to start from");
  if (!values.out) throw new UsageError("--out is missing");
  const outIsFolder = await isFolder(values.out, positionals.length);
  const format = values.format ?? (outIsFolder ? "tiff16" : formatOf(values.out));
  const settings = ExportSettings.safeParse({
    format,
    ...(values.quality && { quality: Number(values.quality) }),
    ...(values.size && { longEdge: Number(values.size) }),
    ...(values.colour && { colour: values.colour }),
    ...(values.sharpen && { sharpen: values.sharpen }),
    ...(values.resolution && { resolution: Number(values.resolution) }),
    capture: !values["no-capture"],
    place: values.place ?? false,
  });
  if (!settings.success) {
    const names: Record<string, string> = {
      format: `--format ${format}`,
      quality: `--quality ${values.quality}`,
      longEdge: `--size ${values.size}`,
      colour: `--colour ${values.colour}`,
      sharpen: `--sharpen ${values.sharpen}`,
      resolution: `--resolution ${values.resolution}`,
    };
    throw new UsageError(settings.error.issues.map((issue) => `${names[String(issue.path[0])]}: ${issue.message}`).join("\n"));
  }
  const threads = Number(values.threads ?? 2);
  if (!Number.isInteger(threads) || threads < 1 || threads > 64)
    throw new UsageError(`--threads ${values.threads}: a whole number from 1 to 64`);
  if (outIsFolder) refuseTwins(positionals);
  const plan = await readPlan(values.plan);
  return {
    pictures: positionals,
    plan,
    out: values.out,
    outIsFolder,
    overwrite: values.overwrite ?? false,
    settings: settings.data,
    threads,
  };
}

/** Two pictures that would come to one file are refused before anything is rendered. */
function refuseTwins(pictures: readonly string[]): void {
  const known = new Map<string, string>();
  for (const picture of pictures) {
    const stem = stemOf(picture);
    // Some file systems tell no capitals.
    const twin = known.get(stem.toLowerCase());
    if (twin !== undefined)
      throw new UsageError(
        `${twin} and ${picture} would both be written as ${stem}; nothing was rendered. Rename one, or render them to two folders`,
      );
    known.set(stem.toLowerCase(), picture);
  }
}

const stemOf = (picture: string) => (picture === STANDARD ? "picture" : basename(picture, extname(picture)));

function parseOptions(args: string[]) {
  const [option, flag] = [{ type: "string" }, { type: "boolean" }] as const;
  try {
    return parseArgs({
      args,
      allowPositionals: true,
      options: {
        plan: option,
        out: option,
        format: option,
        size: option,
        quality: option,
        threads: option,
        colour: option,
        sharpen: option,
        resolution: option,
        overwrite: flag,
        "no-capture": flag,
        place: flag,
      },
    });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}

async function isFolder(out: string, pictures: number): Promise<boolean> {
  if (out === STANDARD) {
    if (pictures > 1) throw new UsageError(`--out - takes one picture, not ${pictures}`);
    return false;
  }
  const there = await stat(out).catch(() => undefined);
  if (there) {
    if (!there.isDirectory() && pictures > 1) throw new UsageError(`--out ${out} is a file, but ${pictures} pictures are to be rendered`);
    return there.isDirectory();
  }
  return pictures > 1 || out.endsWith("/") || extname(out) === "";
}

function formatOf(path: string): ExportFormat {
  if (path === STANDARD) return "tiff16";
  const extension = extname(path).slice(1).toLowerCase().replace("tiff", "tif").replace("jpeg", "jpg");
  const format = EXPORT_FORMATS.find((name) => EXPORT_FORMAT_FACTS[name].extension === extension);
  if (!format) throw new UsageError(`--out ${path}: its ending is none of .tif, .png, .jpg; say --format`);
  return format;
}

async function readPlan(path: string): Promise<Plan> {
  let json: unknown;
  try {
    json = JSON.parse(await readFile(path, "utf8"));
  } catch (error) {
    throw new UsageError(`the plan ${path} cannot be read: ${(error as Error).message}`);
  }
  try {
    return parsePlan(json);
  } catch (error) {
    throw new UsageError(`the plan ${path} is not valid:\n${(error as Error).message.replace(/^/gm, "  ")}`);
  }
}

/** Renders a picture; returns where it was written. */
async function renderOne(picture: string, call: Call, onProgress: (part: number) => void): Promise<string> {
  const { settings } = call;
  const { depth, extension } = EXPORT_FORMAT_FACTS[settings.format];
  if (call.outIsFolder) await mkdir(call.out, { recursive: true });
  const folder = await mkdtemp(join(tmpdir(), "nigrographe-"));
  try {
    const file = await readable(picture, folder);
    const decoded = await decodePicture(file, join(folder, "full"));
    for (const note of decoded.facts.notes) console.error(`${picture}: ${note}`);
    const options: RenderOptions = {
      cleaned: async () => ({ full: cleanLevel(decoded, join(folder, "clean")) }),
      depth,
      noise: exportNoise(settings),
      sharpen: sharpeningFor(settings.sharpen),
      space: exportSpace(settings),
      longEdge: settings.longEdge,
      threads: call.threads,
      onProgress,
      threadFile: new URL("./renderThread.mjs", import.meta.url),
    };
    const rendered = await renderToFile(decoded, call.plan, options, join(folder, "levels.tif"));
    if (call.out === STANDARD) {
      const whole = join(folder, `print.${extension}`);
      await writePrint(rendered, settings, whole, decoded.exif);
      await pipeline(createReadStream(whole), process.stdout, { end: false });
      return STANDARD;
    }
    const wanted = call.outIsFolder ? join(call.out, `${stemOf(picture)}.${extension}`) : call.out;
    const target = call.overwrite ? wanted : await freeName(wanted);
    await writePrint(rendered, settings, target, decoded.exif);
    return target;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** A picture as a file: one on standard input is laid into a folder. */
async function readable(picture: string, folder: string): Promise<string> {
  if (picture !== STANDARD) {
    await stat(picture).catch(() => {
      throw new Error("there is no such file");
    });
    return picture;
  }
  const file = join(folder, "standard-input");
  await pipeline(process.stdin, createWriteStream(file));
  return file;
}

/** The name, or with the first number that no file has yet. */
async function freeName(wanted: string): Promise<string> {
  const { dir, name, ext } = parse(wanted);
  for (let k = 1; ; k++) {
    const path = k === 1 ? wanted : join(dir, `${name} ${k}${ext}`);
    if (!(await stat(path).catch(() => undefined))) return path;
  }
}

/** How far a picture has come, on one line of the terminal; nothing where there is none to look at. */
function progressOf(words: string): { show(part: number): void; end(): void } {
  if (!process.stderr.isTTY) return { show() {}, end() {} };
  return {
    show: (part) => void process.stderr.write(`\r${words}: ${Math.round(100 * part)} %\x1b[K`),
    end: () => void process.stderr.write("\r\x1b[K"),
  };
}

main(process.argv.slice(2)).then(
  (code) => (process.exitCode = code),
  (error: unknown) => {
    const usage = error instanceof UsageError;
    console.error(usage ? `${error.message}\n./render --help shows the options.` : error);
    process.exitCode = usage ? 2 : 1;
  },
);
