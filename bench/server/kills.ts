import { mkdtemp, readdir, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { seeded } from "@oaken/core/testing/random";
import { freePort, launch, type Running, startServer } from "../../e2e/server.ts";
import { row } from "../measure.ts";
import { ask, newJob, picture, save } from "./clients.ts";

const KILLS = Number(process.env.OAKEN_KILLS ?? 200);
const SEED = Number(process.env.OAKEN_SEED ?? 1);
const WINDOWS = 3;
/** Every so many kills one falls into the first start on an empty folder. */
const FIRST_START = 3;
/** Longest time from a start, or from the first save, to its kill, ms. */
const START_MS = 1500;
const WORK_MS = 2500;

/** What the server has said it keeps. */
interface Promised {
  /** newest acknowledged revision of each job */
  revisions: Map<string, number>;
  pictures: Set<string>;
  saves: number;
}

/** Kills the server again and again: while it starts for the first time, while windows save, while they upload. */
export async function benchKills(): Promise<void> {
  console.log(`\n${KILLS} kills (seed ${SEED}), ${WINDOWS} windows saving and uploading`);
  const random = seeded(SEED);
  let promised: Promised = { revisions: new Map(), pictures: new Set(), saves: 0 };
  let folder = await mkdtemp(join(tmpdir(), "oaken-kills-"));
  let [lost, locked, left, firsts, saves, uploads] = [0, 0, 0, 0, 0, 0];
  for (let k = 0; k < KILLS; k++) {
    if (k % FIRST_START === 0) {
      saves += promised.saves;
      uploads += promised.pictures.size;
      await rm(folder, { recursive: true });
      folder = await mkdtemp(join(tmpdir(), "oaken-kills-"));
      promised = { revisions: new Map(), pictures: new Set(), saves: 0 };
      firsts++;
      await killInFirstStart(folder, random() * START_MS);
    }
    const server = await startServer(folder).catch(() => null);
    if (!server) {
      locked++;
      continue;
    }
    left += (await unfinished(folder)).length;
    lost += await missing(server.url, promised);
    const working = workUntilKilled(server, promised, k * WINDOWS);
    await new Promise((r) => setTimeout(r, random() * WORK_MS));
    await server.kill("SIGKILL");
    await working;
  }
  await rm(folder, { recursive: true });
  saves += promised.saves;
  uploads += promised.pictures.size;
  row("acknowledged revisions and pictures that were lost", `${lost}`, `of ${saves} saves and ${uploads} pictures`);
  row("folders that could not be opened again", `${locked}`, `of ${KILLS}; ${firsts} killed in their first start`);
  row("half-written files left after the next start", `${left}`);
}

async function killInFirstStart(folder: string, after: number): Promise<void> {
  const { child, ended } = launch(folder, await freePort());
  await new Promise((r) => setTimeout(r, after));
  child.kill("SIGKILL");
  await ended;
}

const unfinished = async (folder: string): Promise<string[]> =>
  (await readdir(folder, { recursive: true })).filter((name) => name.endsWith(".part"));

async function missing(url: string, { revisions, pictures }: Promised): Promise<number> {
  let lost = 0;
  for (const [id, revision] of revisions) {
    const { status, body } = await ask(`${url}/api/jobs/${id}`);
    if (status !== 200 || (body as { card: { revision: number } }).card.revision < revision) lost++;
  }
  for (const sha of pictures) if ((await fetch(`${url}/api/assets/${sha}/picture?side=16`)).status !== 200) lost++;
  return lost;
}

async function workUntilKilled({ url }: Running, promised: Promised, first: number): Promise<void> {
  await Promise.all(
    Array.from({ length: WINDOWS }, async (_, w) => {
      const job = await newJob(url, first + w).catch(() => null);
      if (!job?.id) return;
      promised.revisions.set(job.id, 1);
      for (let base = 1; ; base++) {
        const { status } = await save(url, job.id, base, { ...job.document, name: `save ${base}` });
        if (status !== 200) return;
        promised.revisions.set(job.id, base + 1);
        promised.saves++;
        const added = await ask(
          `${url}/api/assets?name=p.png`,
          "POST",
          await picture(1000 + first * 50 + base * 3 + w),
        );
        // An answer that was cut off has promised nothing.
        if (added.status !== 200 || !added.body) return;
        promised.pictures.add((added.body as { sha: string }).sha);
      }
    }),
  );
}
