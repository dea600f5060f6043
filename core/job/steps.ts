import { profileOf } from "../cutters/profile.ts";
import { litView } from "../proof/light.ts";
import { newSurface } from "../proof/surface.ts";
import { nothingSwept, sweep } from "../proof/sweep.ts";
import type { BuildResult } from "./build.ts";

/** Cells across the longer side: as much as a small picture on paper shows. */
const CELLS = 240;

/** A picture of a board, RGBA, its far edge first. */
export interface StepSeen {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}

/** The board as it looks after each cut that is on and cuts something, by the cut's id; coarse. */
export function stepsSeen({ job, cuts }: BuildResult): Map<string, StepSeen> {
  const { stock } = job;
  const surface = newSurface(stock.width, stock.height, Math.max(stock.width, stock.height) / CELLS, stock.thickness);
  const out = new Map<string, StepSeen>();
  cuts.forEach(({ id, cut, toolpath }, k) => {
    if (!cut.on || toolpath.kind.length === 0) return;
    sweep(surface, toolpath, profileOf(cut.cutter), k + 1, 0, toolpath.kind.length, nothingSwept());
    const data = litView(surface, stock.material, stock.thickness, stock);
    out.set(id, { width: surface.width, height: surface.height, data });
  });
  return out;
}
