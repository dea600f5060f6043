import { createRequire } from "node:module";
import type { Page } from "playwright-core";

const axe = createRequire(import.meta.url).resolve("axe-core/axe.min.js");

/** The finished proof is there and nothing is being worked on: the strip says "machining" only then. */
export const settled = (p: Page) => p.waitForFunction(() => document.body.innerText.includes("machining,") && !document.querySelector(".catching-up"), null, { timeout: 60_000 });

/** Serious and critical findings of the accessibility scan on the page as it is. */
export async function accessibility(p: Page): Promise<string[]> {
  await p.addScriptTag({ path: axe });
  return p.evaluate(async () => {
    const r = await (window as unknown as { axe: { run(o: object): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }> } }).axe.run({ runOnly: ["wcag2a", "wcag2aa"] });
    return r.violations.filter((v) => v.impact === "serious" || v.impact === "critical").map((v) => `${v.id}: ${v.nodes[0].html.slice(0, 160)}`);
  });
}
