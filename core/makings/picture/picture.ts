import { parseErase } from "../../picture/erase.ts";
import { cropBox, framed, framedSize, type FrameSettings, NO_FRAME, type PictureBox } from "../../picture/frame.ts";
import type { Raster } from "../../picture/raster.ts";
import { shrunk } from "../../picture/shrink.ts";
import { Problem } from "../../problem.ts";
import type { Settings } from "../../settings/fields.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { defineMaking, type Given, type IsSet, type Tools } from "../kind.ts";
import { even, fittingWidth, heightFor, type Lying, placeFields } from "../placing.ts";
import type { Placed, RasterProduct } from "../product.ts";

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
type PictureSettings = SettingsOf<typeof fields>;

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
  context({ own, board, art, ...given }, tools): Lying {
    const file = fileOf(given, tools);
    const size = framedSize(file.width, file.height, frameOf(own));
    if (!art) return { board, over: size };
    const k = size.width / rasterOf(given, frameOf(own), tools).width;
    return { board, over: { width: art.width * k, height: art.height * k } };
  },
  isMeasured: (own) => own.measured === "art",
  make,
});

function make(
  given: Pick<Given, "asset" | "preview" | "art">,
  s: PictureSettings,
  _: IsSet,
  tools: Tools,
): RasterProduct {
  const file = fileOf(given, tools);
  const raster = rasterOf(given, s, tools);
  const place = placement(s, raster.width, raster.height, given.art);
  return {
    is: "raster",
    raster,
    place,
    art: given.art,
    shrunk: raster.width / framedSize(file.width, file.height, s).width,
  };
}

/** The file's own pixels. @throws Problem `no-picture` */
function fileOf({ asset }: Pick<Given, "asset">, tools: Tools): Raster {
  if (!asset) throw new Problem("no-picture", "This job has no picture yet. Drop one on the page.");
  return tools.picture(asset.sha);
}

/** The framed pixels; fewer of them in a preview. */
function rasterOf(given: Pick<Given, "asset" | "preview">, frame: FrameSettings, tools: Tools): Raster {
  const { corners, turn, erase, crop } = frame;
  const from = fileOf(given, tools);
  const whole = tools.kept.of("framed", [from, { corners, turn, erase, crop }], framed, 2);
  if (given.preview === null || whole.width * whole.height <= 2 * given.preview) return whole;
  return tools.kept.of("shrunk", [whole, given.preview], shrunk, 1);
}

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

/** Where the picture's pixels lie on the board. */
function placement(
  s: { width: number; x: number; y: number },
  pixelWidth: number,
  pixelHeight: number,
  art: PictureBox | null,
): Placed {
  const over = art ?? { x: 0, y: 0, width: pixelWidth, height: pixelHeight };
  const scale = s.width / over.width;
  const height = scale * pixelHeight;
  const y1 = s.y + scale * (over.y + over.height);
  return { scale, x0: s.x - scale * over.x, y0: y1 - height, y1, width: scale * pixelWidth, height };
}

/** What width and place of a picture are given of, mm on the board. */
export function measuredSize({ art, place, raster }: RasterProduct): { width: number; height: number } {
  const { width, height } = art ?? raster;
  return { width: place.scale * width, height: place.scale * height };
}
