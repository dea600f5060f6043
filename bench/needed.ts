import { type Clearance, inset } from "@oaken/core/geometry/clearance/clearance";
import { ringsLength } from "@oaken/core/geometry/rings";

/** Clearance grows this fast along the axis between walls that meet in no corner to speak of. */
const BLUNT = 0.97;

/** Floor that no clearing cutter took. */
export interface OpenFloor {
  isOpen(x: number, y: number): boolean;
  /** mm² */
  area: number;
}

/**
 * The way that a carve's point cannot do without, mm: the medial axis above the floor's depth, and where it crosses
 * floor that no clearing cutter took; the foot of every wall; and that floor's area over the distance between passes.
 * @param rho clearance at which the carve gets down to its floor, mm
 * @param slope depth for each mm of clearance
 * @param apart distance between rows that leaves the stated ridge, mm
 * @param from clearance down to which an earlier pass went, mm: what is shallower is done
 */
export function neededLength(
  c: Clearance,
  { rho, slope, apart, from = 0 }: { rho: number; slope: number; apart: number; from?: number },
  floor: OpenFloor,
): number {
  const { axis, kept } = c;
  let needed = 0;
  for (let e = 0; e < axis.a.length; e++) {
    if (!kept[e]) continue;
    const [lo, hi] = axis.d[axis.a[e]] < axis.d[axis.b[e]] ? [axis.a[e], axis.b[e]] : [axis.b[e], axis.a[e]];
    const length = Math.hypot(axis.x[hi] - axis.x[lo], axis.y[hi] - axis.y[lo]);
    if (axis.d[lo] >= rho) {
      // Over open floor, where rings bend too sharply for their ridge: not where one point's clearance just grows.
      const rises = axis.d[hi] - axis.d[lo] >= BLUNT * length;
      if (!rises && floor.isOpen(axis.x[lo], axis.y[lo])) needed += length;
      continue;
    }
    const rise = axis.d[hi] - axis.d[lo];
    const [low, high] = [Math.max(from, axis.d[lo]), Math.min(rho, axis.d[hi])];
    if (high < low) continue;
    const share = rise > 0 ? (high - low) / rise : 1;
    needed += share * Math.hypot(length, rise * slope);
  }
  if (c.widest > rho) needed += ringsLength(inset(c, rho).rings);
  return needed + floor.area / apart;
}
