/**
 * Corners of a closed contour: points where the direction turns by more than `cornerAngle` over a short arm on either
 * side, and more than anywhere nearby. Directions come from chords of `arm` points, long enough to see past the
 * rounding that a pixel grid gives every corner.
 *
 * @param xy x, y by turns
 * @param cornerAngle radians
 * @returns indices into the contour, ascending
 */
export function findCorners(xy: Float64Array, n: number, arm: number, cornerAngle: number): number[] {
  if (n < 4 * arm) arm = Math.max(1, Math.floor(n / 4));
  const turn = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const p = 2 * ((i - arm + n) % n);
    const q = 2 * ((i + arm) % n);
    const ax = xy[2 * i] - xy[p];
    const ay = xy[2 * i + 1] - xy[p + 1];
    const bx = xy[q] - xy[2 * i];
    const by = xy[q + 1] - xy[2 * i + 1];
    turn[i] = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
  }
  const corners: number[] = [];
  for (let i = 0; i < n; i++) {
    if (turn[i] < cornerAngle) continue;
    let peak = true;
    for (let d = 1; d <= arm && peak; d++) peak = turn[(i - d + n) % n] < turn[i] && turn[(i + d) % n] <= turn[i];
    if (peak) corners.push(i);
  }
  return corners;
}
