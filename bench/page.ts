import { launch } from "../e2e/browser.ts";
import { startServer } from "../e2e/server.ts";
import { row } from "./measure.ts";

/** From opening a demo job to its first proof on the bench, in production mode, and the weight of the page's own code. */
export async function benchPage(): Promise<void> {
  console.log("\nThe bench in production mode (software-drawn 3D)");
  const server = await startServer(process.env.OAKEN_DATA!);
  const browser = await launch();
  try {
    const jobs = (await (await fetch(`${server.url}/api/jobs`)).json()) as { id: string; name: string }[];
    const times: number[] = [];
    const kept: number[] = [];
    let bytes = 0;
    for (let k = 0; k < 4; k++) {
      const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
      const t0 = Date.now();
      await page.goto(`${server.url}/job/${jobs.find((j) => j.name.startsWith("Ginkgo"))!.id}`);
      await page.waitForFunction(() => ((document.querySelector("img[data-kept-proof]") as HTMLImageElement | null)?.naturalWidth ?? 0) > 0 && document.querySelector("aside input") !== null, null, { polling: 20 });
      if (k > 0) kept.push(Date.now() - t0);
      await page.waitForFunction(() => document.body.innerText.includes("machining,"), null, { polling: 20 });
      if (k > 0) times.push(Date.now() - t0);
      bytes = await page.evaluate(() => (performance.getEntriesByType("resource") as PerformanceResourceTiming[]).filter((e) => e.name.includes(".js")).reduce((s, e) => s + e.encodedBodySize, 0));
      await page.context().close();
    }
    row("open a job → its proof as last seen, the cut's fields in hand", `${kept.sort((a, b) => a - b)[1]} ms`, "(at most 2000)");
    row("open a job → its proof computed anew", `${times.sort((a, b) => a - b)[1]} ms`);
    row("JavaScript of the bench, compressed", `${Math.round(bytes / 1000)} kB`, "(under 600)");
  } finally {
    await browser.close();
    await server.kill("SIGTERM");
  }
}
