import { formatLength } from "../../units.ts";
import type { CutInputs, HEIGHT_ART, Note } from "../kind.ts";
import { lowestOf } from "./asked.ts";

/** Less than this below the lowest place is too little to hold, mm. */
const LEAST_LEFT = 0.3;

/** A surface nowhere lower than this below the stock's top is level with it, mm. */
const LEVEL = 0.01;

/** What is to be said of a surface in this stock, whatever cuts it. */
export function stockNotes(name: string, inputs: CutInputs<typeof HEIGHT_ART>): Note[] {
  const { stock } = inputs;
  const low = lowestOf(inputs);
  if (low > -LEVEL)
    return [
      {
        code: "surface-level",
        severity: "warning",
        message:
          `${name}: the surface lies nowhere below the stock's top, and nothing is cut. Use a picture with light and ` +
          "dark parts, set its black and white points, or lower the surface.",
      },
    ];
  const left = stock.thickness + low;
  const deep = `${name}: the surface goes ${formatLength(-low)} mm deep in ${formatLength(stock.thickness)} mm stock`;
  if (left <= 0)
    return [{ code: "surface-through-stock", severity: "stop", message: `${deep}, through it. Give it less depth.` }];
  if (left < LEAST_LEFT)
    return [
      {
        code: "surface-leaves-little",
        severity: "warning",
        message: `${deep} and leaves ${formatLength(left)} mm. Give it less depth, or use thicker stock.`,
      },
    ];
  return [];
}
