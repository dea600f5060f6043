import { SIDES } from "../../height/projected.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { topField } from "../height/fields.ts";
import { defineMaking } from "../kind.ts";
import { type Lying, placeFields, widthField } from "../placing.ts";
import { later } from "../../later.ts";

/** No solid is made narrower, mm. */
const LEAST_WIDTH = 1;
/** Stock that stays under a solid by itself, mm. */
const FLOOR_LEFT = 2;

export interface SolidContext extends Lying {
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
export type SolidSettings = SettingsOf<typeof fields>;

const work = later(() => import("./make.ts"));

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
  context: work("context"),
  make: work("make"),
});
