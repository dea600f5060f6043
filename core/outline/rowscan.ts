import type { Grey } from "../picture/raster.ts";

/** Of each of a word's four bytes: the highest bit, the others, one. */
const HIGH = 0x80808080 | 0;
const LOW = 0x7f7f7f7f;
const EACH = 0x01010101;

/** Rows of a picture looked through for crossings, four pixels at a time. */
export interface RowScan {
  /** Looks through row y, the one after the last. @returns how many words are crossed */
  next(y: number): number;
  /**
   * which word of the row, its ink, and where that changes from the left and from the row above: the high bit of each
   * byte
   */
  at: Int32Array;
  ink: Int32Array;
  across: Int32Array;
  down: Int32Array;
}

/**
 * Four pixels a word, the first in the lowest byte, compared in a few whole-number operations (L. Lamport, "Multiple
 * byte processing with full-word instructions", CACM 18, 1975).
 */
export function rowScan(grey: Grey, limit: number): RowScan {
  const { width: W, data } = grey;
  const n = Math.ceil(W / 4);
  // Bytes of a row where they lie so in memory, else copied so; deeper samples are compared first.
  const aligned = data instanceof Uint8Array && W % 4 === 0 && data.byteOffset % 4 === 0;
  const bytes = new Uint8Array(4 * n);
  const words = aligned ? new Int32Array(data.buffer, data.byteOffset, data.length >> 2) : new Int32Array(bytes.buffer);
  const bound = data instanceof Uint8Array ? Math.min(256, limit) : 128;
  // Pixels of a row's last word that lie in the picture.
  const inside = HIGH >>> (8 * (4 * n - W));
  const above = new Int32Array(n);
  const [at, ink, across, down] = [0, 1, 2, 3].map(() => new Int32Array(n));
  return {
    at,
    ink,
    across,
    down,
    next(y) {
      const row = y * W;
      if (data instanceof Uint16Array) for (let x = 0; x < W; x++) bytes[x] = data[row + x] < limit ? 0 : 255;
      else if (!aligned) bytes.set(data.subarray(row, row + W));
      const count = crossedWords(words, aligned ? row >> 2 : 0, bound, above, at, ink, across, down);
      if (count > 0 && at[count - 1] === n - 1) {
        across[count - 1] &= inside;
        down[count - 1] &= inside;
      }
      return count;
    },
  };
}

/**
 * The ink of the row above, which becomes that of this one, against the words of this one.
 * @returns how many are crossed
 */
function crossedWords(
  words: Int32Array,
  from: number,
  bound: number,
  above: Int32Array,
  at: Int32Array,
  inks: Int32Array,
  across: Int32Array,
  down: Int32Array,
): number {
  // Up to the middle, a byte is at least the bound where its high bit is set or the other bits and the bound's distance
  // from the middle carry into it; beyond the middle the same is asked of its complement.
  const beyond = bound > 128;
  const flip = beyond ? -1 : 0;
  const add = (beyond ? bound - 128 : 128 - bound) * EACH;
  let count = 0;
  let before = -1;
  // Most words lie wholly on the side that the ones on their left and above lie on.
  let flat = -1;
  let same = 0;
  for (let i = 0; i < above.length; i++) {
    const raw = words[from + i];
    if (raw === same && above[i] === flat) continue;
    const word = raw ^ flip;
    same = raw;
    const ink = ((((word & LOW) + add) | word) ^ ~flip) & HIGH;
    if (ink === flat && ink === above[i]) continue;
    // The first pixel has no neighbour on its left to differ from.
    const a = ink ^ ((ink << 8) | (i > 0 ? before >>> 24 : ink & 0x80));
    const d = ink ^ above[i];
    above[i] = before = ink;
    flat = ink === 0 || ink === HIGH ? ink : -1;
    if ((a | d) === 0) continue;
    at[count] = i;
    inks[count] = ink;
    across[count] = a;
    down[count++] = d;
  }
  return count;
}
