import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { JobDocument } from "@oaken/core/job/document";
import { accessibility, openNew, settled, visit } from "./bench.ts";
import { launch } from "./browser.ts";
import { type Running, startServer } from "./server.ts";

const dir = mkdtempSync(join(tmpdir(), "oaken-e2e-"));
let server: Running;
let browser: Browser;
let page: Page;
const wrongs: string[] = [];

/** A plate photographed askew: a bar that falls to the right by 6°, on a ground with corners of its own. */
const askew =
  `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="600"><rect width="1000" height="600" ` +
  `fill="#eee"/><g transform="rotate(6 500 300)"><rect x="200" y="280" width="600" height="40" fill="#222"/></g>` +
  "</svg>";
/** A dark page seen at an angle: corners 200,100 800,140 880,500 120,460. */
const page4 = [200, 100, 800, 140, 880, 500, 120, 460];
const slanted =
  `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="600"><rect width="1000" height="600" ` +
  `fill="#eee"/><polygon points="${page4.join(" ")}" fill="#222"/></svg>`;

const png = (svg: string) => sharp(Buffer.from(svg)).blur(0.7).png().toBuffer();

/** Puts a sign of this picture into the application and opens it with the picture selected. */
async function begin(svg: string): Promise<void> {
  await openNew(
    page,
    server.url,
    { name: "art.png", bytes: await png(svg) },
    "sign",
    { width: 220, height: 140, thickness: 18 },
    (job) => void (job.makings[0].settings.width = 200),
  );
  await page.getByRole("button", { name: /^art.png/ }).click();
}

/** The job as it is on the server once everything is saved. */
async function saved(): Promise<JobDocument> {
  await page
    .locator("header [role=status]")
    .filter({ hasText: /rev \d+ · saved/ })
    .waitFor();
  const id = new URL(page.url()).pathname.split("/").pop();
  return (await page.evaluate(
    async (job) => (await (await fetch(`/api/jobs/${job}`)).json()).document,
    id,
  )) as JobDocument;
}

const tool = (name: string) =>
  page.getByRole("group", { name: "Picture tools" }).getByRole("button", { name, exact: true }).click();

/**
 * Where on the screen pixels of the picture lie, measured by the handles that Square up puts at 8 % from its corners.
 */
async function screenOf(): Promise<(x: number, y: number) => [number, number]> {
  await tool("Square up");
  await page.locator("svg[role=application] circle").nth(3).waitFor();
  const at = await page
    .locator("svg[role=application] circle")
    .evaluateAll((c) => c.map((e) => [Number(e.getAttribute("cx")), Number(e.getAttribute("cy"))]));
  const box = (await page.locator("svg[role=application]").boundingBox())!;
  const k = (at[1][0] - at[0][0]) / 840;
  await page.keyboard.press("Escape");
  await page.locator("svg[role=application]").waitFor({ state: "detached" });
  return (x, y) => [box.x + at[0][0] + (x - 80) * k, box.y + at[0][1] + (y - 48) * k];
}
/** Drags, one after another, faster than any page is drawn: all of their events in one go. */
const dragAtOnce = (drags: { from: [number, number]; to: [number, number] }[]) =>
  page.locator("svg[role=application]").evaluate((svg, all) => {
    const MOUSE = 1;
    const send = (type: string, [x, y]: [number, number]) =>
      svg.dispatchEvent(
        new PointerEvent(type, { bubbles: true, clientX: x, clientY: y, pointerId: MOUSE, buttons: 1 }),
      );
    for (const { from, to } of all) {
      send("pointerdown", from);
      send("pointermove", to);
      send("pointerup", to);
    }
  }, drags);

/** Drags with the tool in hand, once it is there to take the pointer. */
async function drag(from: [number, number], to: [number, number]): Promise<void> {
  await page.locator("svg[role=application]").waitFor();
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move(...to, { steps: 5 });
  await page.mouse.up();
}

beforeAll(async () => {
  server = await startServer(join(dir, "data"));
  browser = await launch();
  page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
  page.on("pageerror", (e) => wrongs.push(String(e)));
  page.setDefaultTimeout(45_000);
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await server?.kill("SIGTERM");
});

describe("pictures brought into shape on the stage", () => {
  it("a line drawn along what should be level straightens the picture", async () => {
    await begin(askew);
    const at = await screenOf();
    await tool("Straighten");
    const [c, s] = [Math.cos((6 * Math.PI) / 180), Math.sin((6 * Math.PI) / 180)];
    await drag(at(500 - 280 * c, 300 - 280 * s), at(500 + 280 * c, 300 + 280 * s));
    await page.getByRole("button", { name: /Undo straighten/ }).waitFor();
    await settled(page);
    expect((await saved()).makings[0].settings.turn as number).toBeCloseTo(6, 0);
  });

  it("a known distance, drawn and typed, gives the picture its size", async () => {
    await begin(askew);
    const at = await screenOf();
    await tool("Measure");
    // 500 of 1000 pixels of a picture 200 mm wide: 100 mm on the stock, said to be 85 in truth.
    await drag(at(200, 150), at(700, 150));
    const field = page.getByLabel("Real distance");
    expect(Number.parseFloat(await field.inputValue())).toBeCloseTo(100, 0);
    expect(await accessibility(page)).toEqual([]);
    await field.fill("85");
    await field.press("Enter");
    await settled(page);
    expect((await saved()).makings[0].settings.width as number).toBeCloseTo(170, 0);
  });

  it("four corners dragged to a slanted page square it up", async () => {
    await begin(slanted);
    const at = await screenOf();
    await tool("Square up");
    await page.locator("svg[role=application] circle").nth(3).waitFor();
    const drags = [
      [80, 48],
      [920, 48],
      [920, 552],
      [80, 552],
    ].map(([x, y], i) => ({ from: at(x, y), to: at(page4[2 * i], page4[2 * i + 1]) }));
    await drag(drags[0].from, drags[0].to);
    await dragAtOnce(drags.slice(1));
    await page.getByRole("button", { name: "Apply" }).click();
    await settled(page);
    const corners = ((await saved()).makings[0].settings.corners as string).split(/[\s,]+/).map(Number);
    corners.forEach((v, i) => expect(Math.abs(v - page4[i])).toBeLessThan(4));
    // The page fills the picture now: two short sides and two long ones, about as long as they were.
    await page
      .getByText(/\d+ × \d+ pixels/)
      .first()
      .waitFor();
  });

  it("another picture takes its place, 16-bit TIFF and all, and every setting stays", async () => {
    await begin(askew);
    await page.getByRole("region", { name: "Run strip" }).getByRole("button", { name: /Carve/ }).first().click();
    await page.getByLabel("Floor", { exact: true }).fill("2.5");
    await page.getByLabel("Floor", { exact: true }).press("Enter");
    const tiff = join(dir, "deep.tif");
    writeFileSync(tiff, await sharp(Buffer.from(slanted)).toColourspace("rgb16").tiff().toBuffer());
    await page.setInputFiles('input[aria-label="Picture file"]', tiff);
    await page.getByRole("button", { name: /^deep.tif/ }).waitFor();
    await settled(page);
    const job = await saved();
    expect(job.makings[0].asset!.name).toBe("deep.tif");
    expect(job.makings[0].settings.width).toBe(200);
    expect(job.boards[0].cuts.find((c) => c.kind === "vcarve")!.settings.floor).toBe(2.5);
    expect(await page.getByRole("button", { name: /Undo replace the picture/ }).isEnabled()).toBe(true);
  });

  it("several at once: the first begins, the others wait beside it; a pasted one begins too", async () => {
    const files = ["one.svg", "two.webp"].map((n) => join(dir, n));
    writeFileSync(files[0], askew);
    writeFileSync(files[1], await sharp(Buffer.from(slanted)).webp().toBuffer());
    await visit(page, server.url);
    await page.setInputFiles('input[aria-label="Begin with a picture"]', files);
    const begins = (name: string) => page.getByRole("heading", { name: `Begin with ${name}` }).waitFor();
    await begins("one.svg");
    await page.getByRole("button", { name: "Begin with two.webp" }).click();
    await begins("two.webp");
    await page
      .getByText(/pixels in a millimetre/)
      .first()
      .waitFor();
    await visit(page, server.url);
    await page.getByRole("button", { name: "Begin with a picture" }).waitFor();
    await page.evaluate(
      async (bytes) => {
        const data = new DataTransfer();
        data.items.add(new File([Uint8Array.from(bytes)], "clip.png", { type: "image/png" }));
        window.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data }));
      },
      [...(await png(askew))],
    );
    await begins("clip.png");
  });

  it("no page raised an error on the way", () => expect(wrongs).toEqual([]));
});
