import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, expect, test } from "vitest";
import { ownBrowser, visit } from "./browser";

// A page of another site, in the same browser: what it may not do here.

const { newPage, address } = ownBrowser();
let site: Server;
let elsewhere = "";
beforeAll(async () => {
  site = createServer((_request, response) =>
    response.setHeader("content-type", "text/html").end("<!doctype html><title>Elsewhere</title><p>A page"),
  );
  await new Promise<void>((resolve) => site.listen(0, "127.0.0.1", resolve));
  elsewhere = `http://127.0.0.1:${(site.address() as AddressInfo).port}/`;
});
afterAll(() => site.close());

async function firstPrint() {
  const html = await (await fetch(address())).text();
  return /\/prints\/([0-9a-f-]{36})/.exec(html)![1]!;
}
const nameOf = async (print: string) => /<title>([^<]*)/.exec(await (await fetch(`${address()}/prints/${print}`)).text())![1];

test("it can change nothing, by whatever request a browser lets it send", async () => {
  const print = await firstPrint();
  const before = await nameOf(print);
  const page = await newPage();
  await page.goto(elsewhere);
  const statuses = await page.evaluate(async (target) => {
    const outcome = (init: RequestInit) =>
      fetch(target, { credentials: "include", ...init }).then(
        (response) => (response.type === "opaque" ? "opaque" : String(response.status)),
        () => "refused",
      );
    return Promise.all([
      outcome({ method: "PATCH", headers: { "content-type": "application/json" }, body: '{"deleted":true}' }),
      outcome({ method: "POST", mode: "no-cors", headers: { "content-type": "text/plain" }, body: '{"deleted":true}' }),
      outcome({ method: "POST", mode: "no-cors", body: new Blob(['{"deleted":true}'], { type: "text/plain" }) }),
    ]);
  }, `${address()}/api/prints/${print}`);
  expect(statuses.filter((status) => status === "200")).toEqual([]);
  await page.evaluate((target) => {
    const form = document.createElement("form");
    Object.assign(form, { method: "post", action: target, enctype: "text/plain" });
    document.body.append(form);
    form.submit();
  }, `${address()}/api/pictures?name=planted.png`);
  await page.waitForNavigation().catch(() => undefined);
  expect(await page.evaluate(() => document.body.textContent)).toContain("only Nigrographe's own pages");
  expect(await nameOf(print)).toBe(before);
});

test("it can neither read our answers and pictures, nor show our pages in a frame", async () => {
  const print = await firstPrint();
  const page = await newPage();
  await page.goto(elsewhere);
  const read = await page.evaluate(
    async (base, id) => {
      const text = await fetch(`${base}/api/prints/${id}/exports`).then(
        (response) => response.text(),
        () => "refused",
      );
      const picture = await new Promise((resolve) => {
        const image = new Image();
        image.onload = () => resolve("shown");
        image.onerror = () => resolve("refused");
        image.src = `${base}/api/prints/${id}/thumbnail`;
      });
      return [text, picture];
    },
    address(),
    print,
  );
  expect(read).toEqual(["refused", "refused"]);
  await page.evaluate((base) => {
    const frame = document.createElement("iframe");
    frame.src = base;
    document.body.append(frame);
  }, address());
  await new Promise((resolve) => setTimeout(resolve, 1500));
  const frame = page.frames().find((each) => each !== page.mainFrame());
  expect(await frame?.evaluate(() => document.body?.textContent ?? "").catch(() => "")).not.toContain("Nigrographe");
});

test("a script written into one of our pages is not run, and the pages themselves break none of their rules", async () => {
  const page = await newPage();
  const complaints: string[] = [];
  page.on("console", (message) => /Content Security Policy/.test(message.text()) && complaints.push(message.text()));
  await visit(page, address());
  await visit(page, `${address()}/prints/${await firstPrint()}`);
  await page.waitForSelector('[data-testid="preview"]');
  expect(complaints).toEqual([]);
  await page.evaluate(() => {
    const script = document.createElement("script");
    script.textContent = "window.planted = true";
    document.body.append(script);
    document.body.insertAdjacentHTML("beforeend", '<img src="x:" onerror="window.planted = true">');
  });
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect(await page.evaluate(() => "planted" in window)).toBe(false);
});

test("a name that was made to point here is not answered, for pages nor for data", async () => {
  const { port } = new URL(address());
  const { request } = await import("node:http");
  for (const path of ["/", "/api/placements"]) {
    const status = await new Promise((resolve) =>
      request({ host: "127.0.0.1", port, path, headers: { host: "elsewhere.example" } }, (response) =>
        resolve(response.resume().statusCode),
      ).end(),
    );
    expect(status).toBe(421);
  }
});

test("addresses that are malformed or none, and methods that are none, are answered with problems", async () => {
  for (const [path, method] of [
    ["/api/nothing/here", "GET"],
    ["/api/pictures/%E0%A4%A", "GET"],
    ["/api/prints/%00", "PATCH"],
    ["/api/pictures", "DELETE"],
    ["/api", "GET"],
  ]) {
    const response = await fetch(address() + path, { method });
    expect([path, response.status >= 400 && response.status < 500]).toEqual([path, true]);
    expect([path, response.headers.get("content-type")]).toEqual([path, "application/problem+json"]);
    expect(response.headers.get("x-content-type-options")).toBe("nosniff");
  }
});
