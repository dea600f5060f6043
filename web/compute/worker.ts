import { expose, transfer } from "comlink";
import { inspect, inspectAgain } from "@oaken/core/inspect/inspect";
import { buildJob, type BuildResult } from "@oaken/core/job/build";
import { chooseAll } from "@oaken/core/job/choose";
import { boardJob } from "@oaken/core/job/boards";
import type { BoardJob, JobDocument } from "@oaken/core/job/document";
import { Kept, keyOf } from "@oaken/core/kept";
import { makingKind } from "@oaken/core/makings/register";
import { warmUpCarving } from "@oaken/core/job/warm";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { facesIn, type Files } from "@oaken/core/job/tools";
import type { Face, FaceId } from "@oaken/core/lettering/face";
import type { Raster } from "@oaken/core/picture/raster";
import { Cancelled, Problem } from "@oaken/core/problem";
import { pieceSeen } from "@oaken/core/job/seen";
import { loadFace } from "./faces.ts";
import { HALT } from "./halt.ts";
import { lastBuildsHere } from "./last-builds.ts";
import type { BenchWork, BuildAsk, Packed, Progressing } from "./messages.ts";
import { drawing, pixels, solid } from "./pixels.ts";
import { Scrubber } from "./scrubber.ts";
import { packed } from "./drawn.ts";
import { Sender } from "./parcels.ts";
import { preview } from "./preview.ts";
import { ready } from "./ready.ts";
import { sheetFonts } from "./fonts.ts";
import { FINE_CELLS, sheetOf, writtenOf } from "./written.ts";

/** Cells of the first proof, ready at once. */
const QUICK_CELLS = 200_000;

const kept = new Kept();
const sender = new Sender();
let stop: Int32Array | null = null;
let last: BuildResult | null = null;
/** the key of the job that was built ahead, all of it */
let readyAhead: string | null = null;
let scrubber: Scrubber | null = null;

const lastBuilds = lastBuildsHere(process.env.OAKEN_BUILD);
/** the last build of a job that is likely to be opened next */
let fetched: Packed | null = null;
let keeping: ReturnType<typeof setTimeout> | undefined;

/** Thrown out of work when the page has asked for something newer. */
function checkStop(seq: number): void {
  if (stop && Atomics.load(stop, 0) > seq) throw new Cancelled();
}

/** A build with a proof of about so many cells. */
const onePass = (job: BoardJob, files: Files, cells: number, progress: Progressing): BuildResult =>
  buildJob(job, { files, cells, quick: cells !== FINE_CELLS, now: () => performance.now(), progress }, kept);

/** Building ahead is given up after so long, ms: more is not worth the power where nobody opens the job. */
const MOST_AHEAD_MS = 15_000;

/**
 * Builds a job that nobody has asked for yet, as its bench will ask: what is done by then is kept, and the engine has
 * compiled what it takes. A job that cannot be built says so on its bench.
 */
async function ahead(id: string, halted: () => number): Promise<void> {
  const until = performance.now() + MOST_AHEAD_MS;
  const progress = () => {
    // With a build to show at once the page need not wait for a pass.
    const isEnough = fetched ? halted() !== HALT.goOn : halted() === HALT.atOnce;
    if (isEnough || performance.now() > until) throw new Cancelled();
  };
  try {
    const response = await fetch(`/api/jobs/${id}`);
    if (!response.ok) return;
    const { document } = (await response.json()) as { document: JobDocument };
    const job = boardJob(document);
    fetched = (await lastBuilds?.of(job)) ?? null;
    const files = await filesOf(job);
    for (const cells of [QUICK_CELLS, FINE_CELLS]) {
      if (halted() !== HALT.goOn) return;
      const result = onePass(job, files, cells, progress);
      const about = { final: cells === FINE_CELLS, findings: inspect({ build: result }), took: 0 };
      packed(result, about, kept, new Sender(), []);
    }
    readyAhead = keyOf(job);
  } catch (e) {
    if (!(e instanceof Cancelled) && !(e instanceof Problem)) console.error(e);
  }
}

/** How often the page hears how far a build is at most, ms: each word is drawn, which takes from the work itself. */
const SAID_EVERY_MS = 150;

/** A build under way, and when it was begun, ms. */
interface Begun {
  ask: BuildAsk;
  t0: number;
}

/** The build whose coarse proof is there and whose fine one is not. */
let coarse: Begun | null = null;

/** A pass of a build as the page needs it. */
async function passOf({ ask, t0 }: Begun, cells: number, final: boolean, progress: Progressing): Promise<Packed> {
  checkStop(ask.seq);
  const files = await filesOf(ask.job, () => progress("job", 0));
  let said = performance.now();
  const say: Progressing = (step, share) => {
    checkStop(ask.seq);
    const now = performance.now();
    if (now - said < SAID_EVERY_MS) return;
    said = now;
    progress(step, share);
  };
  const result = onePass(ask.job, files, cells, say);
  last = result;
  scrubber = null;
  const findings = inspect({ build: result, revision: ask.revision, written: ask.written });
  const parts: Transferable[] = [];
  const took = performance.now() - t0;
  const built = packed(result, { final, findings, took }, kept, sender, parts);
  if (final && !ask.quick) keeping = setTimeout(() => void keep(result, took), KEPT_AFTER_MS);
  return transfer(built, parts);
}

/** A build is kept once nothing has been asked for so long, ms: not each step of somebody's trying this and that. */
const KEPT_AFTER_MS = 2000;

/** Keeps a build for the next visit, with all that the page has of it. */
const keep = (result: BuildResult, took: number): Promise<void> | undefined =>
  lastBuilds?.keep(result.job, () =>
    packed(result, { final: true, findings: inspect({ build: result }), took }, kept, new Sender(), []),
  );

/** The first thing that is asked may be a job as it was built before: null where it is not, or is built ahead. */
async function builtBefore({ job, revision, written, quick }: BuildAsk): Promise<Packed | null> {
  const ahead = fetched;
  fetched = null;
  if (last || quick || keyOf(job) === readyAhead) return null;
  const known = ahead && keyOf(ahead.job) === keyOf(job) ? ahead : await lastBuilds?.of(job);
  return known ? { ...known, findings: inspectAgain(known.findings, { revision, written }) } : null;
}

/**
 * A first proof at once; nothing coarse where the fine one is there already. One that was kept is all the page needs;
 * what it takes to go on from it is built after it.
 */
async function build(ask: BuildAsk, progress: Progressing): Promise<Packed> {
  const begun = { ask, t0: performance.now() };
  coarse = null;
  clearTimeout(keeping);
  const before = await builtBefore(ask);
  if (before) {
    coarse = begun;
    return before;
  }
  const isFine = !ask.quick && keyOf(ask.job) === readyAhead;
  const final = isFine || ask.quick === true;
  const built = await passOf(begun, isFine ? FINE_CELLS : QUICK_CELLS, final, progress);
  if (!final) coarse = begun;
  return built;
}

async function refine(seq: number, progress: Progressing): Promise<Packed | null> {
  if (coarse?.ask.seq !== seq) return null;
  const begun = coarse;
  coarse = null;
  return passOf(begun, FINE_CELLS, true, progress);
}

/** All files that a job's makings stand for: pictures decoded, drawings as text, solids as they are. */
async function filesOf(job: BoardJob, still: () => void = () => {}): Promise<Files> {
  const rasters = new Map<string, Raster>();
  const drawings = new Map<string, string>();
  const solids = new Map<string, Uint8Array>();
  for (const { asset, kind } of job.makings) {
    if (!asset) continue;
    const { file } = makingKind(kind);
    if (file === "drawing") drawings.set(asset.sha, await drawing(asset.sha));
    else if (file === "solid") solids.set(asset.sha, await solid(asset.sha));
    else rasters.set(asset.sha, await pixels(asset.sha, still));
  }
  const faces = new Map<FaceId, Face>();
  for (const id of facesIn(job.makings)) faces.set(id, await loadFace(id));
  if (rasters.size + drawings.size + solids.size + faces.size === 0)
    throw new Problem("no-picture", "This job has no picture yet. Drop one on the page.");
  return {
    picture: (sha) => rasters.get(sha)!,
    drawing: (sha) => drawings.get(sha)!,
    solid: (sha) => solids.get(sha)!,
    face: (id) => faces.get(id)!,
  };
}

/** What is asked for, one after another: a build that is no longer wanted stops itself, so that nothing waits long. */
let queue = ready();

/** Does something in its turn, and says what went wrong in a sentence for the page; null where it was given up. */
function inTurn<A extends unknown[], T>(work: (...asked: A) => T | Promise<T>): (...asked: A) => Promise<T> {
  return (...asked) => {
    const done = queue.then(() => work(...asked)).catch((e: unknown) => answerTo(e) as T);
    // A failure is told to the one who asked; the next in the queue need not know.
    queue = done.then(turn, turn);
    return done;
  };
}
/** A turn of the event loop: what was done is on its way before the next is begun, and what is newer is seen. */
const turn = () => new Promise<void>((r) => setTimeout(r));

/** @throws Error with what the page shows */
function answerTo(e: unknown): null {
  if (e instanceof Cancelled) return null;
  if (!(e instanceof Problem)) console.error(e);
  throw new Error(
    e instanceof Problem
      ? e.message
      : "Something went wrong while computing. Your job is safe; change a setting to try again.",
  );
}

const work: BenchWork = {
  listen(shared) {
    stop = shared && new Int32Array(shared);
  },
  build: inTurn(build),
  refine: inTurn(refine),
  preview: inTurn(async (job, part) => {
    const t0 = performance.now();
    const { rings, tone } = preview(job, await filesOf(job), kept, part);
    return transfer({ rings, tone, took: performance.now() - t0 }, rings ? [rings.xy.buffer] : []);
  }),
  scrub: inTurn((cut, move) => {
    if (!last) return null;
    scrubber ??= new Scrubber(last);
    const surface = scrubber.at(cut, move);
    return transfer(surface, [surface.z.buffer, surface.by.buffer]);
  }),
  outputs: inTurn(async (job, writing) => writtenOf(job, await filesOf(job), writing, kept)),
  sheet: inTurn(async (job, writing, programs) => {
    const pdf = await sheetOf(job, await filesOf(job), writing, programs, { kept, fonts: await sheetFonts() });
    return transfer(pdf, [pdf.buffer]);
  }),
  thumb: inTurn(async (side) => {
    if (!last) throw new Problem("nothing-built", "There is no proof yet to take a picture of.");
    const png = await thumb(last, side);
    return transfer(png, [png.buffer]);
  }),
  choose: inTurn(async (job, target, rack) => {
    const { choices } = chooseAll(job, rack, await filesOf(job), kept, { only: target });
    return choices[0] ?? null;
  }),
  ahead: inTurn(async (job, halt) => {
    const shared = new Int32Array(halt);
    const halted = () => Atomics.load(shared, 0);
    await ahead(job, halted);
    await warmUpCarving(FIRST_SHOP, () => halted() === HALT.goOn);
  }),
};
expose(work);

/** A small picture is made from at least so many cells for each of its pixels, sideways: it is smooth then. */
const THUMB_CELLS = 1.3;

/** The lit proof, at most `side` pixels long. */
async function thumb(r: BuildResult, side: number): Promise<Uint8Array> {
  const longest = Math.max(r.proof.width, r.proof.height);
  const { width, height, data } = pieceSeen(r, Math.max(1, Math.floor(longest / (THUMB_CELLS * side))));
  const full = new OffscreenCanvas(width, height);
  full.getContext("2d")!.putImageData(new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height), 0, 0);
  const k = Math.min(1, side / Math.max(width, height));
  const small = new OffscreenCanvas(Math.max(1, Math.round(width * k)), Math.max(1, Math.round(height * k)));
  const g = small.getContext("2d")!;
  g.imageSmoothingQuality = "high";
  g.drawImage(full, 0, 0, small.width, small.height);
  return new Uint8Array(await (await small.convertToBlob({ type: "image/png" })).arrayBuffer());
}
