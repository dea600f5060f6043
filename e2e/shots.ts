import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { ginkgo, scan } from "../demo/art.ts";
import { settled as onceSettled, visit } from "./bench.ts";
import { launch } from "./browser.ts";
import { startServer } from "./server.ts";

/** One current picture of each main view, made from the demo data; run by `./oaken shots`. */
const out = process.argv[2];
const server = await startServer(process.argv[3]);
const browser = await launch();
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
const settled = () => onceSettled(page);
const shot = async (name: string) => {
  await page.waitForTimeout(900);
  const png = await page.screenshot();
  // A palette keeps the repository small; at 256 colours the wood's grain still shows.
  await sharp(png)
    .png({ palette: true, quality: 90 })
    .toFile(join(out, `${name}.png`));
  console.log(`${name}.png`);
};
const openJob = async (name: string) => {
  await visit(page, server.url);
  await page.getByText(name).click();
  await page.waitForURL(/\/job\//);
  await settled();
};

await visit(page, server.url);
await page.getByText("Ginkgo bed marker").waitFor();
await shot("jobs");

const picture = join(mkdtempSync(join(tmpdir(), "oaken-shots-")), "ginkgo-scan.jpg");
writeFileSync(picture, await scan(ginkgo(), { blur: 1.4, jpeg: 72, uneven: 0.18, stray: true }));
await page.setInputFiles('input[aria-label="Begin with a picture"]', picture);
await page.waitForURL(/begin/);
await page.waitForFunction(
  () => document.querySelectorAll("canvas[role=img]").length >= 8 && !document.querySelector(".catching-up"),
  null,
  { timeout: 60_000 },
);
await shot("begin");

await openJob("Ginkgo bed marker");
await page.keyboard.press("t");
await shot("bench-sign");
await page.keyboard.press("t");
await page.getByRole("button", { name: /^Outline/ }).click();
await shot("bench-outline");
await page.getByRole("button", { name: /^ginkgo-scan/ }).click();
await page.getByRole("group", { name: "Picture tools" }).getByRole("button", { name: "Erase" }).click();
await shot("bench-picture-tools");
await page.keyboard.press("Escape");
await page.getByRole("region", { name: "Run strip" }).getByRole("button", { name: /Carve/ }).first().click();
await page.keyboard.press("3");
await page.keyboard.press("4");
await shot("bench-paths");
await page.keyboard.press("w");
await page.getByText("Save everything").waitFor();
await shot("write");

await openJob("Seed drawer front");
await page.keyboard.press("t");
await page.getByRole("slider", { name: "Moment of the cutting" }).focus();
for (let i = 0; i < 9; i++) await page.keyboard.press("Shift+ArrowLeft");
await shot("bench-raised-scrubbed");

await openJob("Fox in the meadow");
await shot("bench-plasma");

await openJob("Ginkgo bed marker");
await page.getByRole("button", { name: "Add a cut" }).click();
await page.getByRole("menuitem", { name: /Pocket/ }).click();
await page.waitForTimeout(600);
await settled();
for (const cut of ["Clear", "Carve"]) await page.getByRole("button", { name: `Switch off ${cut}` }).click();
await page.waitForTimeout(600);
await settled();
await page.getByRole("button", { name: /· Pocket/ }).click();
await page.getByRole("button", { name: "How the piece is coloured" }).click();
await page.getByRole("menuitemradio", { name: "what is left standing" }).click();
await shot("bench-left");

await openJob("Fern tile");
await shot("bench-relief");
await page.getByRole("button", { name: /^Fern \d|^Fern\n/ }).click();
await page.getByRole("button", { name: "Section", exact: true }).click();
await page.getByRole("slider", { name: "Place in the section" }).hover({ position: { x: 500, y: 60 } });
await settled();
await shot("bench-height");
await page.getByRole("button", { name: "Close the section" }).click();

await openJob("Glasshouse at dusk");
await shot("bench-lithophane");

await openJob("Moth card");
await shot("bench-lines");

await openJob("Bee walk plate");
await page.getByRole("button", { name: /^Outline/ }).click();
await shot("bench-centre-line");

await visit(page, `${server.url}/rack`);
await page.getByRole("gridcell", { name: /^Name of Tapered ball R0.5/ }).click();
await shot("rack");
await visit(page, `${server.url}/machines?table=dialects`);
await page.getByRole("gridcell", { name: /^Name of Inches/ }).click();
await shot("dialects");
await visit(page, server.url);
await page.getByRole("link", { name: /Everybody's pieces from Seedling label/ }).click();
await page.getByRole("heading", { name: "8 people" }).waitFor();
await shot("class");

await visit(page, server.url);
await page.getByRole("button", { name: "Begin with words" }).click();
await settled();
const words = page.getByRole("textbox", { name: "Words", exact: true });
await words.fill("Marrowdale\nBotanic Garden");
await words.press("Control+Enter");
await page.getByRole("combobox", { name: "Letters" }).click();
await page.getByRole("option", { name: /^Capitals/ }).click();
await settled();
await shot("bench-words");

await browser.close();
await server.kill("SIGTERM");
