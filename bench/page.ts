import type { Page } from "playwright-core";
import { settled } from "../e2e/bench.ts";
import { countOn } from "../e2e/counted.ts";
import { launch } from "../e2e/browser.ts";
import { startServer } from "../e2e/server.ts";
import { benchEdits } from "./edits.ts";
import { row } from "./measure.ts";

/** Between the list of jobs and opening one, ms: what a hand takes, and a look at the list. */
const RESTS = [1000, 3000];
/** From a settled proof until the browser keeps it, ms, on a slow machine too. */
const KEPT_BY = 6000;

/**
 * From opening a demo job to its first proof on the bench, in production mode, and the weight of the page's own code.
 */
export async function benchPage(): Promise<void> {
  console.log("\nThe bench in production mode (software-drawn 3D)");
  const server = await startServer(process.env.OAKEN_DATA!);
  const browser = await launch();
  try {
    const jobs = (await (await fetch(`${server.url}/api/jobs`)).json()) as { id: string; name: string }[];
    const times: number[][] = RESTS.map(() => []);
    const kept: number[] = [];
    let bytes = 0;
    const ginkgo = jobs.find((j) => j.name.startsWith("Ginkgo"))!.id;
    const fresh = async () =>
      (await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: "en-GB" })).newPage();
    const shown = (page: Page) =>
      page.waitForFunction(
        () =>
          // Where the proof is there at once, the picture of the last one is never needed.
          (document.body.innerText.includes("machining,") ||
            ((document.querySelector("img[data-kept-proof]") as HTMLImageElement | null)?.naturalWidth ?? 0) > 0) &&
          document.querySelector("aside input") !== null,
        null,
        { polling: 20 },
      );
    const computed = (page: Page) =>
      page.waitForFunction(() => document.body.innerText.includes("machining,"), null, { polling: 20 });
    /** From the list, where it lies for a while, to the settled proof, ms. */
    const fromList = async (page: Page, rest: number, seen: () => void = () => {}): Promise<number> => {
      await page.goto(server.url);
      await page.getByText("Ginkgo bed marker").waitFor();
      await page.waitForTimeout(rest);
      const t0 = Date.now();
      await page.getByText("Ginkgo bed marker").click();
      await shown(page);
      seen();
      await computed(page);
      return Date.now() - t0;
    };
    const cold: number[] = [];
    for (let k = 0; k < 4; k++) {
      // As people open a job: from the list of jobs, which is there already.
      for (const [i, rest] of RESTS.entries()) {
        const page = await fresh();
        let seen = 0;
        const took = await fromList(page, rest, () => (seen = Date.now()));
        if (k > 0 && i === 0) kept.push(took - (Date.now() - seen));
        if (k > 0) times[i].push(took);
        bytes = await page.evaluate(() =>
          (performance.getEntriesByType("resource") as PerformanceResourceTiming[])
            .filter((e) => e.name.includes(".js"))
            .reduce((s, e) => s + e.encodedBodySize, 0),
        );
        await page.context().close();
      }
      const direct = await fresh();
      const t1 = Date.now();
      await direct.goto(`${server.url}/job/${ginkgo}`);
      await shown(direct);
      if (k > 0) cold.push(Date.now() - t1);
      await direct.context().close();
    }
    const again: number[] = [];
    const known = await fresh();
    for (let k = 0; k < 4; k++) {
      const took = await fromList(known, RESTS[0]);
      if (k > 0) again.push(took);
      await known.waitForTimeout(KEPT_BY);
    }
    await known.context().close();
    const middle = (all: number[]) => all.sort((p, q) => p - q)[1];
    row(
      "a job from the list → its proof as last seen, the cut's fields in hand",
      `${middle(kept)} ms`,
      "(at most 2000)",
    );
    row("… → its settled proof, opened in this browser before", `${middle(again)} ms`, "(at most 1500)");
    RESTS.forEach((rest, i) =>
      row(
        `… → its proof, never opened in it, ${rest / 1000} s after the list is there`,
        `${middle(times[i])} ms`,
        "(at most 1500)",
      ),
    );
    row("a job by its address, nothing cached → as last seen", `${middle(cold)} ms`);
    const page = await fresh();
    await countOn(page);
    await page.goto(`${server.url}/job/${ginkgo}`);
    await settled(page);
    await benchEdits(page);
    await page.context().close();
    row("JavaScript of the jobs and the bench, compressed", `${(bytes / 1000).toFixed(1)} kB`, "(under 450)");
  } finally {
    await browser.close();
    await server.kill("SIGTERM");
  }
}
