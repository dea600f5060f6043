import { boundsOf } from "../../geometry/rings.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { type BoardSize, defineMaking } from "../kind.ts";
import { even } from "../placing.ts";
import { later } from "../../later.ts";

interface TextureContext {
  board: BoardSize;
  /** of what is tiled, mm */
  wide: number;
  /** where the shapes lie that it is laid over; null without any */
  over: { x0: number; y0: number; wide: number; high: number } | null;
}

const place = { min: -5000, max: 5000, step: 0.5, more: true } as const;
const size = { min: 1, max: 5000, step: 1, more: true } as const;
const over = (shapes: number | undefined, board: number) =>
  shapes === undefined
    ? { value: even(board), reason: "over the board" }
    : { value: shapes, reason: "over the shapes" };

const fields = fieldsFor<TextureContext>()
  .length("tile", "Tile width", {
    help: "How wide each tile is; its height follows, its depths stay.",
    min: 0.5,
    max: 5000,
    step: 1,
    slider: true,
    auto: (c) => ({ value: even(c.wide), reason: "as wide as the surface is" }),
  })
  .choice("seams", "Next to each other", {
    options: [
      { value: "again", label: "all alike" },
      { value: "mirrored", label: "mirrored in turn" },
    ],
    help: "Mirrored, tiles meet without a step whatever they are made of; alike, for textures that join by themselves.",
    auto: () => ({ value: "mirrored", reason: "no step at the seams" }),
  })
  .length("soft", "Soft edge", {
    help: "Within this much of the edge of the shapes it rises to the stock's top.",
    min: 0,
    max: 200,
    step: 0.5,
    slider: true,
    auto: () => ({ value: 0, reason: "a hard edge" }),
  })
  .length("x", "From the left", { ...place, auto: (c) => over(c.over?.x0, 0) })
  .length("y", "From the front", { ...place, auto: (c) => over(c.over?.y0, 0) })
  .length("wide", "Width", { ...size, auto: (c) => over(c.over?.wide, c.board.width) })
  .length("high", "Height", { ...size, auto: (c) => over(c.over?.high, c.board.height) });
export type TextureSettings = SettingsOf<typeof fields>;

export const reads = {
  from: { gives: "heights", label: "Surface" },
  over: { gives: "shapes", label: "Only inside", optional: true },
} as const;

const work = later(() => import("./make.ts"));

/** A surface laid side by side like tiles, over the board or over shapes. */
export const texture = defineMaking({
  kind: "texture",
  title: "Texture",
  about: "lays this surface side by side like tiles, over the board or over shapes",
  reads,
  gives: "heights",
  fields,
  handles: {},
  context: ({ reads: { from, over }, board }): TextureContext => {
    const wide = from.field.width * from.field.cell;
    if (!over) return { board, wide, over: null };
    const b = boundsOf(over.ink.xy);
    const sides = { x0: b.minX, y0: b.minY, wide: b.maxX - b.minX, high: b.maxY - b.minY };
    return { board, wide, over: sides };
  },
  make: work("make"),
});
