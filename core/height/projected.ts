import type { Mesh } from "./stl.ts";

/** The sides from which a solid can be looked at. */
export const SIDES = ["top", "bottom", "front", "back", "left", "right"] as const;
export type Side = (typeof SIDES)[number];

/** A solid's x, y, z to right, away and up as seen from a side, none of them mirrored. */
const TURNS: Record<Side, (x: number, y: number, z: number) => readonly [number, number, number]> = {
  top: (x, y, z) => [x, y, z],
  bottom: (x, y, z) => [-x, y, -z],
  front: (x, y, z) => [x, z, -y],
  back: (x, y, z) => [-x, z, y],
  left: (x, y, z) => [-y, z, -x],
  right: (x, y, z) => [y, z, x],
};

/** A solid turned so that a side lies on top; its bounds, in the solid's own units. */
export interface Turned {
  xyz: Float32Array;
  low: [number, number, number];
  high: [number, number, number];
}

export function turned({ xyz }: Mesh, side: Side): Turned {
  const out = new Float32Array(xyz.length);
  const low: Turned["low"] = [Infinity, Infinity, Infinity];
  const high: Turned["high"] = [-Infinity, -Infinity, -Infinity];
  const turn = TURNS[side];
  for (let k = 0; k < xyz.length; k += 3) {
    const p = turn(xyz[k], xyz[k + 1], xyz[k + 2]);
    for (let q = 0; q < 3; q++) {
      out[k + q] = p[q];
      if (p[q] < low[q]) low[q] = p[q];
      if (p[q] > high[q]) high[q] = p[q];
    }
  }
  return { xyz: out, low, high };
}

/** A solid seen from above: its highest place over each sample, row 0 at the front. */
export interface Projected {
  width: number;
  height: number;
  /** 0 at the solid's lowest place, in its own units; 0 where there is none of it */
  z: Float32Array;
  /** share of the samples under which there is none of it */
  open: number;
  /** share of its faces, by their area from above, that look down and lie above its lowest place: nothing cuts these */
  hidden: number;
}

/** The highest place of a turned solid over each sample of a grid with so many columns. */
export function projected({ xyz, low, high }: Turned, columns: number): Projected {
  const [wide, deep] = [high[0] - low[0], high[1] - low[1]];
  const cell = wide / columns;
  const rows = Math.max(1, Math.round(deep / cell));
  const z = new Float32Array(columns * rows).fill(-Infinity);
  // A hair's breadth of the solid's height: faces lower than that are its base.
  const base = low[2] + 1e-4 * (high[2] - low[2]);
  let [seen, under] = [0, 0];
  for (let k = 0; k < xyz.length; k += 9) {
    const corner = (q: number) => [
      (xyz[k + q] - low[0]) / cell - 0.5,
      ((xyz[k + q + 1] - low[1]) * rows) / deep - 0.5,
      xyz[k + q + 2],
    ];
    const [a, b, c] = [corner(0), corner(3), corner(6)];
    const area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
    if (area > 0) seen += area;
    else if (Math.min(a[2], b[2], c[2]) > base) under -= area;
    if (area !== 0) fill(z, columns, rows, [a, b, c], area);
  }
  let open = 0;
  for (let k = 0; k < z.length; k++) {
    if (z[k] === -Infinity) open++;
    z[k] = Math.max(0, z[k] - low[2]);
  }
  return { width: columns, height: rows, z, open: open / z.length, hidden: seen > 0 ? under / seen : 0 };
}

/** Raises the samples inside a triangle to it; its sides count as inside. */
function fill(z: Float32Array, columns: number, rows: number, corners: readonly number[][], area: number): void {
  const [a, b, c] = corners;
  const from = (q: 0 | 1) => Math.max(0, Math.ceil(Math.min(a[q], b[q], c[q]) - EDGE));
  const to = (q: 0 | 1, most: number) => Math.min(most, Math.floor(Math.max(a[q], b[q], c[q]) + EDGE));
  for (let j = from(1); j <= to(1, rows - 1); j++)
    for (let i = from(0); i <= to(0, columns - 1); i++) {
      const u = ((b[0] - i) * (c[1] - j) - (b[1] - j) * (c[0] - i)) / area;
      const v = ((c[0] - i) * (a[1] - j) - (c[1] - j) * (a[0] - i)) / area;
      const w = 1 - u - v;
      if (Math.min(u, v, w) < -EDGE) continue;
      const high = u * a[2] + v * b[2] + w * c[2];
      if (high > z[j * columns + i]) z[j * columns + i] = high;
    }
}
/** Samples on a side belong to both of its triangles, whichever way rounding goes. */
const EDGE = 1e-6;
