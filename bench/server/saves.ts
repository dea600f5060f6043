import { open, unlink } from "node:fs/promises";
import { join } from "node:path";
import { row } from "../measure.ts";
import { ask, newJob, save } from "./clients.ts";

const SECONDS = 4;

/** Saves a second, with several windows at once, each at a job of its own. */
export async function benchSaves(url: string, folder: string): Promise<void> {
  const disk = await flushes(folder);
  console.log(`\nSaving, over loopback; the disk flushes 4 kB ${disk.toFixed(0)} times a second`);
  for (const clients of [1, 3, 20, 50]) {
    const counts = new Map<number, number>();
    const jobs = await Promise.all(Array.from({ length: clients }, (_, k) => newJob(url, k)));
    let slowest = 0;
    const until = performance.now() + SECONDS * 1000;
    await Promise.all(
      jobs.map(async ({ id, document }) => {
        for (let base = 1; performance.now() < until; base++) {
          const t0 = performance.now();
          const { status } = await save(url, id, base, { ...document, name: `save ${base}` });
          slowest = Math.max(slowest, performance.now() - t0);
          counts.set(status, (counts.get(status) ?? 0) + 1);
        }
      }),
    );
    const saved = counts.get(200) ?? 0;
    const others = [...counts].filter(([status]) => status !== 200).map(([status, n]) => `${n} × ${status}`);
    row(
      `${clients} ${clients === 1 ? "window" : "windows"}`,
      `${(saved / SECONDS).toFixed(0)} / s`,
      `asked 100; refused or failed: ${others.join(", ") || "none"}; slowest ${slowest.toFixed(0)} ms`,
    );
  }
  await eightAtOnce(url);
}

/** How often a second the disk takes 4 kB and says that they are on it: no saving can be faster, one at a time. */
async function flushes(folder: string): Promise<number> {
  const path = join(folder, "flushes");
  const file = await open(path, "w");
  const t0 = performance.now();
  let n = 0;
  for (; performance.now() - t0 < 1000; n++) {
    await file.write(Buffer.alloc(4096, n));
    await file.datasync();
  }
  await file.close();
  await unlink(path);
  return n / ((performance.now() - t0) / 1000);
}

/** Windows that save one job from the same state: one wins, every other state is kept in the history. */
async function eightAtOnce(url: string): Promise<void> {
  const { id, document } = await newJob(url, 60);
  const answers = await Promise.all(
    Array.from({ length: 8 }, (_, k) => save(url, id, 1, { ...document, name: `window ${k}` })),
  );
  const history = (await ask(`${url}/api/jobs/${id}/revisions`)).body as unknown[];
  const said = answers.map((a) => a.status).sort();
  row("eight windows save one job at once", `${history.length - 1} of 8 kept`, `answered ${said.join(" ")}`);
}
