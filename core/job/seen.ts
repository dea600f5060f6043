import { backlit } from "../output/backlit.ts";
import { litView } from "../proof/light.ts";
import { everyNth } from "../proof/surface.ts";
import { type BuildResult, finished } from "./build.ts";
import { mainHeights } from "./drawings.ts";

/** A picture in RGBA. */
export interface Seen {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}

/**
 * The finished piece as one would show it to somebody, as large as its proof: a sheet that is to glow with its lamp on,
 * everything else as it lies on a table.
 * @param step takes every so-manieth cell, for a smaller picture in less time
 */
export function pieceSeen(build: BuildResult, step = 1): Seen {
  const { stock } = build.job;
  const litho = mainHeights(build)?.litho;
  const surface = everyNth(finished(build), step);
  const { width, height } = surface;
  const data = litho
    ? backlit(surface, stock.thickness, litho)
    : litView(surface, stock.material, stock.thickness, stock);
  return { width, height, data };
}
