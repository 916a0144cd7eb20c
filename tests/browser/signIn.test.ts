import { spawn } from "node:child_process";
import { rmSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { freePort } from "../server/cluster";
import { applicationPlace, startApplication, type Application } from "./application";
import { ownBrowser } from "./browser";

const PHRASE = "eleven zones, no more";
const { newPage } = ownBrowser();
let place: Awaited<ReturnType<typeof applicationPlace>>;
let application: Application | undefined;

function start(words: string[], env: Record<string, string>, input = ""): Promise<{ code: number | null; said: string }> {
  const child = spawn("./start", words, {
    env: {
      ...process.env,
      DATABASE_URL: "",
      NIGROGRAPHE_DATA: place.folder,
      NIGROGRAPHE_DB_PORT: String(place.databasePort),
      PORT: String(place.port),
      ...env,
    },
  });
  child.stdin.end(input);
  let said = "";
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (chunk: Buffer) => (said += chunk.toString()));
  return new Promise((done) => child.once("close", (code) => done({ code, said })));
}

beforeAll(async () => {
  place = await applicationPlace();
});
afterAll(async () => {
  await application?.stop();
  rmSync(place.folder, { recursive: true, force: true });
});

describe("where others can reach the machine", () => {
  test("it is not served without a passphrase, and says why and how", async () => {
    for (const env of [{ HOST: "0.0.0.0" }, { NIGROGRAPHE_HOSTS: "prints.example" }]) {
      const refused = await start([], env as unknown as Record<string, string>);
      expect(refused.code).toBe(1);
      expect(refused.said).toMatch(/set a passphrase first \(\.\/start passphrase\)/);
      expect(refused.said).not.toContain("Nigrographe is at");
    }
  });

  test("one that is too short is not taken; a good one is, from standard input", async () => {
    expect(await start(["passphrase"], {}, "short\n")).toMatchObject({
      code: 2,
      said: expect.stringMatching(/12 characters[\s\S]*Nothing was changed/),
    });
    const set = await start(["passphrase"], {}, `${PHRASE}\n`);
    expect(set, set.said).toMatchObject({ code: 0 });
  });

  test("pages ask for it and lead where one wanted to go; wrong ones are told so; the bench works behind it", async () => {
    application = await startApplication({ ...place, port: (place.port = await freePort()) });
    const page = await newPage();
    await page.goto(`${application.address}/?from=afar`);
    expect(new URL(page.url()).pathname).toBe("/sign-in");
    const say = async (words: string) => {
      await page.click("input[type=password]", { count: 3 });
      await page.keyboard.type(words);
      await page.keyboard.press("Enter");
    };
    await say("not the right one");
    await page.waitForFunction(() => document.body.textContent.includes("That is not the passphrase."));
    await say(PHRASE);
    await page.waitForFunction(() => location.pathname === "/" && location.search === "?from=afar");
    const print = await page.$eval("a[href^='/prints/']", (link) => (link as HTMLAnchorElement).href);
    await page.goto(print);
    await page.waitForSelector('[data-testid="preview"][data-frame]');
    const stranger = await fetch(`${application.address}/api/placements`);
    expect(stranger.status).toBe(401);
    expect((await fetch(print, { redirect: "manual" })).status).toBe(307);
  });

  test("signing out, in this browser or in all, is at hand on the contact sheet", async () => {
    const pages = [await newPage(), await newPage()];
    for (const page of pages) {
      await page.goto(`${application!.address}/sign-in`);
      await page.click("input[type=password]");
      await page.keyboard.type(PHRASE);
      await page.keyboard.press("Enter");
      await page.waitForFunction(() => location.pathname === "/");
    }
    await pages[0]!.locator("header ::-p-text(Sign out)").click();
    await pages[0]!.locator(".ant-dropdown ::-p-text(In all browsers)").click();
    await pages[0]!.waitForFunction(() => location.pathname === "/sign-in");
    await pages[1]!.reload();
    expect(new URL(pages[1]!.url()).pathname).toBe("/sign-in");
  });

  test("an address of another site is not gone to after signing in", async () => {
    const page = await newPage();
    await page.goto(`${application!.address}/sign-in?to=//elsewhere.example/`);
    await page.click("input[type=password]");
    await page.keyboard.type(PHRASE);
    await page.keyboard.press("Enter");
    await page.waitForFunction(() => location.pathname === "/");
    expect(page.url()).toBe(`${application!.address}/`);
  });
});
