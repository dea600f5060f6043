import { grown, ringsOf } from "../../geometry/morph.ts";
import { boundsOf, insideRegion, ringCount, type Rings } from "../../geometry/rings.ts";
import { rectangle } from "../../geometry/shape.ts";
import { isSound } from "../../geometry/sound.ts";
import type { CarveInputs } from "./reads.ts";

/** Which side of the ink is carved away, and how far. */
export interface BorderSettings {
  side: "in" | "stands";
  border: "stock" | "frame" | "grow" | "shape";
  borderWidth: number;
}

/**
 * The region a carve works in: the ink itself, or a border minus the ink.
 * @returns null where the ink reaches beyond the border, or there is none
 */
export function carveRegion(inputs: CarveInputs, s: BorderSettings): Rings | null {
  const { art, border } = inputs.reads;
  if (s.side === "in") return art.ink;
  const shape = s.border === "shape" ? (border?.ink ?? null) : null;
  return inputs.kept.of(
    "carve-region",
    [art.ink, shape, s.border, s.borderWidth, inputs.stock.width, inputs.stock.height],
    (ink, other, border, borderWidth, width, height) => {
      if (border === "shape") return other && holds(other, ink) ? minus(other, ink) : null;
      if (border === "grow") return minus(grown(ink, borderWidth, inputs.clearance), ink);
      const w = border === "frame" ? borderWidth : 0;
      const b = boundsOf(ink.xy);
      if (b.minX <= w || b.minY <= w || b.maxX >= width - w || b.maxY >= height - w) return null;
      return minus(rectangle(w, w, width - w, height - w), ink);
    },
  );
}

/** Whether the inner region lies wholly inside the outer one, no edge of one touching the other's. */
function holds(outer: Rings, inner: Rings): boolean {
  for (let k = 0; k < ringCount(inner); k++)
    if (
      inner.starts[k + 1] > inner.starts[k] &&
      !insideRegion(outer, inner.xy[2 * inner.starts[k]], inner.xy[2 * inner.starts[k] + 1])
    )
      return false;
  const n = ringCount(outer);
  const both = {
    xy: Float64Array.from([...outer.xy, ...inner.xy]),
    starts: Int32Array.from([...outer.starts, ...inner.starts.slice(1).map((v) => v + outer.starts[n])]),
    parent: new Int32Array(n + ringCount(inner)),
  };
  return isSound(both);
}

/** Outer region minus an inner one that lies wholly inside it: the inner rings turned round. */
function minus(outer: Rings, inner: Rings): Rings {
  const loops: number[][] = [];
  for (let k = 0; k < ringCount(outer); k++)
    loops.push([...outer.xy.subarray(2 * outer.starts[k], 2 * outer.starts[k + 1])]);
  for (let k = 0; k < ringCount(inner); k++) {
    const loop: number[] = [];
    for (let i = inner.starts[k + 1] - 1; i >= inner.starts[k]; i--) loop.push(inner.xy[2 * i], inner.xy[2 * i + 1]);
    loops.push(loop);
  }
  return ringsOf(loops);
}
