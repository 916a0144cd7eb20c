import { existsSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";
import { describe, expect, test } from "vitest";
import { POST as postPicture } from "@/app/api/pictures/route";
import { GET as getLevels } from "@/app/api/pictures/[id]/levels/route";
import { PATCH as patchPicture } from "@/app/api/pictures/[id]/route";
import { POST as postPrint } from "@/app/api/pictures/[id]/prints/route";
import { GET as getSource } from "@/app/api/pictures/[id]/thumbnail/route";
import { GET as getThumbnail } from "@/app/api/prints/[id]/thumbnail/route";
import { POST as postRevision } from "@/app/api/prints/[id]/revisions/route";
import { readBlob, storeBlob } from "@/server/blobs/blobs";
import { importPicture, pictureBlob, pictureName } from "@/server/pictures/pictures";
import { folderOf } from "@/server/pictures/preparedFolder";
import { colourful, rgb16, rgb8, to8 } from "../madePictures";
import { ownDatabase, pieces } from "./ownDatabase";
import { allCards } from "./cards";

const { sql, folder } = ownDatabase();
const at = (id: string) => ({ params: Promise.resolve({ id }) });
const nothing = { params: Promise.resolve({}) };
const [W, H] = [150, 100];
const levels = colourful(W, H);
const png = () => rgb16(levels, W, H).png().toBuffer();

const send = (name: string, body: Buffer | ReadableStream | null) =>
  postPicture(
    new Request(`http://here/api/pictures?name=${encodeURIComponent(name)}`, {
      method: "POST",
      body: body as BodyInit,
      duplex: "half",
    } as RequestInit),
    nothing as never,
  );
const json = (method: string, body: unknown) =>
  new Request("http://here/", {
    method,
    headers: { "content-type": "application/json" },
    body: typeof body === "string" ? body : JSON.stringify(body),
  });
const blobs = async () => (await sql()<{ count: number }[]>`select count(*)::int as count from blob`)[0]!.count;

describe("bytes", () => {
  const bytes = Buffer.from(Array.from({ length: 2_500_000 }, (_, i) => (i * 31) & 255));

  test("come out as they went in, over the borders of chunks", async () => {
    const { id } = await storeBlob(sql(), pieces(bytes), 1e9);
    const parts: Buffer[] = [];
    for await (const part of readBlob(sql(), id)) parts.push(part);
    expect(parts.length).toBe(3);
    expect(Buffer.compare(Buffer.concat(parts), bytes)).toBe(0);
  });

  test("a changed or missing chunk is found out", async () => {
    const read = async (id: string) => {
      for await (const part of readBlob(sql(), id)) void part;
    };
    const { id } = await storeBlob(sql(), pieces(bytes), 1e9);
    await sql()`update blob_chunk set data = set_byte(data, 5, (get_byte(data, 5) + 1) % 256) where blob_id = ${id} and number = 1`;
    await expect(read(id)).rejects.toMatchObject({ code: "damaged" });
    await sql()`delete from blob_chunk where blob_id = ${id} and number = 1`;
    await expect(read(id)).rejects.toMatchObject({ code: "damaged" });
  });

  test("a stream that grows too large or breaks off leaves nothing", async () => {
    const before = await blobs();
    await expect(storeBlob(sql(), pieces(bytes), 1e6)).rejects.toMatchObject({ code: "too_large" });
    async function* breaking() {
      yield bytes;
      throw new Error("connection lost");
    }
    await expect(storeBlob(sql(), breaking(), 1e9)).rejects.toThrow("connection lost");
    expect(await blobs()).toBe(before);
  });
});

describe("bringing in", () => {
  test("a picture is stored, described, prepared and given a print", async () => {
    const bytes = await png();
    const response = await send("Old-dome_at dusk.png", bytes);
    expect(response.status).toBe(201);
    const { picture, printId } = (await response.json()) as { picture: { id: string }; printId: string };
    expect(picture).toMatchObject({ name: "Old dome at dusk", width: W, height: H, facts: { format: "PNG", bits: 16, profile: "sRGB" } });
    expect(existsSync(folderOf(await pictureBlob(sql(), picture.id)))).toBe(true);
    const thumbnail = await getThumbnail(new Request("http://here/"), at(printId));
    expect(await sharp(Buffer.from(await thumbnail.arrayBuffer())).metadata()).toMatchObject({ format: "jpeg", width: W, height: H });
    const source = await getSource(new Request("http://here/"), at(picture.id));
    const { data, info } = await sharp(Buffer.from(await source.arrayBuffer()))
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(info).toMatchObject({ width: W, height: H, channels: 3 });
    // In its own colours: an sRGB picture as it came, but for what JPEG takes.
    const { data: came } = await sharp(bytes).toColourspace("srgb").raw({ depth: "uchar" }).toBuffer({ resolveWithObject: true });
    const mean = (of: Buffer, c: number) => of.filter((_, i) => i % 3 === c).reduce((sum, level) => sum + level, 0) / (of.length / 3);
    for (const c of [0, 1, 2]) expect(Math.abs(mean(data, c) - mean(came, c))).toBeLessThan(1.5);
  });

  test.each([
    ["words.jpg", Buffer.from("no picture"), 415, "not_a_picture"],
    ["empty.png", Buffer.alloc(0), 400, "invalid_input"],
  ])("%s is refused with a problem document and leaves nothing", async (name, body, status, code) => {
    const before = await blobs();
    const response = await send(name, body.length ? body : null);
    expect(response.status).toBe(status);
    expect(response.headers.get("content-type")).toBe("application/problem+json");
    expect(await response.json()).toMatchObject({ status, code });
    expect(await blobs()).toBe(before);
    expect(readdirSync(join(folder, "cache", "arriving"))).toEqual([]);
  });

  test("what does not begin as a picture is refused at its beginning, however much follows", async () => {
    let pulled = 0;
    const endless = new ReadableStream({
      pull(controller) {
        controller.enqueue(new Uint8Array(65_536).fill(80));
        if (++pulled > 1000) controller.close();
      },
    });
    expect((await send("endless.jpg", endless)).status).toBe(415);
    expect(pulled).toBeLessThan(10);
  });

  test("a broken-off file is refused, and the next one is taken all the same", async () => {
    const bytes = await png();
    const broken = await send("cut.png", bytes.subarray(0, bytes.length / 2));
    expect(broken.status).toBe(422);
    expect((await send("whole.png", bytes)).status).toBe(201);
  });

  test("an upload that is cancelled half-way leaves nothing", async () => {
    const before = [await blobs(), (await allCards(sql())).length];
    const bytes = await png();
    const half = new ReadableStream({
      pull(controller) {
        controller.enqueue(new Uint8Array(bytes.subarray(0, 1000)));
        controller.error(Object.assign(new Error("aborted"), { code: "ECONNRESET" })); // as the server's own does
      },
    });
    const answer = await send("half.png", half);
    expect([answer.status, ((await answer.json()) as { title: string }).title]).toEqual([400, expect.stringContaining("broke off")]);
    expect([await blobs(), (await allCards(sql())).length]).toEqual(before);
  });

  test.each([
    ["a/b/hut_01.tif", "Hut 01"],
    ["C:\\photos\\stair.JPG", "Stair"],
    [".png", "Untitled"],
    ["", "Untitled"],
  ])("%j is named %j", (file, name) => expect(pictureName(file)).toBe(name));
});

describe("levels", () => {
  const imported = async () => (await importPicture(sql(), "levels.png", pieces(await png()))).picture.id;
  const ask = async (id: string, query: string) => getLevels(new Request(`http://here/?${query}`), at(id));

  test("a rectangle is served as stored", async () => {
    const response = await ask(await imported(), "level=0&x=10&y=20&width=3&height=2");
    const got = new Uint16Array(await response.arrayBuffer());
    const row = (y: number) => [...levels.subarray(3 * (y * W + 10), 3 * (y * W + 13))];
    expect([...got]).toEqual([...row(20), ...row(21)]);
  });

  test("one outside the picture, or without sense, is refused", async () => {
    const id = await imported();
    for (const query of [
      "level=0&x=149&y=0&width=2&height=1",
      "level=7&x=0&y=0&width=1&height=1",
      "level=0&x=-1&y=0&width=1&height=1",
      "level=0",
    ]) {
      expect((await ask(id, query)).status).toBe(400);
    }
    expect((await ask("not-an-id", "level=0&x=0&y=0&width=1&height=1")).status).toBe(404);
  });

  test("a cleared cache is made anew from the stored original", async () => {
    const id = await imported();
    rmSync(join(folder, "cache"), { recursive: true });
    const answers = await Promise.all([0, 1, 2].map((x) => ask(id, `level=0&x=${x}&y=0&width=1&height=1`)));
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200]);
  });
});

describe("the contact sheet's requests", () => {
  test("rename, rate, delete and bring back", async () => {
    const { picture } = await importPicture(sql(), "sheet.png", pieces(await png()));
    const change = async (body: unknown) => (await patchPicture(json("PATCH", body), at(picture.id))).status;
    expect(await change({ name: "Sheet metal", rating: 4 })).toBe(200);
    expect((await allCards(sql())).find(({ id }) => id === picture.id)).toMatchObject({ name: "Sheet metal", rating: 4 });
    expect(await change({ deleted: true })).toBe(200);
    expect((await allCards(sql())).map(({ id }) => id)).not.toContain(picture.id);
    expect(await change({ deleted: false })).toBe(200);
    expect((await allCards(sql())).map(({ id }) => id)).toContain(picture.id);
    expect(await change({ rating: 9 })).toBe(400);
    expect(await change({ colour: "red" })).toBe(400);
    expect(await change("{ broken")).toBe(400);
  });

  test("another print, and a plan that is not valid is refused naming the field", async () => {
    const { picture, printId } = await importPicture(sql(), "another.png", pieces(await png()));
    const response = await postPrint(json("POST", {}), at(picture.id));
    expect(await response.json()).toMatchObject({ name: "Print 2", pictureId: picture.id });
    const bad = await postRevision(
      json("POST", { id: crypto.randomUUID(), base: crypto.randomUUID(), label: "x", plan: { version: 1 } }),
      at(printId),
    );
    expect(bad.status).toBe(400);
    expect(((await bad.json()) as { title: string }).title).toContain("plan.mix");
  });
});

test("an 8-bit picture is served at 8 bits", async () => {
  const bytes = to8(levels);
  const { picture } = await importPicture(sql(), "eight.png", pieces(await rgb8(bytes, W, H).png().toBuffer()));
  const response = await getLevels(new Request("http://here/?level=0&x=0&y=0&width=4&height=1"), at(picture.id));
  expect([...new Uint8Array(await response.arrayBuffer())]).toEqual([...bytes.subarray(0, 12)]);
});
