import type { Field, Settings } from "../../settings/fields.ts";
import { parseErase } from "../../picture/erase.ts";
import { cropBox, type FrameSettings, framedSize, NO_FRAME } from "../../picture/frame.ts";
import type { Placement } from "../../outline/outline.ts";
import type { StockSettings } from "../document.ts";

export interface PictureContext {
  stock: StockSettings;
  /** pixels, as framed */
  width: number;
  height: number;
}

const even = (v: number): number => Math.round(v * 100) / 100;

export const pictureFields: readonly Field<PictureContext>[] = [
  {
    key: "width",
    label: "Width",
    type: "length",
    help: "Width of the picture on the stock; its height follows.",
    min: 1,
    max: 5000,
    step: 1,
    slider: true,
    auto: (c) => {
      const room = { x: c.stock.width - 2 * c.stock.margin, y: c.stock.height - 2 * c.stock.margin };
      return { value: even(Math.max(1, Math.min(room.x, (room.y * c.width) / c.height))), reason: "fills the stock inside its margin" };
    },
    consequence: (v, c) => `${even(((v as number) * c.height) / c.width)} mm high · ${(c.width / (v as number)).toFixed(1)} px/mm`,
  },
  { key: "x", label: "From the left", type: "length", help: "Picture's left edge from the stock's left edge.", min: -5000, max: 5000, step: 0.5, auto: (c, s) => ({ value: even((c.stock.width - (s.width as number)) / 2), reason: "centred" }) },
  {
    key: "y",
    label: "From the front",
    type: "length",
    help: "Picture's near edge from the stock's near edge.",
    min: -5000,
    max: 5000,
    step: 0.5,
    auto: (c, s) => ({ value: even((c.stock.height - ((s.width as number) * c.height) / c.width) / 2), reason: "centred" }),
  },
  { key: "turn", label: "Turned by", type: "angle", help: "Straightens a picture that was scanned askew; counter-clockwise.", min: -360, max: 360, step: 0.1, more: true, tool: "straighten", auto: () => ({ value: NO_FRAME.turn, reason: "upright as it is" }) },
  { key: "crop", label: "Crop", type: "text", help: "The part kept: x, y, width and height in pixels.", more: true, tool: "crop", check: (t) => void cropBox(t, 1e9, 1e9), auto: () => ({ value: NO_FRAME.crop, reason: "all of it" }) },
  { key: "erase", label: "Erased", type: "text", help: "Marks wiped off the picture: a watermark, a stray line, a name. Each stays a setting and can be undone.", more: true, tool: "erase", check: (t) => void parseErase(t), auto: () => ({ value: NO_FRAME.erase, reason: "nothing" }) },
  { key: "corners", label: "Squared up", type: "text", help: "For a drawing photographed at an angle: its four corners become a rectangle.", more: true, tool: "corners", check: (t) => void framedSize(1e6, 1e6, { ...NO_FRAME, corners: t }), auto: () => ({ value: NO_FRAME.corners, reason: "seen from straight above" }) },
];

/** The framing that a picture's own settings ask for. */
export const frameOf = (own: Settings): FrameSettings => ({
  corners: (own.corners as string) ?? NO_FRAME.corners,
  turn: (own.turn as number) ?? NO_FRAME.turn,
  erase: (own.erase as string) ?? NO_FRAME.erase,
  crop: (own.crop as string) ?? NO_FRAME.crop,
});

/** Where the picture's pixels lie on the stock. */
export function placement(s: Settings, pixelWidth: number, pixelHeight: number): Placement & { width: number; height: number; y0: number } {
  const scale = (s.width as number) / pixelWidth;
  const height = scale * pixelHeight;
  return { scale, x0: s.x as number, y0: s.y as number, y1: (s.y as number) + height, width: s.width as number, height };
}
