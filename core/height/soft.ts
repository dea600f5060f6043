/** From 0 to 1 with level ends: how far a soft edge has come at a share t of its width. */
export const smooth = (t: number): number => t * t * (3 - 2 * t);

/** How much of something counts d mm inside its shape, 0…1: all of it beyond a soft edge so many mm wide. */
export const softInside = (d: number, wide: number): number => {
  if (d <= 0) return 0;
  return d >= wide ? 1 : smooth(d / wide);
};
