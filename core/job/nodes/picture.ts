import type { Field, Settings } from "../../settings/fields.ts";
import type { Placement } from "../../outline/outline.ts";
import type { StockSettings } from "../document.ts";

export interface PictureContext {
  stock: StockSettings;
  /** pixels */
  width: number;
  height: number;
}

const even = (v: number): number => Math.round(v * 100) / 100;

export const pictureFields: readonly Field<PictureContext>[] = [
  {
    key: "width",
    label: "Width",
    type: "length",
    help: "Width of the whole picture on the stock; its height follows.",
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
];

/** Where the picture's pixels lie on the stock. */
export function placement(s: Settings, pixelWidth: number, pixelHeight: number): Placement & { width: number; height: number; y0: number } {
  const scale = (s.width as number) / pixelWidth;
  const height = scale * pixelHeight;
  return { scale, x0: s.x as number, y0: s.y as number, y1: (s.y as number) + height, width: s.width as number, height };
}
