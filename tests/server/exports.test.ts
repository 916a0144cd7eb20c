import { randomUUID } from "node:crypto";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { spawn } from "node:child_process";
import sharp from "sharp";
import { afterAll, beforeAll, expect, test } from "vitest";
import { GET as getFile } from "@/app/api/exports/[id]/file/route";
import { ExportSettings } from "@/contracts/exportSettings";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { queueOver } from "@/server/exports/boss";
import { cancelExport, getExport, requestExport, requeueStaleExports, STALE_AFTER_S, takeExport } from "@/server/exports/exports";
import { runExport, startExportWorker } from "@/server/exports/exportWorker";
import { importPicture } from "@/server/pictures/pictures";
import { getPrint } from "@/server/prints/prints";
import { colourful, rgb16, wedge16 } from "../madePictures";
import { ownDatabase, pieces } from "./ownDatabase";

const { sql, url, folder } = ownDatabase();
const options = { threadFile: pathToFileURL(join("dist", "renderThread.mjs")), threads: 2 };
const tiff = ExportSettings.parse({ format: "tiff16" });
let boss: ReturnType<typeof queueOver>;
let print = { id: "", head: "" };

beforeAll(async () => {
  boss = queueOver(sql());
  await boss.start();
  await boss.createQueue("export");
  const { levels, width, height } = wedge16();
  const { printId } = await importPicture(sql(), "wedge.png", pieces(await rgb16(levels, width, height).png().toBuffer()), defaultPlan());
  print = await getPrint(sql(), printId);
});
afterAll(() => boss.stop({ graceful: false }));

async function settled(id: string) {
  for (let k = 0; k < 200; k++) {
    const status = await getExport(sql(), id);
    if (status.state !== "waiting" && status.state !== "running") return status;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error("the export did not end");
}

test("an export goes through the queue and comes out with the wedge unchanged", async () => {
  const worker = await startExportWorker(sql(), boss, options);
  const { id } = await requestExport(sql(), boss, print.id, print.head, tiff);
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
  await boss.start();
});

test("one cancelled while it waits is not rendered", async () => {
  const { id } = await requestExport(sql(), { send: async () => null }, print.id, print.head, tiff);
  await cancelExport(sql(), id);
  await runExport(sql(), id, options);
  expect(await getExport(sql(), id)).toMatchObject({ state: "cancelled", bytes: null });
});

test("one cancelled while it runs stops and stores nothing", async () => {
  const large = await importPicture(
    sql(),
    "large.png",
    pieces(await rgb16(colourful(4000, 3000), 4000, 3000).png({ compressionLevel: 1 }).toBuffer()),
  );
  const { head } = await getPrint(sql(), large.printId);
  const { id } = await requestExport(sql(), { send: async () => null }, large.printId, head, tiff);
  const running = runExport(sql(), id, { ...options, threads: 1 });
  while ((await getExport(sql(), id)).state === "waiting") await new Promise((resolve) => setTimeout(resolve, 5));
  await cancelExport(sql(), id);
  await running;
  expect(await getExport(sql(), id)).toMatchObject({ state: "cancelled", bytes: null });
});

test("one whose worker was killed is taken again", async () => {
  const { id } = await requestExport(sql(), { send: async () => null }, print.id, print.head, tiff);
  await takeExport(sql(), id); // and then no more was heard of it
  expect(await takeExport(sql(), id)).toBeUndefined();
  await sql()`update export set touched_at = now() - make_interval(secs => ${STALE_AFTER_S + 1}) where id = ${id}`;
  const sent: string[] = [];
  await requeueStaleExports(sql(), { send: async (_queue, data) => (sent.push((data as { exportId: string }).exportId), null) });
  expect(sent).toContain(id);
  await runExport(sql(), id, options);
  expect(await getExport(sql(), id)).toMatchObject({ state: "done" });
});

test("one that cannot be rendered fails with the reason", async () => {
  const { id } = await requestExport(sql(), { send: async () => null }, print.id, print.head, tiff);
  await runExport(sql(), id, { ...options, threadFile: pathToFileURL("/nowhere.mjs") });
  const status = await getExport(sql(), id);
  expect(status.state).toBe("failed");
  expect(status.message).toMatch(/nowhere/);
});

test("one of a step that is not the print's is refused", async () => {
  await expect(requestExport(sql(), boss, print.id, randomUUID(), tiff)).rejects.toMatchObject({ code: "not_found" });
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
  const { id } = await requestExport(sql(), boss, print.id, print.head, ExportSettings.parse({ format: "jpeg", longEdge: 64 }));
  expect(await settled(id), said).toMatchObject({ state: "done" });
  worker.kill("SIGTERM");
  expect(await ended, said).toBe(0);
});
