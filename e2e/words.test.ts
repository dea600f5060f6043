import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { JobDocument } from "@oaken/core/job/document";
import { accessibility, visit, settled } from "./bench.ts";
import { launch } from "./browser.ts";
import { type Running, startServer } from "./server.ts";

let server: Running;
let browser: Browser;
let page: Page;
const wrongs: string[] = [];
const words = () => page.getByRole("textbox", { name: "Words", exact: true });
const write = async (text: string) => {
  await words().fill(text);
  await words().press("Control+Enter");
};
async function saved(): Promise<JobDocument> {
  await page.getByText(/saved \d/).waitFor();
  const id = new URL(page.url()).pathname.split("/").pop();
  return page.evaluate(async (job) => (await (await fetch(`/api/jobs/${job}`)).json()).document, id);
}

beforeAll(async () => {
  server = await startServer(mkdtempSync(join(tmpdir(), "oaken-words-")));
  browser = await launch();
  page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
  page.on("pageerror", (e) => wrongs.push(e.message));
});
afterAll(async () => {
  await browser?.close();
  await server?.kill("SIGTERM");
});

it("a sign is begun with words alone, written over two lines, and carved", async () => {
  await visit(page, server.url);
  await page.getByRole("button", { name: "Begin with words" }).click();
  await settled(page);
  await write("Quill & Thistle\nMarrowdale");
  await expect.poll(async () => (await saved()).makings[0].settings.text).toBe("Quill & Thistle\nMarrowdale");
  await settled(page);
  expect(await accessibility(page)).toEqual([]);
});

it("another face is chosen, and more words stand below, carved along with the first", async () => {
  await page.getByRole("combobox", { name: "Letters" }).click();
  await page.getByRole("option", { name: /Capitals/ }).click();
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByRole("menuitem", { name: /^Words/ }).click();
  await write("since this morning");
  await settled(page);
  const job = await saved();
  expect(job.makings.map((m) => m.kind)).toEqual(["lettering", "lettering", "combine"]);
  expect(job.boards[0].cuts.map((c) => c.reads.art)).toEqual(["combine"]);
});

it("others begin from it: the words are their names until they write others, all else is locked", async () => {
  await visit(page, server.url);
  await page.getByRole("button", { name: /^Let others begin from/ }).click();
  await page.getByRole("checkbox", { name: "the words of its lettering" }).waitFor();
  expect(await page.getByRole("checkbox", { name: "the words of its lettering" }).isChecked()).toBe(true);
  expect(await page.getByRole("checkbox", { name: /^the picture/ }).isChecked()).toBe(false);
  await page.getByRole("link", { name: "Open the starting job" }).click();
  await settled(page);
  await page
    .getByRole("button", { name: /^Lettering \d/ })
    .first()
    .click();
  // The first words are taken back: then they are whose piece it is.
  await page
    .getByRole("button", { name: /^Lettering\b/ })
    .first()
    .click();
  await page
    .getByRole("button", { name: /^automatic/ })
    .first()
    .click();
  await expect.poll(async () => (await saved()).makings[0].settings.text).toBeUndefined();
  await page.goBack();
  await page.getByRole("textbox", { name: "Names" }).fill("Ada\nBo");
  await page.getByRole("button", { name: "A job for each" }).click();
  await page.getByRole("link", { name: /^Ada/ }).click();
  await settled(page);
  expect(await words().inputValue()).toBe("Ada");
  expect(await page.getByLabel("Height of capitals", { exact: true }).first().isDisabled()).toBe(true);
  await write("Ada L.");
  await expect.poll(async () => (await saved()).makings[0].settings.text).toBe("Ada L.");
  expect(wrongs).toEqual([]);
});
