import type { Page } from "playwright-core";
import { settled } from "../e2e/bench.ts";
import { counted } from "../e2e/counted.ts";
import { row } from "./measure.ts";

/** Times of each change; the first, which is cold, is told by itself. */
const TIMES = 11;
/** Playing of the cutting that is counted, ms. */
const PLAYING_MS = 3000;

interface Took {
  live: number;
  first: number;
  settled: number;
}

/** The moments after the last key press at which each mark came, ms; NaN for what never did. */
async function marksAfter(page: Page): Promise<Took> {
  await page.waitForFunction(
    () => {
      const at = (window as unknown as { oakenPressed: number }).oakenPressed;
      return performance.getEntriesByName("oaken-settled-proof").some((m) => m.startTime > at);
    },
    null,
    { polling: 20, timeout: 60_000 },
  );
  return page.evaluate(() => {
    const at = (window as unknown as { oakenPressed: number }).oakenPressed;
    const after = (name: string) =>
      (performance.getEntriesByName(name).find((m) => m.startTime > at)?.startTime ?? NaN) - at;
    return {
      live: after("oaken-live"),
      first: Math.min(after("oaken-first-proof"), after("oaken-settled-proof")),
      settled: after("oaken-settled-proof"),
    };
  });
}

/** Types values into a field, one after another, each until its proof has settled. */
async function typed(page: Page, label: string, value: (k: number) => string): Promise<{ took: Took[]; mb: number[] }> {
  const field = page.getByRole("textbox", { name: label, exact: true });
  const took: Took[] = [];
  const mb: number[] = [];
  for (let k = 0; k < TIMES; k++) {
    await field.fill(value(k));
    await counted(page);
    await field.press("Enter");
    took.push(await marksAfter(page));
    await settled(page);
    mb.push((await counted(page)).fromWorkers / 1e6);
    await page.waitForTimeout(200);
  }
  return { took, mb };
}

const median = (all: number[]): number => [...all].sort((p, q) => p - q)[Math.floor(all.length / 2)];

function tell(what: string, took: Took[], key: keyof Took, most: number): void {
  const times = took.map((t) => t[key]);
  row(what, `${Math.round(median(times.slice(1)))} ms`, `(at most ${most}); the first time ${Math.round(times[0])} ms`);
}

/** Changes on the demo sign's bench, from the key pressed to what it brings; what crosses; what playing renders. */
export async function benchEdits(page: Page): Promise<void> {
  await page.evaluate(() => {
    window.addEventListener(
      "keydown",
      () => ((window as unknown as { oakenPressed: number }).oakenPressed = performance.now()),
      true,
    );
  });
  const floor = await typed(page, "Floor", (k) => (3 + 0.1 * (k + 1)).toFixed(1));
  tell("a new floor → the first new proof", floor.took, "first", 250);
  tell("… → its settled proof", floor.took, "settled", 800);
  row("… arrays that come from the workers", `${median(floor.mb).toFixed(1)} MB`);
  await page
    .getByRole("button", { name: /^Outline/ })
    .first()
    .click();
  const level = await typed(page, "Ink level", (k) => String(45 + k));
  tell("a new ink level → the first new proof", level.took, "first", 400);
  tell("… → its settled proof", level.took, "settled", 1200);
  row("… arrays that come from the workers", `${median(level.mb).toFixed(1)} MB`);
  await counted(page);
  await page.getByRole("button", { name: "Play the cutting" }).click();
  await page.waitForTimeout(PLAYING_MS);
  await page.getByRole("button", { name: "Pause" }).click();
  const playing = await counted(page);
  const seconds = PLAYING_MS / 1000;
  row(
    "playing: components rendered a second",
    `${Math.round(playing.components / seconds)}`,
    `in ${Math.round(playing.commits / seconds)} commits; ` +
      `the scene drawn ${Math.round(playing.frames / seconds)} times`,
  );
  await page.waitForTimeout(1000);
  await counted(page);
  await page.waitForTimeout(PLAYING_MS);
  row("nothing moves: drawings of the scene a second", `${((await counted(page)).frames / seconds).toFixed(1)}`);
}
