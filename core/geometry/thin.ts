/**
 * Which points of a polyline in space to keep so that no dropped point is farther than `tolerance` mm from the kept
 * line: D. Douglas & T. Peucker 1973, without recursion. The first and last are always kept.
 * @param opened where given, a height counts by what a cutter opens there, mm, instead of by itself: near the stock's
 * top a round cutter opens far more than it sinks
 */
export function thin(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  z: ArrayLike<number> | null,
  from: number,
  to: number,
  tolerance: number,
  opened?: (z: number) => number,
): number[] {
  const keep: number[] = [from];
  const stack: [number, number][] = [[from, to]];
  const tol2 = tolerance * tolerance;
  while (stack.length > 0) {
    const [a, b] = stack.pop()!;
    const dx = x[b] - x[a];
    const dy = y[b] - y[a];
    const dz = z ? z[b] - z[a] : 0;
    const len2 = dx * dx + dy * dy + dz * dz;
    let worst = tol2;
    let at = -1;
    for (let i = a + 1; i < b; i++) {
      const px = x[i] - x[a];
      const py = y[i] - y[a];
      const pz = z ? z[i] - z[a] : 0;
      const t = len2 > 0 ? Math.max(0, Math.min(1, (px * dx + py * dy + pz * dz) / len2)) : 0;
      const off = opened && z ? opened(z[a] + t * dz) - opened(z[i]) : pz - t * dz;
      const d2 = (px - t * dx) ** 2 + (py - t * dy) ** 2 + off * off;
      if (d2 > worst) {
        worst = d2;
        at = i;
      }
    }
    if (at < 0) keep.push(b);
    else {
      stack.push([at, b]);
      stack.push([a, at]);
    }
  }
  return keep;
}
