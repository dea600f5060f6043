import { fieldsFor } from "../settings/list.ts";
import { formatLength } from "../units.ts";
import type { BoardSize } from "./kind.ts";

/** Sizes and places are rounded to hundredths, mm. */
export const even = (v: number): number => Math.round(v * 100) / 100;

/** What lies on a board, in proportion: pixels or mm as drawn. */
export interface Lying {
  board: BoardSize;
  over: { width: number; height: number };
}

/** Its height for a width, mm. */
export const heightFor = ({ over }: Lying, width: number): number => (width * over.height) / over.width;

/** Where something lies on the board, centred by itself. */
export const placeFields = fieldsFor<Lying, { width: number }>()
  .length("x", "From the left", {
    help: "Its left edge from the stock's left edge.",
    min: -5000,
    max: 5000,
    step: 0.5,
    auto: (c, s) => ({ value: even((c.board.width - s.width) / 2), reason: "centred" }),
  })
  .length("y", "From the front", {
    help: "Its near edge from the stock's near edge.",
    min: -5000,
    max: 5000,
    step: 0.5,
    auto: (c, s) => {
      const { height, foot } = c.board;
      const value = even((height + foot - heightFor(c, s.width)) / 2);
      return { value, reason: foot > 0 ? "centred above the words" : "centred" };
    },
  });

/** The greatest width at which it lies inside the board's margin, mm. */
export function fittingWidth({ board, over }: Lying, least: number): number {
  const [across, along] = [board.width - 2 * board.margin, board.height - 2 * board.margin - board.foot];
  return even(Math.max(least, Math.min(across, (along * over.width) / over.height)));
}

/**
 * Its width on the board: its own where that fits inside the margin, else what does.
 * @param what it is the width of
 * @param made how it came by its own width: drawn, made
 * @param least mm
 */
export const widthField = (what: string, made: string, least: number) =>
  fieldsFor<Lying>().length("width", "Width", {
    help: `Width on the stock of ${what}; its height follows.`,
    min: least,
    max: 5000,
    step: 1,
    slider: true,
    auto: (c) => {
      const fits = fittingWidth(c, least);
      if (c.over.width <= fits) return { value: even(c.over.width), reason: `as it was ${made}` };
      return { value: fits, reason: `${made} ${formatLength(c.over.width)} mm wide; scaled to fit the stock` };
    },
    consequence: (v, c) => `${even(heightFor(c, v))} mm high`,
  });
