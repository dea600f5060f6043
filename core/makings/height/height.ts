import { BORDERS } from "../../height/border.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { defineMaking } from "../kind.ts";
import { curvePoints } from "../../height/curve.ts";
import { depthField, topField } from "./fields.ts";
import { FROM_TONE, smoothField, type ToneContext } from "./levels.ts";
import { type GreyRange, spreadOver } from "./spread.ts";
import { later } from "../../later.ts";

/** Points of the curve from grey to height: what they are for, and the points. */
const CURVES = {
  even: { label: "even", points: "0,0 1,1", reason: "height follows the grey" },
  faces: { label: "faces", points: "0,0 0.25,0.12 0.55,0.55 0.85,0.9 1,1", reason: "more room for the middle greys" },
  flat: { label: "flat light", points: "0,0 0.3,0.1 0.5,0.5 0.7,0.9 1,1", reason: "spreads greys that lie together" },
  shade: { label: "deep shade", points: "0,0 0.2,0.45 0.5,0.75 1,1", reason: "lifts what lies in the dark" },
} as const;
type Curve = keyof typeof CURVES;

/** No slope is limited from here on, degrees. */
export const STEEPEST = 89;

/** What the automatic values of a height look at. */
export interface HeightContext extends ToneContext {
  /** the greys from its lowest place to its highest */
  greys: GreyRange;
}

const fields = fieldsFor<HeightContext>()
  .with(depthField("From the highest to the lowest place of the surface."))
  .with(topField("How far the highest place lies below the stock's top.", "the highest place is the stock's top"))
  .choice("high", "High is", {
    options: [
      { value: "light", label: "what is light" },
      { value: "dark", label: "what is dark" },
    ],
    help: "Which greys stand high.",
    auto: () => ({ value: "light", reason: "light lies high, as on a lit face" }),
  })
  .choice("start", "Curve for", {
    options: (Object.keys(CURVES) as Curve[]).map((value) => ({ value, label: CURVES[value].label })),
    help: "Where the curve from grey to height begins.",
    auto: () => ({ value: "even", reason: "height follows the grey" }),
  })
  .text("curve", "Curve", {
    help:
      "From grey (left black, right white) to height. Drag its points; a click in the square adds one, Delete takes " +
      "one out. Two to eight of them; between them the curve never overshoots.",
    drawn: "curve",
    example: "0,0 0.5,0.7 1,1",
    check: (t) => void curvePoints(t),
    auto: ({ greys }, s) => {
      const { points, reason } = CURVES[s.start];
      const { value, isSpread } = spreadOver(points, greys, s.high === "dark");
      const ends = "from the picture's darkest grey to its lightest";
      return { value, reason: isSpread ? `${reason}, ${ends}` : reason };
    },
  })
  .with(smoothField(2))
  .share("detail", "Detail", {
    help: "How strongly what is finer than the broad form stands out.",
    min: 0,
    max: 4,
    step: 0.05,
    slider: true,
    auto: () => ({ value: 1, reason: "as in the picture" }),
  })
  .share("broad", "Broad form", {
    help: "How strongly the large shapes rise and fall.",
    min: 0,
    max: 2,
    step: 0.05,
    slider: true,
    auto: () => ({ value: 1, reason: "as in the picture" }),
  })
  .length("scale", "Detail is finer than", {
    min: 0.1,
    max: 200,
    step: 0.5,
    more: true,
    auto: ({ board }) => ({
      value: Math.max(0.1, Math.round(Math.min(board.width, board.height) * 0.04 * 10) / 10),
      reason: "a twenty-fifth of the board",
    }),
  })
  .angle("slope", "Steepest slope", {
    help: "Steeper parts are cut back to this, so that the cutter can follow them; 89° leaves all as it is.",
    min: 5,
    max: STEEPEST,
    step: 1,
    more: true,
    auto: () => ({ value: STEEPEST, reason: "as steep as the greys say" }),
  })
  .choice("border", "Border", {
    options: BORDERS.map((value) => ({ value, label: value })),
    help:
      "Rim: flat at the stock's top. Bevel: an even slope down into the surface. Fade: the surface rises to " +
      "the top.",
    auto: () => ({ value: "none", reason: "the surface runs to its edge" }),
  })
  .length("borderWidth", "Border width", {
    min: 0.1,
    max: 200,
    step: 0.5,
    when: (s) => s.border !== "none",
    auto: ({ board }) => ({
      value: Math.max(0.5, Math.round(Math.min(board.width, board.height) * 0.03 * 10) / 10),
      reason: "a thirtieth of the board",
    }),
  });
export type HeightSettings = SettingsOf<typeof fields>;

const work = later(() => import("./make.ts"));

/** A surface on the board, as high as a picture is light or dark. */
export const height = defineMaking({
  kind: "height",
  title: "Height",
  about: "a surface as high as the picture is light or dark",
  reads: FROM_TONE,
  gives: "heights",
  fields,
  handles: { depth: "depth", rim: { width: "borderWidth", field: "border", value: "rim" } },
  context: work("heightContext"),
  make: work("make"),
});
