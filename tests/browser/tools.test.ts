import type { Page } from "puppeteer-core";
import { expect, test } from "vitest";
import { drag, middleOf, openOwnPrint, ownBrowser, pick, pickOption, press, settled } from "./browser";

// In every step with every tool in hand: all that is seen and enabled can be pressed, and the tray does what it says.

const { newPage, faults, address } = ownBrowser();

const KINDS = ["Exposure", "Edge burn", "Contrast", "Contrast mask", "Relief"];
const REGION = ["Loop", "Polygon", "Oval", "Gradient", "Brush", "Likeness"];
const EXPOSING = ["○ Dodge", "● Burn"];
const TRAY = ["Read", "Pull hue", "Pull tone", "Pin", "Move"];

const buttons = (page: Page, words: readonly string[]) =>
  page.$$eval(
    "button",
    (all, wanted) =>
      all.filter((one) => wanted.includes(one.innerText.trim()) && one.offsetParent !== null).map((one) => one.innerText.trim()),
    words as string[],
  );

/** Presses a button with the mouse, as a hand would. */
async function pressWithMouse(page: Page, words: string, within = "body"): Promise<void> {
  const handle = await page.evaluateHandle(
    (text, root) => [...document.querySelectorAll<HTMLElement>(`${root} button`)].find((one) => one.innerText.trim() === text)!,
    words,
    within,
  );
  await handle.evaluate((one) => one.scrollIntoView({ block: "nearest" }));
  const box = (await handle.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
}

const isPressed = (page: Page, words: string) =>
  page.$$eval("[role=toolbar] button", (all, text) => all.find((one) => one.innerText.trim() === text)!.ariaPressed, words);

/** What is seen and enabled but lies under something else, or outside the window though nothing can bring it in. */
const unreachable = (page: Page) =>
  page.evaluate(() => {
    const controls = [...document.querySelectorAll<HTMLElement>("button, [role=slider], [role=switch], input, a[href]")];
    return controls.flatMap((one) => {
      // The ways past are not seen before they have the focus.
      if (one.closest("[hidden], .ant-select, [aria-hidden=true], [aria-label='Skip to']") || (one as HTMLButtonElement).disabled)
        return [];
      one.scrollIntoView({ block: "nearest", inline: "nearest" });
      const { left, top, width, height } = one.getBoundingClientRect();
      if (width === 0 || getComputedStyle(one).visibility === "hidden") return [];
      const hit = document.elementFromPoint(left + width / 2, top + height / 2);
      const isHit = hit && (one.contains(hit) || hit.contains(one) || one.closest("label")?.contains(hit));
      return isHit ? [] : [`${one.tagName} ${one.ariaLabel ?? one.innerText}`];
    });
  });

test("the tray and all that is seen answer in every step with every tool in hand, and no press there paints", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  for (const kind of KINDS) {
    await press(page, "Add a pass");
    await pick(page, kind);
    await settled(page);
    const tools = await buttons(page, [...REGION, ...EXPOSING]);
    expect(tools.length).toBeGreaterThanOrEqual(REGION.length + (kind === "Exposure" ? EXPOSING.length : 0));
    for (const tool of tools) {
      for (const words of TRAY) {
        await pressWithMouse(page, tool);
        await pressWithMouse(page, words, "[role=toolbar]");
        expect([kind, tool, words, await isPressed(page, words)]).toEqual([kind, tool, words, "true"]);
      }
      await pressWithMouse(page, tool);
      await pressWithMouse(page, "1 : 1", "[role=toolbar]");
      expect(await isPressed(page, "1 : 1")).toBe("true");
      await pressWithMouse(page, "Fit", "[role=toolbar]");
      expect(await isPressed(page, "Fit")).toBe("true");
      expect([kind, tool, await unreachable(page)]).toEqual([kind, tool, []]);
      await page.keyboard.press("Escape");
      expect(await isPressed(page, "Read")).toBe("true");
    }
  }
  // Nothing became a step but the passes themselves.
  await press(page, "History");
  expect(await page.$$eval('[data-testid="history"] li', (rows) => rows.length)).toBe(1 + KINDS.length);
});

test("a shape's tool is put down once it is drawn, so that the next press moves it; Shift keeps it, Escape puts it down", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  const middle = await middleOf(page, '[data-testid="preview"]');
  const at = (dx: number, dy: number) => ({ x: middle.x + dx, y: middle.y + dy });
  const shapes = () => page.$$eval('li[data-testid^="shape-"]', (list) => list.length);
  await press(page, "Oval");
  await drag(page, middle, at(60, 40));
  await settled(page);
  expect([await shapes(), await isPressed(page, "Read")]).toEqual([1, "true"]);
  await drag(page, at(100, 90), at(140, 90));
  expect(await shapes()).toBe(1);

  await press(page, "Gradient");
  await page.keyboard.down("Shift");
  await drag(page, at(-120, -60), at(-60, -60));
  await page.keyboard.up("Shift");
  await drag(page, at(-120, 60), at(-60, 60));
  await settled(page);
  expect([await shapes(), await isPressed(page, "Read")]).toEqual([3, "true"]);

  await press(page, "Loop");
  await page.keyboard.press("Escape");
  await drag(page, at(-20, -20), at(20, 20));
  expect(await shapes()).toBe(3);
});

test("after a choice from a list, and Escape in a field, the keys are the bench's again; the space bar moves the picture whatever was clicked", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  const blend = () => page.$eval(".ant-select-content, .ant-select-selection-item", (shown) => (shown as HTMLElement).innerText.trim());
  await (await page.waitForSelector('[aria-label="Blend"]'))!.click();
  await pickOption(page, "Screen");
  await settled(page);
  expect(await blend()).toBe("Screen");
  await page.keyboard.down("Control");
  await page.keyboard.press("z");
  await page.keyboard.up("Control");
  await settled(page);
  expect(await blend()).toBe("Normal");

  const field = (await page.$('input[aria-label="Strength, value"]'))!;
  await field.click();
  await page.keyboard.type("40");
  await page.keyboard.press("Escape");
  expect(await field.evaluate((input) => (input as HTMLInputElement).value)).toBe("100 %");
  await page.keyboard.press("m");
  expect(await isPressed(page, "Move")).toBe("true");
  await page.keyboard.press("r");
  // A row to choose from holds the focus, and takes no letters.
  await page.$$eval("header .ant-segmented-item", (items) =>
    (items.find((item) => (item as HTMLElement).innerText === "Stepped") as HTMLElement).click(),
  );
  await page.keyboard.press("m");
  expect(await isPressed(page, "Move")).toBe("true");
  await page.keyboard.press("s");
  await page.keyboard.press("r");

  await pressWithMouse(page, "1 : 1", "[role=toolbar]");
  const left = () => page.$eval('[data-testid="preview"]', (canvas) => canvas.getBoundingClientRect().left);
  const before = await left();
  const middle = await middleOf(page, '[data-testid="easel"]');
  await page.keyboard.down("Space");
  await drag(page, middle, { x: middle.x - 60, y: middle.y });
  await page.keyboard.up("Space");
  expect(await left()).toBeLessThan(before - 30);
  expect(await isPressed(page, "1 : 1")).toBe("true");
});

test("Escape in the middle of a drag takes it back, and the rest of the drag does nothing: slider, strand, shape, stroke", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  const plan = () => page.evaluate(() => document.querySelector('[data-testid="preview"]')!.getAttribute("data-frame"));
  const steps = async () => {
    await press(page, "History");
    const rows = await page.$$eval('[data-testid="history"] li', (all) => all.length);
    await press(page, "History");
    return rows;
  };
  const middle = await middleOf(page, '[data-testid="preview"]');
  const cancelled = async (from: { x: number; y: number }, to: { x: number; y: number }) => {
    const before = await plan();
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 5 });
    await settled(page);
    expect(await plan()).not.toBe(before); // the drag did something
    await page.keyboard.press("Escape");
    await page.mouse.move(to.x, to.y, { steps: 5 });
    await page.mouse.up();
    await settled(page);
  };
  const strength = await middleOf(page, '[role="slider"][aria-label="Strength"]');
  await cancelled(strength, { x: strength.x + 40, y: strength.y });
  expect(await page.$eval('input[aria-label="Strength, value"]', (input) => (input as HTMLInputElement).value)).toBe("100 %");
  const zones = () =>
    page.$$eval('[data-testid^="strand-"]', (all) =>
      all.map((one) => `${one.getAttribute("data-testid")} ${one.getAttribute("aria-valuetext")}`).toSorted((a, b) => a.localeCompare(b)),
    );
  const before = await zones();
  const strand = await middleOf(page, '[data-testid="strand-0"] [data-end="to"]');
  await cancelled(strand, { x: strand.x + 60, y: strand.y });
  expect(await zones()).toEqual(before);
  await press(page, "Oval");
  await cancelled(middle, { x: middle.x + 80, y: middle.y + 60 });
  expect(await page.$$eval('li[data-testid^="shape-"]', (list) => list.length)).toBe(0);
  await press(page, "Add a pass");
  await pick(page, "Exposure");
  await settled(page);
  await page.click('[data-testid="paint-burn"]');
  await cancelled(middle, { x: middle.x + 80, y: middle.y });
  expect(await steps()).toBe(2);
  await drag(page, middle, { x: middle.x + 80, y: middle.y });
  await settled(page);
  expect(await steps()).toBe(3);
});

test("a release that the page was not told of leaves Escape nothing to take back, and nothing held still", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  const slider = '[role="slider"][aria-label="Strength"]';
  const now = () => page.$eval(slider, (one) => Number(one.getAttribute("aria-valuenow")));
  await page.evaluate(() => document.body.dispatchEvent(new PointerEvent("pointerdown", { bubbles: true, isPrimary: true })));
  await page.focus(slider);
  await page.keyboard.press("ArrowLeft");
  await page.waitForSelector('[data-testid="save-state"][data-state="saving"]');
  await settled(page);
  await page.keyboard.press("Escape");
  expect(await now()).toBeCloseTo(0.99, 9);
  await page.keyboard.press("ArrowLeft");
  await settled(page);
  expect(await now()).toBeCloseTo(0.98, 9);
});

test("no page complained", () => expect(faults).toEqual([]));
