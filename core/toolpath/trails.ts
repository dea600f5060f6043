import type { Trail } from "../geometry/trails.ts";

/**
 * An order that travels little: always the nearest open end next, trails turned round where that is nearer.
 * @returns indices, with whether to run each backwards
 */
export function nearestOrder(ends: readonly { x0: number; y0: number; x1: number; y1: number; oneWay?: boolean }[], x = 0, y = 0): { index: number; reverse: boolean }[] {
  const n = ends.length;
  const done = new Uint8Array(n);
  const out: { index: number; reverse: boolean }[] = [];
  for (let k = 0; k < n; k++) {
    let best = -1;
    let reverse = false;
    let near = Infinity;
    for (let i = 0; i < n; i++) {
      if (done[i]) continue;
      const e = ends[i];
      const a = (e.x0 - x) ** 2 + (e.y0 - y) ** 2;
      const b = e.oneWay ? Infinity : (e.x1 - x) ** 2 + (e.y1 - y) ** 2;
      if (a < near) {
        near = a;
        best = i;
        reverse = false;
      }
      if (b < near) {
        near = b;
        best = i;
        reverse = true;
      }
    }
    done[best] = 1;
    out.push({ index: best, reverse });
    x = reverse ? ends[best].x0 : ends[best].x1;
    y = reverse ? ends[best].y0 : ends[best].y1;
  }
  return out;
}

/** The parts of a trail deeper than −z0 (z below `above`), held no lower than `floor`; both negative or zero. */
export function between(t: Trail, above: number, floor: number): Trail[] {
  const out: Trail[] = [];
  let px: number[] = [];
  let py: number[] = [];
  let pz: number[] = [];
  const end = () => {
    if (px.length > 1) out.push({ x: Float64Array.from(px), y: Float64Array.from(py), z: Float64Array.from(pz) });
    px = [];
    py = [];
    pz = [];
  };
  const push = (x: number, y: number, z: number) => {
    px.push(x);
    py.push(y);
    pz.push(Math.max(z, floor));
  };
  for (let i = 0; i < t.x.length; i++) {
    if (i > 0) {
      // Break the piece where it passes either level, so that the held line bends at the right place.
      const cuts: number[] = [];
      for (const level of [above, floor]) {
        const f = (level - t.z[i - 1]) / (t.z[i] - t.z[i - 1]);
        if (f > 1e-9 && f < 1 - 1e-9) cuts.push(f);
      }
      cuts.sort((a, b) => a - b);
      for (const f of cuts) {
        const z = t.z[i - 1] + f * (t.z[i] - t.z[i - 1]);
        push(t.x[i - 1] + f * (t.x[i] - t.x[i - 1]), t.y[i - 1] + f * (t.y[i] - t.y[i - 1]), z);
        if (Math.abs(z - above) < 1e-9 && t.z[i] > above) end();
      }
    }
    if (t.z[i] <= above + 1e-12) push(t.x[i], t.y[i], t.z[i]);
    else end();
  }
  end();
  return out;
}
