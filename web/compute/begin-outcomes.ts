import { circlesOf } from "@oaken/core/geometry/circles";
import { strokeWidths } from "@oaken/core/geometry/clearance/strokes";
import { shapesOf } from "@oaken/core/inspect/products";
import { inspect } from "@oaken/core/inspect/inspect";
import { buildJob, type BuildResult, graphOf } from "@oaken/core/job/build";
import { chooseAll } from "@oaken/core/job/choose";
import type { BoardJob } from "@oaken/core/job/document";
import { byPromise, OUTCOMES } from "@oaken/core/job/outcomes";
import { pieceSeen } from "@oaken/core/job/seen";
import { clearance, onePicture } from "@oaken/core/job/tools";
import type { Kept } from "@oaken/core/kept";
import { measuredSize } from "@oaken/core/makings/picture/picture";
import type { GreyProduct, ShapesProduct } from "@oaken/core/makings/product";
import { makingKind } from "@oaken/core/makings/register";
import { choosable } from "@oaken/core/cuts/register";
import { blockiness, type Fit, fitnessOf, judge, preparation, unevenness } from "@oaken/core/picture/fitness";
import type { Raster } from "@oaken/core/picture/raster";
import { noiseOf } from "@oaken/core/picture/tone";
import { usualCell } from "@oaken/core/proof/surface";
import type { BeginAsk, Begun, BegunOutcome, Picked } from "./begin-messages.ts";
import { plansOf } from "./plans.ts";

/** Cells of an outcome's small proof. */
const CELLS = 90_000;
/** The outcome that tells of the picture's strokes, and is also shown with the picture prepared for it. */
const TRACED = "sign";

/** An outcome that is wanted, and what is known of it so far. */
interface Wanted {
  id: string;
  job: BoardJob;
  prepared: BegunOutcome["prepared"];
  fit: Fit;
  /** none before it was looked at */
  made: BegunOutcome | null;
}

/** One thing to do: a first look at an outcome with its usual cutters, or choosing among the rack for it. */
interface Step extends Picked {
  run(): void;
}

/**
 * What a picture could become: first a look at every outcome with the cutters it usually takes, so that all are there
 * in seconds; then, for those that have a choice, cutters are tried against each other. One step a call.
 */
export class Beginning {
  readonly said: Begun;
  private readonly wanted: Wanted[];
  private readonly steps: Step[];

  constructor(
    private readonly ask: BeginAsk,
    private readonly raster: Raster,
    private readonly kept: Kept,
  ) {
    const placed = placedIn(ask.jobs[0], raster, kept);
    const known = fitOf(ask.jobs[0], raster, placed);
    const prepared = preparation(known);
    const ordered = byPromise(known);
    this.said = {
      seq: ask.seq,
      done: false,
      problem: null,
      judgement: judge(known),
      size: measuredSize(placed.picture),
      order: ordered.map(({ id }) => id),
      outcomes: [],
    };
    this.wanted = ordered.flatMap((outcome): Wanted[] => {
      const { id } = outcome;
      const job = ask.jobs[OUTCOMES.indexOf(outcome)];
      const plain: Wanted = { id, job, prepared: null, fit: known, made: null };
      if (id !== TRACED || !prepared) return [plain];
      const other = withTone(job, prepared);
      return [plain, { ...plain, job: other, prepared, fit: fitOf(other, raster, placedIn(other, raster, kept)) }];
    });
    this.steps = this.wanted.map((w) => stepFor(w, () => this.look(w)));
  }

  /**
   * Does the next thing; `said` tells of it.
   * @param first the outcome that somebody waits for: all of it comes before the rest
   * @returns whether there is more to do
   */
  step(first: Picked | null): boolean {
    const at = this.steps.findIndex((s) => s.id === first?.id && s.isPrepared === first.isPrepared);
    this.steps.splice(Math.max(0, at), 1)[0]?.run();
    return this.steps.length > 0;
  }

  private look(w: Wanted): void {
    const build = this.build(w.job);
    const shapes = shapesOf(build)[0]?.product;
    if (w.id === TRACED) {
      if (shapes) Object.assign(w.fit, strokesOf(shapes, this.kept));
      if (!w.prepared) {
        this.said.judgement = judge(w.fit);
        this.said.problem = build.problem?.message ?? null;
      }
    }
    // Where nothing can be made, other cutters help as little as where none can be chosen.
    const hasChoice = !build.problem && w.job.cuts.some((c) => choosable(c.kind));
    const made = outcomeOf(w, build);
    w.made = hasChoice ? { ...made, seconds: 0, worst: null, suits: null, isChosen: false } : made;
    if (hasChoice) this.steps.push(stepFor(w, () => this.choose(w)));
    this.tell();
  }

  private choose(w: Wanted): void {
    const { rack } = this.ask;
    const { job, choices } = chooseAll(w.job, rack, onePicture(this.raster), this.kept, { grain: cellOf(w.job) });
    w.made = { ...outcomeOf(w, this.build(job)), plans: plansOf(job, choices[0]) };
    this.tell();
  }

  private build(job: BoardJob): BuildResult {
    return buildJob(job, { files: onePicture(this.raster), cell: cellOf(job), quick: true }, this.kept);
  }

  private tell(): void {
    this.said.outcomes = this.wanted.flatMap(({ made }) => made ?? []);
  }
}

const stepFor = ({ id, prepared }: Wanted, run: () => void): Step => ({ id, isPrepared: prepared !== null, run });

const cellOf = ({ stock }: BoardJob): number => usualCell(stock.width, stock.height, CELLS);

/** The job's picture with its tone, where it lies on the stock. */
function placedIn(job: BoardJob, raster: Raster, kept: Kept): GreyProduct {
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
    circles: null,
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

function strokesOf(
  { ink, shape }: ShapesProduct,
  kept: Kept,
): Pick<Fit, "thinnest" | "typical" | "contours" | "circles"> {
  const strokes = strokeWidths(clearance(ink, kept));
  const contours = shape.parent.length;
  const circles = circlesOf(ink).length;
  return { thinnest: strokes?.thinnest ?? null, typical: strokes?.typical ?? null, contours, circles };
}

function withTone(job: BoardJob, settings: NonNullable<BegunOutcome["prepared"]>): BoardJob {
  const makings = job.makings.map((n) =>
    makingKind(n.kind).gives === "grey" ? { ...n, settings: { ...n.settings, ...settings } } : n,
  );
  return { ...job, makings };
}

function outcomeOf({ id, prepared, fit }: Wanted, build: BuildResult): BegunOutcome {
  const { cuts } = build.job;
  const none = { isChosen: true, plans: [], problem: null, worst: null, suits: null, picture: null };
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
