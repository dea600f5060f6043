import { materialById } from "@oaken/core/cutters/materials";
import { clearanceOf } from "@oaken/core/geometry/clearance/clearance";
import { strokeWidths } from "@oaken/core/geometry/clearance/strokes";
import { inspect } from "@oaken/core/inspect/inspect";
import { buildJob, piece } from "@oaken/core/job/build";
import { pictureOf } from "@oaken/core/job/chain";
import { Derived } from "@oaken/core/job/hash";
import { OUTCOMES } from "@oaken/core/job/outcomes";
import { blockiness, type Fit, fitnessOf, judge, unevenness } from "@oaken/core/picture/fitness";
import { noiseOf } from "@oaken/core/picture/tone";
import { Cancelled, noProgress, Problem } from "@oaken/core/problem";
import { litView } from "@oaken/core/proof/light";
import type { BeginAsk, Begun } from "./begin-messages.ts";
import { pixels } from "./pixels.ts";

/** Cells of an outcome's small proof. */
const CELLS = 90_000;

const cache = new Derived();
let newest = 0;

async function begin(ask: BeginAsk): Promise<void> {
  const said: Begun = { seq: ask.seq, done: false, problem: null, judgement: [], outcomes: [] };
  const send = () => self.postMessage(said);
  try {
    const raster = await pixels(ask.sha);
    const tone = pictureOf(ask.jobs[0], ask.jobs[0].nodes.find((n) => n.kind === "outline")!.id, raster, cache, noProgress).toneResult;
    const fitness = fitnessOf(raster, tone.bins, tone.contrast, tone.found);
    const evened = ask.jobs[0].nodes.some((n) => n.kind === "tone" && Number(n.settings.even ?? 0) > 0);
    const known: Fit = { ...fitness, pixelsPerMm: raster.width / ask.width, width: ask.width, noise: noiseOf(tone.grey) / tone.grey.max, blocks: blockiness(tone.grey), uneven: evened ? 0 : unevenness(tone.grey), thinnest: null, typical: null, contours: null };
    said.judgement = judge(known);
    send();
    for (let i = 0; i < ask.jobs.length; i++) {
      // A turn of the event loop, so that a newer request is seen.
      await new Promise((r) => setTimeout(r));
      if (ask.seq !== newest) return;
      const job = ask.jobs[i];
      const build = buildJob(job, { raster, cells: CELLS, quick: true }, cache);
      if (i === 0 && build.chain) {
        const strokes = strokeWidths(cache.get("begin-strokes", build.chain.key, () => clearanceOf(build.chain!.ink)));
        Object.assign(known, { thinnest: strokes?.thinnest ?? null, typical: strokes?.typical ?? null, contours: build.chain.result.shape.parent.length });
        said.judgement = judge(known);
      }
      if (i === 0) said.problem = build.problem?.message ?? null;
      const worst = inspect({ build }).find((f) => f.severity !== "note");
      const { proof } = build;
      said.outcomes.push({
        id: OUTCOMES[i].id,
        seconds: build.seconds,
        problem: build.problem?.message ?? null,
        worst: build.problem ? null : (worst?.message ?? null),
        suits: build.problem ? null : OUTCOMES[i].suits(known),
        picture: build.problem ? null : { width: proof.width, height: proof.height, data: litView(piece(build), materialById(job.stock.material), job.stock.thickness, job.stock.paint) },
      });
      send();
    }
  } catch (e) {
    if (e instanceof Cancelled) return;
    said.problem = e instanceof Problem ? e.message : "Something went wrong while looking at this picture. Try another one.";
    if (!(e instanceof Problem)) console.error(e);
  }
  said.done = true;
  send();
}

let queue = Promise.resolve();
self.onmessage = (e: MessageEvent<BeginAsk>) => {
  newest = e.data.seq;
  queue = queue.then(() => begin(e.data));
};
