import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { StockSettings } from "@oaken/core/job/document";
import { accessibility, openNew, settled } from "./bench.ts";
import { launch } from "./browser.ts";
import { type Running, startServer } from "./server.ts";
import { materialNamed } from "@oaken/core/testing/shop";

/** A red ring and a blue disc on white, with soft edges. */
const art =
  `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="500"><rect width="900" height="500" fill="#fff"/>` +
  `<circle cx="270" cy="250" r="180" fill="#a01818"/><circle cx="270" cy="250" r="70" fill="#fff"/><circle ` +
  `cx="660" cy="250" r="140" fill="#1830a0"/></svg>`;

let server: Running;
let browser: Browser;
let page: Page;
const wrongs: string[] = [];
const strip = () => page.getByRole("region", { name: "Run strip" });
const card = (name: RegExp) => strip().getByRole("button", { name });
const more = async (cut: string, item: string) => {
  await page.getByRole("button", { name: `More for ${cut}`, exact: true }).click();
  await page.getByRole("menuitem", { name: item }).click();
};
const order = () =>
  strip()
    .locator("[data-cut]")
    .evaluateAll((cards) => cards.map((c) => c.querySelector("span.font-semibold")!.textContent));

/** Puts a job of the art with this outcome into the application and opens it. */
const begin = async (outcome: string, stock: Partial<StockSettings>) =>
  openNew(
    page,
    server.url,
    { name: "two.png", bytes: await sharp(Buffer.from(art)).blur(0.8).png().toBuffer() },
    outcome,
    stock,
  );

beforeAll(async () => {
  server = await startServer(join(mkdtempSync(join(tmpdir(), "oaken-e2e-")), "data"));
  browser = await launch();
  page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
  page.on("pageerror", (e) => wrongs.push(String(e)));
  page.setDefaultTimeout(45_000);
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await server?.kill("SIGTERM");
});

describe("cuts on the bench", () => {
  it("a cut is added, moved, stopped before, grouped and undone", async () => {
    await begin("pocket", { width: 120, height: 75, thickness: 12 });
    await page.getByRole("button", { name: "Add a cut" }).click();
    expect(await accessibility(page)).toEqual([]);
    await page.getByRole("menuitem", { name: /Hatch/ }).click();
    await settled(page);
    expect(await order()).toEqual(["1 · Pocket", "2 · Hatch"]);
    await more("Hatch", "Move earlier");
    await settled(page);
    expect(await order()).toEqual(["1 · Hatch", "2 · Pocket"]);
    await page.getByRole("button", { name: "More for Pocket" }).click();
    await page.getByRole("menuitem", { name: "Stop before it" }).hover();
    await page.getByRole("menuitem", { name: "Stain" }).click();
    await page.getByLabel("What to do at the stop").fill("dark, wiped off");
    await page.getByLabel("What to do at the stop").press("Enter");
    await strip().getByText("dark, wiped off").waitFor();
    expect(await accessibility(page)).toEqual([]);
    await page.getByRole("button", { name: "Remove the stop before Pocket" }).click();
    await page.getByRole("button", { name: /Undo remove the stop/ }).click();
    await strip().getByText("dark, wiped off").waitFor();
  });

  it("a card is dragged to its place in the order", async () => {
    const from = (await card(/· Pocket/).boundingBox())!;
    const to = (await card(/· Hatch/).boundingBox())!;
    await page.mouse.move(from.x + 40, from.y + 30);
    await page.mouse.down();
    await page.mouse.move(to.x + 20, to.y + 30, { steps: 8 });
    await page.mouse.up();
    await page.getByRole("button", { name: /Undo machining order/ }).waitFor();
    expect(await order()).toEqual(["1 · Pocket", "2 · Hatch"]);
  });

  it("… and with keys: M takes it, arrows move it, M puts it down", async () => {
    const taken = page.locator("[data-cut][data-dragging]");
    /** Whether a card that is taken is said to lie over another's place. */
    const isOverAnother = (own: string) =>
      [...document.querySelectorAll("[aria-live]")].some(
        ({ textContent: said }) => /over droppable area/.test(said!) && !said!.endsWith(` ${own}.`),
      );
    for (const [arrow, becomes] of [
      ["ArrowLeft", ["1 · Hatch", "2 · Pocket"]],
      ["ArrowRight", ["1 · Pocket", "2 · Hatch"]],
    ] as const) {
      await page.locator("[data-cut] > button").filter({ hasText: "· Hatch" }).focus();
      await page.keyboard.press("m");
      await taken.waitFor();
      const own = (await taken.getAttribute("data-cut"))!;
      // Keys are listened to from a moment after it is taken.
      await page.waitForTimeout(150);
      await page.keyboard.press(arrow);
      await page.waitForFunction(isOverAnother, own);
      await page.keyboard.press("m");
      await taken.waitFor({ state: "detached" });
      await expect.poll(order).toEqual(becomes);
    }
  });

  it("a smaller cutter takes the rest, and the map shows what is left", async () => {
    await card(/· Pocket/).click();
    await page.getByText(/out of reach|Reaches all/).waitFor();
    await page.getByRole("combobox", { name: "Take the rest with" }).click();
    await page.getByRole("option", { name: "flat 2", exact: true }).click();
    await card(/· Rest/).waitFor();
    await settled(page);
    await page.getByRole("button", { name: "How the piece is coloured" }).click();
    await page.getByRole("menuitemradio", { name: "what is left standing" }).click();
    await page.getByText("out of reach", { exact: true }).waitFor();
    await page.getByRole("button", { name: "How the piece is coloured" }).click();
    await page.getByRole("menuitemradio", { name: "by the cut that made it" }).click();
    await page.getByRole("button", { name: "How the piece is coloured" }).click();
    await page.getByRole("menuitemradio", { name: "as it lies on a table" }).click();
  });

  it("each colour becomes its own outline for its own cut", async () => {
    await page.getByRole("button", { name: /^Outline/ }).click();
    await page.getByRole("radio", { name: "colours" }).click();
    await page.getByRole("region", { name: "Colours" }).waitFor();
    await settled(page);
    await page
      .getByRole("button", { name: /An outline of #1\w+ alone/ })
      .first()
      .click();
    await page.getByLabel("Name of the making").waitFor();
    await settled(page);
    await card(/· Hatch/).click();
    await page.getByRole("combobox", { name: "Shape" }).click();
    await page.getByRole("option", { name: /^Colour/ }).click();
    await settled(page);
    await page.getByRole("button", { name: /^Colour #1/ }).click();
    await page.getByRole("button", { name: /^Remove Colour/ }).click();
    await page.getByRole("button", { name: /finding/ }).click();
    await page.getByText(/Hatch has no shape to cut/).waitFor();
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: /Undo remove Colour/ }).click();
    await settled(page);
  });

  it("tabs stand where they are put, and pierces go where they are dragged", async () => {
    await begin("cutout", { width: 120, height: 75, thickness: 6 });
    const tabs = page.getByRole("group", { name: "Places of Cut out" }).getByRole("button");
    const many = await tabs.count();
    expect(many).toBeGreaterThan(3);
    await tabs.first().focus();
    await page.keyboard.press("Delete");
    await page.getByRole("button", { name: /Undo tab by hand/ }).waitFor();
    await settled(page);
    await page.waitForFunction(
      (n) => document.querySelectorAll("svg[aria-label^='Places of'] g[role=button]").length === n,
      many - 1,
    );
    expect(await accessibility(page)).toEqual([]);

    await begin("plasma", { width: 120, height: 75, thickness: 3, material: materialNamed("steel") });
    const pierce = page.getByRole("group", { name: "Places of Plasma" }).getByRole("button").first();
    const name = await pierce.getAttribute("aria-label");
    const box = (await pierce.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 4, box.y + box.height / 2 + 5, { steps: 3 });
    await page.mouse.up();
    await page.getByRole("button", { name: /Undo pierce by hand/ }).waitFor();
    await settled(page);
    expect(
      await page
        .getByRole("group", { name: "Places of Plasma" })
        .getByRole("button")
        .evaluateAll((g) => g.map((e) => e.getAttribute("aria-label"))),
    ).not.toContain(name);
  });

  it("clearing cutters are tried against each other, and each set is one click away", async () => {
    await begin("raised", { width: 120, height: 75, thickness: 18 });
    await strip()
      .getByRole("button", { name: /· Carve/ })
      .click();
    await page.getByRole("button", { name: "Which are quickest?" }).click();
    const sets = page.getByRole("list", { name: "Cutters by time" });
    await sets.waitFor();
    expect(await accessibility(page)).toEqual([]);
    const times = await sets.getByRole("button").allTextContents();
    expect(times.length).toBeGreaterThan(2);
    // Without any a point scrapes all of it: the slowest by far, and what it is told is estimated.
    await sets.getByRole("button", { name: /^none/ }).click();
    await settled(page);
    expect(await order()).toEqual(["1 · Carve"]);
    await sets.getByRole("button").first().click();
    await settled(page);
    expect(await sets.getByRole("button", { pressed: true }).allTextContents()).toEqual([times[0]]);
    expect((await order()).length).toBeGreaterThan(1);
    await page.getByRole("button", { name: /Undo cutters/ }).click();
    await settled(page);
    expect(await order()).toEqual(["1 · Carve"]);
  }, 120_000);

  it("a pocket's own cutter is tried too, each one click away and undone", async () => {
    await begin("pocket", { width: 120, height: 75, thickness: 12 });
    await strip()
      .getByRole("button", { name: /· Pocket/ })
      .click();
    await page.getByRole("button", { name: "Which are quickest?" }).click();
    const sets = page.getByRole("list", { name: "Cutters by time" });
    const first = sets.getByRole("button").first();
    const name = (await first.textContent())!;
    await first.click();
    await settled(page);
    expect(await sets.getByRole("button", { pressed: true }).allTextContents()).toEqual([name]);
    const cutter = page.getByRole("combobox", { name: "Cutter", exact: true });
    const before = await cutter.textContent();
    await sets.getByRole("button").nth(1).click();
    await settled(page);
    expect(await cutter.textContent()).not.toBe(before);
    await page.getByRole("button", { name: /Undo cutters/ }).click();
    await settled(page);
    expect(await cutter.textContent()).toBe(before);
  }, 120_000);

  it("a pace is remembered for the material on the machine, and what comes next begins with it", async () => {
    const pace = page.getByRole("textbox", { name: "Pace", exact: true });
    await pace.fill("80");
    await pace.press("Enter");
    await page.getByRole("button", { name: "Remember", exact: true }).click();
    await page.getByText("as remembered for ash on this machine").waitFor();
    expect(await pace.inputValue()).toMatch(/^80/);
    await begin("pocket", { width: 120, height: 75, thickness: 12 });
    const machines = (await (await fetch(`${server.url}/api/shop/machines`)).json()) as { entry: { paces?: string } }[];
    expect(machines[0].entry.paces).toBe("ash 0.8");
  }, 120_000);

  it("a clamp is dragged on the stage, moved by arrows, and taken away", async () => {
    await page.getByRole("button", { name: /Ash/ }).first().click();
    await page.getByRole("button", { name: "Clamp", exact: true }).click();
    const clamp = page.getByRole("button", { name: /^clamp 1 at x/ });
    await clamp.waitFor();
    expect(await accessibility(page)).toEqual([]);
    const box = (await clamp.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2 - 30, { steps: 4 });
    await page.mouse.up();
    const x = page.getByLabel("Clamp 1 from the left");
    const left = async () => Number((await x.inputValue()).replace(/[^\d.-]/g, ""));
    await expect.poll(left).toBeGreaterThan(2);
    const moved = await left();
    await clamp.focus();
    await page.keyboard.press("Shift+ArrowRight");
    await expect.poll(left).toBeCloseTo(moved + 10, 1);
    await clamp.focus();
    await page.keyboard.press("Delete");
    await clamp.waitFor({ state: "detached" });
    await settled(page);
  }, 120_000);

  it("programs go into a folder on the computer, and what lies there is asked about first", async () => {
    // The browser's own folder of this origin stands in for one that a person chooses.
    await page.evaluate(() => {
      (window as unknown as { showDirectoryPicker(): unknown }).showDirectoryPicker = () =>
        navigator.storage.getDirectory();
    });
    await page.getByRole("button", { name: "Write programs" }).click();
    const into = page.getByRole("button", { name: "Into a folder …" });
    await into.click();
    await page.getByText(/files are in the folder/).waitFor();
    const names = () =>
      page.evaluate(async () => {
        const out: [string, number][] = [];
        const folder = (await navigator.storage.getDirectory()) as unknown as AsyncIterable<
          [string, FileSystemFileHandle]
        >;
        for await (const [name, file] of folder) out.push([name, (await file.getFile()).size]);
        return out;
      });
    const written = await names();
    expect(written.map(([n]) => n)).toEqual(expect.arrayContaining([expect.stringMatching(/\.nc$/), "sheet.pdf"]));
    for (const [, size] of written) expect(size).toBeGreaterThan(0);
    await into.click();
    await page.getByText(/of these names in the folder/).waitFor();
    expect(await accessibility(page)).toEqual([]);
    await page.getByRole("button", { name: "Leave as it is" }).click();
    await into.click();
    await page.getByRole("button", { name: "Replace", exact: true }).click();
    await page.getByText(/files are in the folder/).waitFor();
    expect((await names()).length).toBe(written.length);
  }, 120_000);

  it("nothing went wrong in the page", () => expect(wrongs).toEqual([]));
});
