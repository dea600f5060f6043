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
import { inOwnProcess, ms, row } from "./measure.ts";
import { picturesOfCharacters, STOCK } from "./pictures.ts";

/** Pictures that are tried in processes of their own, and how often. */
const TRIED = ["ginkgo", "fox"];
const TIMES = 3;

/** The first choice of a process against the first planning of what was chosen, in another process. */
export async function benchColdChoice(): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), "oaken-choose-"));
  for (const [name, bytes] of await picturesOfCharacters()) {
    if (!TRIED.includes(name)) continue;
    const picture = join(folder, `${name}.png`);
    await writeFile(picture, bytes);
    for (const outcome of ["sign", "pocket"]) {
      const job = join(folder, `${name}-${outcome}.json`);
      const tries = Array.from({ length: TIMES }, () => {
        const [choosing, planning] = ["choose", "plan"].map((work) =>
          Number(inOwnProcess("choice", work, picture, outcome, job)),
        );
        return { choosing, planning, ratio: choosing / planning };
      });
      const { choosing, planning, ratio } = tries.sort((a, b) => a.ratio - b.ratio)[TIMES >> 1];
      const times = `chosen in ${ms(choosing)}, planned in ${ms(planning)}`;
      row(`${name}, ${outcome}, first in a fresh process`, `${ratio.toFixed(2)} ×`, times);
    }
  }
  await rm(folder, { recursive: true });
}

/**
 * What {@link benchColdChoice} runs in a process of its own; prints how long it took, ms.
 * @param job file of the job with its cutters: `choose` writes it, `plan` reads it
 */
export async function firstChoice(
  work: "choose" | "plan",
  picture: string,
  outcome: string,
  job: string,
): Promise<void> {
  const raster = await decodePicture(await readFile(picture), picture);
  const fresh = toPlan(outcome, raster, STOCK);
  if (work === "plan") {
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
