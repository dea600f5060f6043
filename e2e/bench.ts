import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { Page } from "playwright-core";
import { documentOf } from "@oaken/core/job/boards";
import type { BoardJob, StockSettings } from "@oaken/core/job/document";
import { begun } from "@oaken/core/testing/shop";

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/** The finished proof is there and nothing is being worked on: the strip says "machining" only then. */
export const settled = (p: Page) =>
  p.waitForFunction(
    () => document.body.innerText.includes("machining,") && !document.querySelector(".catching-up"),
    null,
    { timeout: 60_000 },
  );

/** The jobs' page, alive: one that is only drawn answers no key and takes no file. */
export async function home(p: Page, url: string): Promise<void> {
  await p.goto(url);
  await p.getByText("Loading the jobs").waitFor({ state: "hidden" });
}

/** Serious and critical findings of the accessibility scan on the page as it is. */
export async function accessibility(p: Page): Promise<string[]> {
  // Evaluated, not put into the page: the page runs no script that is not its own.
  await p.evaluate(axe);
  return p.evaluate(async () => {
    const r = await (
      window as unknown as {
        axe: { run(o: object): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }> };
      }
    ).axe.run({ runOnly: ["wcag2a", "wcag2aa"] });
    return r.violations
      .filter((v) => v.impact === "serious" || v.impact === "critical")
      .map((v) => `${v.id}: ${v.nodes[0].html.slice(0, 160)}`);
  });
}

/** Puts a job with this outcome, made from a picture, into the application at `url` and opens it. */
export async function openNew(
  page: Page,
  url: string,
  picture: { name: string; bytes: Buffer },
  outcome: string,
  stock: Partial<StockSettings>,
  edit: (job: BoardJob) => void = () => {},
): Promise<void> {
  await page.goto(url);
  const asset = await page.evaluate(
    async ({ name, bytes }) =>
      (await fetch(`/api/assets?name=${name}`, { method: "POST", body: Uint8Array.from(bytes) })).json(),
    { name: picture.name, bytes: [...picture.bytes] },
  );
  const job = begun(outcome, asset as Parameters<typeof begun>[1], stock);
  edit(job);
  const document = documentOf(job);
  const { id } = (await page.evaluate(
    async (d) =>
      (
        await fetch("/api/jobs", {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({ document: d }),
        })
      ).json(),
    document,
  )) as { id: string };
  await page.goto(`${url}/job/${id}`);
  await settled(page);
}
