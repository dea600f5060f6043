import { expose } from "comlink";
import { strokeWidths } from "@oaken/core/geometry/clearance/strokes";
import { inspect } from "@oaken/core/inspect/inspect";
import { buildJob, type BuildResult } from "@oaken/core/job/build";
import { graphOf } from "@oaken/core/job/build";
import { chooseAll } from "@oaken/core/job/choose";
import { pieceSeen } from "@oaken/core/job/seen";
import { shapesOf } from "@oaken/core/inspect/products";
import { clearance, onePicture } from "@oaken/core/job/tools";
import { measuredSize } from "@oaken/core/makings/picture/picture";
import type { GreyProduct, ShapesProduct } from "@oaken/core/makings/product";
import { makingKind } from "@oaken/core/makings/register";
import type { BoardJob } from "@oaken/core/job/document";
import { Kept } from "@oaken/core/kept";
import { byPromise, OUTCOMES } from "@oaken/core/job/outcomes";
import { blockiness, type Fit, fitnessOf, judge, preparation, unevenness } from "@oaken/core/picture/fitness";
import type { Raster } from "@oaken/core/picture/raster";
import { noiseOf } from "@oaken/core/picture/tone";
import { Cancelled, Problem } from "@oaken/core/problem";
import { usualCell } from "@oaken/core/proof/surface";
import type { BeginAsk, BeginWork, Begun, BegunOutcome } from "./begin-messages.ts";
import { plansOf } from "./plans.ts";
import { pixels } from "./pixels.ts";
import { ready } from "./ready.ts";

/** Cells of an outcome's small proof. */
const CELLS = 90_000;
/** The outcome that tells of the picture's strokes, and is also shown with the picture prepared for it. */
const TRACED = "sign";

const kept = new Kept();
let newest = 0;

async function begin(ask: BeginAsk, hear: (begun: Begun) => void): Promise<void> {
  const said: Begun = { seq: ask.seq, done: false, problem: null, judgement: [], size: null, order: [], outcomes: [] };
  const send = () => hear(said);
  try {
    const raster = await pixels(ask.sha, send);
    const placed = placedIn(ask.jobs[0], raster);
    const known = fitOf(ask.jobs[0], raster, placed);
    said.judgement = judge(known);
    said.size = measuredSize(placed.picture);
    const ordered = byPromise(known);
    said.order = ordered.map(({ id }) => id);
    send();
    const prepared = preparation(known);
    const wanted = ordered.flatMap((outcome) => {
      const { id } = outcome;
      const job = ask.jobs[OUTCOMES.indexOf(outcome)];
      const plain = { id, job, prepared: null as BegunOutcome["prepared"] };
      if (id !== TRACED || !prepared) return [plain];
      return [plain, { ...plain, job: withTone(job, prepared), prepared }];
    });
    for (const w of wanted) {
      // A turn of the event loop, so that a newer request is seen.
      await new Promise((r) => setTimeout(r));
      if (ask.seq !== newest) return;
      const files = onePicture(raster);
      const { width: wide, height: high } = w.job.stock;
      const cell = usualCell(wide, high, CELLS);
      const { job, choices } = chooseAll(w.job, ask.rack, files, kept, { grain: cell });
      const build = buildJob(job, { files, cell, quick: true }, kept);
      const shapes = shapesOf(build)[0]?.product;
      if (w.id === TRACED && !w.prepared) {
        if (shapes) Object.assign(known, strokesOf(shapes));
        said.judgement = judge(known);
        said.problem = build.problem?.message ?? null;
      }
      const fit = w.prepared ? fitOf(w.job, raster, placedIn(w.job, raster)) : known;
      if (w.prepared && shapes) Object.assign(fit, strokesOf(shapes));
      said.outcomes.push({ ...outcomeOf(w.id, w.prepared, build, fit), plans: plansOf(job, choices[0]) });
      send();
    }
  } catch (e) {
    if (e instanceof Cancelled) return;
    said.problem =
      e instanceof Problem ? e.message : "Something went wrong while looking at this picture. Try another one.";
    if (!(e instanceof Problem)) console.error(e);
  }
  said.done = true;
  send();
}

/** The job's picture with its tone, where it lies on the stock. */
function placedIn(job: BoardJob, raster: Raster): GreyProduct {
  const last = job.makings[job.makings.length - 1];
  return graphOf(job, onePicture(raster), kept).upstream(last.id, "grey")!.product;
}

/** What is known of a picture before anything is traced. */
function fitOf(job: BoardJob, raster: Raster, tone: GreyProduct): Fit {
  const { place, art } = tone.picture;
  const isEvened = job.makings.some((n) => makingKind(n.kind).gives === "grey" && Number(n.settings.even ?? 0) > 0);
  const { width, height } = tone.picture.raster;
  return {
    ...fitnessOf(raster, tone.bins, tone.contrast, tone.found),
    pixelsPerMm: 1 / place.scale,
    width: measuredSize(tone.picture).width,
    noise: noiseOf(tone.grey) / tone.grey.max,
    blocks: blockiness(tone.grey),
    uneven: isEvened ? 0 : unevenness(tone.grey),
    art: art && { share: (art.width * art.height) / (width * height), crop: cropRound(art, width, height, job) },
    thinnest: null,
    typical: null,
    contours: null,
  };
}

/** Blank left round the art by a crop, as a share of its longer side: outlines must not run along the edge. */
const CROP_ROOM = 0.03;

/** A crop round the art, in pixels of the picture as it was before it was cropped. */
function cropRound(
  art: { x: number; y: number; width: number; height: number },
  width: number,
  height: number,
  job: BoardJob,
): string {
  const room = CROP_ROOM * Math.max(art.width, art.height);
  const [x, y] = [Math.max(0, Math.floor(art.x - room)), Math.max(0, Math.floor(art.y - room))];
  const right = Math.min(width, Math.ceil(art.x + art.width + room));
  const bottom = Math.min(height, Math.ceil(art.y + art.height + room));
  const before = String(job.makings[0].settings.crop ?? "")
    .split(/[\s,]+/)
    .map(Number);
  return [x + (before[0] || 0), y + (before[1] || 0), right - x, bottom - y].join(",");
}

function strokesOf({ ink, shape }: ShapesProduct): Pick<Fit, "thinnest" | "typical" | "contours"> {
  const strokes = strokeWidths(clearance(ink, kept));
  const contours = shape.parent.length;
  return { thinnest: strokes?.thinnest ?? null, typical: strokes?.typical ?? null, contours };
}

function withTone(job: BoardJob, settings: NonNullable<BegunOutcome["prepared"]>): BoardJob {
  const makings = job.makings.map((n) =>
    makingKind(n.kind).gives === "grey" ? { ...n, settings: { ...n.settings, ...settings } } : n,
  );
  return { ...job, makings };
}

function outcomeOf(id: string, prepared: BegunOutcome["prepared"], build: BuildResult, fit: Fit): BegunOutcome {
  const { cuts } = build.job;
  const none = { plans: [], problem: null, worst: null, suits: null, picture: null };
  const said = { id, prepared, seconds: build.seconds, cuts, ...none };
  if (build.problem) return { ...said, problem: build.problem.message };
  const worst = inspect({ build }).find((f) => f.severity !== "note");
  const isNothing = build.cuts.every((c) => c.toolpath.kind.length === 0);
  // What cannot be made, or comes to nothing, suits no picture, whatever the picture is.
  const isOut = worst !== undefined && (isNothing || worst.severity === "stop");
  return {
    ...said,
    worst: isOut ? null : (worst?.message ?? null),
    suits: isOut
      ? { good: false, why: worst.message.replace(/\.$/, "") }
      : OUTCOMES.find((o) => o.id === id)!.suits(fit),
    picture: pieceSeen(build),
  };
}

let queue = ready();
const work: BeginWork = {
  begin(ask, hear) {
    newest = ask.seq;
    queue = queue.then(() => begin(ask, hear));
    return queue;
  },
};
expose(work);
