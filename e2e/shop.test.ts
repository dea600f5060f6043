import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { unzipSync } from "fflate";
import type { Browser, Page } from "playwright-core";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessibility, alive, openNew, settled, visit } from "./bench.ts";
import type { JobDocument } from "@oaken/core/job/document";
import { launch } from "./browser.ts";
import { type Running, startServer } from "./server.ts";

const dir = mkdtempSync(join(tmpdir(), "oaken-rack-"));
let server: Running;
let browser: Browser;
let page: Page;
const errors: string[] = [];

beforeAll(async () => {
  server = await startServer(join(dir, "data"));
  browser = await launch();
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.on("pageerror", (e) => errors.push(e.message));
  await visit(page, `${server.url}/rack`);
  await page.getByRole("radio", { name: "mm" }).click();
});
afterAll(async () => {
  await browser?.close();
  await server?.kill("SIGKILL");
});

/** Every change has reached the server. */
const saved = () => page.getByRole("status").getByText("saved").waitFor();
/** A dark bar on white, so many pixels long. */
const bar = async (long: number): Promise<Buffer> => {
  const ink = sharp({ create: { width: long, height: 60, channels: 3, background: "#101010" } });
  const page = sharp({ create: { width: 300, height: 200, channels: 3, background: "#ffffff" } });
  return page
    .composite([{ input: await ink.png().toBuffer() }])
    .png()
    .toBuffer();
};
const cell = (name: string) => page.getByRole("gridcell", { name });

describe("the rack", () => {
  it("is changed in place by keyboard alone: arrows, typing, Enter; wrong numbers are said and not taken", async () => {
    await cell("Name of V 60° sign cutter").click();
    for (const key of ["ArrowDown", "ArrowDown", "ArrowDown", "ArrowDown", "ArrowRight", "ArrowRight"])
      await page.keyboard.press(key);
    await page.keyboard.type("1/8in");
    await page.keyboard.press("Enter");
    await cell("Diameter of Flat 3 mm: 3.175").waitFor();
    // The next cell down is at hand.
    await page.keyboard.type("0");
    await page.keyboard.press("Enter");
    await page.getByText("Diameter: 0 is out of range").waitFor();
    await page.keyboard.press("Escape");
    await cell("Diameter of Flat 6 mm: 6").waitFor();
    await saved();
    await page.reload();
    await alive(page);
    await cell("Diameter of Flat 3 mm: 3.175").waitFor();
  });
  it("a change is undone, and the kept entry goes back", async () => {
    await cell("Flutes of Flat 3 mm").click();
    await page.keyboard.type("4");
    await page.keyboard.press("Enter");
    await cell("Flutes of Flat 3 mm: 4").waitFor();
    await page.keyboard.press("Control+z");
    await cell("Flutes of Flat 3 mm: 2").waitFor();
    await saved();
    await page.reload();
    await alive(page);
    await cell("Flutes of Flat 3 mm: 2").waitFor();
  });
  it("a kind that changes gets the figures that it needs, and is drawn", async () => {
    await cell("Kind of Flat 2 mm").click();
    await page.getByLabel("Kind", { exact: true }).selectOption("taper");
    await expect.poll(() => page.getByLabel("Half angle", { exact: true }).inputValue()).toBe("5");
    await page.getByRole("img", { name: "Flat 2 mm" }).waitFor();
    await page.getByRole("button", { name: "Undo" }).click();
    await cell("Kind of Flat 2 mm: flat").waitFor();
  });
  it("a cutter is duplicated, put aside and brought back", async () => {
    await cell("Name of Ball 3 mm").click();
    await page.getByRole("button", { name: "Duplicate" }).click();
    await cell("Name of Ball 3 mm (2)").waitFor();
    await page.getByRole("button", { name: "Put aside" }).click();
    await expect.poll(() => cell("Name of Ball 3 mm (2)").count()).toBe(0);
    await page.getByRole("radio", { name: "put aside" }).click();
    await cell("Name of Ball 3 mm (2)").click();
    await page.getByRole("button", { name: "Bring back" }).click();
    await page.getByRole("radio", { name: "in use" }).click();
    await cell("Name of Ball 3 mm (2)").waitFor();
  });
  it("a table with faults names each by its row and column and takes nothing; mended it is taken", async () => {
    const path = join(dir, "mine.csv");
    const head = "name;kind;diameter;flutes;fluteLength;centreCutting\n";
    writeFileSync(path, `${head}Gift;flat;3,5;2;12;yes\nBroken;flat;none;2;12;perhaps\n`);
    await page.getByLabel("Import cutters").setInputFiles(path);
    await page.getByText('Row 2: Diameter: "none" is not a number.').waitFor();
    await page.getByText('Row 2: Cuts at centre: "perhaps" is neither yes nor no.').waitFor();
    writeFileSync(path, `${head}Gift;flat;3,5;2;12;yes\n`);
    await page.getByLabel("Import cutters").setInputFiles(path);
    await page.getByLabel("Search rack").fill("gift");
    await cell("Diameter of Gift: 3.5").waitFor();
  });
  it("what the search leaves is sorted by any column", async () => {
    await page.getByLabel("Search rack").fill("flat");
    const diameters = () =>
      page
        .getByRole("gridcell", { name: /^Diameter of/ })
        .allInnerTexts()
        .then((t) => t.map(Number));
    const header = page.getByRole("columnheader", { name: /Diameter/ });
    await header.getByRole("button").click();
    await expect.poll(() => header.getAttribute("aria-sort")).not.toBe("none");
    const shown = await diameters();
    const isDown = (await header.getAttribute("aria-sort")) === "descending";
    expect(shown).toEqual([...shown].sort((a, b) => (isDown ? b - a : a - b)));
    expect(shown.length).toBeGreaterThan(8);
  });
  it("five thousand cutters: a key stroke in a cell and in the search stays quick", async () => {
    const path = join(dir, "many.csv");
    const rows = Array.from({ length: 5000 }, (_, i) => `Many ${i},flat,${1 + (i % 100) / 10},2,12,yes`).join("\n");
    writeFileSync(path, `name,kind,diameter,flutes,fluteLength,centreCutting\n${rows}\n`);
    await page.getByLabel("Search rack").fill("");
    await page.getByLabel("Import cutters").setInputFiles(path);
    await page.getByText(/^50\d\d cutters/).waitFor();
    expect(await page.getByRole("row").count()).toBeLessThan(80);
    await page.getByLabel("Search rack").fill("many 4999");
    await cell("Name of Many 4999").waitFor();
  });
});

describe("materials, machines and dialects", () => {
  it("a dialect is edited beside what it does to a program; what is unsafe is refused", async () => {
    await visit(page, `${server.url}/machines?table=dialects`);
    const program = page.getByLabel("A short program in this dialect");
    await expect.poll(() => program.innerText()).toMatch(/^\(job: Sample\)/);
    await page.getByLabel("Comments", { exact: true }).selectOption("semicolon");
    await expect.poll(() => program.innerText()).toMatch(/^; job: Sample/);
    await page.getByLabel("End block", { exact: true }).fill("M30");
    await page.getByLabel("Begin block", { exact: true }).focus();
    await page.getByText(/would leave the spindle on/).waitFor();
  });
  it("a job begins with the shop as it is now", async () => {
    await visit(page, `${server.url}/materials`);
    await page.getByRole("button", { name: "Add a material" }).click();
    await page.getByLabel("Name", { exact: true }).fill("Pear wood");
    await page.keyboard.press("Enter");
    await cell("Name of Pear wood").waitFor();
    await saved();
    const kept = (await (await fetch(`${server.url}/api/shop/materials`)).json()) as { entry: { name: string } }[];
    expect(kept.some((k) => k.entry.name === "Pear wood")).toBe(true);
  });
  it("every room of the shop is clean for those who see it otherwise", async () => {
    for (const path of ["/rack", "/materials", "/machines", "/machines?table=dialects"]) {
      await visit(page, server.url + path);
      await page.getByRole("grid").waitFor();
      expect(await accessibility(page), path).toEqual([]);
    }
  });
  it("nothing went wrong on any of these pages", () => expect(errors).toEqual([]));
});

describe("a class from a starting job", () => {
  const asked = (path: string, init?: RequestInit) => fetch(server.url + path, init).then((r) => r.json());
  const put = (path: string, json: unknown) =>
    fetch(server.url + path, {
      method: "PUT",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(json),
    });
  let start: string;
  it("any job becomes one; a pasted list makes a job a person; twins are told", async () => {
    const bytes = await bar(200);
    await openNew(page, server.url, { name: "label.png", bytes }, "sign", { width: 80, height: 60, thickness: 12 });
    await settled(page);
    await visit(page, server.url);
    await page.getByRole("button", { name: /Let others begin from/ }).click();
    await page.waitForURL(/\/class\//);
    start = page.url().split("/").pop()!;
    await page.getByLabel("Names").fill("Ada\nBo\nada");
    await page.getByLabel("Class", { exact: true }).fill("4b");
    await page.getByRole("button", { name: "A job for each" }).click();
    await page.getByText('"ada" is in line 1 and in line 3').waitFor();
    await page.getByLabel("Names").fill("Ada\n../Bo\nChiara");
    await page.getByRole("button", { name: "A job for each" }).click();
    await page.getByRole("heading", { name: "3 people" }).waitFor();
    await page.getByText("3 no picture").waitFor();
  });
  it("a person's picture opens their bench: what is locked cannot be changed there", async () => {
    const path = join(dir, "own.png");
    writeFileSync(path, await bar(120));
    await page.getByLabel("Picture of Ada").setInputFiles(path);
    await page.waitForURL(/\/job\//);
    await settled(page);
    await page.getByText(/^Begun from/).waitFor();
    expect(await page.getByLabel("Floor", { exact: true }).isDisabled()).toBe(true);
    await page.getByRole("button", { name: "Add a cut" }).click();
    await page.getByRole("menuitem").first().click();
    await page.getByText(/locks the cuts/).waitFor();
  });
  it("nor by a request of somebody's own making", async () => {
    const { people } = (await asked(`/api/jobs/${start}/class`)) as { people: { id: string; person: string }[] };
    const ada = people.find((p) => p.person === "Ada")!;
    const { card, document } = (await asked(`/api/jobs/${ada.id}`)) as {
      card: { revision: number };
      document: JobDocument;
    };
    for (const edit of [
      (d: JobDocument) => void (d.boards[0].stock.thickness = 3),
      (d: JobDocument) => void delete d.begun,
    ]) {
      const changed = structuredClone(document);
      edit(changed);
      const answer = await put(`/api/jobs/${ada.id}`, { base: card.revision, document: changed, summary: "x" });
      expect(answer.status).toBe(403);
      expect(((await answer.json()) as { message: string }).message).toMatch(/locks/);
    }
  });
  it("everybody's programs come in one archive, a folder a person; who has none is named", async () => {
    await page.waitForTimeout(1500);
    await visit(page, `${server.url}/class/${start}`);
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Write everybody's programs" }).click();
    const saved = join(dir, "class.zip");
    await (await download).saveAs(saved);
    const names = Object.keys(unzipSync(readFileSync(saved)));
    expect(names.some((n) => /^ada\/01-.*\.nc$/.test(n))).toBe(true);
    expect(names).toContain("ada/sheet.pdf");
    for (const n of names) expect(n).not.toMatch(/\.\.|^\//);
    await page.getByText("../Bo: no picture yet").waitFor();
    await page.getByText("1 written").waitFor();
    expect(await accessibility(page)).toEqual([]);
  });
  it("nothing went wrong there either", () => expect(errors).toEqual([]));
});
