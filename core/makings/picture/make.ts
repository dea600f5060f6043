import { framed, framedSize, type FrameSettings, type PictureBox } from "../../picture/frame.ts";
import type { Raster } from "../../picture/raster.ts";
import { shrunk } from "../../picture/shrink.ts";
import { Problem } from "../../problem.ts";
import type { Given, IsSet, Tools, Asking } from "../kind.ts";
import type { Lying } from "../placing.ts";
import type { Placed, RasterProduct } from "../product.ts";
import { frameOf, type PictureSettings } from "./picture.ts";

export function make(
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

export function context({ own, board, art, ...given }: Asking, tools: Tools): Lying {
  const file = fileOf(given, tools);
  const size = framedSize(file.width, file.height, frameOf(own));
  if (!art) return { board, over: size };
  const k = size.width / rasterOf(given, frameOf(own), tools).width;
  return { board, over: { width: art.width * k, height: art.height * k } };
}
