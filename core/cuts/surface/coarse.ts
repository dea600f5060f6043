import { moveSeconds } from "../../toolpath/time.ts";
import type { CutInputs, HEIGHT_ART, Planned } from "../kind.ts";

/** Surfaces are this coarse where only times and areas are asked for, mm. */
export const COARSE = 1;

/** A cut's inputs for a look that only tells times and areas. */
export const coarsely = (inputs: CutInputs<typeof HEIGHT_ART>): CutInputs<typeof HEIGHT_ART> => ({
  ...inputs,
  grain: Math.max(inputs.grain ?? 0, COARSE),
});

/** How long a cut takes that was planned coarsely, s. */
export function coarseSeconds({ toolpath, standsFor = 1 }: Planned, { machine }: Pick<CutInputs, "machine">): number {
  return standsFor * moveSeconds(toolpath, machine).reduce((sum, t) => sum + t, 0);
}
