import { boundsOf, type Box, insideRing, ringArea, ringIndices, type Rings } from "../../geometry/rings.ts";
import { hypot } from "../../hypot.ts";

/** Less than this from a ring, mm, is on it. */
const ASIDE = 1e-4;

/**
 * The parts of an area between which a cutter has to be lifted: what hangs together of an inset, inside which it may
 * be.
 */
export class Parts {
  /** outer rings with their boxes, the smaller first: of those round a place the smallest counts */
  private readonly outer: { k: number; box: Box }[];

  /** @param rings of the inset */
  constructor(private readonly rings: Rings) {
    this.outer = ringIndices(rings)
      .map((k) => ({ k, area: ringArea(rings, k) }))
      .filter(({ area }) => area > 0)
      .sort((a, b) => a.area - b.area)
      .map(({ k }) => ({ k, box: boundsOf(rings.xy, rings.starts[k], rings.starts[k + 1]) }));
  }

  get count(): number {
    return this.outer.length;
  }

  /** The part in which a place far enough inside lies, as a number that is the same all over it; −1 for none. */
  at(x: number, y: number): number {
    const round = this.outer.find(
      ({ k, box }) =>
        x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY && insideRing(this.rings, k, x, y),
    );
    return round ? round.k : -1;
  }

  /** Round a part; round everything for none. */
  boxOf(part: number): Box {
    const known = this.outer.find(({ k }) => k === part);
    return known?.box ?? { minX: -Infinity, minY: -Infinity, maxX: Infinity, maxY: Infinity };
  }

  /** The part in which a ring lies that is at least as far inside the region; its left side is farther in. */
  ofRing({ xy, starts }: Rings, k: number): number {
    for (let i = starts[k]; i + 1 < starts[k + 1]; i++) {
      const [dx, dy] = [xy[2 * i + 2] - xy[2 * i], xy[2 * i + 3] - xy[2 * i + 1]];
      const length = hypot(dx, dy);
      if (length < ASIDE) continue;
      const x = xy[2 * i] + dx / 2 - (dy / length) * ASIDE;
      const y = xy[2 * i + 1] + dy / 2 + (dx / length) * ASIDE;
      return this.at(x, y);
    }
    return -1;
  }
}
