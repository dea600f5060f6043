import { hexOf } from "../../colour.ts";
import { oklab } from "../../picture/oklab.ts";
import type { Raster } from "../../picture/raster.ts";

/** A colour found in a picture. */
export interface Swatch {
  hex: string;
  /** 0…255 */
  rgb: [number, number, number];
  /** share of the picture, 0…1 */
  share: number;
}

/** Pixels looked at for colours: an even spread of so many tells as much as all of them. */
const LOOKS = 300_000;
/** Bits a channel of the colour table. */
const BITS = 5;
const SIDE = 1 << BITS;
const ROUNDS = 16;
/**
 * Neighbours that differ by more than this (of 255, summed over the channels) are an edge: blends there found no
 * colour.
 */
const EDGE_STEP = 24;

/**
 * The picture's `count` most telling colours: k-means in OKLab (S. Lloyd 1982) over a table of colours from flat parts
 * only, started from the fullest colour and then the ones farthest from those taken, weighted by how full they are.
 * @returns the colours, largest share first, and the label of every table entry
 */
export function findColours(r: Raster, count: number): { swatches: Swatch[]; table: Uint8Array } {
  const { weight, sum } = colourTable(r);
  const bins: number[] = [];
  for (let i = 0; i < weight.length; i++) if (weight[i] > 0) bins.push(i);
  const n = bins.length;
  const lab = new Float64Array(3 * n);
  const w = new Float64Array(n);
  bins.forEach((b, i) => {
    const c = oklab(sum[3 * b] / weight[b] / 255, sum[3 * b + 1] / weight[b] / 255, sum[3 * b + 2] / weight[b] / 255);
    lab.set(c, 3 * i);
    w[i] = weight[b];
  });
  const k = Math.min(count, n);
  const centre = new Float64Array(3 * k);
  const near = new Float64Array(n).fill(Infinity);
  let pick = 0;
  for (let i = 1; i < n; i++) if (w[i] > w[pick]) pick = i;
  for (let c = 0; c < k; c++) {
    centre.set(lab.subarray(3 * pick, 3 * pick + 3), 3 * c);
    let best = -1;
    for (let i = 0; i < n; i++) {
      near[i] = Math.min(near[i], apart(lab, 3 * i, centre, 3 * c));
      // The square root keeps a large even ground from taking every start.
      const score = near[i] * Math.sqrt(w[i]);
      if (score > best) {
        best = score;
        pick = i;
      }
    }
  }
  const label = new Uint8Array(n);
  for (let round = 0; round < ROUNDS; round++) {
    let moved = false;
    const total = new Float64Array(4 * k);
    for (let i = 0; i < n; i++) {
      const l = nearest(lab, 3 * i, centre, k);
      if (l !== label[i]) moved = true;
      label[i] = l;
      for (let q = 0; q < 3; q++) total[4 * l + q] += w[i] * lab[3 * i + q];
      total[4 * l + 3] += w[i];
    }
    for (let c = 0; c < k; c++)
      if (total[4 * c + 3] > 0) for (let q = 0; q < 3; q++) centre[3 * c + q] = total[4 * c + q] / total[4 * c + 3];
    if (!moved && round > 0) break;
  }
  const rgb = new Float64Array(4 * k);
  bins.forEach((b, i) => {
    for (let q = 0; q < 3; q++) rgb[4 * label[i] + q] += sum[3 * b + q];
    rgb[4 * label[i] + 3] += weight[b];
  });
  let all = 0;
  for (let c = 0; c < k; c++) all += rgb[4 * c + 3];
  const order = Array.from({ length: k }, (_, c) => c)
    .filter((c) => rgb[4 * c + 3] > 0)
    .sort((p, q) => rgb[4 * q + 3] - rgb[4 * p + 3]);
  const swatches = order.map((c): Swatch => {
    const mean = [0, 1, 2].map((q) => rgb[4 * c + q] / rgb[4 * c + 3]) as [number, number, number];
    return { hex: hexOf(mean), rgb: mean, share: rgb[4 * c + 3] / all };
  });
  const sorted = new Float64Array(3 * order.length);
  order.forEach((c, i) => sorted.set(centre.subarray(3 * c, 3 * c + 3), 3 * i));
  const table = new Uint8Array(SIDE ** 3);
  for (let b = 0; b < table.length; b++) {
    const mid = (v: number) => (v + 0.5) / SIDE;
    table[b] = nearest(
      Float64Array.from(oklab(mid(b >> (2 * BITS)), mid((b >> BITS) & (SIDE - 1)), mid(b & (SIDE - 1)))),
      0,
      sorted,
      order.length,
    );
  }
  return { swatches, table };
}

/** The table's index of a colour, channels 0…255. */
export const tableIndex = (r: number, g: number, b: number): number =>
  ((r >> (8 - BITS)) << (2 * BITS)) | ((g >> (8 - BITS)) << BITS) | (b >> (8 - BITS));

function colourTable(r: Raster): { weight: Float64Array; sum: Float64Array } {
  const { width: W, height: H, data } = r;
  const shift = data instanceof Uint16Array ? 8 : 0;
  const weight = new Float64Array(SIDE ** 3);
  const sum = new Float64Array(3 * SIDE ** 3);
  const stride = Math.max(1, Math.floor(Math.sqrt((W * H) / LOOKS)));
  const gather = (edges: boolean) => {
    for (let y = 0; y + 1 < H; y += stride)
      for (let x = 0; x + 1 < W; x += stride) {
        const o = 4 * (y * W + x);
        const p = o + 4;
        const q = o + 4 * W;
        const step =
          Math.max(Math.abs(data[o] - data[p]), Math.abs(data[o] - data[q])) +
          Math.max(Math.abs(data[o + 1] - data[p + 1]), Math.abs(data[o + 1] - data[q + 1])) +
          Math.max(Math.abs(data[o + 2] - data[p + 2]), Math.abs(data[o + 2] - data[q + 2]));
        if (step >> shift > EDGE_STEP && !edges) continue;
        const a = (data[o + 3] >> shift) / 255;
        const white = 255 * (1 - a);
        const red = (data[o] >> shift) * a + white;
        const green = (data[o + 1] >> shift) * a + white;
        const blue = (data[o + 2] >> shift) * a + white;
        const b = tableIndex(red, green, blue);
        weight[b]++;
        sum[3 * b] += red;
        sum[3 * b + 1] += green;
        sum[3 * b + 2] += blue;
      }
  };
  gather(false);
  if (!weight.some((v) => v > 0)) gather(true);
  return { weight, sum };
}

function nearest(p: Float64Array, at: number, centre: Float64Array, k: number): number {
  let best = 0;
  let d = Infinity;
  for (let c = 0; c < k; c++) {
    const e = apart(p, at, centre, 3 * c);
    if (e < d) {
      d = e;
      best = c;
    }
  }
  return best;
}

const apart = (p: Float64Array, i: number, q: Float64Array, j: number): number =>
  (p[i] - q[j]) ** 2 + (p[i + 1] - q[j + 1]) ** 2 + (p[i + 2] - q[j + 2]) ** 2;
