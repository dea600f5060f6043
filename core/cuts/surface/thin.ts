/**
 * The fewest points of a line whose chords lie nowhere below it and nowhere more than `tolerance` above: from each
 * point the slopes that hold for all samples so far are kept as an interval, which is cut until nothing is left of it
 * (J. Sklansky, V. Gonzalez, "Fast polygonal approximation of digitized curves", 1980, with the corridor on one side).
 * @param s how far along each sample lies, rising, mm
 * @param z heights from sample `from` to `to`, both included
 * @returns indices of the samples kept, and the heights there, never below the line's own
 */
export function thinAbove(
  s: ArrayLike<number>,
  z: ArrayLike<number>,
  from: number,
  to: number,
  tolerance: number,
): { at: number[]; z: number[] } {
  const half = tolerance / 2;
  const at = [from];
  const out = [z[from] + half];
  let begin = from;
  let height = out[0];
  while (begin < to) {
    let [low, high] = [-Infinity, Infinity];
    let last = begin + 1;
    let slope = 0;
    for (let k = begin + 1; k <= to; k++) {
      const run = s[k] - s[begin];
      const least = (z[k] - height) / run;
      const most = (z[k] + tolerance - height) / run;
      const [nextLow, nextHigh] = [Math.max(low, least), Math.min(high, most)];
      if (nextLow > nextHigh) break;
      [low, high] = [nextLow, nextHigh];
      // The end must lie in the corridor itself, as near its middle as the slopes allow.
      slope = Math.max(low, Math.min(high, (z[k] + half - height) / run));
      last = k;
    }
    height += slope * (s[last] - s[begin]);
    at.push(last);
    out.push(height);
    begin = last;
  }
  return { at, z: out };
}
