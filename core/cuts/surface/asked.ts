import { heightAt, type HeightField, rangeOf } from "../../height/field.ts";
import { emptyRings, type Rings } from "../../geometry/rings.ts";
import { rectangle } from "../../geometry/shape.ts";
import { type Asked, BESIDE, middleOf } from "../../proof/asked.ts";
import type { CutInputs, HEIGHT_ART } from "../kind.ts";

/** The lowest z of the surface that is wanted, mm; kept, since choosing asks for it hundreds of times. */
export const lowestOf = ({ kept, reads }: Pick<CutInputs<typeof HEIGHT_ART>, "kept" | "reads">): number =>
  kept.of("lowest", [reads.art], ({ field }) => rangeOf(field).low);

/** The part of a board that a field covers, as a region. */
export function regionOf(f: HeightField, board: { width: number; height: number }): Rings {
  const x = [Math.max(0, f.x0), Math.min(board.width, f.x0 + f.width * f.cell)];
  const y = [Math.max(0, f.y0), Math.min(board.height, f.y0 + f.height * f.cell)];
  return x[0] < x[1] && y[0] < y[1] ? rectangle(x[0], y[0], x[1], y[1]) : emptyRings();
}

/** Where the wanted surface rises or falls faster than this, mm per mm, it is an upright wall. */
const UPRIGHT = 4;

/** A wanted surface, in the middle of every cell of a map. */
export const heightAsked = (f: HeightField, region: Rings, ridge: number): Asked => ({
  region,
  flat: null,
  ridge,
  over: (grid) => (k) => heightAt(f, ...middleOf(k, grid)),
  isWall(grid) {
    const beside = BESIDE * grid.cell;
    const most = 2 * beside * UPRIGHT;
    return (k) => {
      const [x, y] = middleOf(k, grid);
      const along = Math.abs(heightAt(f, x + beside, y) - heightAt(f, x - beside, y));
      const away = Math.abs(heightAt(f, x, y + beside) - heightAt(f, x, y - beside));
      return Math.max(along, away) > most;
    };
  },
});
