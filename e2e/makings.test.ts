import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { writeStl } from "@oaken/core/height/stl";
import { accessibility, openNew, settled } from "./bench.ts";
import { launch } from "./browser.ts";
import { type Running, startServer } from "./server.ts";

/** A disc as a picture, and a drawing of a plate narrower than it. */
const disc =
  '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="600"><rect width="600" height="600" fill="#fff"/>' +
  '<circle cx="300" cy="300" r="200" fill="#111"/></svg>';
const plate =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="20mm" viewBox="0 0 40 20">' +
  '<rect width="40" height="20" rx="5"/></svg>';

let server: Running;
let browser: Browser;
let page: Page;
const wrongs: string[] = [];
const makings = () => page.getByRole("navigation", { name: "Makings" });
const making = (name: RegExp) => makings().getByRole("button", { name });
const pick = async (label: string, option: RegExp) => {
  await page.getByRole("combobox", { name: label, exact: true }).click();
  await page.getByRole("option", { name: option }).click();
};
const file = (name: string, text: string) => {
  const path = join(mkdtempSync(join(tmpdir(), "oaken-drawing-")), name);
  writeFileSync(path, text);
  return path;
};

beforeAll(async () => {
  server = await startServer(mkdtempSync(join(tmpdir(), "oaken-makings-")));
  browser = await launch();
  page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
  page.on("pageerror", (e) => wrongs.push(e.message));
  const bytes = await sharp(Buffer.from(disc)).png().toBuffer();
  await openNew(page, server.url, { name: "disc.png", bytes }, "pocket", { width: 120, height: 120, thickness: 12 });
});
afterAll(async () => {
  await browser?.close();
  await server?.kill("SIGTERM");
});

describe("drawings and combinations, from the makings to the programs", () => {
  it("a drawing's shapes are taken exactly, at the size that it was drawn", async () => {
    await page.getByLabel("Drawing file").setInputFiles(file("plate.svg", plate));
    await making(/^plate\.svg/).waitFor();
    await settled(page);
    expect(await making(/^plate\.svg/).innerText()).toContain("1 contour");
    expect(await page.getByLabel("Width", { exact: true }).inputValue()).toBe("40");
    expect(await accessibility(page)).toEqual([]);
  });

  it("taken away from the outline, and cut", async () => {
    await making(/^Outline/).click();
    await page.getByRole("button", { name: "Make from it" }).click();
    await page.getByRole("menuitem", { name: /^Combination/ }).click();
    await pick("Combine by", /taking away/);
    await settled(page);
    // The plate is narrower than the disc: a hole in it.
    expect(await making(/^Combination/).innerText()).toContain("2 contours");
    const strip = page.getByRole("region", { name: "Run strip" });
    await strip.getByRole("button", { name: /· Pocket/ }).click();
    await pick("Shape", /^Combination/);
    await settled(page);
    await page.getByRole("button", { name: "Write programs" }).click();
    await page.getByRole("button", { name: /Save 01-/ }).waitFor();
    await page.getByRole("button", { name: "Back to the bench" }).click();
  });

  it("the drawing moved, the combination and its cut follow", async () => {
    await making(/^plate\.svg/).click();
    const width = page.getByLabel("Width", { exact: true });
    await width.fill("110");
    await width.press("Enter");
    await settled(page);
    // Wider than the disc, it parts it in two.
    await expect.poll(() => making(/^Combination/).innerText()).toContain("2 contours");
    await making(/^Combination/).click();
    await page.getByText(/^2 of ink/).waitFor();
  });

  it("taken out, all that was made from it goes too, and undo brings it back", async () => {
    await making(/^plate\.svg/).click();
    await page.getByRole("button", { name: "Remove plate.svg" }).click();
    await settled(page);
    expect(await making(/^Combination/).count()).toBe(0);
    await page.getByRole("button", { name: /finding/ }).click();
    await page.getByText(/Pocket has no shape to cut/).waitFor();
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: /Undo remove plate/ }).click();
    await settled(page);
    expect(await making(/^Combination/).count()).toBe(1);
  });

  it("a solid's surface beside them, as deep as it is high, and what is no solid says so", async () => {
    // A roof of two slopes, 30 × 20 and 4 high.
    const f = { x0: 0, y0: 0, cell: 1, width: 30, height: 20 };
    const z = Float32Array.from({ length: 600 }, (_, k) => -Math.abs(Math.floor(k / 30) - 9.5) * 0.3);
    const stl = join(mkdtempSync(join(tmpdir(), "oaken-solid-")), "roof.stl");
    writeFileSync(stl, writeStl({ ...f, z }, -4));
    await page.getByLabel("Drawing file").setInputFiles(stl);
    await making(/^roof\.stl/).waitFor();
    await settled(page);
    expect(await page.getByLabel("Width", { exact: true }).inputValue()).toBe("30");
    expect(await page.getByLabel("Depth", { exact: true }).inputValue()).toMatch(/^3\.8/);
    await page.getByRole("button", { name: "Add a cut" }).click();
    await page.getByRole("menuitem", { name: /^Finish/ }).click();
    await settled(page);
    expect(await accessibility(page)).toEqual([]);
    writeFileSync(stl, "solid nothing");
    await page.getByLabel("Drawing file").setInputFiles(stl);
    await page
      .getByText(/not an STL/)
      .first()
      .waitFor();
  });

  it("a body made from a drawing, cut open along a line, under a light that is moved", async () => {
    await making(/^plate\.svg/).click();
    await page.getByRole("button", { name: "Make from it" }).click();
    await page.getByRole("menuitem", { name: /^Raised body/ }).click();
    await settled(page);
    await making(/^Raised body/).waitFor();
    expect(await page.getByLabel("Depth", { exact: true }).inputValue()).toBe("4");
    await page.getByRole("button", { name: "Section", exact: true }).click();
    const section = page.getByRole("region", { name: "Section" });
    const place = section.getByRole("slider", { name: "Place in the section" });
    await place.focus();
    await page.keyboard.press("ArrowRight");
    // In the middle of the board the body stands highest.
    const said = () => place.getAttribute("aria-valuetext");
    await expect.poll(said, { timeout: 20_000 }).toMatch(/^at 61\.\d+ mm: cut .*, wanted -?[0-3](\.\d+)?$/);
    const end = page.getByRole("slider", { name: "One end of the section" });
    await end.focus();
    await page.keyboard.press("Shift+ArrowRight");
    await section.getByText("110 mm long").waitFor();
    const light = page.getByRole("slider", { name: "Light", exact: true });
    const before = await light.getAttribute("aria-valuetext");
    expect(before).toMatch(/^light from the back left, \d+° high$/);
    await light.focus();
    for (let k = 0; k < 16; k++) await page.keyboard.press("ArrowRight");
    expect(await light.getAttribute("aria-valuetext")).toMatch(/^light from the back right/);
    await page.keyboard.press("Home");
    expect(await light.getAttribute("aria-valuetext")).toBe(before);
    expect(await accessibility(page)).toEqual([]);
    await section.getByRole("button", { name: "Close the section" }).click();
  });

  it("a height from the picture's tone, its curve moved, given points and taken back by keys", async () => {
    await making(/^Tone/).click();
    await page.getByRole("button", { name: "Make from it" }).click();
    await page.getByRole("menuitem", { name: /^Height/ }).click();
    await settled(page);
    const curve = page.getByRole("group", { name: "Curve from grey to height" });
    const points = curve.getByRole("slider");
    expect(await points.count()).toBe(2);
    const box = (await curve.boundingBox())!;
    await curve.click({ position: { x: box.width / 2, y: box.height / 4 } });
    await expect.poll(() => points.count()).toBe(3);
    await points.nth(1).focus();
    const was = await points.nth(1).getAttribute("aria-valuetext");
    await page.keyboard.press("ArrowDown");
    await expect.poll(() => points.nth(1).getAttribute("aria-valuetext")).not.toBe(was);
    await page.keyboard.press("Delete");
    await expect.poll(() => points.count()).toBe(2);
    await settled(page);
    expect(await accessibility(page)).toEqual([]);
  });

  it("kept in the shop by its name with a picture of itself, and taken from there beside what is there", async () => {
    const heights = () => page.getByRole("navigation", { name: "Makings" }).getByRole("button", { name: /mm deep$/ });
    const before = await heights().count();
    await page.getByRole("button", { name: "Keep", exact: true }).click();
    await page.getByText(/^Kept in/).waitFor();
    // Another height is not kept by that.
    await heights().first().click();
    await page.getByRole("button", { name: "Keep", exact: true }).waitFor();
    await page.getByRole("button", { name: "Add", exact: true }).click();
    await page.getByRole("menuitem", { name: /^A kept height/ }).press("ArrowRight");
    const entry = page.getByRole("menu").last().getByRole("menuitem").first();
    await entry.waitFor();
    const picture = entry.getByRole("presentation");
    await expect.poll(() => picture.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(100);
    await entry.click();
    await expect.poll(() => heights().count(), { timeout: 20_000 }).toBe(before + 1);
    await settled(page);
    await page.keyboard.press("Control+z");
    await expect.poll(() => heights().count(), { timeout: 20_000 }).toBe(before);
    await heights().last().click();
    await settled(page);
  });

  it("finished straight into solid stock it is warned of, and roughed first by one click", async () => {
    const depth = page.getByLabel("Depth", { exact: true });
    await depth.fill("10");
    await depth.press("Enter");
    await page.getByRole("button", { name: "Add a cut" }).click();
    await page.getByRole("menuitem", { name: /^Finish/ }).click();
    await settled(page);
    await page.getByRole("button", { name: /finding/ }).click();
    await page.getByRole("button", { name: "Rough it first" }).first().click();
    await page.keyboard.press("Escape");
    await settled(page);
    await page
      .getByRole("region", { name: "Run strip" })
      .getByRole("button", { name: /· Rough/ })
      .first()
      .waitFor();
  });

  it("a picture of pixels is no drawing, and says so", async () => {
    const png = join(mkdtempSync(join(tmpdir(), "oaken-drawing-")), "photo.svg");
    writeFileSync(png, await sharp(Buffer.from(disc)).png().toBuffer());
    await page.getByLabel("Drawing file").setInputFiles(png);
    await page
      .getByText(/is not an SVG drawing/)
      .first()
      .waitFor();
    expect(wrongs).toEqual([]);
  });
});
