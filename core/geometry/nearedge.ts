import { maskOf } from "./mask.ts";
import { boundsOf, ringCount, type Rings } from "./rings.ts";

/** Square cells of a map: how many, how wide, and where the first begins, mm. */
export interface Cells {
  width: number;
  height: number;
  cell: number;
  x0?: number;
  y0?: number;
}

/** A region's edges as straight lines, four numbers each: where it begins, x and y, and how far it goes, mm. */
function linesOf({ xy, starts }: Rings, count: number): Float64Array {
  const lines = new Float64Array(xy.length * 2);
  let n = 0;
  for (let k = 0; k < count; k++)
    for (let i = starts[k]; i < starts[k + 1]; i++) {
      const j = i + 1 < starts[k + 1] ? i + 1 : starts[k];
      const [x, y] = [xy[2 * i], xy[2 * i + 1]];
      lines.set([x, y, xy[2 * j] - x, xy[2 * j + 1] - y], 4 * n++);
    }
  return lines.subarray(0, 4 * n);
}

/** Square of a place's distance to line i. */
function squareTo(lines: Float64Array, i: number, x: number, y: number): number {
  const px = x - lines[4 * i];
  const py = y - lines[4 * i + 1];
  const dx = lines[4 * i + 2];
  const dy = lines[4 * i + 3];
  const t = Math.max(0, Math.min(1, (px * dx + py * dy) / (dx * dx + dy * dy || 1e-12)));
  return (px - t * dx) * (px - t * dx) + (py - t * dy) * (py - t * dy);
}

/** Squares of distances to the nearest line, and which that is, cell by cell; Infinity and −1 where none is near. */
interface Near {
  lines: Float64Array;
  d2: Float32Array;
  line: Int32Array;
}

function nearLines(region: Rings, { width, height, cell, x0 = 0, y0 = 0 }: Cells, band: number): Near {
  const lines = linesOf(region, ringCount(region));
  const d2 = new Float32Array(width * height).fill(Infinity);
  const line = new Int32Array(width * height).fill(-1);
  const most = band * band;
  for (let i = 0; 4 * i < lines.length; i++) {
    const [x, y] = [lines[4 * i] - x0, lines[4 * i + 1] - y0];
    const b = boundsOf(Float64Array.of(x, y, x + lines[4 * i + 2], y + lines[4 * i + 3]));
    const u0 = Math.max(0, Math.floor((b.minX - band) / cell));
    const u1 = Math.min(width - 1, Math.ceil((b.maxX + band) / cell));
    const v0 = Math.max(0, Math.floor((b.minY - band) / cell));
    const v1 = Math.min(height - 1, Math.ceil((b.maxY + band) / cell));
    for (let v = v0; v <= v1; v++)
      for (let u = u0, at = v * width + u0; u <= u1; u++, at++) {
        const q = squareTo(lines, i, x0 + (u + 0.5) * cell, y0 + (v + 0.5) * cell);
        if (q >= most || q >= d2[at]) continue;
        d2[at] = q;
        line[at] = i;
      }
  }
  return { lines, d2, line };
}

/** Distance of every cell's middle to the region's edge where it is less than `band`, Infinity elsewhere; mm. */
export function edgeDistance(region: Rings, cells: Cells, band: number): Float32Array {
  const { d2 } = nearLines(region, cells, band);
  for (let k = 0; k < d2.length; k++) if (d2[k] !== Infinity) d2[k] = Math.sqrt(d2[k]);
  return d2;
}

/** Beside an edge so many cells are laid out at once; the others hear of it from these. */
const SEEDED = 1.5;
/** Times that the whole map is gone over: a second one settles what lies behind corners. */
const ROUNDS = 2;

/**
 * How deep inside a region every cell's middle lies: its distance to the region's edge, mm; 0 outside. A cell's
 * nearest edge is nearly always that of one of its neighbours (vector propagation, Danielsson, "Euclidean distance
 * mapping", 1980), here with lines instead of points: linear in the number of cells.
 */
export function depthInside(region: Rings, cells: Cells): Float32Array {
  const { width: W, height: H, cell, x0 = 0, y0 = 0 } = cells;
  const moved = { ...region, xy: region.xy.map((v, i) => v - (i % 2 ? y0 : x0)) };
  const inside = maskOf(moved, W, H, cell);
  const near = nearLines(region, cells, SEEDED * cell);
  for (let round = 0; round < ROUNDS; round++) {
    for (let v = 0; v < H; v++) for (const along of WAYS) hearAlong(near, inside, cells, v, -1, along);
    for (let v = H - 1; v >= 0; v--) for (const along of WAYS) hearAlong(near, inside, cells, v, 1, along);
  }
  const { d2 } = near;
  for (let k = 0; k < d2.length; k++) d2[k] = inside[k] && d2[k] !== Infinity ? Math.sqrt(d2[k]) : 0;
  return d2;
}

/** From cell to cell along a row: forwards, then back. */
const WAYS = [-1, 1] as const;

/** Cells of a row hear from those before them: `up` is the way to the row before, `along` to the cell before. */
function hearAlong(near: Near, inside: Uint8Array, cells: Cells, v: number, up: -1 | 1, along: -1 | 1): void {
  const { line } = near;
  const { width: W, height: H } = cells;
  const hasUp = v + up >= 0 && v + up < H;
  for (let k = 0; k < W; k++) {
    const at = v * W + (along < 0 ? k : W - 1 - k);
    if (!inside[at]) continue;
    if (k > 0 && line[at + along] !== line[at]) hear(near, cells, at, at + along);
    if (!hasUp) continue;
    if (line[at + up * W] !== line[at]) hear(near, cells, at, at + up * W);
    if (k > 0 && line[at + up * W + along] !== line[at]) hear(near, cells, at, at + up * W + along);
  }
}

/** A cell hears which line is nearest to another: it may be to this one too. */
function hear({ lines, d2, line }: Near, { width, cell, x0 = 0, y0 = 0 }: Cells, at: number, from: number): void {
  const i = line[from];
  if (i < 0) return;
  const v = Math.floor(at / width);
  const q = squareTo(lines, i, x0 + (at - v * width + 0.5) * cell, y0 + (v + 0.5) * cell);
  if (q >= d2[at]) return;
  d2[at] = q;
  line[at] = i;
}
