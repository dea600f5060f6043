/** Letters that nobody takes for others, read or said: D. Crockford's base 32. */
const LETTERS = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
const LENGTH = 6;
/** FNV-1a, 32 bits (G. Fowler, L. C. Noll, K.-P. Vo). */
const OFFSET = 0x811c9dc5;
const PRIME = 0x01000193;

/** A short code that a sheet and its programs share: other jobs and other states of this one have others. */
export function shortCode(of: unknown): string {
  const text = JSON.stringify(of);
  let low = OFFSET;
  let high = OFFSET ^ text.length;
  for (let i = 0; i < text.length; i++) {
    low = Math.imul(low ^ text.charCodeAt(i), PRIME);
    high = Math.imul(high ^ (text.charCodeAt(i) + i), PRIME);
  }
  let out = "";
  for (let i = 0; i < LENGTH; i++) {
    const from = i % 2 === 0 ? low : high;
    out += LETTERS[(from >>> (5 * (i >> 1) + 2)) & 31];
  }
  return out;
}
