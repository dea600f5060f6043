/** A step of a wedge held to the light: its thickness, mm, and the light of the printed grey it equals, 0…1. */
export interface Step {
  thickness: number;
  light: number;
}

/**
 * The λ of a sheet from the steps of a wedge, by light = a·exp(−t/λ): the line of least squares through ln(light)
 * over the thickness; steps that let nothing through tell nothing.
 * @returns λ, mm, and how far the steps stray from the law, as a share of their light; null where they do not fall
 */
export function lambdaFrom(steps: readonly Step[]): { lambda: number; strays: number } | null {
  const seen = steps.filter(({ light }) => light > 0);
  const n = seen.length;
  const [t, l] = [seen.map((s) => s.thickness), seen.map((s) => Math.log(s.light))];
  const mean = (v: number[]) => v.reduce((a, b) => a + b, 0) / n;
  const [mt, ml] = [mean(t), mean(l)];
  const spread = t.reduce((sum, v) => sum + (v - mt) ** 2, 0);
  const slope = t.reduce((sum, v, i) => sum + (v - mt) * (l[i] - ml), 0) / spread;
  if (!(slope < 0)) return null;
  const strays = Math.max(...t.map((v, i) => Math.abs(Math.exp(l[i] - ml - slope * (v - mt)) - 1)));
  return { lambda: -1 / slope, strays };
}
