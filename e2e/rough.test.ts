import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { parseCutter } from "@oaken/core/cutters/rack";
import type { BoardJob } from "@oaken/core/job/document";
import { openNew, settled, visit } from "./bench.ts";
import { launch } from "./browser.ts";
import { type Running, startServer } from "./server.ts";

const dir = mkdtempSync(join(tmpdir(), "oaken-rough-"));
const data = join(dir, "data");
let server: Running;
let browser: Browser;
let bytes: Buffer;

/** A drawing in one corner of a large white sheet. */
const SHEET =
  '<svg xmlns="http://www.w3.org/2000/svg" width="900" height="700"><rect width="900" height="700" fill="#fff"/>' +
  '<g transform="translate(70,60)"><path d="M0 60H260V150H0Z"/><circle cx="200" cy="25" r="24"/></g></svg>';

interface Window {
  page: Page;
  wrongs: string[];
}

async function open(locale: string, viewport = { width: 1280, height: 800 }): Promise<Window> {
  const page = await (await browser.newContext({ viewport, locale })).newPage();
  page.setDefaultTimeout(45_000);
  const wrongs: string[] = [];
  page.on("pageerror", (e) => wrongs.push(String(e)));
  page.on("console", (m) => m.type() === "error" && wrongs.push(`${m.text()} ${m.location().url}`));
  return { page, wrongs };
}
const stock = { width: 120, height: 90, thickness: 18 };
const newSign = (page: Page, edit: (job: BoardJob) => void = () => {}) =>
  openNew(page, server.url, { name: "sheet.png", bytes }, "sign", stock, edit);

beforeAll(async () => {
  bytes = await sharp(Buffer.from(SHEET)).png().toBuffer();
  writeFileSync(join(dir, "sheet.png"), bytes);
  server = await startServer(data);
  browser = await launch();
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await server?.kill("SIGKILL");
});

describe("the first minutes", () => {
  it("in inches from Begin to bench and back, the art as wide as said, and no error in the console", async () => {
    const { page, wrongs } = await open("en-US");
    await visit(page, server.url);
    await page.setInputFiles('input[aria-label="Begin with a picture"]', join(dir, "sheet.png"));
    const width = page.getByLabel("Width of the art");
    await page.getByText("crop to the art").waitFor();
    await width.fill("3 1/2");
    await width.press("Enter");
    await page.waitForFunction(() => !/computing …|looking again/.test(document.body.innerText));
    expect(await page.locator("main").innerText()).not.toMatch(/\d mm\b/);
    // What is nothing for this picture is folded away, and never praised.
    const lines = page.locator('button:has(:text-is("Engraved line"))');
    await lines.waitFor({ state: "hidden" });
    expect(await lines.textContent()).toMatch(/broad areas are no lines/);
    await page
      .getByRole("button", { name: /Carved sign/ })
      .first()
      .click();
    await page.waitForURL(/\/job\//);
    // The piece is there before anything is computed.
    await page.locator("[data-kept-proof], [data-plain-stock]").first().waitFor();
    await settled(page);
    await page.getByRole("button", { name: /sheet\.png/ }).click();
    expect(await page.getByLabel("Width", { exact: true }).inputValue()).toBe("3 1/2");
    const made = page.getByRole("navigation", { name: "Makings" });
    expect(await made.innerText()).toMatch(/3\.5 × /);
    await page.keyboard.press("u");
    await expect.poll(() => page.getByLabel("Width", { exact: true }).inputValue()).toBe("88.9");
    await visit(page, server.url);
    await page
      .getByText(/300 × 200 × 18 mm/)
      .first()
      .waitFor();
    expect(wrongs).toEqual([]);
  });

  it("at 1024 × 700 the stock's slip fits, and the playhead keeps its time in another window", async () => {
    const { page } = await open("en-GB", { width: 1024, height: 700 });
    await newSign(page);
    await page.getByRole("button", { name: /Ash/ }).click();
    const slip = page.getByRole("complementary", { name: "Slip" });
    const edge = (await slip.boundingBox())!;
    const zero = (await page.getByLabel("Work zero").boundingBox())!;
    expect(zero.x + zero.width).toBeLessThanOrEqual(edge.x + edge.width);
    const moment = page.getByRole("slider", { name: "Moment of the cutting" });
    const atEnd = async () => {
      const cards = page.locator("[data-cut]");
      const last = (await cards.nth((await cards.count()) - 1).boundingBox())!;
      return Math.abs((await moment.boundingBox())!.x - (last.x + last.width));
    };
    expect(await atEnd()).toBeLessThan(6);
    await page.setViewportSize({ width: 1400, height: 800 });
    await expect.poll(atEnd).toBeLessThan(6);
  });
});

describe("when it gets rough", () => {
  it("a cutter that is too wide is exchanged at one click, and undone", async () => {
    const { page, wrongs } = await open("en-GB");
    await openNew(page, server.url, { name: "sheet.png", bytes }, "pocket", stock, (job) => {
      job.cuts[0].cutter = parseCutter("flat:40");
    });
    const findings = page.locator("header").getByRole("button", { name: /finding/ });
    await findings.click();
    const list = page.getByRole("dialog", { name: "Findings" });
    await list.getByText("40 mm cutter fits nowhere").waitFor();
    await list.getByRole("button", { name: "Choose other cutters" }).click();
    await list.getByText("40 mm cutter fits nowhere").waitFor({ state: "detached" });
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: /Undo cutters/ }).click();
    await findings.click();
    await list.getByText("40 mm cutter fits nowhere").waitFor();
    expect(wrongs).toEqual([]);
  });

  it("where no cutter of the rack is small enough, that is said", async () => {
    const { page } = await open("en-GB");
    await openNew(page, server.url, { name: "sheet.png", bytes }, "pocket", stock, (job) => {
      Object.assign(job.makings.find((m) => m.kind === "picture")!.settings, { width: 6, measured: "picture" });
    });
    await page
      .locator("header")
      .getByRole("button", { name: /finding/ })
      .click();
    const list = page.getByRole("dialog", { name: "Findings" });
    await list.getByRole("button", { name: "Choose other cutters" }).click();
    await list.getByRole("alert").filter({ hasText: "No other cutters of the rack do this" }).waitFor();
    expect(await list.innerText()).toContain("fits nowhere");
  });

  it("a worker that cannot be loaded is tried again, and in the end that is said", async () => {
    const { page } = await open("en-GB");
    await newSign(page);
    const job = page.url();
    // Every script that a worker asks for from here on is lost on the way.
    await page.route("**/_next/static/**", (route) =>
      route.request().resourceType() === "script" && /worker/.test(route.request().url())
        ? route.abort()
        : route.continue(),
    );
    const lost = await page.evaluate(() =>
      performance
        .getEntriesByType("resource")
        .map((e) => e.name)
        .filter((n) => /worker/.test(n)),
    );
    expect(lost.length).toBeGreaterThan(0);
    await visit(page, job);
    await page.getByRole("alert").filter({ hasText: "computation ended" }).waitFor();
  });

  it("without its server the page says so, keeps what was changed, and saves it when it is back", async () => {
    const { page } = await open("en-GB");
    await newSign(page);
    await server.kill("SIGKILL");
    await page.getByLabel("Floor", { exact: true }).fill("2.5");
    await page.keyboard.press("Enter");
    const banner = page.getByRole("alert").filter({ hasText: "does not answer" });
    await banner.waitFor();
    expect(await banner.innerText()).toMatch(/kept in this window.*every 4 seconds/s);
    server = await startServer(data, Number(new URL(server.url).port));
    await page.locator("header [role=status]").filter({ hasText: "rev 2 · saved" }).waitFor();
    await banner.waitFor({ state: "detached" });
  });

  it("every page says what it may load and run, and a script that is not its own does not run", async () => {
    for (const path of ["/", "/begin", "/job/none"]) {
      const policy = (await fetch(server.url + path)).headers.get("content-security-policy") ?? "";
      expect(policy).toMatch(/script-src 'self' 'nonce-[\w+/=]{20,}'/);
      expect(policy).not.toMatch(/script-src[^;]*unsafe-inline/);
    }
    const { page } = await open("en-GB");
    await visit(page, server.url);
    const ran = await page.evaluate(() => {
      const s = document.createElement("script");
      s.textContent = "window.strange = true";
      // As a stranger's markup would bring it, with no word of this page.
      document.body.insertAdjacentHTML("beforeend", '<img src="/nothing-there" onerror="window.strange = true">');
      document.body.append(s);
      return new Promise((done) => setTimeout(() => done((window as { strange?: boolean }).strange ?? false), 500));
    });
    expect(ran).toBe(false);
  });
});
