import { inspect } from "@oaken/core/inspect/inspect";
import { buildJob, type BuildResult, piece } from "@oaken/core/job/build";
import type { JobDocument } from "@oaken/core/job/document";
import { Derived } from "@oaken/core/job/hash";
import { materialById } from "@oaken/core/cutters/materials";
import type { Raster } from "@oaken/core/picture/raster";
import { Cancelled, Problem } from "@oaken/core/problem";
import { litView } from "@oaken/core/proof/light";
import type { Answer, Ask } from "./messages.ts";
import { outputFiles } from "./outputs.ts";
import { pixels } from "./pixels.ts";
import { Scrubber } from "./scrubber.ts";
import { drawn } from "./drawn.ts";
import { trace } from "./trace.ts";

/** Cells of the first proof, ready at once, and of the one that follows. */
const QUICK_CELLS = 200_000;
const FINE_CELLS = 1_500_000;

const cache = new Derived();
let stop: Int32Array | null = null;
let last: BuildResult | null = null;
let scrubber: Scrubber | null = null;

const send = (a: Answer, transfer: Transferable[] = []) => (self as unknown as Worker).postMessage(a, transfer);

/** Thrown out of work when the page has asked for something newer. */
function checkStop(seq: number): void {
  if (stop && Atomics.load(stop, 0) > seq) throw new Cancelled();
}

async function build(ask: Extract<Ask, { type: "build" }>): Promise<void> {
  const { seq, job } = ask;
  const t0 = performance.now();
  const raster = await rastersOf(job, () => send({ type: "progress", seq, step: "job", share: 0 }));
  let said = 0;
  const run = (cells: number) =>
    buildJob(
      job,
      {
        raster,
        cells,
        quick: cells !== FINE_CELLS,
        now: () => performance.now(),
        progress: (step, share) => {
          checkStop(seq);
          const now = performance.now();
          if (now - said < 50 && share < 1) return;
          said = now;
          send({ type: "progress", seq, step, share });
        },
      },
      cache,
    );
  const passes = ask.quick ? [QUICK_CELLS] : [QUICK_CELLS, FINE_CELLS];
  for (const cells of passes) {
    const result = run(cells);
    last = result;
    scrubber = null;
    const final = cells === passes[passes.length - 1];
    const built = drawn(
      result,
      final,
      inspect({ build: result, revision: ask.revision, written: ask.written }),
      performance.now() - t0,
      cache,
    );
    send({ type: "built", seq, built });
    if (!final) {
      // Let a newer request through before the finer proof.
      await new Promise((r) => setTimeout(r));
      checkStop(seq);
    }
  }
}

/** All pictures of a job, decoded. */
async function rastersOf(job: JobDocument, still: () => void = () => {}): Promise<(sha: string) => Raster> {
  const shas = job.nodes.flatMap((n) => (n.asset ? [n.asset.sha] : []));
  if (shas.length === 0) throw new Problem("no-picture", "This job has no picture yet. Drop one on the page.");
  const all = new Map<string, Raster>();
  for (const sha of shas) all.set(sha, await pixels(sha, still));
  return (sha) => all.get(sha)!;
}

async function answer(ask: Ask): Promise<void> {
  if (ask.type === "listen") {
    stop = ask.stop ? new Int32Array(ask.stop) : null;
    return;
  }
  try {
    if (ask.type === "build") await build(ask);
    else if (ask.type === "trace") {
      const t0 = performance.now();
      const { rings, tone } = trace(ask.job, await rastersOf(ask.job), cache, ask.part);
      send({ type: "traced", seq: ask.seq, rings, tone, took: performance.now() - t0 }, [rings.xy.buffer]);
    } else if (ask.type === "scrub") {
      if (!last) return;
      scrubber ??= new Scrubber(last);
      const surface = scrubber.at(ask.cut, ask.move);
      send({ type: "surface", seq: ask.seq, surface }, [surface.z.buffer, surface.by.buffer]);
    } else if (ask.type === "outputs") {
      const result = buildJob(ask.job, { raster: await rastersOf(ask.job), cells: FINE_CELLS }, cache);
      if (result.problem) throw new Problem(result.problem.code, result.problem.message);
      const files = outputFiles(result, ask.from);
      send({ type: "outputs", seq: ask.seq, files });
    } else if (ask.type === "thumb") {
      if (!last) return;
      send({ type: "thumb", seq: ask.seq, png: await thumb(last, ask.side) });
    }
  } catch (e) {
    if (e instanceof Cancelled) return;
    if (!(e instanceof Problem)) console.error(e);
    send({
      type: "failed",
      seq: ask.seq,
      message:
        e instanceof Problem
          ? e.message
          : "Something went wrong while computing. Your job is safe; change a setting to try again.",
    });
  }
}

/** The lit proof, at most `side` pixels long. */
async function thumb(r: BuildResult, side: number): Promise<Uint8Array> {
  const { proof, job } = r;
  const full = new OffscreenCanvas(proof.width, proof.height);
  full
    .getContext("2d")!
    .putImageData(
      new ImageData(
        litView(
          piece(r),
          materialById(job.stock.material),
          job.stock.thickness,
          job.stock.paint,
        ) as Uint8ClampedArray<ArrayBuffer>,
        proof.width,
        proof.height,
      ),
      0,
      0,
    );
  const k = Math.min(1, side / Math.max(proof.width, proof.height));
  const small = new OffscreenCanvas(
    Math.max(1, Math.round(proof.width * k)),
    Math.max(1, Math.round(proof.height * k)),
  );
  const g = small.getContext("2d")!;
  g.imageSmoothingQuality = "high";
  g.drawImage(full, 0, 0, small.width, small.height);
  return new Uint8Array(await (await small.convertToBlob({ type: "image/png" })).arrayBuffer());
}

// One after another: a build that is no longer wanted stops itself, so that nothing queues behind it for long.
let queue = Promise.resolve();
self.onmessage = (e: MessageEvent<Ask>) => {
  queue = queue.then(() => answer(e.data));
};
