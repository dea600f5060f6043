import { ringCount, type Rings } from "./rings.ts";

/**
 * Which cells of a grid have their middle in the region (even–odd): 1 inside. Cell (0, 0) begins at the origin; mm.
 */
export function maskOf(r: Rings, width: number, height: number, cell: number): Uint8Array {
  const out = new Uint8Array(width * height);
  // Crossings of each row's middle line, gathered edge by edge.
  const rows: number[][] = Array.from({ length: height }, () => []);
  for (let k = 0; k < ringCount(r); k++)
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const j = i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k];
      const [x0, y0, x1, y1] = [r.xy[2 * i], r.xy[2 * i + 1], r.xy[2 * j], r.xy[2 * j + 1]];
      if (y0 === y1) continue;
      const from = Math.max(0, Math.ceil(Math.min(y0, y1) / cell - 0.5));
      const to = Math.min(height - 1, Math.ceil(Math.max(y0, y1) / cell - 0.5) - 1);
      for (let row = from; row <= to; row++) rows[row].push(x0 + (((row + 0.5) * cell - y0) / (y1 - y0)) * (x1 - x0));
    }
  rows.forEach((xs, row) => {
    xs.sort((a, b) => a - b);
    for (let q = 0; q + 1 < xs.length; q += 2) {
      const from = Math.max(0, Math.ceil(xs[q] / cell - 0.5));
      const to = Math.min(width - 1, Math.ceil(xs[q + 1] / cell - 0.5) - 1);
      if (to >= from) out.fill(1, row * width + from, row * width + to + 1);
    }
  });
  return out;
}
