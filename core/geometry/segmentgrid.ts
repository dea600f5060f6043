import Flatbush from "flatbush";
import { orient2d } from "robust-predicates";
import type { Rings } from "./rings.ts";
import { SegmentCells, squaredDistance } from "./segmentcells.ts";
import { hypot } from "../hypot.ts";

/** Distance to the edges of closed rings, and whether ways are clear of them, by indices made when they are asked. */
export class SegmentGrid {
  private cells: SegmentCells | null = null;
  private boxes: ReturnType<typeof boxesOf> | null = null;
  constructor(readonly rings: Rings) {}

  /**
   * Distance to the nearest edge, or `most` when none is that near.
   * @param enough any distance below this will do: the search ends with the first that it meets
   */
  distance(x: number, y: number, most: number, enough = 0): number {
    this.cells ??= new SegmentCells(this.rings);
    return this.cells.distance(x, y, most, enough);
  }

  /** Whether the way from (x0, y0) to (x1, y1) crosses no edge and comes nowhere nearer to one than `least`. */
  isClear(x0: number, y0: number, x1: number, y1: number, least: number): boolean {
    const least2 = least * least;
    const { xy } = this.rings;
    if (xy.length === 0) return true;
    const index = (this.boxes ??= boxesOf(this.rings));
    let clear = true;
    const blocks = (ax: number, ay: number, bx: number, by: number, i: number): boolean => {
      const j = index.ends[i];
      const [px, py, qx, qy] = [xy[2 * i], xy[2 * i + 1], xy[2 * j], xy[2 * j + 1]];
      if (
        orient2d(ax, ay, bx, by, px, py) * orient2d(ax, ay, bx, by, qx, qy) < 0 &&
        orient2d(px, py, qx, qy, ax, ay) * orient2d(px, py, qx, qy, bx, by) < 0
      )
        return true;
      // Segments that do not cross are nearest at an end of one of them.
      return (
        squaredDistance(ax, ay, px, py, qx, qy) < least2 ||
        squaredDistance(bx, by, px, py, qx, qy) < least2 ||
        squaredDistance(px, py, ax, ay, bx, by) < least2 ||
        squaredDistance(qx, qy, ax, ay, bx, by) < least2
      );
    };
    // Piece by piece: the box round a long slanting way holds far more edges than lie along it.
    const pieces = Math.max(1, Math.min(64, Math.ceil(hypot(x1 - x0, y1 - y0) / Math.max(least, 1))));
    for (let k = 0; k < pieces && clear; k++) {
      const [ax, ay] = [x0 + ((x1 - x0) * k) / pieces, y0 + ((y1 - y0) * k) / pieces];
      const [bx, by] = [x0 + ((x1 - x0) * (k + 1)) / pieces, y0 + ((y1 - y0) * (k + 1)) / pieces];
      index.boxes.search(
        Math.min(ax, bx) - least,
        Math.min(ay, by) - least,
        Math.max(ax, bx) + least,
        Math.max(ay, by) + least,
        (i) => {
          if (clear && blocks(ax, ay, bx, by, i)) clear = false;
          return false;
        },
      );
    }
    return clear;
  }
}

/** The boxes of all edges, and the point that each leads to. */
function boxesOf({ xy, starts }: Rings): { boxes: Flatbush; ends: Int32Array } {
  const n = xy.length / 2;
  const ends = new Int32Array(n);
  const boxes = new Flatbush(n);
  for (let k = 0; k + 1 < starts.length; k++)
    for (let i = starts[k]; i < starts[k + 1]; i++) {
      const j = (ends[i] = i + 1 < starts[k + 1] ? i + 1 : starts[k]);
      boxes.add(
        Math.min(xy[2 * i], xy[2 * j]),
        Math.min(xy[2 * i + 1], xy[2 * j + 1]),
        Math.max(xy[2 * i], xy[2 * j]),
        Math.max(xy[2 * i + 1], xy[2 * j + 1]),
      );
    }
  boxes.finish();
  return { boxes, ends };
}
