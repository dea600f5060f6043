import Flatbush from "flatbush";
import { retraced } from "../../geometry/retrace.ts";
import { type Trail, trails } from "../../geometry/trail.ts";
import type { CutAxis } from "./axis.ts";

/**
 * Lifting, travelling and coming down again takes one and a half seconds or more: ways run twice in this many are
 * quicker.
 */
const LIFT_SECONDS = 1;
/** A stroke that comes down to a floor ends at the foot of its walls: nearer to it than this, mm, is there. */
const MEETS = 0.03;

/**
 * The strokes of a carve and the feet of its walls as few trails: strokes that end at a foot are joined to it, and
 * short ways that lead nowhere else are run out and back rather than lifted for. Trails begin at the stock's top where
 * they can.
 * @param feet closed trails at the floor's depth
 * @param feed mm/min
 */
export function joinedTrails(axis: CutAxis, feet: readonly Trail[], floor: number, feed: number): Trail[] {
  const x = [...axis.x];
  const y = [...axis.y];
  const z = [...axis.z];
  const a = [...axis.a];
  const b = [...axis.b];
  const strokeNodes = x.length;
  for (const t of feet) {
    const first = x.length;
    const n = t.x.length;
    for (let i = 0; i < n; i++) {
      x.push(t.x[i]);
      y.push(t.y[i]);
      z.push(t.z[i]);
      a.push(first + i);
      b.push(i + 1 < n ? first + i + 1 : first);
    }
  }
  joinToFeet({ x, y, z, a, b }, strokeNodes, floor);
  const again = retraced({ x, y, z, a, b }, (LIFT_SECONDS * feed) / 60);
  for (const e of again) {
    a.push(a[e]);
    b.push(b[e]);
  }
  return trails(x, y, z, a, b, true);
}

/** Strokes' ends at the floor's depth are joined to the point of the foot that lies there. */
function joinToFeet(
  { x, y, z, a, b }: { x: number[]; y: number[]; z: number[]; a: number[]; b: number[] },
  strokeNodes: number,
  floor: number,
): void {
  if (x.length === strokeNodes) return;
  const index = new Flatbush(x.length - strokeNodes);
  for (let i = strokeNodes; i < x.length; i++) index.add(x[i], y[i], x[i], y[i]);
  index.finish();
  for (let i = 0; i < strokeNodes; i++) {
    if (z[i] > -floor + 1e-9) continue;
    const [near] = index.neighbors(x[i], y[i], 1, MEETS);
    if (near === undefined) continue;
    a.push(i);
    b.push(strokeNodes + near);
  }
}
