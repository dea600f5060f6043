import type { HeightField } from "./field.ts";

/** Where places along one axis lie among a field's samples. */
interface Spots {
  /** the sample at or before each; −1: outside the field */
  at: Int32Array;
  /** how far it is to the next, of one */
  share: Float64Array;
}

function spotsOf(places: Float64Array, from: number, cell: number, count: number): Spots {
  const at = new Int32Array(places.length);
  const share = new Float64Array(places.length);
  for (let k = 0; k < places.length; k++) {
    const u = (places[k] - from) / cell;
    if (u < 0 || u > count) {
      at[k] = -1;
      continue;
    }
    const level = Math.max(0, Math.min(count - 1, u - 0.5));
    at[k] = Math.floor(level);
    share[k] = level - at[k];
  }
  return { at, share };
}

/**
 * A field at the crossings of columns x and rows y, each the highest of `several` × `several` that follow each other;
 * the same as heightAt at each, to rounding. Goes row by row: each is read once for all columns.
 * @param xs, ys mm; their number a multiple of `several`
 */
export function highestOf(f: HeightField, xs: Float64Array, ys: Float64Array, several: number): Float32Array {
  const width = xs.length / several;
  const z = new Float32Array(width * (ys.length / several)).fill(-Infinity);
  const across = spotsOf(xs, f.x0, f.cell, f.width);
  const down = spotsOf(ys, f.y0, f.cell, f.height);
  const line = new Float64Array(f.width);
  const highest = new Float64Array(width);
  for (let row = 0; row < ys.length; row++) {
    // Beyond the board many rows are one.
    const isSame = row > 0 && down.at[row] === down.at[row - 1] && down.share[row] === down.share[row - 1];
    if (!isSame) highestAcross(f, { at: down.at[row], share: down.share[row] }, { across, several, line, highest });
    const first = Math.floor(row / several) * width;
    for (let i = 0; i < width; i++) if (highest[i] > z[first + i]) z[first + i] = highest[i];
  }
  return z;
}

/** Of one row of a field, at one place between its samples: into `highest`, the highest of each several. */
function highestAcross(
  { width, height, z }: HeightField,
  row: { at: number; share: number },
  to: { across: Spots; several: number; line: Float64Array; highest: Float64Array },
): void {
  const { across, several, line, highest } = to;
  if (row.at < 0) {
    highest.fill(0);
    return;
  }
  const near = row.at * width;
  const far = Math.min(height - 1, row.at + 1) * width;
  for (let i = 0; i < width; i++) line[i] = z[near + i] * (1 - row.share) + z[far + i] * row.share;
  for (let i = 0, k = 0; i < highest.length; i++) {
    let top = -Infinity;
    for (const end = k + several; k < end; k++) {
      const at = across.at[k];
      const share = across.share[k];
      const here = at < 0 ? 0 : line[at] * (1 - share) + line[Math.min(width - 1, at + 1)] * share;
      if (here > top) top = here;
    }
    highest[i] = top;
  }
}
