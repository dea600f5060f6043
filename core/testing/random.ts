/** Small seeded generator (mulberry32), so that a failing random test can be run again. */
export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * A star polygon round (cx, cy): n points at random radii between r0 and r1, counter-clockwise, never crossing itself.
 */
export function star(random: () => number, n: number, r0: number, r1: number, cx = 0, cy = 0): [number, number][] {
  const points: [number, number][] = [];
  for (let i = 0; i < n; i++) {
    const a = ((i + 0.8 * (random() - 0.5)) / n) * 2 * Math.PI;
    const r = r0 + (r1 - r0) * random();
    points.push([cx + r * Math.cos(a), cy + r * Math.sin(a)]);
  }
  return points;
}

/**
 * A smooth wavy blob round (cx, cy), n points, mean radius r, as a tracing of a drawing comes: finely flattened curves.
 */
export function blob(random: () => number, n: number, r: number, cx = 0, cy = 0, wave = 0.12): [number, number][] {
  const waves = [2, 3, 5, 9, 17].map((k) => ({
    k,
    a: (wave * r * random()) / Math.sqrt(k),
    f: 2 * Math.PI * random(),
  }));
  return Array.from({ length: n }, (_, i) => {
    const a = (i / n) * 2 * Math.PI;
    let at = r;
    for (const w of waves) at += w.a * Math.cos(w.k * a + w.f);
    return [cx + at * Math.cos(a), cy + at * Math.sin(a)] as [number, number];
  });
}

/** A regular polygon that stands for a circle. */
export function circle(cx: number, cy: number, r: number, n: number, clockwise = false): [number, number][] {
  return Array.from({ length: n }, (_, i) => {
    const a = ((clockwise ? -i : i) / n) * 2 * Math.PI;
    return [cx + r * Math.cos(a), cy + r * Math.sin(a)] as [number, number];
  });
}

/** Distance from a point to a polygon's boundary by trying every edge: the reference the fast ways are held against. */
export function distanceToRings(r: { xy: Float64Array; starts: Int32Array }, x: number, y: number): number {
  let best = Infinity;
  for (let k = 0; k < r.starts.length - 1; k++)
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const j = i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k];
      const ax = r.xy[2 * i];
      const ay = r.xy[2 * i + 1];
      const dx = r.xy[2 * j] - ax;
      const dy = r.xy[2 * j + 1] - ay;
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
      best = Math.min(best, (x - ax - t * dx) ** 2 + (y - ay - t * dy) ** 2);
    }
  return Math.sqrt(best);
}

/** Two round pieces, 5 and 4 mm across, and a square one with a round hole, 6 mm across. */
export const roundsAndSquare = (): [number, number][][] => [
  circle(20, 20, 2.5, 64),
  circle(70, 30, 2, 64),
  [
    [40, 60],
    [60, 60],
    [60, 80],
    [40, 80],
  ],
  circle(50, 70, 3, 64, true),
];
