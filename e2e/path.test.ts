import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { readProgram } from "@oaken/core/output/gcode/reader";
import { RAPID } from "@oaken/core/toolpath/toolpath";
import { ginkgo, scan } from "../demo/art.ts";
import { accessibility, alive, settled, visit } from "./bench.ts";
import { launch } from "./browser.ts";
import { type Running, startServer } from "./server.ts";

const dir = mkdtempSync(join(tmpdir(), "oaken-e2e-"));
const data = join(dir, "data");
let server: Running;
let browser: Browser;
let page: Page;
const wrongs: string[] = [];

async function open(): Promise<Page> {
  const p = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
  p.on("pageerror", (e) => wrongs.push(String(e)));
  p.setDefaultTimeout(45_000);
  return p;
}
const status = (p: Page) => p.locator("header [role=status]");
const saved = async (p: Page) => {
  try {
    await status(p)
      .filter({ hasText: /rev \d+ · saved/ })
      .waitFor();
  } catch {
    throw new Error(`Not saved; the header says: ${await status(p).innerText()}`);
  }
};
const nodes = (p: Page) => p.getByText(/^\d+ nodes, off by/).innerText();
const nodesBecome = (p: Page, was: string, same: boolean) =>
  p.waitForFunction(
    ([t, eq]) =>
      [...document.querySelectorAll("aside p")].some(
        (e) => /nodes, off by/.test(e.textContent!) && (e.textContent === t) === eq,
      ),
    [was, same] as const,
  );

beforeAll(async () => {
  writeFileSync(join(dir, "ginkgo-scan.jpg"), await scan(ginkgo(), { blur: 1.4, jpeg: 72, uneven: 0.18, stray: true }));
  writeFileSync(join(dir, "letter.png"), "Dear Sir or Madam");
  server = await startServer(data);
  browser = await launch();
  page = await open();
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await server?.kill("SIGTERM");
});

/** On a machine that is busy with other things all thirteen outcomes may take a minute. */
const BEGIN_MS = 150_000;

describe("from one picture to a cut sign", () => {
  it("the home page invites a picture, and refuses what is none with a sentence", async () => {
    await visit(page, server.url);
    await page.getByText("Drop a picture anywhere").waitFor();
    expect(await accessibility(page)).toEqual([]);
    await page.setInputFiles('input[aria-label="Begin with a picture"]', join(dir, "letter.png"));
    await page.getByRole("alert").filter({ hasText: "letter.png is not a picture" }).waitFor();
  });

  it(
    "Begin judges the picture and shows what it could become",
    async () => {
      await page.setInputFiles('input[aria-label="Begin with a picture"]', join(dir, "ginkgo-scan.jpg"));
      await page.getByText("Strong contrast").waitFor();
      // All are there with their usual cutters before any cutters are chosen.
      await page.waitForFunction(() => document.querySelectorAll("canvas[role=img]").length >= 8, null, {
        timeout: BEGIN_MS,
      });
      await page.getByText("choosing its cutters").first().waitFor();
      expect(await page.locator("section[aria-label=Fitness]").innerText()).toMatch(
        /pixels in a millimetre.*\n.*contrast.*\n.*colours.*\n.*Strokes from/s,
      );
      expect(await accessibility(page)).toEqual([]);
      await page.getByLabel("Stock width").fill("7in + 2.2mm");
      await page.getByLabel("Stock width").press("Enter");
      await page.getByLabel("Stock height").fill("120");
      await page.getByLabel("Stock height").press("Enter");
      await page
        .getByRole("button", { name: /Carved sign/ })
        .first()
        .click();
      // What is picked before its cutters are chosen opens with the chosen ones.
      await page.getByText("Opens with its cutters").waitFor();
      await page.waitForURL(/\/job\//, { timeout: BEGIN_MS });
    },
    2 * BEGIN_MS,
  );

  it("the bench shows the piece, and an ink level moves outline and carve together", async () => {
    await settled(page);
    expect(await accessibility(page)).toEqual([]);
    await page.getByRole("button", { name: /^Outline/ }).click();
    const before = await nodes(page);
    const slider = page.getByLabel("Ink level slider");
    for (let i = 0; i < 10; i++) await slider.press("ArrowRight");
    await settled(page);
    expect(await page.getByLabel("Ink level", { exact: true }).inputValue()).not.toBe("");
    await nodesBecome(page, before, false);
    await page.getByRole("button", { name: /Undo ink level/ }).click();
    await nodesBecome(page, before, true);
    await page.getByRole("button", { name: /Redo ink level/ }).click();
    await page.keyboard.press("Control+z");
    await settled(page);
    expect(await accessibility(page)).toEqual([]);
  });

  it("a stray mark goes with one click, the picture is cropped by hand, and both are undone", async () => {
    await page.getByRole("button", { name: /^ginkgo-scan/ }).click();
    await page.getByRole("group", { name: "Picture tools" }).getByRole("button", { name: "Erase" }).click();
    await page.getByRole("toolbar", { name: "Tool" }).waitFor();
    expect(await accessibility(page)).toEqual([]);
    const canvas = page.getByRole("application");
    const box = (await canvas.boundingBox())!;
    // The leaf on the left is one connected mark.
    await canvas.click({ position: { x: 0.36 * box.width, y: 0.42 * box.height } });
    await page.getByRole("button", { name: /Undo erase/ }).waitFor();
    await settled(page);
    await page.getByRole("group", { name: "Picture tools" }).getByRole("button", { name: "Crop", exact: true }).click();
    await page.mouse.move(box.x + 0.45 * box.width, box.y + 0.3 * box.height);
    await page.mouse.down();
    await page.mouse.move(box.x + 0.8 * box.width, box.y + 0.75 * box.height, { steps: 4 });
    await page.mouse.up();
    await page.getByRole("button", { name: /Undo crop/ }).click();
    await page.getByRole("button", { name: /Undo erase/ }).click();
    await settled(page);
  });

  it("traces by colour and by centre line, lists pieces, and hides one", async () => {
    await page.getByRole("button", { name: /^Outline/ }).click();
    await page.getByRole("radio", { name: "centre line" }).click();
    await page.getByText("centre line", { exact: true }).nth(1).waitFor();
    await settled(page);
    const pieces = page.getByRole("region", { name: "Pieces" });
    const count = () => pieces.getByText(/\d+ of ink/).innerText();
    const before = await count();
    await pieces
      .getByRole("button", { name: /Hide this piece/ })
      .first()
      .click();
    await pieces.getByRole("button", { name: /Show the last of 1 hidden/ }).waitFor();
    await settled(page);
    await page.waitForFunction(
      (was) => !document.querySelector("section[aria-label=Pieces]")!.textContent!.includes(was),
      before,
    );
    await page.getByRole("button", { name: /Undo hide a piece/ }).click();
    await page.getByRole("radio", { name: "colours" }).click();
    await page.getByRole("region", { name: "Colours" }).waitFor();
    await settled(page);
    expect(
      await page.getByRole("region", { name: "Colours" }).getByRole("button", { pressed: true }).count(),
    ).toBeGreaterThan(0);
    expect(await accessibility(page)).toEqual([]);
    await page.getByRole("radio", { name: "ink", exact: true }).click();
    await settled(page);
  });

  it("catches a floor deeper than the stock, keeps programs back, and cures it in one click", async () => {
    await page.getByRole("region", { name: "Run strip" }).getByRole("button", { name: /Carve/ }).first().click();
    await page.getByLabel("Floor", { exact: true }).fill("25");
    await page.getByLabel("Floor", { exact: true }).press("Enter");
    await settled(page);
    await page.getByRole("button", { name: /Write programs/ }).click();
    await page
      .getByText(/goes 25 mm deep; the stock is 18 mm thick/)
      .first()
      .waitFor();
    await page.getByRole("button", { name: /Save 01-/ }).waitFor();
    expect(await page.getByRole("button", { name: /Save 01-/ }).isDisabled()).toBe(true);
    await page.getByRole("button", { name: /finding/ }).click();
    await page.getByRole("button", { name: "Set to 17 mm" }).click();
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Back to the bench" }).click();
    await page.getByLabel("Floor", { exact: true }).fill("3");
    await page.getByLabel("Floor", { exact: true }).press("Enter");
    await settled(page);
  });

  it("scrubs to any moment", async () => {
    await page.getByRole("slider", { name: "Moment of the cutting" }).focus();
    for (let i = 0; i < 5; i++) await page.keyboard.press("Shift+ArrowLeft");
    await page.getByText(/of .* cutting/).waitFor();
    for (let i = 0; i < 5; i++) await page.keyboard.press("Shift+ArrowRight");
    await page.getByText("machining,").waitFor();
  });

  it("opened again it shows its proof before anything is computed, and goes on from there", async () => {
    // The floors of the build that was kept last.
    const floorsKept = () =>
      page.evaluate(async () => {
        // Opened before the worker has made it, it would be made without what the worker keeps things in.
        if (!(await indexedDB.databases()).some(({ name }) => name === "oaken-last-builds")) return [];
        const answer = <T>(request: IDBRequest<T>) =>
          new Promise<T>((done, failed) => {
            request.onsuccess = () => done(request.result);
            request.onerror = () => failed(request.error);
          });
        const database = await answer(indexedDB.open("oaken-last-builds"));
        const get = (name: string) => answer(database.transaction("builds").objectStore("builds").get(name));
        const [newest] = ((await get("order")) ?? [""]) as string[];
        const built = (await get(newest)) as { job: { cuts: { settings: { floor?: number } }[] } } | undefined;
        database.close();
        return built?.job.cuts.map(({ settings }) => settings.floor) ?? [];
      });
    const summary = () => page.getByText("machining,").locator("..").innerText();
    await page.getByLabel("Floor", { exact: true }).fill("2.6");
    await page.getByLabel("Floor", { exact: true }).press("Enter");
    await settled(page);
    await saved(page);
    const said = await summary();
    await expect.poll(floorsKept, { timeout: 30_000 }).toContain(2.6);
    // Without its picture nothing can be built.
    await page.route("**/pixels", (route) => route.abort());
    await page.reload();
    await settled(page);
    expect(await summary()).toBe(said);
    // What cannot be built behind it is told all the same.
    await page.locator("p[role=alert]").waitFor();
    await page.unroute("**/pixels");
    await page.getByLabel("Floor", { exact: true }).fill("3");
    await page.getByLabel("Floor", { exact: true }).press("Enter");
    await expect.poll(summary, { timeout: 45_000 }).not.toBe(said);
    await settled(page);
    await page.getByRole("slider", { name: "Moment of the cutting" }).focus();
  });

  it("writes programs that read back inside the stock, in both dialects", async () => {
    await saved(page);
    await page.keyboard.press("w");
    const save = page.getByRole("button", { name: /Save 01-.*\.nc/ });
    await save.waitFor();
    expect(await accessibility(page)).toEqual([]);
    const [download] = await Promise.all([page.waitForEvent("download"), save.click()]);
    const read = readProgram(readFileSync((await download.path())!, "utf8"));
    expect(read.unit).toBe("mm");
    expect(Math.min(...read.toolpath.z)).toBeCloseTo(-3, 3);
    const cutX = [...read.toolpath.x].filter((_, i) => read.toolpath.kind[i] !== RAPID);
    expect(Math.min(...cutX)).toBeGreaterThan(5);
    expect(Math.max(...cutX)).toBeLessThan(175);
    await page.getByLabel("Dialect").click();
    await page.getByRole("option", { name: /Inches/ }).click();
    await page.waitForFunction(() => document.querySelectorAll("button[aria-label^='Save 0']").length === 1);
    const [inch] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: /Save 01-/ }).click(),
    ]);
    const all = readProgram(readFileSync((await inch.path())!, "utf8"));
    expect(all.unit).toBe("in");
    expect(new Set(all.tool).size).toBe(2);
  });

  it("is all there after the server was killed and started again", async () => {
    await saved(page);
    const job = page.url();
    await server.kill("SIGKILL");
    server = await startServer(data, Number(new URL(server.url).port));
    await visit(page, job);
    await settled(page);
    expect(await page.getByLabel("Floor", { exact: true }).inputValue()).toBe("3");
    await page.getByRole("button", { name: /ginkgo scan/ }).click();
    await page.getByRole("menuitem", { name: /History/ }).click();
    await page.getByText("rev 1", { exact: true }).waitFor();
    expect(await page.getByRole("button", { name: "Open as a new job" }).count()).toBeGreaterThan(3);
    await page.keyboard.press("Escape");
  });

  it("two windows: the one that is behind keeps its work as a job of its own", async () => {
    const other = await open();
    await visit(other, page.url());
    await settled(other);
    for (const [p, floor] of [
      [other, "2"],
      [page, "2.5"],
    ] as const) {
      await p.getByLabel("Floor", { exact: true }).fill(floor);
      await p.getByLabel("Floor", { exact: true }).press("Enter");
      if (p === other) await saved(p);
    }
    await page.getByText(/changed in another window/).waitFor();
    await page.getByRole("button", { name: "Keep mine as a new job" }).click();
    await page.waitForURL((u) => !other.url().includes(u.pathname));
    await settled(page);
    expect(await page.getByLabel("Floor", { exact: true }).inputValue()).toBe("2.5");
    await other.reload();
    await alive(other);
    await settled(other);
    expect(await other.getByLabel("Floor", { exact: true }).inputValue()).toBe("2");
    await other.close();
  });

  it("jobs are found, copied, archived and restored", async () => {
    await visit(page, server.url);
    await page.getByLabel("Search jobs").fill("mine");
    await page.waitForFunction(() => document.querySelectorAll("li").length === 1);
    await page.getByRole("button", { name: /Duplicate/ }).click();
    await page.waitForFunction(() => document.querySelectorAll("li").length === 2);
    await page.getByRole("button", { name: /Archive .*copy/ }).click();
    await page.waitForFunction(() => document.querySelectorAll("li").length === 1);
    await page.getByRole("radio", { name: "archive" }).click();
    await page.getByRole("button", { name: /Restore/ }).click();
    await page.getByText(/Nothing here|archive is empty/).waitFor();
  });

  it("no page raised an error on the way", () => expect(wrongs).toEqual([]));
});
