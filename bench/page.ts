import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ginkgo, scan } from "../demo/art.ts";
import { settled } from "../e2e/bench.ts";
import { countOn } from "../e2e/counted.ts";
import { launch } from "../e2e/browser.ts";
import { startServer } from "../e2e/server.ts";
import { benchEdits } from "./edits.ts";
import { row } from "./measure.ts";
import { benchBegin, benchOpening, freshPage } from "./opening.ts";

/**
 * The page in production mode: from opening a demo job to its proof, each edit of it to its proof, a dropped picture to
 * what it could become, and the weight of the page's own code.
 */
export async function benchPage(): Promise<void> {
  console.log("\nThe bench in production mode (software-drawn 3D)");
  const server = await startServer(process.env.OAKEN_DATA!);
  const browser = await launch();
  try {
    const jobs = (await (await fetch(`${server.url}/api/jobs`)).json()) as { id: string; name: string }[];
    const { id } = jobs.find((j) => j.name.startsWith("Ginkgo"))!;
    const bytes = await benchOpening(browser, server.url, id);
    const page = await freshPage(browser);
    await countOn(page);
    await page.goto(`${server.url}/job/${id}`);
    await settled(page);
    await benchEdits(page);
    await page.context().close();
    const picture = join(mkdtempSync(join(tmpdir(), "oaken-begin-")), "ginkgo-scan.jpg");
    writeFileSync(picture, await scan(ginkgo(), { blur: 1.4, jpeg: 72, uneven: 0.18, stray: true }));
    await benchBegin(browser, server.url, picture);
    row("JavaScript of the jobs and the bench, compressed", `${(bytes / 1000).toFixed(1)} kB`, "(under 450)");
  } finally {
    await browser.close();
    await server.kill("SIGTERM");
  }
}
