import { GrowingI32 } from "../../growing.ts";
import type { Raster } from "../../picture/raster.ts";
import { type Swatch, tableIndex } from "./palette.ts";

/** A label for every pixel: the index of its colour. */
export interface Labels {
  width: number;
  height: number;
  data: Uint8Array;
}

const UNKNOWN = 255;
/** Neighbours that differ by more than this (of 255, summed) make a pixel an edge's blend. */
const EDGE_STEP = 36;
/**
 * With a larger share of edge pixels than this a picture is no drawing in flat colours: every pixel keeps its nearest
 * colour.
 */
const MOST_EDGES = 0.4;
/** How far an edge's blend looks for the colours it was blended from, px. */
const REACH = 3;

/**
 * Every pixel's colour. Pixels on edges are blends of the colours beside them: they take one of those and never a third
 * that happens to look alike, so that no sliver of a wrong colour lines the edges.
 */
export function labelPixels(r: Raster, swatches: readonly Swatch[], table: Uint8Array): Labels {
  const { width: W, height: H, data } = r;
  const shift = data instanceof Uint16Array ? 8 : 0;
  const max = shift ? 65535 : 255;
  const n = W * H;
  const out = new Uint8Array(n);
  for (let i = 0, o = 0; i < n; i++, o += 4) {
    const a = data[o + 3];
    if (a === max) out[i] = table[tableIndex(data[o] >> shift, data[o + 1] >> shift, data[o + 2] >> shift)];
    else {
      const white = 255 * (max - a);
      out[i] =
        table[
          tableIndex(
            ((data[o] >> shift) * a + white) / max,
            ((data[o + 1] >> shift) * a + white) / max,
            ((data[o + 2] >> shift) * a + white) / max,
          )
        ];
    }
  }
  // Only pixels beside another colour can be an edge's blend.
  const unknown: number[] = [];
  for (let y = 0, i = 0; y < H; y++)
    for (let x = 0; x < W; x++, i++) {
      const l = out[i];
      if (
        x > 0 &&
        y > 0 &&
        x + 1 < W &&
        y + 1 < H &&
        out[i - 1] === l &&
        out[i + 1] === l &&
        out[i - W] === l &&
        out[i + W] === l
      )
        continue;
      const right = x + 1 < W ? i + 1 : i;
      const left = x > 0 ? i - 1 : i;
      const down = y + 1 < H ? i + W : i;
      const up = y > 0 ? i - W : i;
      if (out[right] === l && out[left] === l && out[down] === l && out[up] === l) continue; // at the picture's border
      let step = 0;
      for (let q = 0; q < 3; q++)
        step +=
          Math.max(
            Math.abs(data[4 * left + q] - data[4 * right + q]),
            Math.abs(data[4 * up + q] - data[4 * down + q]),
          ) >> shift;
      if (step > EDGE_STEP) unknown.push(i);
    }
  if (unknown.length > MOST_EDGES * n) return { width: W, height: H, data: out };
  const rgb = [0, 0, 0];
  const colour = (i: number) => {
    const o = 4 * i;
    const a = data[o + 3];
    for (let q = 0; q < 3; q++) rgb[q] = ((data[o + q] >> shift) * a + 255 * (max - a)) / max;
    return rgb;
  };
  for (const i of unknown) out[i] = UNKNOWN;
  settleEdges(out, W, H, unknown, swatches, colour, table);
  return { width: W, height: H, data: out };
}

function settleEdges(
  out: Uint8Array,
  W: number,
  H: number,
  unknown: readonly number[],
  swatches: readonly Swatch[],
  colour: (i: number) => readonly number[],
  table: Uint8Array,
): void {
  const decided = new Uint8Array(unknown.length);
  unknown.forEach((i, k) => {
    const x = i % W;
    const y = (i - x) / W;
    const c = colour(i);
    let best = -1;
    let least = Infinity;
    let seen = 0;
    for (let v = Math.max(0, y - REACH); v <= Math.min(H - 1, y + REACH); v++)
      for (let u = Math.max(0, x - REACH); u <= Math.min(W - 1, x + REACH); u++) {
        const l = out[v * W + u];
        if (l === UNKNOWN || (seen >> l) & 1) continue;
        seen |= 1 << l;
        const s = swatches[l].rgb;
        const d = (c[0] - s[0]) ** 2 + (c[1] - s[1]) ** 2 + (c[2] - s[2]) ** 2;
        if (d < least) {
          least = d;
          best = l;
        }
      }
    decided[k] = best >= 0 ? best : table[tableIndex(c[0], c[1], c[2])];
  });
  unknown.forEach((i, k) => (out[i] = decided[k]));
}

/**
 * Connected pieces smaller than `least` pixels join the neighbour they share most border with, smallest first. Pieces
 * are found by joining runs of pixels with the runs of the row above (A. Rosenfeld, J. Pfaltz 1966, by union and find).
 * @returns how many pieces went
 */
export function mergeSpecks(l: Labels, least: number): number {
  if (least < 1) return 0;
  const { width: W, height: H, data } = l;
  const start = new GrowingI32(1 << 14);
  const root = new GrowingI32(1 << 14);
  const size = new GrowingI32(1 << 14);
  const find = (i: number): number => {
    while (root.data[i] !== i) i = root.data[i] = root.data[root.data[i]];
    return i;
  };
  let above = 0;
  for (let y = 0; y < H; y++) {
    const first = start.length;
    let up = above;
    for (let x = 0; x < W;) {
      const at = y * W + x;
      const label = data[at];
      let end = x + 1;
      while (end < W && data[y * W + end] === label) end++;
      const run = start.length;
      start.push(at);
      root.push(run);
      size.push(end - x);
      // Runs above that overlap x … end; the last of them may reach on over the next run too.
      while (up < first && runEnd(start, up, y * W) <= at - W) up++;
      for (let q = up; q < first && start.data[q] < at - W + (end - x); q++)
        if (data[start.data[q]] === label) {
          const [a, b] = [find(q), find(run)];
          if (a !== b) {
            root.data[b] = a;
            size.data[a] += size.data[b];
          }
        }
      x = end;
    }
    above = first;
  }
  const small = new Map<number, number[]>();
  for (let q = 0; q < start.length; q++) {
    const r = find(q);
    if (size.data[r] >= least) continue;
    const runs = small.get(r);
    if (runs) runs.push(q);
    else small.set(r, [q]);
  }
  const order = [...small].sort((a, b) => size.data[a[0]] - size.data[b[0]]);
  for (const [, runs] of order) {
    const border = new Map<number, number>();
    const own = data[start.data[runs[0]]];
    const members: number[] = [];
    for (const q of runs)
      for (let i = start.data[q], end = runEnd(start, q, (Math.floor(i / W) + 1) * W); i < end; i++) members.push(i);
    for (const i of members) {
      const x = i % W;
      for (const j of [x > 0 ? i - 1 : -1, x + 1 < W ? i + 1 : -1, i - W, i + W < W * H ? i + W : -1])
        if (j >= 0 && data[j] !== own) border.set(data[j], (border.get(data[j]) ?? 0) + 1);
    }
    let best = own;
    let most = 0;
    for (const [label, count] of border) if (count > most) [best, most] = [label, count];
    for (const i of members) data[i] = best;
  }
  return small.size;
}

/** Where run q ends: at the next run, or at its row's end. */
const runEnd = (start: GrowingI32, q: number, rowEnd: number): number =>
  q + 1 < start.length && start.data[q + 1] < rowEnd ? start.data[q + 1] : rowEnd;

/** How often the picture is gone through for pixels that meet at a corner only. */
const CORNER_ROUNDS = 4;

/**
 * Two pixels of one colour that meet at a corner only are joined through one of the others, so that no contour touches
 * itself.
 */
export function joinCorners(l: Labels): void {
  const { width: W, height: H, data } = l;
  for (let round = 0; round < CORNER_ROUNDS; round++) {
    let any = false;
    for (let y = 0; y + 1 < H; y++)
      for (let x = 0, i = y * W; x + 1 < W; x++, i++) {
        const tl = data[i];
        const tr = data[i + 1];
        const bl = data[i + W];
        if (tl === tr && tl === bl) continue;
        const br = data[i + W + 1];
        if (tl === br && tr !== tl && bl !== tl) {
          data[i + 1] = tl;
          any = true;
        } else if (tr === bl && tl !== tr && br !== tr) {
          data[i] = tr;
          any = true;
        }
      }
    if (!any) return;
  }
}
