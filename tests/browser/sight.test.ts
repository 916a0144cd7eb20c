import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { openOwnPrint, ownBrowser, press, settled } from "./browser";

// What is read, and what has the focus, stands out from what it lies on: WCAG 2.2, 1.4.3 and 1.4.11.

const { newPage, faults, address } = ownBrowser();
let page: Page;
const PLAN = 'nav[aria-label="Print plan"]';

beforeAll(async () => {
  page = await newPage();
  await page.evaluateOnNewDocument(addSight);
  await openOwnPrint(page, address(), "stair-to-the-dome.png");
});
afterAll(() => expect(faults).toEqual([]));

type Colour = [number, number, number, number];
declare global {
  /** In the page: how an element and what it lies on differ in light, as WCAG has it. */
  var sight: {
    /** Texts within some elements that stand out by less than 4.5, large ones by less than 3, unless they cannot be pressed. */
    faint(within: string): string[];
    /** What has the focus, and by how much its ring stands out; undefined on the body. */
    ring(): [string, number] | undefined;
  };
}

function addSight(): void {
  const parse = (colour: string): Colour => {
    const [r = 0, g = 0, b = 0, a = 1] = (/\(([^)]+)\)/.exec(colour)?.[1] ?? "").split(/[ ,/]+/).map(Number);
    return [r, g, b, a];
  };
  const over = (top: Colour, below: Colour): Colour => {
    const mix = (i: number) => top[i]! * top[3] + below[i]! * (1 - top[3]);
    return [mix(0), mix(1), mix(2), 1];
  };
  const ground = (element: Element | null): Colour => {
    if (!element) return [255, 255, 255, 1];
    const own = parse(getComputedStyle(element).backgroundColor);
    return own[3] === 1 ? own : over(own, ground(element.parentElement));
  };
  const light = ([r, g, b]: Colour) => {
    const linear = (level: number) => (level / 255 <= 0.04045 ? level / 255 / 12.92 : ((level / 255 + 0.055) / 1.055) ** 2.4);
    return 0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b);
  };
  const contrast = (a: Colour, b: Colour) => {
    const [dark = 0, bright = 0] = [light(a), light(b)].toSorted((x, y) => x - y);
    return (bright + 0.05) / (dark + 0.05);
  };
  globalThis.sight = {
    faint(within) {
      const found = new Set<string>();
      for (const part of document.querySelectorAll(within)) {
        for (const element of part.querySelectorAll<HTMLElement>("*")) {
          const isRead = [...element.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.textContent!.trim());
          if (!isRead || element.closest("svg, :disabled, [aria-disabled=true], .ant-btn[disabled]") || !element.checkVisibility())
            continue;
          const style = getComputedStyle(element);
          const [below, size] = [ground(element), parseFloat(style.fontSize)];
          const least = size >= 24 || (size >= 18.66 && Number(style.fontWeight) >= 700) ? 3 : 4.5;
          const by = contrast(over(parse(style.color), below), below);
          if (by < least) found.add(`${element.textContent!.slice(0, 40)}: ${by.toFixed(2)}`);
        }
      }
      return [...found];
    },
    ring() {
      const focused = document.activeElement;
      if (!focused || focused === document.body) return undefined;
      // A field within a frame shows the frame; a thing drawn shows its handle.
      const host = focused.closest(".ant-select, .ant-segmented-item, .ant-input-affix-wrapper") ?? focused;
      const name = `${host.tagName} ${focused.getAttribute("aria-label") ?? focused.textContent ?? ""}`.slice(0, 60);
      const style = getComputedStyle(host);
      const [below, inside] = [ground(host.parentElement), ground(host)];
      if (style.outlineStyle !== "none")
        return [name, contrast(parse(style.outlineColor), parseFloat(style.outlineOffset) < 0 ? inside : below)];
      if (focused instanceof SVGElement) {
        const strokes = [...focused.querySelectorAll("*")].map((mark) => parse(getComputedStyle(mark).stroke));
        return [name, Math.max(0, ...strokes.map((stroke) => contrast(stroke, ground(focused.closest("section, div")))))];
      }
      return [name, contrast(parse(style.borderTopColor), below)];
    },
  };
}

test("texts stand out, in every step, with a menu open and the pointer on its button", async () => {
  for (const step of ["Frame", "Spots", "Colour", "Mix", "Place the tones", "Finish"]) {
    await press(page, step, PLAN);
    await settled(page);
    expect([step, await page.evaluate(() => sight.faint("header, nav, aside, [role=toolbar], [data-testid=readings]"))]).toEqual([
      step,
      [],
    ]);
  }
  await page.click('[data-testid="add-pass"]');
  await page.waitForFunction(() => document.activeElement?.getAttribute("role") === "menuitem");
  expect(await page.evaluate(() => sight.faint("nav, .ant-dropdown"))).toEqual([]);
  await page.keyboard.press("Escape");
  await page.waitForFunction(() => !document.querySelector(".ant-dropdown:not(.ant-dropdown-hidden)"));
});

test("what has the focus is ringed, wherever it is", async () => {
  await press(page, "Place the tones", PLAN);
  await settled(page);
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  const faint = new Set<string>();
  const seen = new Set<string>();
  for (let i = 0; i < 110; i++) {
    await page.keyboard.press("Tab");
    // Rings come in over a moment.
    await new Promise((resolve) => setTimeout(resolve, 130));
    const ring = await page.evaluate(() => sight.ring());
    if (!ring) break;
    seen.add(ring[0]);
    if (ring[1] < 3) faint.add(`${ring[0]}: ${ring[1].toFixed(2)}`);
  }
  expect(seen.size).toBeGreaterThan(50);
  expect([...faint]).toEqual([]);
});
