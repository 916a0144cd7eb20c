import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { AxeResults } from "axe-core";
import type { Page } from "puppeteer-core";
import { beforeAll, expect, test } from "vitest";
import { PASS_KINDS } from "@/core/passes/passKinds";
import { MENU_ITEM, openOwnPrint, ownBrowser, pick, press, settled, visit } from "./browser";

const { newPage, faults, address } = ownBrowser();
const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
let page: Page;

/** What a stranger with another way of seeing or pressing would stumble over here, as words. */
async function barriers(): Promise<string[]> {
  await page.evaluate(AXE);
  const { violations } = await page.evaluate(() => (globalThis as unknown as { axe: { run(): Promise<AxeResults> } }).axe.run());
  return violations
    .filter(({ impact }) => impact === "serious" || impact === "critical")
    .flatMap(({ id, nodes }) =>
      nodes.map(({ target, any, all }) => `${id}: ${String(target)} (${[...any, ...all].map(({ message }) => message).join("; ")})`),
    );
}
const rest = () => new Promise((resolve) => setTimeout(resolve, 450)); // what slides or fades is there

beforeAll(async () => {
  page = await newPage();
});

test("the contact sheet, its menus, its questions and the bin", async () => {
  await visit(page, address());
  expect(await barriers()).toEqual([]);
  await page.$eval('[aria-label^="More for Print 1"]', (button) => (button as HTMLElement).click());
  await rest();
  expect(await barriers()).toEqual([]);
  await pick(page, "Rename…");
  await rest();
  expect(await barriers()).toEqual([]);
  await openOwnPrint(page, address(), "bench-target.png");
  const change = { method: "PATCH", headers: { "content-type": "application/json" }, body: '{"deleted":true}' };
  await fetch(`${address()}/api/prints/${page.url().split("/").at(-1)}`, change);
  await visit(page, `${address()}/bin`);
  expect(await page.$('[data-testid="binned"]')).not.toBeNull();
  expect(await barriers()).toEqual([]);
  await visit(page, `${address()}/sign-in`);
  expect(await barriers()).toEqual([]);
  await visit(page, address());
  await page.keyboard.press("?");
  await page.waitForFunction(() => document.querySelector('[role="dialog"]')?.textContent?.includes("What can be done here"));
  await rest();
  expect(await barriers()).toEqual([]);
  await visit(page, `${address()}/prints/none`);
  expect(await barriers()).toEqual([]);
});

test("the bench: each stage, each kind of pass, its sheets", async () => {
  await openOwnPrint(page, address(), "bench-target.png");
  for (const stage of ["Frame", "Colour", "Mix", "Finish"]) {
    await press(page, stage, 'nav[aria-label="Print plan"]');
    await settled(page);
    expect([stage, await barriers()]).toEqual([stage, []]);
  }
  const kinds = Object.keys(PASS_KINDS);
  for (let k = 0; k < kinds.length; k++) {
    await press(page, "Add a pass");
    await page.waitForSelector(MENU_ITEM);
    if (k === 0) {
      await rest();
      expect(["menu", await barriers()]).toEqual(["menu", []]);
    }
    const name = kinds[k]!.replace("-", " ");
    await page.$$eval(
      MENU_ITEM,
      (items, words) => (items as HTMLElement[]).find((item) => item.querySelector("b")?.innerText.toLowerCase() === words)!.click(),
      name,
    );
    await settled(page);
    await rest();
    expect([kinds[k], await barriers()]).toEqual([kinds[k], []]);
  }
  await press(page, "History");
  await rest();
  expect(["history", await barriers()]).toEqual(["history", []]);
  await page.keyboard.press("Escape");
  await page.$eval('[aria-label="Help: keys"]', (button) => (button as HTMLElement).click());
  await rest();
  expect(["help", await barriers()]).toEqual(["help", []]);
  expect(faults.filter((fault) => !fault.includes("404"))).toEqual([]);
});
