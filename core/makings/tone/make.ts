import { contrast, findInkLevel, histogram, toGrey, type ToneSettings } from "../../picture/tone.ts";
import type { GreyProduct } from "../product.ts";
import type { Given, IsSet, Tools } from "../kind.ts";
import { type reads, type Tone } from "./tone.ts";

/** The settings with lengths in pixels. @param scale mm per pixel */
const toneSettings = (v: Tone, scale: number): ToneSettings => ({
  red: v.red,
  green: v.green,
  blue: v.blue,
  invert: v.invert,
  black: v.black,
  white: v.white,
  dark: v.dark,
  middle: v.middle,
  light: v.light,
  smooth: v.smooth > 0 ? Math.max(1, Math.round(v.smooth / scale)) : 0,
  local: v.local,
  localRadius: Math.max(2, Math.round(v.localWidth / scale / 2)),
  sharpen: v.sharpen,
  even: v.even > 0 ? Math.max(2, Math.round(v.even / scale / 2)) : 0,
});

export function make({ reads: { from } }: Given<typeof reads>, s: Tone, _: IsSet, tools: Tools): GreyProduct {
  const inPixels = toneSettings(s, from.place.scale);
  const grey = tools.kept.of("grey", [from.raster, inPixels], (r, t) => toGrey(r, t, tools.progress), 2);
  const told = tools.kept.of("greys", [grey], (g) => {
    const bins = histogram(g);
    return { bins, found: findInkLevel(bins), contrast: contrast(bins) };
  });
  return { is: "grey", grey, ...told, picture: from };
}
