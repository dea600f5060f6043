import { profileOf } from "@oaken/core/cutters/profile";
import { clearanceOf } from "@oaken/core/geometry/clearance/clearance";
import { strokeLength } from "@oaken/core/geometry/clearance/strokes";
import { regionKey } from "@oaken/core/geometry/regionkey";
import type { Finding } from "@oaken/core/inspect/finding";
import { type BuildResult, piece } from "@oaken/core/job/build";
import { measuredSize } from "@oaken/core/job/art";
import type { ChainResult } from "@oaken/core/job/chain";
import type { Derived } from "@oaken/core/job/hash";
import { frameOf } from "@oaken/core/job/nodes/picture";
import { outlineFigures } from "@oaken/core/outline/figures";
import { SCRATCH } from "@oaken/core/picture/fitness";
import { NO_FRAME } from "@oaken/core/picture/frame";
import type { Raster } from "@oaken/core/picture/raster";
import { shrunk } from "@oaken/core/picture/shrink";
import { shadingOf } from "@oaken/core/proof/light";
import { NO_CHAIN } from "./no-chain.ts";
import type { Built, DrawnChain, DrawnOutline, DrawnTone } from "./messages.ts";

/** Pixels of a framed picture as the stage shows it. */
const PICTURE_PIXELS = 1_500_000;

/** Longest side of the tone's picture, pixels: sharp enough to judge on the stage. */
const TONE_SIDE = 900;

/** A build as the page draws it. Large arrays are copies where the worker keeps them for its cache. */
export function drawn(r: BuildResult, final: boolean, findings: Finding[], took: number, cache: Derived): Built {
  const resolved: Built["resolved"] = {};
  const chains: Built["chains"] = {};
  for (const [id, chain] of r.chains) {
    Object.assign(resolved, chain.resolved);
    chains[id] = drawnChain(r, chain, cache);
  }
  for (const c of r.cuts) resolved[c.id] = c.resolved;
  const shown = piece(r);
  return {
    ...(Object.values(chains)[0] ?? NO_CHAIN),
    chains,
    job: r.job,
    final,
    problem: r.problem,
    resolved,
    cuts: r.cuts.map((c, i) => ({
      id: c.id,
      on: c.cut.on,
      resolved: c.resolved,
      seconds: c.seconds,
      minZ: c.figures.minZ,
      toolpath: c.toolpath,
      moveSeconds: c.moveSeconds,
      facts: c.facts,
      marks: c.marks ?? [],
      left: r.lost?.cuts[i] ?? null,
    })),
    surface: {
      cell: r.proof.cell,
      width: r.proof.width,
      height: r.proof.height,
      z: shown.z,
      by: r.proof.by,
      shading: shadingOf(shown),
      lost: r.lost?.map ?? null,
    },
    seconds: r.seconds,
    findings,
    took,
  };
}

function drawnChain(r: BuildResult, chain: ChainResult, cache: Derived): DrawnChain {
  const { place, raster, colours, toneResult } = chain;
  return {
    place: { x0: place.x0, y0: place.y0, width: place.width, height: place.height },
    measured: measuredSize(chain),
    outline: outlineOf(r, chain, cache),
    framed: raster.width > 0 && isFramed(chain) ? smallPicture(raster) : null,
    pixels: { width: raster.width, height: raster.height },
    colours:
      colours &&
      colours.swatches.map((s, i) => ({
        hex: s.hex,
        share: s.share,
        kept: colours.kept[i],
        ground: i === colours.ground,
      })),
    bins: toneResult.bins,
    tone: smallTone(toneResult.grey),
  };
}

export function smallTone(g: {
  width: number;
  height: number;
  data: Uint8Array | Uint16Array;
  max: number;
}): DrawnTone {
  const k = Math.max(1, Math.max(g.width, g.height) / TONE_SIDE);
  const width = Math.max(1, Math.round(g.width / k));
  const height = Math.max(1, Math.round(g.height / k));
  const grey = new Uint8ClampedArray(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      // Mean of a few samples of the block: enough for a thumbnail.
      let sum = 0;
      for (let q = 0; q < 9; q++) {
        const sx = Math.min(g.width - 1, Math.floor((x + ((q % 3) + 0.5) / 3) * k));
        const sy = Math.min(g.height - 1, Math.floor((y + (Math.floor(q / 3) + 0.5) / 3) * k));
        sum += g.data[sy * g.width + sx];
      }
      grey[y * width + x] = (sum / 9 / g.max) * 255;
    }
  return { width, height, grey };
}

const isFramed = (chain: ChainResult): boolean =>
  Object.entries(frameOf(chain.picture.settings)).some(([k, v]) => v !== NO_FRAME[k as keyof typeof NO_FRAME]);

/** The framed picture small enough to draw: its own pixels are in the worker only. */
function smallPicture(r: Raster): { width: number; height: number; rgba: Uint8ClampedArray } {
  const s = shrunk(r, PICTURE_PIXELS);
  const shift = s.data instanceof Uint16Array ? 8 : 0;
  const rgba = new Uint8ClampedArray(s.data.length);
  for (let i = 0; i < rgba.length; i++) rgba[i] = s.data[i] >> shift;
  return { width: s.width, height: s.height, rgba };
}

/** What the stage marks on an outline: pieces, thin strokes, bridges, nodes. */
function outlineOf(r: BuildResult, chain: ChainResult, cache: Derived): DrawnOutline {
  const main = r.job.cuts.find((c) => c.on && !c.target && c.reads[0] === chain.outline.id)?.cutter;
  const least = !main
    ? 0
    : main.kind === "v" || main.kind === "taper" || main.kind === "drill"
      ? 2 * profileOf(main).r(SCRATCH)
      : main.diameter;
  return cache.get("drawn-outline", `${chain.key}|${least}`, () => {
    const clearance = cache.get("clearance", regionKey(chain.ink), () => clearanceOf(chain.ink));
    const { shape } = chain.result;
    const { axis } = clearance;
    const thin: number[] = [];
    for (let e = 0; e < axis.a.length; e++) {
      const [i, j] = [axis.a[e], axis.b[e]];
      if (Math.max(axis.d[i], axis.d[j]) < least / 2 && strokeLength(clearance, e) > 0)
        thin.push(axis.x[i], axis.y[i], axis.x[j], axis.y[j]);
    }
    const nodeAt = new Float32Array(2 * shape.kinds.length);
    for (let i = 0; i < shape.kinds.length; i++) nodeAt.set([shape.nodes[6 * i + 4], shape.nodes[6 * i + 5]], 2 * i);
    return {
      rings: { xy: Float32Array.from(chain.ink.xy), starts: chain.ink.starts },
      lines: chain.lines && { xy: Float32Array.from(chain.lines.xy), starts: chain.lines.starts },
      pieces: shape.parent.length,
      nodes: chain.result.nodes,
      maxDeviation: chain.result.maxDeviation,
      dropped: chain.result.dropped,
      droppedAt: chain.result.droppedAt,
      figures: outlineFigures(shape, chain.ink, clearance, chain.edge),
      bridges: chain.bridges,
      nodeAt,
      thin: Float32Array.from(thin),
    };
  });
}
