import { backlit } from "../output/backlit.ts";
import { litView } from "../proof/light.ts";
import { type BuildResult, finished } from "./build.ts";
import { mainHeights } from "./drawings.ts";

/**
 * The finished piece as one would show it to somebody, RGBA, as large as its proof: a sheet that is to glow with its
 * lamp on, everything else as it lies on a table.
 */
export function pieceSeen(build: BuildResult): Uint8ClampedArray {
  const { stock } = build.job;
  const litho = mainHeights(build)?.litho;
  if (litho) return backlit(finished(build), stock.thickness, litho);
  return litView(finished(build), stock.material, stock.thickness, stock);
}
