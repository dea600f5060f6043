import { execFileSync } from "node:child_process";
import { mkdtemp, readFile, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chooseAll } from "@oaken/core/job/choose";
import type { BoardJob } from "@oaken/core/job/document";
import { planCuts } from "@oaken/core/job/plan";
import { onePicture } from "@oaken/core/job/tools";
import { toPlan } from "@oaken/core/testing/choosing";
import { SHOP } from "@oaken/core/testing/shop";
import { decodePicture } from "@oaken/files/decode";
import { ms, row } from "./measure.ts";
import { picturesOfCharacters } from "./pictures.ts";

/** Stock of the pictures whose cutters are chosen, mm. */
export const STOCK = { width: 300, height: 200, thickness: 18 };
/** Pictures that are tried in processes of their own, and how often. */
const TRIED = ["ginkgo", "fox"];
const TIMES = 3;

/** What a process of its own is asked to do first: to choose, or to plan what was chosen. */
export interface FirstWork {
  does: "choose" | "plan";
  picture: string;
  outcome: string;
  /** file of the job with its cutters: choosing writes it, planning reads it */
  job: string;
}

/** The first choice of a process against the first planning of what was chosen, in another process. */
export async function benchColdChoice(): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), "oaken-choose-"));
  const first = (work: FirstWork): number =>
    Number(
      execFileSync(process.execPath, [process.argv[1], "--once", JSON.stringify(work)], { encoding: "utf8" })
        .trim()
        .split("\n")
        .pop(),
    );
  for (const [name, bytes] of await picturesOfCharacters()) {
    if (!TRIED.includes(name)) continue;
    const picture = join(folder, `${name}.png`);
    await writeFile(picture, bytes);
    for (const outcome of ["sign", "pocket"]) {
      const job = join(folder, `${name}-${outcome}.json`);
      const tries = Array.from({ length: TIMES }, () => {
        const choosing = first({ does: "choose", picture, outcome, job });
        const planning = first({ does: "plan", picture, outcome, job });
        return { choosing, planning, ratio: choosing / planning };
      });
      const { choosing, planning, ratio } = tries.sort((a, b) => a.ratio - b.ratio)[TIMES >> 1];
      const times = `chosen in ${ms(choosing)}, planned in ${ms(planning)}`;
      row(`${name}, ${outcome}, first in a fresh process`, `${ratio.toFixed(2)} ×`, times);
    }
  }
  await rm(folder, { recursive: true });
}

/** What {@link benchColdChoice} runs in a process of its own; prints how long it took, ms. */
export async function firstChoiceInProcess({ does, picture, outcome, job }: FirstWork): Promise<void> {
  const raster = await decodePicture(await readFile(picture), picture);
  const fresh = toPlan(outcome, raster, STOCK);
  if (does === "plan") {
    const chosen = JSON.parse(await readFile(job, "utf8")) as BoardJob;
    const t0 = performance.now();
    planCuts(chosen, fresh.planning);
    console.log(performance.now() - t0);
    return;
  }
  const t0 = performance.now();
  const chosen = chooseAll(fresh.job, SHOP.cutters, onePicture(raster), fresh.planning.kept);
  const took = performance.now() - t0;
  await writeFile(job, JSON.stringify(chosen.job));
  console.log(took);
}
