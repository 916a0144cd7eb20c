import { mkdir, mkdtemp, readFile, rm, stat } from "node:fs/promises";
import { tmpdir } from "node:os";
import { basename, extname, join } from "node:path";
import { parseArgs } from "node:util";
import {
  EXPORT_FORMATS,
  EXPORT_FORMAT_FACTS,
  exportNoise,
  ExportSettings,
  JPEG_QUALITY,
  type ExportFormat,
} from "@/contracts/exportSettings";
import { parsePlan } from "@/contracts/plan";
import { defaultPlan } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { decodePicture } from "@/engine/node/decodePicture";
import { renderPicture } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";

const USAGE = `Renders pictures to monochrome through a print plan, without server or database.

  ./render PICTURE... --plan PLAN.json --out FOLDER|FILE [options]
  ./render --print-plan                 writes the default plan (JSON; schema in docs/plan.schema.json)

  --plan FILE        the print plan
  --out PATH         a folder, or, for a single picture, a file
  --format NAME      ${EXPORT_FORMATS.join(", ")} (default: from the file name of --out, else tiff16)
  --size N           long edge in pixels; never enlarges
  --quality N        of a JPEG, 1 to 100 (default ${JPEG_QUALITY})
  --threads N        default 2

Exit code 0 when every picture was rendered, 1 when one was not, 2 when the call or the plan is wrong.
`;

/** A call that cannot be carried out as given. */
class UsageError extends Error {}

interface Call {
  pictures: string[];
  plan: Plan;
  out: string;
  outIsFolder: boolean;
  settings: ExportSettings;
  threads: number;
}

async function main(args: string[]): Promise<number> {
  if (args.length === 0 || args.includes("--help")) {
    process.stdout.write(USAGE);
    return args.length === 0 ? 2 : 0;
  }
  if (args.includes("--print-plan")) {
    process.stdout.write(`${JSON.stringify(defaultPlan(), null, 2)}\n`);
    return 0;
  }
  const call = await readCall(args);
  let failures = 0;
  for (const picture of call.pictures) {
    try {
      const written = await renderOne(picture, call);
      console.log(`${picture} → ${written}`);
    } catch (error) {
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
  });
  if (!settings.success) {
    const names: Record<string, string> = {
      format: `--format ${format}`,
      quality: `--quality ${values.quality}`,
      longEdge: `--size ${values.size}`,
    };
    throw new UsageError(settings.error.issues.map((issue) => `${names[String(issue.path[0])]}: ${issue.message}`).join("\n"));
  }
  const threads = Number(values.threads ?? 2);
  if (!Number.isInteger(threads) || threads < 1 || threads > 64)
    throw new UsageError(`--threads ${values.threads}: a whole number from 1 to 64`);
  return { pictures: positionals, plan: await readPlan(values.plan), out: values.out, outIsFolder, settings: settings.data, threads };
}

function parseOptions(args: string[]) {
  const option = { type: "string" as const };
  try {
    return parseArgs({
      args,
      allowPositionals: true,
      options: { plan: option, out: option, format: option, size: option, quality: option, threads: option },
    });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}

async function isFolder(out: string, pictures: number): Promise<boolean> {
  const there = await stat(out).catch(() => undefined);
  if (there) {
    if (!there.isDirectory() && pictures > 1) throw new UsageError(`--out ${out} is a file, but ${pictures} pictures are to be rendered`);
    return there.isDirectory();
  }
  return pictures > 1 || out.endsWith("/") || extname(out) === "";
}

function formatOf(path: string): ExportFormat {
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

async function renderOne(picture: string, call: Call): Promise<string> {
  await stat(picture).catch(() => {
    throw new Error("there is no such file");
  });
  const { settings } = call;
  const { depth, extension } = EXPORT_FORMAT_FACTS[settings.format];
  const target = call.outIsFolder ? join(call.out, `${basename(picture, extname(picture))}.${extension}`) : call.out;
  if (call.outIsFolder) await mkdir(call.out, { recursive: true });
  const folder = await mkdtemp(join(tmpdir(), "nigrographe-"));
  try {
    const decoded = await decodePicture(picture, join(folder, "full"));
    for (const note of decoded.facts.notes) console.error(`${picture}: ${note}`);
    const rendered = await renderPicture(decoded, call.plan, {
      depth,
      noise: exportNoise(settings),
      longEdge: settings.longEdge,
      threads: call.threads,
      threadFile: new URL("./renderThread.mjs", import.meta.url),
    });
    await writePrint(rendered, settings, target);
    return target;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

main(process.argv.slice(2)).then(
  (code) => (process.exitCode = code),
  (error: unknown) => {
    const usage = error instanceof UsageError;
    console.error(usage ? `${error.message}\n./render --help shows the options.` : error);
    process.exitCode = usage ? 2 : 1;
  },
);
