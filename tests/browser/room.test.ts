import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { MENU_ITEM, OPEN_MENU, openOwnPrint, ownBrowser, pick, press, settled, textOf, visit } from "./browser";

// What is shown stays in the window and in reach, however small that is and however much there is.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "stair-to-the-dome.png");
});
afterAll(() => expect(faults).toEqual([]));

const boxOf = (selector: string) => page.$eval(selector, (element) => element.getBoundingClientRect().toJSON() as DOMRect);
const scrolls = () =>
  page.evaluate(() => [document.documentElement.scrollWidth - innerWidth, document.documentElement.scrollHeight - innerHeight]);

test.each([
  [1280, 800],
  [1100, 640],
])("menus stay within a window of %i × %i, and the page does not scroll for them", async (width, height) => {
  await page.setViewport({ width, height });
  await settled(page);
  for (const button of ["ready-gates", "add-pass"]) {
    await page.click(`[data-testid="${button}"]`);
    await page.waitForFunction(() => document.activeElement?.getAttribute("role") === "menuitem");
    const menu = await boxOf(OPEN_MENU);
    expect([menu.top >= 0, menu.left >= 0, menu.bottom <= height, menu.right <= width]).toEqual([true, true, true, true]);
    expect(await scrolls()).toEqual([0, 0]);
    // Where there is room a word stands, not its sign.
    expect(await page.$$eval('header [aria-label="Undo"] > span', (parts) => parts.map((part) => part.checkVisibility()))).toEqual([
      false,
      true,
    ]);
    await page.keyboard.press("Escape");
    await page.waitForFunction(() => !document.querySelector(".ant-dropdown:not(.ant-dropdown-hidden)"));
  }
});

test("a ready gate shows the hill it makes", async () => {
  await page.click('[data-testid="ready-gates"]');
  const hills = await page.$$eval(".ant-dropdown-menu-item path", (paths) => paths.map((path) => path.getAttribute("d")));
  expect(hills.length).toBe(20);
  expect(new Set(hills).size).toBe(20);
  await page.keyboard.press("Escape");
});

test("the name of a strand at the end of the scale is not cut", async () => {
  await page.click('[data-testid="pass-1"]');
  await page.$$eval('[data-testid^="strand-"]', (strands) => (strands.at(-1) as SVGElement).focus());
  await page.keyboard.down("Shift");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.up("Shift");
  await settled(page);
  const words = await page.$$eval("svg text", (texts) =>
    texts
      .filter((text) => text.textContent.includes("→"))
      .map((text) => text.getBoundingClientRect().right - text.closest("svg")!.getBoundingClientRect().right),
  );
  expect(words.length).toBe(1);
  expect(words[0]!).toBeLessThan(0);
  await press(page, "Undo", "header");
});

test("with thirty passes the end of the ribbon is in reach, the wheel goes along it, and the pass in hand is seen", async () => {
  for (let k = 0; k < 29; k++) await press(page, "Duplicate", "aside");
  await settled(page);
  const { width } = page.viewport()!;
  for (const selector of ['[data-testid="add-pass"]', '[data-testid="pass-30"]']) {
    const { left, right } = await boxOf(selector);
    expect(left >= 0 && right <= width).toBe(true);
  }
  expect((await boxOf('[data-testid="pass-30"]')).right).toBeLessThan((await boxOf('[data-testid="add-pass"]')).left);
  // One that is added by the menu too, once the menu has given the focus back.
  await page.click('[data-testid="add-pass"]');
  await pick(page, "Relief");
  await page.waitForFunction(() => document.activeElement?.getAttribute("data-testid") === "add-pass");
  await settled(page);
  expect((await boxOf('[data-testid="pass-31"]')).right).toBeLessThan((await boxOf('[data-testid="add-pass"]')).left);
  await press(page, "Undo", "header");
  await settled(page);
  await page.click('[data-testid="pass-30"]');
  const first = () => boxOf('[data-testid="pass-1"]').then(({ left }) => left);
  const before = await first();
  const ribbon = await boxOf('nav[aria-label="Print plan"]');
  await page.mouse.move(ribbon.x + 300, ribbon.y + 30);
  await page.mouse.wheel({ deltaY: -400 });
  await page.waitForFunction(
    (left) => document.querySelector('[data-testid="pass-1"]')!.getBoundingClientRect().left > left + 300,
    {},
    before,
  );
});

test("what is chosen before the menu has taken the focus gives it back to the button all the same", async () => {
  const slips = (await page.$$('[data-testid^="pass-"]')).length;
  await page.focus('[data-testid="add-pass"]');
  await page.evaluate(async (item) => {
    document.querySelector<HTMLElement>('[data-testid="add-pass"]')!.click();
    const found = () => [...document.querySelectorAll<HTMLElement>(item)].find(({ innerText }) => innerText.trim().startsWith("Relief"));
    while (!found()) await new Promise((resolve) => setTimeout(resolve, 0));
    found()!.click();
    for (let frame = 0; frame < 10; frame++) await new Promise(requestAnimationFrame);
  }, MENU_ITEM);
  await page.waitForFunction((item) => !document.querySelector(item), {}, MENU_ITEM);
  await settled(page);
  expect((await page.$$('[data-testid^="pass-"]')).length).toBe(slips + 1);
  expect(await page.evaluate(() => document.activeElement?.getAttribute("data-testid"))).toBe("add-pass");
  await press(page, "Undo", "header");
  await settled(page);
});

test("a message stands on the easel, one at a time, with the button that does what it advises", async () => {
  await page.click('[data-testid="pass-1"]');
  await page.keyboard.press("d");
  await page.waitForSelector('[data-testid="message"]');
  await page.keyboard.press("e");
  await page.keyboard.press("b");
  expect((await page.$$('[data-testid="message"], .ant-message-notice')).length).toBe(1);
  const [message, easel] = [await boxOf('[data-testid="message"]'), await boxOf('[data-testid="easel"]')];
  expect(message.top > easel.top && message.bottom < easel.bottom).toBe(true);
  await press(page, "Add an exposure pass", '[data-testid="message"]');
  await settled(page);
  expect(await textOf(page, 'aside[aria-label="Step in hand"]')).toMatch(/exposure on the whole picture/);
  expect(await page.$('[data-testid="message"]')).toBeNull();
});

test("each part of a panel says what it is for, when asked", async () => {
  const parts = await page.$$eval('aside [aria-label^="What "]', (marks) => marks.map((mark) => mark.ariaLabel));
  expect(parts.length).toBe((await page.$$("aside h3")).length);
  await page.click('[aria-label="What Where is for"]');
  expect(await textOf(page, 'aside [role="note"]')).toMatch(/part of the picture the pass, or all passes of the set/);
});

test("a file dropped on the bench does not take its place", async () => {
  await page.evaluate(() => {
    const files = new DataTransfer();
    files.items.add(new File(["x"], "dome.tif", { type: "image/tiff" }));
    document.querySelector("main")!.dispatchEvent(new DragEvent("drop", { bubbles: true, cancelable: true, dataTransfer: files }));
  });
  await page.waitForFunction(() =>
    document.querySelector('[data-testid="message"]')?.textContent?.includes("brought in on the contact sheet"),
  );
});

test.each([
  [1024, 768],
  [768, 1024],
])("on a tablet of %i × %i picture, scale and panel are in sight together, and nothing scrolls but the panel", async (width, height) => {
  await page.setViewport({ width, height });
  await settled(page);
  expect(await scrolls()).toEqual([0, 0]);
  for (const part of ['[data-testid="preview"]', "aside", "main > section, main > div:nth-child(2)"]) {
    const { top, bottom, left, right, height: tall } = await boxOf(part);
    expect([part, top >= 0, left >= 0, bottom <= height, right <= width, tall > 150]).toEqual([part, true, true, true, true, true]);
  }
  expect((await boxOf("header")).height).toBeLessThan(width > 1000 ? 44 : 80);
  const [isIcon, isWord] = await page.$$eval('header [aria-label="Undo"] > span', (parts) => parts.map((part) => part.checkVisibility()));
  expect([isIcon, isWord]).toEqual([true, false]);
});

test("what is pressed is as large as a finger needs, in every step", async () => {
  await page.setViewport({ width: 1024, height: 768 });
  await settled(page);
  for (const step of ["Frame", "Spots", "Colour", "Mix", "Place the tones", "Finish"]) {
    await press(page, step, 'nav[aria-label="Print plan"]');
    await settled(page);
    expect([step, await page.evaluate(smallTargets)]).toEqual([step, []]);
  }
});

/** In the page: controls that a press 11 pixels from their middle misses, whatever they look like. */
function smallTargets(): string[] {
  const controls = document.querySelectorAll<HTMLElement>("header, nav, aside, [role=toolbar], [data-testid=readings]");
  const found: string[] = [];
  for (const part of controls)
    for (const one of part.querySelectorAll<HTMLElement>(
      "button, a:not([href^='#']), label, [role=slider], [role=combobox], input:not([type=radio], [type=checkbox])",
    )) {
      const control = one.closest<HTMLElement>(".ant-select, label") ?? one;
      if (!control.checkVisibility() || control.getBoundingClientRect().width < 2) continue;
      control.scrollIntoView({ block: "center" });
      const { left, top, width, height } = control.getBoundingClientRect();
      const misses = [
        [-11, 0],
        [11, 0],
        [0, -11],
        [0, 11],
      ].some(([x, y]) => {
        const hit = document.elementFromPoint(left + width / 2 + x!, top + height / 2 + y!);
        return !hit || !(control.contains(hit) || (hit.contains(control) === false && hit.closest("button, a, label") === control));
      });
      if (misses) found.push(`${control.tagName} ${control.getAttribute("aria-label") ?? control.textContent} ${width}×${height}`);
    }
  return found;
}

test("enlarged twice, the picture stays while the panel goes by, what leads there is a quarter of the window, and nothing lies beside it or over another", async () => {
  await page.setViewport({ width: 640, height: 400 });
  await settled(page);
  expect((await scrolls())[0]).toBe(0);
  const beside = await page.$$eval("header button, header a, aside button, [role=toolbar] button, main canvas", (all) =>
    all
      .filter((one) => one.getBoundingClientRect().right > innerWidth + 1 && one.getBoundingClientRect().width > 0)
      .map((one) => one.textContent),
  );
  expect(beside).toEqual([]);
  expect((await boxOf("main")).top).toBeLessThan(110);
  const covered = await page.$$eval('nav[aria-label="Print plan"] button', (slips) =>
    slips
      .filter((slip) => {
        slip.scrollIntoView({ inline: "nearest" });
        const { left, right, top, height } = slip.getBoundingClientRect();
        return [left + 3, (left + right) / 2, right - 3].some((x) => !slip.contains(document.elementFromPoint(x, top + height / 2)));
      })
      .map((slip) => slip.textContent),
  );
  expect(covered).toEqual([]);
  await page.$eval("aside section:last-of-type", (part) => part.scrollIntoView({ block: "end" }));
  const [picture, last] = [await boxOf('[data-testid="preview"]'), await boxOf("aside section:last-of-type")];
  expect([picture.top >= 0, picture.bottom <= last.bottom, last.bottom <= 401]).toEqual([true, true, true]);
  await visit(page, address());
  expect((await scrolls())[0]).toBe(0);
});

test("a screen of twice the pixels is drawn with all of them, from the first and when the window comes to another", async () => {
  const fine = await newPage();
  await fine.setViewport({ width: 1280, height: 800, deviceScaleFactor: 2 });
  await openOwnPrint(fine, address(), "observatory-hut-noon.jpg");
  const pixelsToOne = () =>
    fine.$eval('[data-testid="preview"]', (canvas) => (canvas as HTMLCanvasElement).width / canvas.getBoundingClientRect().width);
  await settled(fine);
  const first = await pixelsToOne();
  expect(first).toBeGreaterThan(1.4); // as many as the preview has
  await fine.reload();
  await settled(fine);
  expect(await pixelsToOne()).toBeCloseTo(first, 2);
  await fine.setViewport({ width: 1240, height: 780, deviceScaleFactor: 1 });
  await fine.waitForFunction(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="preview"]');
    return canvas && Math.abs(canvas.width / canvas.getBoundingClientRect().width - 1) < 0.02;
  });
  expect(faults).toEqual([]);
  await fine.close();
});

test("what is pasted on the contact sheet is brought in", async () => {
  await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(30, 20);
    canvas.getContext("2d")!.fillRect(0, 0, 30, 20);
    const files = new DataTransfer();
    files.items.add(new File([await canvas.convertToBlob()], "pasted-dome.png", { type: "image/png" }));
    window.dispatchEvent(new ClipboardEvent("paste", { clipboardData: files }));
  });
  await page.waitForFunction(() => [...document.querySelectorAll("h2")].some((name) => name.textContent === "Pasted dome"));
});
