import type { HTTPRequest, Page } from "puppeteer-core";
import { beforeAll, expect, test } from "vitest";
import { openOwnPrint, ownBrowser, press, settled, textOf } from "./browser";

// Steps that the server will not have, through the real page.

const { newPage, address } = ownBrowser();
let page: Page;

const refuse = (request: HTTPRequest) =>
  void (request.url().includes("/revisions") && request.method() === "POST"
    ? request.respond({
        status: 400,
        contentType: "application/problem+json",
        body: JSON.stringify({ title: "not in this house", code: "invalid_input" }),
      })
    : request.continue());
const strength = () => page.$eval('[role="slider"][aria-label="Strength"]', (slider) => Number(slider.getAttribute("aria-valuenow")));
const push = async (key: "Home" | "End") => {
  await page.focus('[role="slider"][aria-label="Strength"]');
  await page.keyboard.press(key);
};
const refused = async (key: "Home" | "End") => {
  await page.setRequestInterception(true);
  page.on("request", refuse);
  await push(key);
  await page.waitForSelector(".ant-modal-footer", { visible: true });
  page.off("request", refuse);
  await page.setRequestInterception(false);
};

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
});

test("it is said which and why, and left out it is as if it had not been made", async () => {
  const was = await strength();
  await refused("Home");
  const said = await textOf(page, ".ant-modal");
  expect(said).toContain("Place the tones at 0 %");
  expect(said).toContain("not in this house");
  await press(page, "Leave this step out", ".ant-modal");
  await settled(page);
  expect(await strength()).toBe(was);
  await page.reload();
  await settled(page);
  expect(await strength()).toBe(was);
});

test("gone on, the next step that can be saved holds what it did, over a reload too", async () => {
  await refused("End");
  await press(page, "Go on", ".ant-modal");
  await page.waitForFunction(() => !document.querySelector(".ant-modal-footer")?.checkVisibility());
  expect(await page.$eval('[data-testid="save-state"]', (state) => (state as HTMLElement).dataset.state)).toBe("refused");
  await page.keyboard.press("o"); // the pass switched off
  await settled(page);
  await page.reload();
  await settled(page);
  expect(await strength()).toBe(2);
  expect(await page.$eval('aside [role="switch"]', (state) => state.getAttribute("aria-checked"))).toBe("false");
});
