import { randomUUID } from "node:crypto";
import { writeFile } from "node:fs/promises";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { spawn } from "node:child_process";
import sharp from "sharp";
import { beforeAll, describe, expect, test } from "vitest";
import { GET as getFile } from "@/app/api/exports/[id]/file/route";
import { ExportSettings } from "@/contracts/exportSettings";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { decodePicture } from "@/engine/node/decodePicture";
import { renderPicture } from "@/engine/node/renderPicture";
import { exportJob } from "@/server/exports/exportJob";
import { cancelExport, EXPORT_JOB, getExport, requestExport } from "@/server/exports/exports";
import { takeJob } from "@/server/jobs/jobs";
import { runJob, startWorker } from "@/server/jobs/worker";
import { blobStream, storeBlob } from "@/server/blobs/blobs";
import { contentDisposition, fileNameOf } from "@/server/exports/fileName";
import { importPicture } from "@/server/pictures/pictures";
import { addPrint, getPrint } from "@/server/prints/prints";
import { burnOnTheRight } from "../brushedPlan";
import { colourful, rgb16, wedge16 } from "../madePictures";
import { ownDatabase, pieces } from "./ownDatabase";

const { sql, url, folder } = ownDatabase();
const options = { threadFile: pathToFileURL(join("dist", "renderThread.mjs")), threads: 2 };
const tiff = ExportSettings.parse({ format: "tiff16" });
let print = { id: "", head: "" };

beforeAll(async () => {
  const { levels, width, height } = wedge16();
  const { printId } = await importPicture(sql(), "wedge.png", pieces(await rgb16(levels, width, height).png().toBuffer()), {
    plan: defaultPlan(),
  });
  print = await getPrint(sql(), printId);
});

/** Does the job that is next in line. */
async function runNext(own: Partial<typeof options> = {}) {
  await runJob(sql(), (await takeJob(sql(), [EXPORT_JOB]))!, exportJob({ ...options, ...own }));
}

async function settled(id: string) {
  for (let k = 0; k < 200; k++) {
    const status = await getExport(sql(), id);
    if (status.state !== "waiting" && status.state !== "running") return status;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error("the export did not end");
}

test("an export goes through the queue and comes out with the wedge unchanged", async () => {
  const worker = startWorker(sql(), { [EXPORT_JOB]: exportJob(options) });
  const { id } = await requestExport(sql(), print.id, print.head, tiff);
  const status = await settled(id);
  expect(status).toMatchObject({ state: "done", progress: 1, fileName: "wedge-print-1.tif" });
  const response = await getFile(new Request("http://here/"), { params: Promise.resolve({ id }) });
  expect(response.headers.get("content-disposition")).toContain("wedge-print-1.tif");
  const bytes = Buffer.from(await response.arrayBuffer());
  expect(bytes.length).toBe(status.bytes);
  const { data } = await sharp(bytes)
    .keepIccProfile()
    .toColourspace("grey16")
    .raw({ depth: "ushort" })
    .toBuffer({ resolveWithObject: true });
  const grey = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
  expect(grey.every((level, i) => Math.abs(level - Math.min(i, 65535)) <= 1)).toBe(true);
  await worker.stop();
});

test("what is exported, again and again in one process, is what the plan comes to by itself, through brushed regions too", async () => {
  const file = await rgb16(colourful(120, 81), 120, 81).png().toBuffer();
  const { id: pictureId } = (await importPicture(sql(), "regions.png", pieces(file))).picture;
  const path = join(folder, "regions.png");
  await writeFile(path, file);
  const picture = await decodePicture(path, join(folder, "regions"));
  const plans = [burnOnTheRight({ soften: 0.02 }), burnOnTheRight({ soften: 0.01, fit: 0.03 })];
  for (const plan of [...plans, ...plans.toReversed()]) {
    const made = await addPrint(sql(), pictureId, plan);
    const { id } = await requestExport(sql(), made.id, made.head, tiff);
    await runNext();
    expect(await getExport(sql(), id)).toMatchObject({ state: "done" });
    const response = await getFile(new Request("http://here/"), { params: Promise.resolve({ id }) });
    const exported = await sharp(Buffer.from(await response.arrayBuffer()))
      .toColourspace("grey16")
      .raw({ depth: "ushort" })
      .toBuffer();
    const { levels } = await renderPicture(picture, plan, { depth: 16 });
    expect(new Uint16Array(exported.buffer, exported.byteOffset, exported.length / 2)).toEqual(levels);
  }
});

test("one cancelled while it waits is not rendered", async () => {
  const { id } = await requestExport(sql(), print.id, print.head, tiff);
  await cancelExport(sql(), id);
  expect(await takeJob(sql(), [EXPORT_JOB])).toBeUndefined();
  expect(await getExport(sql(), id)).toMatchObject({ state: "cancelled", bytes: null });
});

test("one cancelled while it runs stops and stores nothing", async () => {
  const large = await importPicture(
    sql(),
    "large.png",
    pieces(await rgb16(colourful(4000, 3000), 4000, 3000).png({ compressionLevel: 1 }).toBuffer()),
  );
  const { head } = await getPrint(sql(), large.printId);
  const { id } = await requestExport(sql(), large.printId, head, tiff);
  const running = runNext({ threads: 1 });
  while ((await getExport(sql(), id)).state === "waiting") await new Promise((resolve) => setTimeout(resolve, 5));
  await cancelExport(sql(), id);
  await running;
  expect(await getExport(sql(), id)).toMatchObject({ state: "cancelled", bytes: null });
});

test("one whose worker was killed is taken again, and what the first still stores is not kept", async () => {
  const { id } = await requestExport(sql(), print.id, print.head, tiff);
  const first = (await takeJob(sql(), [EXPORT_JOB]))!;
  await sql()`update job set lease_until = now() - interval '1 second' where id = ${id}`;
  await runNext();
  const done = await getExport(sql(), id);
  expect(done).toMatchObject({ state: "done" });
  const [{ blobs }] = await sql()<[{ blobs: number }]>`select count(*)::int as blobs from blob`;
  await runJob(sql(), first, exportJob(options)); // it was only slow
  expect(await getExport(sql(), id)).toEqual(done);
  expect((await sql()<[{ blobs: number }]>`select count(*)::int as blobs from blob`)[0].blobs).toBe(blobs);
});

describe("one that cannot be rendered ends with the reason:", () => {
  const failed = async (own: Partial<typeof options> = {}) => {
    const { id } = await requestExport(sql(), print.id, print.head, tiff);
    await runNext(own);
    return getExport(sql(), id);
  };
  const withPlan = async (plan: unknown, work: () => Promise<void>) => {
    const [{ plan: own }] = await sql()<[{ plan: object }]>`select plan from revision where id = ${print.head}`;
    await sql()`update revision set plan = ${sql().json(plan as never)} where id = ${print.head}`;
    await work().finally(() => sql()`update revision set plan = ${sql().json(own as never)} where id = ${print.head}`);
  };

  test("a thread that does not start", async () => {
    expect(await failed({ threadFile: pathToFileURL("/nowhere.mjs") })).toMatchObject({
      state: "failed",
      message: expect.stringMatching(/nowhere/),
    });
  });
  test("a plan of a newer version", async () => {
    await withPlan({ ...defaultPlan(), version: 99 }, async () =>
      expect(await failed()).toMatchObject({ state: "failed", message: expect.stringMatching(/newer version of Nigrographe \(99/) }),
    );
  });
  test.each([["text"], [{ version: 6 }], [{ ...defaultPlan(), passes: [{ id: 7 }] }], [{ regions: 3, passes: "no" }]])(
    "a plan that cannot be read, %j",
    async (plan) => {
      await withPlan(plan, async () =>
        expect(await failed()).toMatchObject({ state: "failed", message: expect.stringMatching(/cannot be read/) }),
      );
    },
  );
});

test("a file comes with its length and in parts, so that a download that was cut off goes on", async () => {
  const { id } = await requestExport(sql(), print.id, print.head, tiff);
  await runNext();
  const get = (headers: Record<string, string> = {}) =>
    getFile(new Request("http://here/", { headers }), { params: Promise.resolve({ id }) });
  const whole = Buffer.from(await (await get()).arrayBuffer());
  const { bytes } = await getExport(sql(), id);
  expect((await get()).headers.get("content-length")).toBe(String(bytes));
  for (const [range, first, last] of [
    ["bytes=0-0", 0, 0],
    ["bytes=100-", 100, bytes! - 1],
    ["bytes=-5", bytes! - 5, bytes! - 1],
    ["bytes=7-99999999", 7, bytes! - 1],
  ] as [string, number, number][]) {
    const part = await get({ range });
    expect([part.status, part.headers.get("content-range")]).toEqual([206, `bytes ${first}-${last}/${bytes}`]);
    const got = Buffer.from(await part.arrayBuffer());
    expect(got.length).toBe(Number(part.headers.get("content-length")));
    expect(got.equals(whole.subarray(first, last + 1))).toBe(true);
  }
  expect((await get({ range: `bytes=${bytes}-` })).status).toBe(416);
  for (const range of ["bytes=5-2", "lines=1-2", "bytes=0-1,4-5"]) expect((await get({ range })).status).toBe(200);
  expect((await get({ range: "bytes=0-0", "if-range": '"another file"' })).status).toBe(200);
  const etag = (await get()).headers.get("etag")!;
  expect((await get({ range: "bytes=0-0", "if-range": etag })).status).toBe(206);
});

test("parts that cross the chunks a file is kept in", async () => {
  const large = Buffer.alloc(3 * 1024 * 1024 + 17, 1).map((_, i) => (i * 2654435761) >>> 24);
  const { id } = await storeBlob(sql(), pieces(large), 1e9);
  for (const [first, last] of [
    [1048575, 1048576],
    [0, 3145744],
    [2097152, 2097152],
    [3145727, 3145744],
  ] as [number, number][]) {
    const got = Buffer.from(await new Response(blobStream(sql(), id, { first, last })).arrayBuffer());
    expect(got.equals(large.subarray(first, last + 1))).toBe(true);
  }
});

test.each([
  ["Дюны ниже станции Print 1", "дюны-ниже-станции-print-1.tif"],
  ["観測所の小屋 Print 1", "観測所の小屋-print-1.tif"],
  ["../../etc/passwd\u0000", "etcpasswd.tif"],
  ["…", "print.tif"],
  ["\ud800 lone", "lone.tif"],
])("a good file name for %s", (text, name) => expect(fileNameOf(text, "tif")).toBe(name));

test("a name of any length fits a disk, cut between graphemes", () => {
  for (const text of ["ж".repeat(400), "👨‍👩‍👧".repeat(50) + "é".repeat(300), `${"e\u0301".repeat(200)}`]) {
    const name = fileNameOf(text, "tif");
    expect(Buffer.byteLength(name)).toBeLessThanOrEqual(181);
    expect(name).toMatch(/\.tif$/);
    expect(name).not.toMatch(/\ufffd/);
  }
  expect(contentDisposition("дюны 'x'.tif")).toBe(
    `attachment; filename="______x_.tif"; filename*=UTF-8''${encodeURIComponent("дюны ")}%27x%27.tif`,
  );
});

test("one of a step that is not the print's is refused", async () => {
  await expect(requestExport(sql(), print.id, randomUUID(), tiff)).rejects.toMatchObject({ code: "not_found" });
});

test("the worker process takes a job and ends cleanly when told to", async () => {
  const worker = spawn(process.execPath, ["dist/worker.mjs"], {
    env: { ...process.env, DATABASE_URL: url(), NIGROGRAPHE_DATA: folder },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let said = "";
  worker.stdout.on("data", (chunk: Buffer) => (said += chunk.toString()));
  worker.stderr.on("data", (chunk: Buffer) => (said += chunk.toString()));
  const ended = new Promise<number | null>((resolve) => worker.once("exit", resolve));
  const { id } = await requestExport(sql(), print.id, print.head, ExportSettings.parse({ format: "jpeg", longEdge: 64 }));
  expect(await settled(id), said).toMatchObject({ state: "done" });
  worker.kill("SIGTERM");
  expect(await ended, said).toBe(0);
});
