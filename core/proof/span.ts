/** Rounding that a cell's middle on an edge may have, in cells: it belongs to both sides. */
export const EDGE = 1e-7;

// The stretch of a row at hand, from and to, mm. An array, because numbers in variables out here would be boxed at
// every write.
export const span = new Float64Array(2);

/** Narrows the stretch to where least ≤ k·x + c ≤ most. */
export function clip(k: number, c: number, least: number, most: number): void {
  if (k > 1e-12) {
    const a = (least - c) / k;
    const b = (most - c) / k;
    if (a > span[0]) span[0] = a;
    if (b < span[1]) span[1] = b;
  } else if (k < -1e-12) {
    const a = (most - c) / k;
    const b = (least - c) / k;
    if (a > span[0]) span[0] = a;
    if (b < span[1]) span[1] = b;
  } else if (c < least || c > most) span[1] = -Infinity;
}
