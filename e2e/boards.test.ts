import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import sharp from "sharp";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { JobDocument } from "@oaken/core/job/document";
import { accessibility, openNew, settled } from "./bench.ts";
import { launch } from "./browser.ts";
import { type Running, startServer } from "./server.ts";

const disc =
  '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="400"><rect width="600" height="400" fill="#fff"/>' +
  '<circle cx="300" cy="200" r="150" fill="#111"/></svg>';

let server: Running;
let browser: Browser;
let page: Page;
const wrongs: string[] = [];
const making = (name: RegExp) => page.getByRole("navigation", { name: "Makings" }).getByRole("button", { name });
const type = async (label: string, text: string) => {
  await page.getByLabel(label, { exact: true }).fill(text);
  await page.getByLabel(label, { exact: true }).press("Enter");
};
async function saved(): Promise<JobDocument> {
  await page.getByText(/saved \d/).waitFor();
  const id = new URL(page.url()).pathname.split("/").pop();
  return page.evaluate(async (job) => (await (await fetch(`/api/jobs/${job}`)).json()).document, id);
}

beforeAll(async () => {
  server = await startServer(mkdtempSync(join(tmpdir(), "oaken-boards-")));
  browser = await launch();
  page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
  page.on("pageerror", (e) => wrongs.push(e.message));
  const bytes = await sharp(Buffer.from(disc)).png().toBuffer();
  await openNew(page, server.url, { name: "disc.png", bytes }, "pocket", { width: 120, height: 90, thickness: 12 });
  await settled(page);
});
afterAll(async () => {
  await browser?.close();
  await server?.kill("SIGTERM");
});

it("a second board, from its stock to its programs", async () => {
  await making(/^Ash/).click();
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByRole("menuitem", { name: /^One more board/ }).click();
  await making(/^Board 2/).waitFor();
  await type("Stock thickness", "6");
  await type("Name of the board", "Lid");
  await page.getByRole("button", { name: "Add a cut" }).click();
  await page.getByRole("menuitem", { name: /^Cut out/ }).click();
  await settled(page);
  expect(await page.getByRole("combobox", { name: "Board", exact: true }).innerText()).toBe("Lid");
  expect(await accessibility(page)).toEqual([]);
  const job = await saved();
  expect(job.boards.map((b) => [b.name, b.stock.thickness, b.cuts.map((c) => c.kind)])).toEqual([
    ["Board 1", 12, ["pocket"]],
    ["Lid", 6, ["profile"]],
  ]);
  await page.getByRole("button", { name: "Write programs" }).click();
  await page.getByText(/^board-1-01-.*\.nc$/).waitFor();
  await page.getByText(/^lid-01-.*\.nc$/).waitFor();
  expect(await accessibility(page)).toEqual([]);
  await page.getByRole("button", { name: "Back to the bench" }).click();
});

it("each board keeps its own stock; undo goes back to where the change was made", async () => {
  await making(/^Board 1/).click();
  await settled(page);
  expect(await page.getByLabel("Stock thickness", { exact: true }).inputValue()).toBe("12");
  await type("Stock thickness", "15");
  await making(/^Lid/).click();
  expect(await page.getByLabel("Stock thickness", { exact: true }).inputValue()).toBe("6");
  await page.getByRole("button", { name: /^Undo stock thickness/ }).click();
  await page.waitForFunction(
    () => document.querySelector<HTMLInputElement>("[aria-label='Stock thickness']")?.value === "12",
  );
  expect(await page.getByRole("combobox", { name: "Board", exact: true }).innerText()).toBe("Board 1");
});

it("a board taken out is gone, with one undo, and no page raised an error on the way", async () => {
  await making(/^Lid/).click();
  await page.getByRole("button", { name: "Take out this board" }).click();
  await page.getByRole("combobox", { name: "Board", exact: true }).waitFor({ state: "detached" });
  await page.getByRole("button", { name: /^Undo take out Lid/ }).click();
  await making(/^Lid/).waitFor();
  expect(wrongs).toEqual([]);
});
