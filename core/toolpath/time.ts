import type { Machine } from "../cutters/machine.ts";
import { isArc, moveLength, RAPID, sweepOf, TORCH_OFF, TORCH_ON, type Toolpath } from "./toolpath.ts";
import { hypot } from "../hypot.ts";

/**
 * Seconds each move takes on a machine with limited acceleration, looking ahead over the whole path.
 *
 * Every move has a trapezoidal speed profile; the speed through the corner between two moves follows the junction-
 * deviation model v² = a·δ·sin(θ/2)/(1 − sin(θ/2)) (S. Jeon, "Improving grbl: cornering algorithm", 2011), arcs
 * are held to v² = a·r, and a backward and a forward pass make every speed reachable. Rates per axis: rapids and
 * acceleration differ for Z.
 *
 * @returns one figure a move; add the machine's start, tool-change and dwell times outside
 */
export function moveSeconds(t: Toolpath, m: Machine): Float64Array {
  const n = t.kind.length;
  const seconds = new Float64Array(n);
  const length = new Float64Array(n);
  const speed = new Float64Array(n);
  const accel = new Float64Array(n);
  // Unit directions in at the start and out at the end of each move.
  const inX = new Float64Array(n);
  const inY = new Float64Array(n);
  const inZ = new Float64Array(n);
  const outX = new Float64Array(n);
  const outY = new Float64Array(n);
  for (let i = 1; i < n; i++) {
    const len = moveLength(t, i);
    length[i] = len;
    if (len < 1e-9) continue;
    const dz = t.z[i] - t.z[i - 1];
    const flat = Math.sqrt(Math.max(0, len * len - dz * dz));
    const uz = dz / len;
    const ux = flat / len;
    accel[i] = Math.min(
      ux > 1e-6 ? m.acceleration / ux : Infinity,
      Math.abs(uz) > 1e-6 ? m.accelerationZ / Math.abs(uz) : Infinity,
    );
    const limit = Math.min(
      ux > 1e-6 ? m.rapid / ux : Infinity,
      Math.abs(uz) > 1e-6 ? m.rapidZ / Math.abs(uz) : Infinity,
    );
    speed[i] = (t.kind[i] === RAPID ? limit : Math.min(limit, t.feed[i])) / 60;
    inZ[i] = uz;
    if (isArc(t.kind[i])) {
      const turn = Math.sign(sweepOf(t, i));
      const r = hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]) || 1e-9;
      speed[i] = Math.min(speed[i], Math.sqrt(m.acceleration * r));
      inX[i] = (-(t.y[i - 1] - t.cy[i]) * turn * ux) / r;
      inY[i] = ((t.x[i - 1] - t.cx[i]) * turn * ux) / r;
      outX[i] = (-(t.y[i] - t.cy[i]) * turn * ux) / r;
      outY[i] = ((t.x[i] - t.cx[i]) * turn * ux) / r;
    } else {
      inX[i] = outX[i] = (t.x[i] - t.x[i - 1]) / len;
      inY[i] = outY[i] = (t.y[i] - t.y[i - 1]) / len;
    }
  }
  // Largest speed into each move; the path begins and ends at rest.
  const entry = new Float64Array(n + 1);
  let before = -1;
  const waits = (i: number) => t.kind[i] === TORCH_ON || t.kind[i] === TORCH_OFF;
  for (let i = 1; i < n; i++) {
    if (waits(i)) before = -1;
    if (length[i] < 1e-9) continue;
    if (before >= 0) {
      const cos = -(outX[before] * inX[i] + outY[before] * inY[i] + inZ[before] * inZ[i]);
      entry[i] = Math.min(speed[before], speed[i], cornerSpeed(cos, Math.min(accel[before], accel[i]), m.junction));
    }
    before = i;
  }
  let next = 0;
  for (let i = n - 1; i > 0; i--) {
    if (length[i] < 1e-9) continue;
    entry[i] = Math.min(entry[i], Math.sqrt(next * next + 2 * accel[i] * length[i]));
    next = entry[i];
  }
  // Exit of a move is the entry of the next that goes anywhere.
  const exit = new Float64Array(n);
  let following = 0;
  for (let i = n - 1; i > 0; i--) {
    if (waits(i)) following = 0;
    if (length[i] < 1e-9) continue;
    exit[i] = following;
    following = entry[i];
  }
  let v0 = 0;
  for (let i = 1; i < n; i++) {
    if (waits(i)) seconds[i] = t.feed[i];
    if (length[i] < 1e-9) continue;
    v0 = Math.min(v0, entry[i]);
    const v1 = Math.min(exit[i], Math.sqrt(v0 * v0 + 2 * accel[i] * length[i]));
    seconds[i] = trapezoid(length[i], v0, v1, speed[i], accel[i]);
    v0 = v1;
  }
  return seconds;
}

/** Corner speed for the cosine of the inside angle between two moves (1: turns back, −1: straight on). */
function cornerSpeed(cosInside: number, a: number, junction: number): number {
  if (cosInside > 0.999999) return 0;
  const half = Math.sqrt(0.5 * (1 - cosInside));
  if (half > 0.999999) return Infinity;
  return Math.sqrt((a * junction * half) / (1 - half));
}

/** Seconds over `s` mm from v0 to v1, at most `v`, mm/s, accelerating at `a`, mm/s². */
export function trapezoid(s: number, v0: number, v1: number, v: number, a: number): number {
  const up = Math.max(0, v * v - v0 * v0) / (2 * a);
  const down = Math.max(0, v * v - v1 * v1) / (2 * a);
  if (up + down <= s) return (v - v0) / a + (v - v1) / a + (s - up - down) / v;
  const peak = Math.sqrt(Math.max(v0 * v0, v1 * v1, (2 * a * s + v0 * v0 + v1 * v1) / 2));
  return (peak - v0) / a + (peak - v1) / a;
}
