import type { Built } from "../../compute/messages.ts";

/** Between the stock (mm, y up) and the framed picture (pixels, y down). */
export interface Space {
  toPixel(x: number, y: number): [number, number];
  toStock(px: number, py: number): [number, number];
  /** pixels in a millimetre */
  perMm: number;
  width: number;
  height: number;
}

export function spaceOf(built: Built | null): Space | null {
  const raster = built?.shown.raster;
  if (!raster) return null;
  const { x0, y0, width, height } = raster.place;
  const k = raster.pixels.width / width;
  return {
    toPixel: (x, y) => [(x - x0) * k, (y0 + height - y) * k],
    toStock: (px, py) => [x0 + px / k, y0 + height - py / k],
    perMm: k,
    width: raster.pixels.width,
    height: raster.pixels.height,
  };
}

const round = (v: number): number => Math.round(v * 10) / 10;

export const textOf = (n: readonly number[]): string => n.map(round).join(" ");
/** One more item of a list kept as text. */
export const appended = (list: string, item: string): string => (list.trim() ? `${list.trim()}; ${item}` : item);
/** Without its last item. */
export const itemsOf = (list: string): string[] =>
  list
    .split(";")
    .map((s) => s.trim())
    .filter(Boolean);
