import potrace from "potrace";
import { ringsFrom } from "@oaken/core/geometry/rings";
import { SegmentGrid } from "@oaken/core/geometry/segmentgrid";
import { contourCount, flatten, type Shape } from "@oaken/core/geometry/shape";
import { contoursAt } from "@oaken/core/outline/contours";
import { fitOutline, type Outline } from "@oaken/core/outline/outline";
import type { Grey } from "@oaken/core/picture/raster";
import { findInkLevel, histogram } from "@oaken/core/picture/tone";
import type { Truth } from "../demo/truth.ts";

/** A multiple of three, so that the height comes out whole. */
export const widthFor = (mp: number) => 3 * Math.round(Math.sqrt(mp * 1.5e6) / 3);
/** Ink level of pictures rendered in black on white. */
export const LEVEL = 0.5;
/** Smallest piece kept by both, px². */
export const SPECKS = 10;

/** Pixels that a fit may stray, and mm a pixel: what 4 megapixels are on a board a quarter of a metre wide. */
export const HOLD = 0.23;
export const SCALE = 0.1;
export const placed = (g: Grey) => ({ scale: SCALE, x0: 0, y1: SCALE * g.height });
export const settings = (hold: number) => ({
  hold: SCALE * hold,
  specks: SPECKS * SCALE ** 2,
  pinholes: SPECKS * SCALE ** 2,
  cornerAngle: 0.7,
});
export const fit = (g: Grey, level = findInkLevel(histogram(g))): Outline =>
  fitOutline(contoursAt(g, level), placed(g), settings(HOLD));

/** The true edge in pixels. */
export const edgeOf = (t: Truth, k: number) =>
  new SegmentGrid(ringsFrom(t.loops.map((l) => l.map(([x, y]) => [x * k, y * k] as [number, number]))));

/** Curves as polygons in pixels with y down again. */
export function flattened(s: Shape, height: number): [number, number][][] {
  const r = flatten(s, 0.02 * SCALE);
  return Array.from({ length: contourCount(s) }, (_, q) => {
    const out: [number, number][] = [];
    for (let i = r.starts[q]; i < r.starts[q + 1]; i++)
      out.push([r.xy[2 * i] / SCALE, height - r.xy[2 * i + 1] / SCALE]);
    return out;
  });
}

/** Mean distance from the true edge along the curves, weighted by length; pixels. */
export function deviation(loops: readonly [number, number][][], truth: SegmentGrid): number {
  let sum = 0;
  let total = 0;
  for (const l of loops)
    l.forEach(([x, y], i) => {
      const [u, v] = l[(i + 1) % l.length];
      const len = Math.hypot(u - x, v - y);
      const parts = Math.max(1, Math.ceil(len / 4));
      for (let q = 0; q < parts; q++) {
        const f = (q + 0.5) / parts;
        sum += (truth.distance(x + f * (u - x), y + f * (v - y), 8) * len) / parts;
      }
      total += len;
    });
  return sum / total;
}

export async function potraceOf(png: Buffer): Promise<{ time: number; nodes: number; path: string }> {
  const p = new potrace.Potrace({ threshold: LEVEL * 256, turdSize: SPECKS });
  await new Promise<void>((done, failed) => p.loadImage(png, (e: Error | null) => (e ? failed(e) : done())));
  const t0 = performance.now();
  const path = / d="([^"]*)"/.exec(p.getPathTag())![1];
  const time = performance.now() - t0;
  // A curve has one node; a corner of two lines has two.
  const nodes =
    (path.match(/C/g) ?? []).length +
    [...path.matchAll(/L ([^CMLZ]*)/g)].reduce((s, m) => s + m[1].trim().split(/[\s,]+/).length / 2, 0);
  return { time, nodes, path };
}
