import { projected, SIDES, turned, type Turned } from "../../height/projected.ts";
import { readStl } from "../../height/stl.ts";
import { Problem } from "../../problem.ts";
import { LEAST_CELL } from "../../height/field.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { topField } from "../height/fields.ts";
import { defineMaking, type Given, type Tools } from "../kind.ts";
import { type Lying, placeFields, widthField } from "../placing.ts";
import type { HeightsProduct } from "../product.ts";

/** Samples along a solid's longer side. */
const SAMPLES = 1500;
/** No solid is made narrower, mm. */
const LEAST_WIDTH = 1;
/** Stock that stays under a solid by itself, mm. */
const FLOOR_LEFT = 2;
/** A solid of which more of the square round it, or of its faces, is missing or hidden says so. */
const WORTH_SAYING = 0.01;

interface SolidContext extends Lying {
  thickness: number;
  /** how high it is, for its width */
  rise: number;
}

const side = fieldsFor<SolidContext>().choice("side", "Seen from", {
  options: SIDES.map((value) => ({ value, label: value })),
  help: "The side of the solid that lies on top.",
  auto: () => ({ value: "top", reason: "as it stands" }),
});

const fields = side
  .with(widthField("the whole solid", "made", LEAST_WIDTH))
  .with(placeFields)
  .length("depth", "Depth", {
    help: "From its highest to its lowest place on the stock.",
    min: 0.05,
    max: 200,
    step: 0.1,
    slider: true,
    auto: (c, s) => {
      const own = c.rise * s.width;
      const most = Math.max(0.1, c.thickness - FLOOR_LEFT);
      if (own <= most) return { value: Math.max(0.05, Math.round(own * 1000) / 1000), reason: "in proportion" };
      return { value: most, reason: `${formatLength(own)} mm in proportion; ${FLOOR_LEFT} mm of the stock stay` };
    },
  })
  .with(topField("How far its highest place lies below the stock's top.", "its highest place touches the top"));
type SolidSettings = SettingsOf<typeof fields>;

/** The surface of a solid (STL) as it is seen from one of its sides. */
export const solid = defineMaking({
  kind: "solid",
  title: "Solid",
  about: "the surface of a solid, seen from one side",
  reads: {},
  gives: "heights",
  file: "solid",
  fields,
  handles: { width: "width", depth: "depth" },
  context({ board, own, ...given }, tools): SolidContext {
    const from = SIDES.find((q) => q === own.side) ?? "top";
    const { low, high } = turnedOf(given, from, tools);
    const [wide, deep, rise] = high.map((v, q) => v - low[q]);
    return { board, over: { width: wide, height: deep }, thickness: board.thickness, rise: rise / wide };
  },
  make(given, s, _, tools): HeightsProduct {
    return made(turnedOf(given, s.side, tools), s);
  },
});

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
