import { restingExposure } from "@/core/passes/exposure/fields";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "puppeteer-core";
import { expect, test } from "vitest";
import { packPath } from "@/core/brush/stroke";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { temporaryFolder } from "../temporary";
import { openOwnPlan, openOwnPrint, ownBrowser, pick, pixelsAt, press, settled, textOf, visit } from "./browser";

const { newPage, faults, address } = ownBrowser();
const folder = temporaryFolder();
const MENU = 'button[aria-label$="rename, duplicate, plan"]';
const PLACES = [0.2, 0.5, 0.8].map((x) => [x, 0.4] as const);

async function choose(page: Page, words: string): Promise<void> {
  await page.click(MENU);
  await pick(page, words);
}

async function typeName(page: Page, name: string): Promise<void> {
  await page.waitForSelector(".ant-modal input:focus");
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
  // While it goes it still lies over the page.
  await page.waitForSelector(".ant-modal", { hidden: true });
}

test("on the bench a print is renamed, and duplicated with its history", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  await press(page, "Add a pass");
  await pick(page, "Exposure");
  await settled(page);
  await choose(page, "Rename…");
  await typeName(page, "Low light");
  await page.waitForFunction((menu) => document.querySelector<HTMLElement>(menu)!.innerText.trim() === "Low light", {}, MENU);
  await choose(page, "Duplicate");
  await page.waitForFunction(() => [...document.querySelectorAll("button")].some((button) => button.innerText === "Open it"));
  const from = page.url();
  await Promise.all([page.waitForNavigation(), press(page, "Open it")]);
  await page.waitForFunction((before) => location.href !== before, {}, from);
  await settled(page);
  expect(await textOf(page, MENU)).toContain("Low light, copy");
  expect(await textOf(page, '[data-testid="pass-2"]')).toContain("Exposure");
  await page.keyboard.down("Control");
  await page.keyboard.press("z");
  await page.keyboard.up("Control");
  await page.waitForFunction(() => !document.querySelector('[data-testid="pass-2"]'));
  // And back by the menu, which says where one is.
  await choose(page, "Low light");
  await page.waitForFunction((before) => location.href === before, {}, from);
  await page.waitForFunction(() =>
    /You are on “Low light” of .+ now; “Low light, copy” is as you left it/.test(
      document.querySelector('[data-testid="message"]')?.textContent ?? "",
    ),
  );
  await settled(page);
  expect(await textOf(page, '[data-testid="pass-2"]')).toContain("Exposure");
  expect(faults).toEqual([]);
});

test("a plan is saved as a file and laid in from one, which undo takes back; what is no plan says why and changes nothing", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "dunes-below-the-station.jpg");
  await page.evaluate(() => {
    const make = URL.createObjectURL.bind(URL);
    URL.createObjectURL = (blob: Blob) => {
      void blob.text().then((text) => (document.body.dataset.saved = text));
      return make(blob);
    };
  });
  const before = await pixelsAt(page, PLACES);
  await choose(page, "Save the plan as a file");
  await page.waitForFunction(() => document.body.dataset.saved);
  const plan = JSON.parse(await page.$eval("body", (body) => body.dataset.saved!)) as ReturnType<typeof defaultPlan>;
  plan.mix.weights = { red: 0, green: 0, blue: 1 };
  const files = { plan: join(folder, "blue.json"), none: join(folder, "none.json") };
  writeFileSync(files.plan, JSON.stringify(plan));
  writeFileSync(files.none, JSON.stringify({ ...plan, passes: "none" }));
  const lay = async (file: string) => {
    const chooser = (await page.waitForSelector('[data-testid="plan-file"]', { hidden: true }))!;
    await (chooser as unknown as { uploadFile(path: string): Promise<void> }).uploadFile(file);
  };
  await lay(files.none);
  await page.waitForFunction(() => document.body.innerText.includes("“none.json” was not laid in"));
  await settled(page);
  expect(await pixelsAt(page, PLACES)).toEqual(before);
  await lay(files.plan);
  await settled(page);
  expect(await pixelsAt(page, PLACES)).not.toEqual(before);
  await page.keyboard.down("Control");
  await page.keyboard.press("z");
  await page.keyboard.up("Control");
  await settled(page);
  expect(await pixelsAt(page, PLACES)).toEqual(before);
  expect(faults).toEqual([]);
});

test("what is deleted waits in the bin, comes back from there, and is deleted for good only there, after asking", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  const own = page.url().split("/").at(-1)!;
  await choose(page, "Rename…");
  await typeName(page, "To be binned");
  await page.waitForFunction((menu) => document.querySelector<HTMLElement>(menu)!.innerText.trim() === "To be binned", {}, MENU);
  const ask = (method: string, path: string, body?: object) =>
    fetch(address() + path, { method, headers: { "content-type": "application/json" }, ...(body && { body: JSON.stringify(body) }) });
  expect((await ask("PATCH", `/api/prints/${own}`, { deleted: true })).ok).toBe(true);

  const row = async () =>
    page.evaluateHandle(() =>
      [...document.querySelectorAll<HTMLElement>('[data-testid="binned"]')].find((li) => li.innerText.includes("To be binned"))!,
    );
  await visit(page, `${address()}/bin`);
  const act = async (words: string) =>
    (await row()).evaluate(
      (li, text) => [...li.querySelectorAll("button")].find((button) => button.innerText.startsWith(text))!.click(),
      words,
    );
  await act("Bring back");
  await page.waitForFunction(
    () => ![...document.querySelectorAll<HTMLElement>('[data-testid="binned"]')].some((li) => li.innerText.includes("To be binned")),
  );
  await page.goto(`${address()}/prints/${own}`);
  await settled(page);

  expect((await ask("DELETE", `/api/prints/${own}`)).status).toBe(409);
  await ask("PATCH", `/api/prints/${own}`, { deleted: true });
  await visit(page, `${address()}/bin`);
  await act("Delete for good");
  await page.waitForFunction(() => document.body.innerText.includes("This cannot be undone."));
  expect((await ask("PATCH", `/api/prints/${own}`, {})).ok).toBe(true); // not before one has said yes
  await press(page, "Delete for good", ".ant-modal");
  await page.waitForFunction(
    () => ![...document.querySelectorAll<HTMLElement>('[data-testid="binned"]')].some((li) => li.innerText.includes("To be binned")),
  );
  expect((await ask("PATCH", `/api/prints/${own}`, {})).status).toBe(404);
  expect(faults).toEqual([]);
});

test("a print of thousands of strokes is opened: its plan is fetched, and if it cannot be, that is said", async () => {
  const page = await newPage();
  const path = packPath(Array.from({ length: 40 }, (_, k) => ({ x: 0.1 + k / 50, y: 0.5, pressure: 1 })));
  const stroke = { radius: 0.02, hardness: 0.3, flow: 0.01, pressure: "none", erase: false, path, burns: true, ceiling: 0.5 } as const;
  const plan = defaultPlan();
  const strokes = Array.from({ length: 2000 }, () => ({ ...stroke }));
  plan.passes.push({ ...restingPass("exposure", "painted", "Painted"), move: { kind: "exposure", ...restingExposure(), strokes } });
  await openOwnPlan(page, address(), "bench-target.png", plan);
  await page.click('[data-testid="pass-2"]');
  await page.waitForFunction(() => document.querySelector("aside")!.innerText.includes("2000 burned"));
  await page.setRequestInterception(true);
  page.on("request", (request) => void (request.url().includes("/revisions/") ? request.abort() : request.continue()));
  await page.reload();
  await page.waitForFunction(() => document.body.innerText.includes("The plan of this print could not be fetched. It is safe"));
  faults.length = 0; // the request that was broken off
});
