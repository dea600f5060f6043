import { moveSeconds } from "../../toolpath/time.ts";
import type { CutInputs, HEIGHT_ART, Planned } from "../kind.ts";

/** Surfaces are this coarse where only times and areas are asked for, mm. */
const COARSE = 1;
/** Rows want several samples from one to the next: coarser ones would part runs that are one. */
const OF_STEPOVER = 0.75;

/**
 * A cut's inputs for a look that only tells times and areas.
 * @param stepover how far apart its rows are, mm
 */
export function coarsely(
  inputs: CutInputs<typeof HEIGHT_ART>,
  stepover = Infinity,
): CutInputs<typeof HEIGHT_ART> & { grain: number } {
  return { ...inputs, grain: Math.max(inputs.grain ?? 0, Math.min(COARSE, OF_STEPOVER * stepover)) };
}

/** How long a cut takes that was planned coarsely, s. */
export function coarseSeconds({ toolpath, standsFor = 1 }: Planned, { machine }: Pick<CutInputs, "machine">): number {
  return standsFor * moveSeconds(toolpath, machine).reduce((sum, t) => sum + t, 0);
}
