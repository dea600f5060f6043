import { clip, EDGE, span } from "./span.ts";
import type { Swath } from "./swath.ts";
import type { Surface } from "./surface.ts";

/** A sloping flat: what it leaves behind on its way down from its upper end, all but the disc at its lower end. */
export function cutCrescent(s: Surface, cut: number, k: Swath): void {
  const { cell, width, height, z, by } = s;
  const R = k.reach;
  const sinks = k.slope < 0;
  const [x0, y0, z0, x1, y1] = sinks ? [k.x0, k.y0, k.z0, k.x1, k.y1] : [k.x1, k.y1, k.z1, k.x0, k.y0];
  const ux = sinks ? k.ux : -k.ux;
  const uy = sinks ? k.uy : -k.uy;
  const fall = Math.abs(k.slope);
  const j0 = Math.max(0, Math.ceil((Math.min(y0, y1) - R) / cell - 0.5));
  const j1 = Math.min(height - 1, Math.floor((Math.max(y0, y1) + R) / cell - 0.5));
  for (let j = j0; j <= j1; j++) {
    const y = (j + 0.5) * cell - y0;
    // The move's whole row: both discs and the strip between them.
    span[0] = -Infinity;
    span[1] = Infinity;
    clip(-uy, y * ux, -R, R);
    clip(ux, y * uy, 0, k.length);
    if (span[0] > span[1]) {
      span[0] = Infinity;
      span[1] = -Infinity;
    }
    const start = R * R - y * y;
    if (start >= 0) {
      const half = Math.sqrt(start);
      span[0] = Math.min(span[0], -half);
      span[1] = Math.max(span[1], half);
    }
    const v1 = y + y0 - y1;
    const end = R * R - v1 * v1;
    const half = end >= 0 ? Math.sqrt(end) : -1;
    if (half >= 0) {
      span[0] = Math.min(span[0], x1 - x0 - half);
      span[1] = Math.max(span[1], x1 - x0 + half);
    }
    const i0 = Math.max(0, Math.ceil((x0 + span[0]) / cell - 0.5 - EDGE));
    const i1 = Math.min(width - 1, Math.floor((x0 + span[1]) / cell - 0.5 + EDGE));
    const skipFrom = half < 0 ? i1 + 1 : Math.max(i0, Math.ceil((x1 - half) / cell - 0.5 + EDGE));
    const skipTo = half < 0 ? i1 : Math.min(i1, Math.floor((x1 + half) / cell - 0.5 - EDGE));
    for (let i = i0, at = j * width + i0; i <= i1; i++, at++) {
      if (i === skipFrom && skipTo >= skipFrom) {
        at += skipTo - skipFrom;
        i = skipTo;
        continue;
      }
      const x = (i + 0.5) * cell - x0;
      const across = y * ux - x * uy;
      const rim = R * R - across * across;
      if (rim < 0) continue;
      const w = x * ux + y * uy + Math.sqrt(rim);
      const v = z0 - fall * (w < 0 ? 0 : w > k.length ? k.length : w);
      if (v < z[at]) {
        z[at] = v;
        by[at] = cut;
      }
    }
  }
}
