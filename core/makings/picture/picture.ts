import { parseErase } from "../../picture/erase.ts";
import { cropBox, framedSize, NO_FRAME, type FrameSettings } from "../../picture/frame.ts";
import type { Settings } from "../../settings/fields.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { defineMaking } from "../kind.ts";
import { even, fittingWidth, heightFor, type Lying, placeFields } from "../placing.ts";
import type { RasterProduct } from "../product.ts";
import { later } from "../../later.ts";

const fields = fieldsFor<Lying>()
  .choice("measured", "Measured over", {
    options: [
      { value: "art", label: "the art" },
      { value: "picture", label: "the whole picture" },
    ],
    help:
      "What width and place are given of: the art, as a ruler shows it on the finished piece, or the whole picture " +
      "with its blank surround.",
    auto: () => ({ value: "picture", reason: "as jobs were before this could be chosen" }),
  })
  .length("width", "Width", {
    help: "Width on the stock of what is measured; its height follows.",
    min: 1,
    max: 5000,
    step: 1,
    slider: true,
    auto: (c) => ({ value: fittingWidth(c, 1), reason: "fills the stock inside its margin" }),
    consequence: (v, c) => `${even(heightFor(c, v))} mm high · ${(c.over.width / v).toFixed(1)} px/mm`,
  })
  .with(placeFields)
  .angle("turn", "Turned by", {
    help: "Straightens a picture that was scanned askew; counter-clockwise.",
    min: -360,
    max: 360,
    step: 0.1,
    more: true,
    tool: "straighten",
    auto: () => ({ value: NO_FRAME.turn, reason: "upright as it is" }),
  })
  .text("crop", "Crop", {
    help: "The part kept: x, y, width and height in pixels.",
    more: true,
    tool: "crop",
    example: "5,5,135,98",
    check: (t) => void cropBox(t, 1e9, 1e9),
    auto: () => ({ value: NO_FRAME.crop, reason: "all of it" }),
  })
  .text("erase", "Erased", {
    help: "Marks wiped off the picture: a watermark, a stray line, a name. Each stays a setting and can be undone.",
    more: true,
    tool: "erase",
    example: "rect 100 10 40 90",
    check: (t) => void parseErase(t),
    auto: () => ({ value: NO_FRAME.erase, reason: "nothing" }),
  })
  .text("corners", "Squared up", {
    help: "For a drawing photographed at an angle: its four corners become a rectangle.",
    more: true,
    tool: "corners",
    example: "4 2 146 5 145 107 3 104",
    check: (t) => void framedSize(1e6, 1e6, { ...NO_FRAME, corners: t }),
    auto: () => ({ value: NO_FRAME.corners, reason: "seen from straight above" }),
  });
export type PictureSettings = SettingsOf<typeof fields>;

const work = later(() => import("./make.ts"));

/** A picture from a file: framed, and laid on the board. */
export const picture = defineMaking({
  kind: "picture",
  title: "Picture",
  about: "a picture, cropped, turned and laid on the board",
  reads: {},
  gives: "raster",
  file: "picture",
  fields,
  handles: { width: "width" },
  context: work("context"),
  isMeasured: (own) => own.measured === "art",
  make: work("make"),
});

/** Whether a picture's own settings change its pixels. */
export const isFramed = (own: Settings): boolean =>
  Object.entries(frameOf(own)).some(([k, v]) => v !== NO_FRAME[k as keyof typeof NO_FRAME]);

/** The framing that a picture's own settings ask for. */
export const frameOf = (own: Settings): FrameSettings => ({
  corners: String(own.corners ?? NO_FRAME.corners),
  turn: Number(own.turn ?? NO_FRAME.turn),
  erase: String(own.erase ?? NO_FRAME.erase),
  crop: String(own.crop ?? NO_FRAME.crop),
});

/** What width and place of a picture are given of, mm on the board. */
export function measuredSize({ art, place, raster }: RasterProduct): { width: number; height: number } {
  const { width, height } = art ?? raster;
  return { width: place.scale * width, height: place.scale * height };
}
