/** Bodies that a flat shape can be given. */
export const FORMS = ["round", "slope", "hollow", "drawn"] as const;
export type Form = (typeof FORMS)[number];

/** A body by its form. */
export interface Body {
  form: Form;
  /** of round and hollow ones, and how far inward a drawn one's curve runs; mm */
  radius: number;
  /** of a slope, mm up for each mm inward */
  rise: number;
  /** a drawn one's height at the end of each share of the way inward, mm */
  curve(share: number): number;
}

/**
 * How high a body stands d mm inside its shape, mm. Round: √(R² − (R − d)²), a quarter circle, level from R on.
 * Slope: d·tan α. Hollow: R − √(R² − d²), the same quarter turned over. Drawn: its curve at d/R, level from
 * R on.
 */
export function bodyAt({ form, radius, rise, curve }: Body, d: number): number {
  if (form === "slope") return d * rise;
  if (form === "drawn") return curve(Math.min(1, d / radius));
  const inside = Math.min(radius, d);
  if (form === "round") return Math.sqrt(radius * radius - (radius - inside) * (radius - inside));
  return radius - Math.sqrt(radius * radius - inside * inside);
}
