import { arcSteps, arcSweep } from "../geometry/shape.ts";
import { ARC_CW, isArc, TORCH_OFF, TORCH_ON, type Toolpath } from "./toolpath.ts";
import { hypot } from "../hypot.ts";

/** How far the lines that stand for arcs may be from them, mm. */
const CHORD = 0.05;

/** A straight part of a move: where it begins and where it ends. */
type Piece = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number) => void;

/** Every move as straight pieces; the first begins where it ends, since a program comes from above. */
export function eachPiece(t: Toolpath, take: Piece): void {
  let [x, y, z] = [NaN, NaN, NaN];
  for (let i = 0; i < t.kind.length; i++) {
    if (t.kind[i] === TORCH_ON || t.kind[i] === TORCH_OFF) continue;
    const [tx, ty, tz] = [t.x[i], t.y[i], t.z[i]];
    if (i === 0 || Number.isNaN(x)) [x, y, z] = [tx, ty, tz];
    if (isArc(t.kind[i])) {
      const [cx, cy] = [t.cx[i], t.cy[i]];
      const sweep = arcSweep(x, y, cx, cy, t.kind[i] === ARC_CW ? -1 : 1, tx, ty);
      const radius = hypot(x - cx, y - cy);
      const steps = arcSteps(radius, sweep, CHORD);
      const from = Math.atan2(y - cy, x - cx);
      let [ax, ay, az] = [x, y, z];
      for (let k = 1; k <= steps; k++) {
        const share = k / steps;
        const angle = from + sweep * share;
        const [bx, by] = k === steps ? [tx, ty] : [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
        const bz = z + (tz - z) * share;
        take(ax, ay, az, bx, by, bz);
        [ax, ay, az] = [bx, by, bz];
      }
    } else take(x, y, z, tx, ty, tz);
    [x, y, z] = [tx, ty, tz];
  }
}
