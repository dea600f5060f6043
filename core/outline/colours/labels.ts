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
/** How far an edge's blend looks for the colours it was blended from, px. */
const REACH = 3;

/**
 * Every pixel's colour. Pixels on edges are blends of the colours beside them: they take one of those and never a third that
 * happens to look alike, so that no sliver of a wrong colour lines the edges.
 */
export function labelPixels(r: Raster, swatches: readonly Swatch[], table: Uint8Array): Labels {
  const { width: W, height: H, data } = r;
  const shift = data instanceof Uint16Array ? 8 : 0;
  const max = shift ? 65535 : 255;
  const out = new Uint8Array(W * H);
  const rgb = [0, 0, 0];
  const colourAt = (i: number) => {
    const o = 4 * i;
    const a = data[o + 3];
    for (let q = 0; q < 3; q++) {
      const v = data[o + q] >> shift;
      rgb[q] = a === max ? v : Math.round((v * a + 255 * (max - a)) / max);
    }
  };
  const unknown: number[] = [];
  for (let y = 0, i = 0; y < H; y++)
    for (let x = 0; x < W; x++, i++) {
      const o = 4 * i;
      const right = x + 1 < W ? o + 4 : o;
      const left = x > 0 ? o - 4 : o;
      const down = y + 1 < H ? o + 4 * W : o;
      const up = y > 0 ? o - 4 * W : o;
      let step = 0;
      for (let q = 0; q < 3; q++) step += Math.max(Math.abs(data[left + q] - data[right + q]), Math.abs(data[up + q] - data[down + q])) >> shift;
      if (step > EDGE_STEP) {
        out[i] = UNKNOWN;
        unknown.push(i);
      } else {
        colourAt(i);
        out[i] = table[tableIndex(rgb[0], rgb[1], rgb[2])];
      }
    }
  settleEdges(out, W, H, unknown, swatches, (i) => {
    colourAt(i);
    return rgb;
  }, table);
  return { width: W, height: H, data: out };
}

function settleEdges(out: Uint8Array, W: number, H: number, unknown: readonly number[], swatches: readonly Swatch[], colour: (i: number) => readonly number[], table: Uint8Array): void {
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
 * Connected pieces smaller than `least` pixels join the neighbour they share most border with, smallest first.
 * @returns how many pieces went
 */
export function mergeSpecks(l: Labels, least: number): number {
  if (least < 1) return 0;
  const { width: W, height: H, data } = l;
  const piece = new Int32Array(W * H).fill(-1);
  const stack = new Int32Array(W * H);
  const small: Int32Array[] = [];
  let pieces = 0;
  for (let s = 0; s < piece.length; s++) {
    if (piece[s] >= 0) continue;
    const label = data[s];
    const id = pieces++;
    let top = 0;
    let size = 0;
    stack[top++] = s;
    piece[s] = id;
    // The stack's far end keeps the first pixels of the piece, enough to move it when it turns out to be a speck.
    const members: number[] = [];
    while (top > 0) {
      const i = stack[--top];
      if (size++ < least) members.push(i);
      const x = i % W;
      if (x > 0 && piece[i - 1] < 0 && data[i - 1] === label) (piece[i - 1] = id), (stack[top++] = i - 1);
      if (x + 1 < W && piece[i + 1] < 0 && data[i + 1] === label) (piece[i + 1] = id), (stack[top++] = i + 1);
      if (i >= W && piece[i - W] < 0 && data[i - W] === label) (piece[i - W] = id), (stack[top++] = i - W);
      if (i + W < W * H && piece[i + W] < 0 && data[i + W] === label) (piece[i + W] = id), (stack[top++] = i + W);
    }
    if (size < least) small.push(Int32Array.from(members));
  }
  small.sort((a, b) => a.length - b.length);
  for (const members of small) {
    const border = new Map<number, number>();
    const own = data[members[0]];
    for (const i of members) {
      const x = i % W;
      for (const j of [x > 0 ? i - 1 : -1, x + 1 < W ? i + 1 : -1, i - W, i + W < W * H ? i + W : -1]) if (j >= 0 && data[j] !== own) border.set(data[j], (border.get(data[j]) ?? 0) + 1);
    }
    let best = own;
    let most = 0;
    for (const [label, count] of border) if (count > most) [best, most] = [label, count];
    for (const i of members) data[i] = best;
  }
  return small.length;
}

/** How often the picture is gone through for pixels that meet at a corner only. */
const CORNER_ROUNDS = 4;

/** Two pixels of one colour that meet at a corner only are joined through one of the others, so that no contour touches itself. */
export function joinCorners(l: Labels): void {
  const { width: W, height: H, data } = l;
  for (let round = 0; round < CORNER_ROUNDS; round++) {
    let any = false;
    for (let y = 0; y + 1 < H; y++)
      for (let x = 0; x + 1 < W; x++) {
        const i = y * W + x;
        const [tl, tr, bl, br] = [data[i], data[i + 1], data[i + W], data[i + W + 1]];
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
