import { ARC_CCW, ARC_CW, RAPID, sweepOf, TORCH_OFF, TORCH_ON, type Toolpath } from "../toolpath/toolpath.ts";

/**
 * What a flat cutter's moves downwards meet with, found by stamping its disc along every move: nothing here comes from
 * the planner.
 */
export interface Entries {
  /** moves straight down that bite with more than a sliver of the cutter's face, as their indices */
  plunges: number[];
  /** the steepest fall over run of moves that bite on their way down, and which it is */
  steepest: number;
  steepestAt: number;
  /** rapids through stock */
  rapids: number[];
}

/** Share of the face that may touch stock beside a wall without that being an entry. */
const SLIVER = 0.04;
/** Stock this much above the tip counts, mm. */
const STANDS = 0.03;

/**
 * @param size of the stock, mm square
 * @param before stock that earlier cuts left, cell by cell; changed in place
 * @param cell side of the cells, mm
 */
export function entriesOf(
  t: Toolpath,
  radius: number,
  size: number,
  before?: Float32Array,
  cell = stockCell(radius),
): Entries {
  const n = Math.ceil(size / cell);
  const z = before ?? new Float32Array(n * n);
  const out: Entries = { plunges: [], steepest: 0, steepestAt: -1, rapids: [] };
  const inner = radius - 1.6 * cell;
  const each = (x: number, y: number, r: number, visit: (k: number) => void): number => {
    let count = 0;
    for (let j = Math.max(0, Math.ceil((y - r) / cell)); j <= Math.min(n - 1, Math.floor((y + r) / cell)); j++)
      for (let i = Math.max(0, Math.ceil((x - r) / cell)); i <= Math.min(n - 1, Math.floor((x + r) / cell)); i++) {
        if ((i * cell - x) ** 2 + (j * cell - y) ** 2 > r * r) continue;
        visit(j * n + i);
        count++;
      }
    return count;
  };
  const bites = (x: number, y: number, tip: number): boolean => {
    let standing = 0;
    const all = each(x, y, inner, (k) => z[k] > tip + STANDS && standing++);
    return standing > SLIVER * all;
  };
  for (let i = 1; i < t.kind.length; i++) {
    if (t.kind[i] === TORCH_ON || t.kind[i] === TORCH_OFF) continue;
    const [x0, y0, z0, x1, y1, z1] = [t.x[i - 1], t.y[i - 1], t.z[i - 1], t.x[i], t.y[i], t.z[i]];
    const arc = t.kind[i] === ARC_CCW || t.kind[i] === ARC_CW;
    const r = arc ? Math.hypot(x1 - t.cx[i], y1 - t.cy[i]) : 0;
    const turn = arc ? sweepOf(t, i) : 0;
    const a0 = arc ? Math.atan2(y0 - t.cy[i], x0 - t.cx[i]) : 0;
    const length = arc ? r * Math.abs(turn) : Math.hypot(x1 - x0, y1 - y0);
    const at = (f: number): [number, number, number] => [
      arc ? t.cx[i] + r * Math.cos(a0 + turn * f) : x0 + f * (x1 - x0),
      arc ? t.cy[i] + r * Math.sin(a0 + turn * f) : y0 + f * (y1 - y0),
      z0 + f * (z1 - z0),
    ];
    const steps = Math.max(1, Math.ceil(length / cell));
    if (t.kind[i] === RAPID) {
      for (let k = 0; k <= steps; k++) {
        const [x, y, tip] = at(k / steps);
        if (tip < 0 && bites(x, y, tip)) {
          out.rapids.push(i);
          break;
        }
      }
      continue;
    }
    if (length < 1e-6) {
      if (z1 < z0 && bites(x1, y1, z1)) out.plunges.push(i);
    } else if (z1 < z0 && (z0 - z1) / length > out.steepest) {
      for (let k = 1; k <= 4; k++)
        if (bites(...at(k / 4))) {
          out.steepest = (z0 - z1) / length;
          out.steepestAt = i;
          break;
        }
    }
    for (let k = 0; k <= steps; k++) {
      const [x, y, tip] = at(k / steps);
      each(x, y, radius, (q) => (z[q] = Math.min(z[q], tip)));
    }
  }
  return out;
}

/** Side of the cells that a cutter of this radius is stamped on, mm. */
export const stockCell = (radius: number): number => Math.max(0.08, radius / 12);
