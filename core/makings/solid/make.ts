import { projected, SIDES, turned, type Turned } from "../../height/projected.ts";
import { readStl } from "../../height/stl.ts";
import { Problem } from "../../problem.ts";
import { LEAST_CELL } from "../../height/field.ts";
import type { Given, Tools, Asking, IsSet } from "../kind.ts";
import type { HeightsProduct } from "../product.ts";
import type { SolidSettings, SolidContext } from "./solid.ts";

/** Samples along a solid's longer side. */
const SAMPLES = 1500;
/** A solid of which more of the square round it, or of its faces, is missing or hidden says so. */
const WORTH_SAYING = 0.01;

function made(t: Turned, s: SolidSettings): HeightsProduct {
  const [wide, deep, rise] = t.high.map((v, q) => v - t.low[q]);
  const longer = Math.max(s.width, (s.width * deep) / wide);
  const cell = Math.max(LEAST_CELL, longer / SAMPLES);
  const { width, height, z, open, hidden } = projected(t, Math.max(2, Math.round(s.width / cell)));
  const scale = rise > 0 ? s.depth / rise : 0;
  const field = {
    x0: s.x,
    y0: s.y,
    cell: s.width / width,
    width,
    height,
    z: z.map((v) => -s.top - (rise > 0 ? s.depth - v * scale : 0)),
  };
  const leftOut = [];
  if (open > WORTH_SAYING)
    leftOut.push(`${percent(open)} of the rectangle round it has nothing above: cut to its floor`);
  if (hidden > WORTH_SAYING)
    leftOut.push(`undercuts (${percent(hidden)} of what is seen from above): no cutter gets there`);
  return { is: "heights", field, picture: null, litho: null, leftOut };
}

const percent = (share: number): string => `${Math.max(1, Math.round(100 * share))} %`;

function turnedOf({ asset }: Pick<Given, "asset">, from: (typeof SIDES)[number], tools: Tools): Turned {
  if (!asset) throw new Problem("no-solid", "This solid's file is not here. Add it again.");
  return tools.kept.of("solid", [asset.sha, from], (sha, as) => flatChecked(turned(readStl(tools.solid(sha)), as)), 2);
}

/** @throws Problem `bad-solid` for one that has no width or no depth from this side */
function flatChecked(t: Turned): Turned {
  if (t.high[0] > t.low[0] && t.high[1] > t.low[1]) return t;
  throw new Problem("bad-solid", "The solid is a line from this side. Look at it from another.");
}

export function context({ board, own, ...given }: Asking, tools: Tools): SolidContext {
  const from = SIDES.find((q) => q === own.side) ?? "top";
  const { low, high } = turnedOf(given, from, tools);
  const [wide, deep, rise] = high.map((v, q) => v - low[q]);
  return { board, over: { width: wide, height: deep }, thickness: board.thickness, rise: rise / wide };
}

export function make(given: Given, s: SolidSettings, _: IsSet, tools: Tools): HeightsProduct {
  return made(turnedOf(given, s.side, tools), s);
}
