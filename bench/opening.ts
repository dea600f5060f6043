import type { Browser, Page } from "playwright-core";
import { row } from "./measure.ts";

/** Times of each way; the first is not counted. */
const TIMES = 4;
/** Between the list of jobs and opening one, ms: what a hand takes, and a look at the list. */
const RESTS = [1000, 3000];
/** From a settled proof until the browser keeps it, ms, on a slow machine too. */
const KEPT_BY = 6000;
const JOB = "Ginkgo bed marker";

/** A page in a browser that has seen nothing yet. */
export const freshPage = async (browser: Browser): Promise<Page> =>
  (await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: "en-GB" })).newPage();

/** Its proof as last seen, or the computed one where that is sooner, with the cut's fields in hand. */
const shown = (page: Page) =>
  page.waitForFunction(
    () =>
      (document.body.innerText.includes("machining,") ||
        ((document.querySelector("img[data-kept-proof]") as HTMLImageElement | null)?.naturalWidth ?? 0) > 0) &&
      document.querySelector("aside input") !== null,
    null,
    { polling: 20 },
  );

const computed = (page: Page) =>
  page.waitForFunction(() => document.body.innerText.includes("machining,"), null, { polling: 20 });

interface Opened {
  /** its proof as last seen, ms after the click */
  seen: number;
  /** its settled proof */
  settled: number;
}

/** As people open a job: from the list of jobs, where the page lies for a while. */
async function fromList(page: Page, url: string, rest: number): Promise<Opened> {
  await page.goto(url);
  await page.getByText(JOB).waitFor();
  await page.waitForTimeout(rest);
  const t0 = Date.now();
  await page.getByText(JOB).click();
  await shown(page);
  const seen = Date.now() - t0;
  await computed(page);
  return { seen, settled: Date.now() - t0 };
}

/** Bytes of the scripts that a page has loaded, as they came; one that two workers run came once. */
const scriptBytes = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const scripts = (performance.getEntriesByType("resource") as PerformanceResourceTiming[]).filter((e) =>
      e.name.includes(".js"),
    );
    return [...new Map(scripts.map((e) => [e.name, e.encodedBodySize])).values()].reduce((s, bytes) => s + bytes, 0);
  });

/** The middle of all but the first. */
const middle = (all: readonly number[]): number => all.slice(1).sort((p, q) => p - q)[Math.floor((all.length - 1) / 2)];

/**
 * How long a demo job takes to open: from the list and by its address, in a new browser and in one that knows it.
 * @returns the bytes of the page's scripts
 */
export async function benchOpening(browser: Browser, url: string, id: string): Promise<number> {
  const fresh: Opened[][] = RESTS.map(() => []);
  const direct: number[] = [];
  let bytes = 0;
  for (let k = 0; k < TIMES; k++) {
    for (const [i, rest] of RESTS.entries()) {
      const page = await freshPage(browser);
      fresh[i].push(await fromList(page, url, rest));
      bytes = await scriptBytes(page);
      await page.context().close();
    }
    const page = await freshPage(browser);
    const t0 = Date.now();
    await page.goto(`${url}/job/${id}`);
    await shown(page);
    direct.push(Date.now() - t0);
    await page.context().close();
  }
  const again: Opened[] = [];
  const known = await freshPage(browser);
  for (let k = 0; k < TIMES; k++) {
    again.push(await fromList(known, url, RESTS[0]));
    await known.waitForTimeout(KEPT_BY);
  }
  await known.context().close();
  const tell = (what: string, all: number[], asked = "") => row(what, `${middle(all)} ms`, asked);
  const settled = (all: Opened[]) => all.map((o) => o.settled);
  const asSeen = fresh[0].map((o) => o.seen);
  tell("a job from the list → its proof as last seen, the cut's fields in hand", asSeen, "(at most 2000)");
  tell("… → its settled proof, opened in this browser before", settled(again), "(at most 1500)");
  RESTS.forEach((rest, i) => {
    const what = `… → its proof, never opened in it, ${rest / 1000} s after the list is there`;
    tell(what, settled(fresh[i]), "(at most 1500)");
  });
  tell("a job by its address, nothing cached → as last seen", direct);
  return bytes;
}

/** How long Begin takes over a picture: until the first outcome is there, all are, and all have their cutters. */
export async function benchBegin(browser: Browser, url: string, picture: string): Promise<void> {
  const page = await freshPage(browser);
  await page.goto(url);
  await page.getByText(JOB).waitFor();
  await page.waitForTimeout(RESTS[0]);
  const t0 = Date.now();
  await page.setInputFiles('input[aria-label="Begin with a picture"]', picture);
  const until = async (is: () => boolean): Promise<string> => {
    await page.waitForFunction(is, null, { polling: 20, timeout: 180_000 });
    return `${Date.now() - t0} ms`;
  };
  const first = await until(() => document.querySelector("article canvas") !== null);
  const all = await until(
    () => document.querySelector("article canvas") !== null && !document.body.innerText.includes("computing …"),
  );
  const chosen = await until(() => document.querySelector(".catching-up") === null);
  row("a picture dropped → its first outcome on Begin", first);
  row("… → all outcomes, with their usual cutters", all);
  row("… → all with their cutters chosen", chosen);
  await page.context().close();
}
