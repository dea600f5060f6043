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

/**
 * The page of an address, alive: one that the server has drawn but that React has not taken over yet answers no key
 * and takes no file. What is shown while a page is fetched does not count.
 */
export async function visit(p: Page, address: string): Promise<void> {
  await p.goto(address);
  await alive(p);
}

/** Waits until React has taken over what is on the page: it marks each element that it looks after. */
export async function alive(p: Page): Promise<void> {
  await p.waitForFunction(() => {
    const main = document.querySelector("main:not([aria-busy])");
    const isTakenOver = main !== null && Object.keys(main).some((key) => key.startsWith("__react"));
    return isTakenOver && !document.body.innerText.includes("Loading the jobs");
  });
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
  await visit(page, url);
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
  await visit(page, `${url}/job/${id}`);
  await settled(page);
}
