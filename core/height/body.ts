/** Bodies that a flat shape can be given. */
export const FORMS = ["round", "slope", "hollow"] as const;
export type Form = (typeof FORMS)[number];

/** A body by its form: `radius` of round and hollow ones, mm; `rise` of a slope, mm up for each mm inward. */
export interface Body {
  form: Form;
  radius: number;
  rise: number;
}

/**
 * How high a body stands d mm inside its shape, mm. Round: √(R² − (R − d)²), a quarter circle, level from R on.
 * Slope: d·tan α. Hollow: R − √(R² − d²), the same quarter turned over.
 */
export function bodyAt({ form, radius, rise }: Body, d: number): number {
  if (form === "slope") return d * rise;
  const inside = Math.min(radius, d);
  if (form === "round") return Math.sqrt(radius * radius - (radius - inside) * (radius - inside));
  return radius - Math.sqrt(radius * radius - inside * inside);
}
