import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ginkgo, scan } from "../demo/art.ts";
import { accessibility, visit, settled } from "./bench.ts";
import { launch } from "./browser.ts";
import { counted, countOn } from "./counted.ts";
import { type Running, startServer } from "./server.ts";

const dir = mkdtempSync(join(tmpdir(), "oaken-keyboard-"));
let server: Running;
let browser: Browser;
let page: Page;

beforeAll(async () => {
  writeFileSync(join(dir, "ginkgo.jpg"), await scan(ginkgo(), { blur: 1.2, jpeg: 80, uneven: 0.1, stray: true }));
  server = await startServer(join(dir, "data"));
  browser = await launch();
  page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
  page.setDefaultTimeout(60_000);
  // From the beginning: asked for together with the key that opens it, a busy page opens it before it hears of that.
  page.on("filechooser", () => {});
  await countOn(page);
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await server?.kill("SIGTERM");
});

/** What has the focus: its role and its name, as an assistive program would say them. */
const focused = (): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement;
    if (!at || at === document.body) return "nothing";
    const named = at.getAttribute("aria-label") ?? at.textContent ?? "";
    const said = named.replace(/\s+/g, " ").trim().slice(0, 70);
    return `${at.getAttribute("role") ?? at.tagName.toLowerCase()} ${said}`;
  });

/** Tab, forwards or backwards, until what is wanted has the focus. */
async function tabTo(wanted: RegExp, key = "Tab"): Promise<void> {
  const passed: string[] = [];
  for (let k = 0; k < 150; k++) {
    const now = await focused();
    if (wanted.test(now)) return;
    passed.push(now);
    await page.keyboard.press(key);
  }
  throw new Error(`Tab never came to ${wanted}; it passed ${passed.slice(-40).join(" | ")}`);
}
/** Arrow down a menu: it moves the focus a moment after the key, so a second press at once would pass over an entry. */
async function arrowTo(wanted: RegExp): Promise<void> {
  for (let k = 0; k < 30; k++) {
    const now = await focused();
    if (wanted.test(now)) return;
    await page.keyboard.press("ArrowDown");
    await expect.poll(focused, { message: `after the arrow on ${now}` }).not.toBe(now);
  }
  throw new Error(`The arrows never came to ${wanted}`);
}
const press = async (...keys: string[]) => {
  for (const key of keys) await page.keyboard.press(key);
};
const undoSays = (what: RegExp) => page.getByRole("button", { name: what }).waitFor();

describe("a whole piece with the keyboard alone", () => {
  it("begins with a picture and an outcome", async () => {
    await visit(page, server.url);
    await tabTo(/^button Begin with a picture/);
    const [chooser] = await Promise.all([page.waitForEvent("filechooser", { timeout: 30_000 }), press("Enter")]);
    await chooser.setFiles(join(dir, "ginkgo.jpg"));
    await page.getByText("Strong contrast").waitFor();
    await tabTo(/^input Stock width$/);
    await press("Control+a");
    await page.keyboard.type("180");
    await press("Enter");
    await page.locator("button:enabled", { hasText: "Carved sign" }).first().waitFor();
    await tabTo(/^button .*Carved sign/);
    await press("Enter");
    await page.waitForURL(/\/job\//);
    await settled(page);
  }, 150_000);

  it("wipes off a mark: the tool has the focus while it is in hand, and what took it has it again after", async () => {
    await tabTo(/^button ginkgo.*\d/);
    await press("Enter");
    await tabTo(/^button Erase$/);
    await press("Enter");
    await expect.poll(focused).toMatch(/^application Erase/);
    expect(await accessibility(page)).toEqual([]);
    // The leaf is one connected mark near the left.
    await press(...Array<string>(2).fill("Shift+ArrowLeft"), ...Array<string>(3).fill("ArrowUp"), "Enter");
    await undoSays(/Undo erase/);
    await settled(page);
    await press("Escape");
    expect(await focused()).toBe("button Erase");
  }, 60_000);

  it("lists what was wiped off, moves it by typing and takes it away", async () => {
    const list = page.getByRole("list", { name: /^Erase/ });
    if (!(await list.isVisible())) {
      await tabTo(/^button turned by/);
      await press("Enter");
    }
    await list.waitFor();
    await tabTo(/^input Mark 1 from the left$/);
    const before = await list.getByRole("textbox").first().inputValue();
    await press("Shift+ArrowUp");
    await page.waitForFunction(
      (was) => document.querySelector<HTMLInputElement>('input[aria-label="Mark 1 from the left"]')!.value !== was,
      before,
    );
    const moved = Number(await list.getByRole("textbox").first().inputValue());
    expect(Math.abs(moved - Number(before) - 10)).toBeLessThan(0.05);
    await tabTo(/^button Remove mark 1$/, "Shift+Tab");
    await press("Enter");
    await list.waitFor({ state: "detached" });
    await settled(page);
  }, 60_000);

  it("crops by two corners, and undoes it", async () => {
    await tabTo(/^button Crop$/, "Shift+Tab");
    await press("Enter");
    await expect.poll(focused).toMatch(/^application Crop/);
    await press(...Array<string>(4).fill("Shift+ArrowLeft"), ...Array<string>(3).fill("Shift+ArrowUp"), "Enter");
    await press(...Array<string>(8).fill("Shift+ArrowRight"), ...Array<string>(6).fill("Shift+ArrowDown"), "Enter");
    await undoSays(/Undo crop/);
    await settled(page);
    await press("Control+z");
    await page.getByRole("button", { name: /Redo crop/ }).waitFor();
    await settled(page);
  }, 60_000);

  it("moves the four corners of a drawing, each by its own arrows", async () => {
    await tabTo(/^button Square up$/);
    await press("Enter");
    await tabTo(/^slider Far left corner$/);
    const said = () => page.evaluate(() => document.activeElement!.getAttribute("aria-valuetext")!);
    const before = await said();
    await press("Shift+ArrowRight");
    await page.waitForFunction((was) => document.activeElement!.getAttribute("aria-valuetext") !== was, before);
    const x = (text: string) => Number(/x (\S+),/.exec(text)![1]);
    expect(x(await said()) - x(before)).toBeCloseTo(10, 0);
    await press("Escape");
    await page.getByRole("toolbar", { name: "Tool" }).waitFor({ state: "detached" });
  }, 60_000);

  it("sets a floor, adds a cut-out, and places a tab on it", async () => {
    await tabTo(/^button .*(carve|Carve)/);
    await press("Enter");
    await tabTo(/^input Floor$/);
    await press("Control+a");
    await page.keyboard.type("2.4");
    await press("Enter");
    await undoSays(/Undo floor/);
    await settled(page);
    await tabTo(/^button Add a cut$/);
    await press("Enter");
    await page.getByRole("menuitem", { name: /Cut out/ }).waitFor();
    await arrowTo(/Cut out/);
    await press("Enter");
    await undoSays(/Undo add/);
    await settled(page);
    await tabTo(/^button [0-9]+ · Cut out/);
    await press("Enter");
    await tabTo(/^button .*tabs by hand/i);
    if (!/on the stage/.test(await focused())) {
      await press("Enter");
      await tabTo(/^button Tabs by hand on the stage$/);
    }
    await press("Enter");
    await expect.poll(focused).toMatch(/^application Places of Cut out/);
    await press(...Array<string>(9).fill("Shift+ArrowLeft"), "Enter");
    await undoSays(/Undo tab by hand/);
    await settled(page);
    await press("Escape");
    await page.getByRole("toolbar", { name: "Tool" }).waitFor({ state: "detached" });
  }, 150_000);

  it("plays the cutting, which leaves the panels alone", async () => {
    await tabTo(/^slider Moment of the cutting$/);
    await press("Home");
    await counted(page);
    await press("Space");
    await page.getByRole("button", { name: "Pause" }).waitFor();
    await page.waitForTimeout(2000);
    const { components, commits, frames } = await counted(page);
    console.log(`playing: ${components / 2} components a second in ${commits / 2} commits, ${frames / 2} frames`);
    await press("Space");
    await page.getByRole("button", { name: "Play the cutting" }).waitFor();
    // Only what shows the playhead follows it: a dozen components a frame, where the panels are hundreds.
    expect(commits).toBeGreaterThan(1);
    expect(components / commits).toBeLessThan(60);
  }, 60_000);

  it("writes the programs", async () => {
    await press("w");
    await page.getByText(/lines/).first().waitFor({ timeout: 60_000 });
    await tabTo(/^button Save everything$/);
    const [download] = await Promise.all([page.waitForEvent("download"), press("Enter")]);
    expect(download.suggestedFilename()).toMatch(/\.zip$/);
    expect(await accessibility(page)).toEqual([]);
  }, 150_000);
});

describe("fingers on a touch screen", () => {
  it("two zoom and pan the stage, and tilt it when they go up together", async () => {
    await press("w");
    await page.getByRole("slider", { name: "Tilt" }).waitFor();
    await page.locator("svg text").first().waitFor({ state: "attached" });
    const cdp = await page.context().newCDPSession(page);
    await cdp.send("Emulation.setTouchEmulationEnabled", { enabled: true, maxTouchPoints: 5 });
    const canvas = (await page.locator("canvas[role=img][tabindex]").first().boundingBox())!;
    const [cx, cy] = [canvas.x + canvas.width / 2, canvas.y + canvas.height / 2];
    const fingers = async (type: string, ...at: [number, number][]) =>
      cdp.send("Input.dispatchTouchEvent", {
        type: type as "touchStart",
        touchPoints: at.map(([x, y], id) => ({ x: cx + x, y: cy + y, id })),
      });
    const ruler = () => page.locator("svg text").allInnerTexts();
    const before = (await ruler()).length;
    await fingers("touchStart", [-40, 0]);
    await fingers("touchStart", [-40, 0], [40, 0]);
    for (let k = 1; k <= 10; k++) await fingers("touchMove", [-40 - 12 * k, 0], [40 + 12 * k, 0]);
    await fingers("touchEnd");
    // Nearer, the rulers have finer figures.
    await page.waitForFunction((n) => document.querySelectorAll("svg text").length !== n, before);
    await fingers("touchStart", [-40, 40]);
    await fingers("touchStart", [-40, 40], [40, 40]);
    for (let k = 1; k <= 10; k++) await fingers("touchMove", [-40, 40 - 14 * k], [40, 40 - 14 * k]);
    await fingers("touchEnd");
    await page.waitForFunction(
      () => Number(document.querySelector('[aria-label="Tilt"]')!.getAttribute("aria-valuenow")) > 0.2,
    );
  }, 60_000);
});
