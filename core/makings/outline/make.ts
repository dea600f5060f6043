import { mended } from "../../geometry/mend.ts";
import type { Rings } from "../../geometry/rings.ts";
import { asRead, type Shape } from "../../geometry/shape.ts";
import { unsoundPlaces } from "../../geometry/sound.ts";
import { keepLarge } from "../../outline/outline.ts";
import type { Raster } from "../../picture/raster.ts";
import { artIn } from "./art.ts";
import type { PictureBox } from "../../picture/frame.ts";
import { Problem } from "../../problem.ts";
import type { Asking, Tools, Given, IsSet } from "../kind.ts";
import type { ShapesProduct } from "../product.ts";
import type { OutlineSettings, OutlineContext } from "./fields.ts";
import { contoursOf, drawnOf, edgesOf, traceOutline, outlineContext } from "./trace.ts";
import { type reads } from "./outline.ts";

/** Ink that cuts can trust: where it crosses or touches itself it is mended, and said where. */
function soundInk(shape: Shape): Pick<ShapesProduct, "ink" | "mendedAt"> {
  const ink = asRead(shape);
  const places = unsoundPlaces(ink);
  return places.length === 0 ? { ink, mendedAt: [] } : { ink: mended(ink), mendedAt: places };
}

/** The contours as they are before fitting; none by colours, which take longer. */
export function rough(
  { reads: { from }, own }: Asking<typeof reads>,
  tools: Tools,
): Pick<Rings, "xy" | "starts"> | null {
  const { values, isSet } = edgesOf(from, own, tools);
  if (values.trace === "colours") return null;
  const c = contoursOf(from, values.ink, tools);
  const { place } = from.picture;
  const drawn = drawnOf(c, from, values, isSet);
  const keep = keepLarge(c, place.scale, values.specks, values.pinholes, drawn);
  const xy: number[] = [];
  const starts = [0];
  for (let k = 0; k < keep.length; k++) {
    if (!keep[k]) continue;
    for (let i = c.starts[k]; i < c.starts[k + 1]; i++)
      xy.push(place.x0 + c.xy[2 * i] * place.scale, place.y1 - c.xy[2 * i + 1] * place.scale);
    starts.push(xy.length / 2);
  }
  return { xy: Float64Array.from(xy), starts: Int32Array.from(starts) };
}

/** Least contrast that can hold a shape: below it a picture is one flat tone with noise. */
const LEAST_CONTRAST = 0.04;

/**
 * A few dark strokes on a large sheet may fall outside the middle 99 % of greys: look for them before calling it one
 * tone.
 */
function hasInk(bins: Uint32Array): boolean {
  let lo = 0;
  let hi = 255;
  while (lo < 255 && bins[lo] === 0) lo++;
  while (hi > 0 && bins[hi] === 0) hi--;
  return hi - lo > 64;
}

function oneTone(bins: Uint32Array, raster: Raster): Problem {
  let most = 0;
  for (let i = 1; i < 256; i++) if (bins[i] > bins[most]) most = i;
  let clear = true;
  for (let i = 3; i < raster.data.length && clear; i += 4) clear = raster.data[i] === 0;
  const what = clear ? "wholly transparent" : toneWords(most);
  return new Problem(
    "one-tone",
    `The picture is ${what}: there is nothing in it to trace. Use a picture with dark and light parts.`,
  );
}

function toneWords(bin: number): string {
  if (bin > 240) return "all white";
  return bin < 15 ? "all black" : "all one tone";
}

export function make(
  { reads: { from } }: Given<typeof reads>,
  s: OutlineSettings,
  isSet: IsSet,
  tools: Tools,
): ShapesProduct {
  const isInk = s.trace !== "colours";
  if (isInk && from.contrast < LEAST_CONTRAST && !(from.contrast > 0 && hasInk(from.bins)))
    throw oneTone(from.bins, from.picture.raster);
  const traced = traceOutline(from, s, isSet, tools);
  const { shape, dropped } = traced.result;
  if (shape.parent.length === 0)
    throw new Problem(
      "no-ink",
      dropped > 0
        ? `At this ink level there are only specks: ${dropped} pieces, all smaller than ` +
            `${s.specks} mm². Move the ink level, or keep smaller specks.`
        : "No ink is found with these settings. Move the ink level towards the picture's greys, invert the " +
            "picture, or keep more of it.",
    );
  return { is: "shapes", shape, ...soundInk(shape), lines: traced.lines, held: traced.held, traced };
}

export const context = ({ reads: { from } }: Asking<typeof reads>, tools: Tools): OutlineContext =>
  outlineContext(from, tools);

export const finds = ({ reads: { from }, own }: Asking<typeof reads>, tools: Tools): PictureBox | null =>
  artIn(from, own, tools);
