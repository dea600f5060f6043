import type { Finding } from "@oaken/core/inspect/finding";
import type { BuildResult } from "@oaken/core/job/build";
import { shadingOf } from "@oaken/core/proof/light";
import type { Built } from "./messages.ts";

/** Longest side of the tone's little picture, pixels. */
const TONE_SIDE = 120;

/** A build as the page draws it. Large arrays are copies where the worker keeps them for its cache. */
export function drawn(r: BuildResult, final: boolean, findings: Finding[], took: number): Built {
  const { chain } = r;
  const resolved: Built["resolved"] = { ...(chain?.resolved ?? {}) };
  for (const c of r.cuts) resolved[c.id] = c.resolved;
  return {
    job: r.job,
    final,
    problem: r.problem,
    resolved,
    place: chain && { x0: chain.place.x0, y0: chain.place.y0, width: chain.place.width, height: chain.place.height },
    outline: chain && {
      rings: { xy: Float32Array.from(chain.ink.xy), starts: chain.ink.starts },
      pieces: chain.result.shape.parent.length,
      nodes: chain.result.nodes,
      maxDeviation: chain.result.maxDeviation,
      dropped: chain.result.dropped,
      droppedAt: chain.result.droppedAt,
    },
    bins: chain && chain.toneResult.bins,
    tone: chain && smallTone(chain.toneResult.grey),
    cuts: r.cuts.map((c) => ({ id: c.id, on: c.cut.on, resolved: c.resolved, seconds: c.seconds, minZ: c.figures.minZ, toolpath: c.toolpath, moveSeconds: c.moveSeconds, facts: c.facts })),
    surface: { ...r.proof, shading: shadingOf(r.proof) },
    seconds: r.seconds,
    findings,
    took,
  };
}

function smallTone(g: { width: number; height: number; data: Uint8Array | Uint16Array; max: number }): NonNullable<Built["tone"]> {
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
