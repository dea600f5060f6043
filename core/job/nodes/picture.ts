import type { Field, Settings } from "../../settings/fields.ts";
import { parseErase } from "../../picture/erase.ts";
import { cropBox, type FrameSettings, framedSize, NO_FRAME, type PictureBox } from "../../picture/frame.ts";
import type { Placement } from "../../outline/outline.ts";
import type { StockSettings } from "../document.ts";

export interface PictureContext {
  stock: StockSettings;
  /** pixels, as framed */
  width: number;
  height: number;
  /** what its outlines find in it, px; null where they find nothing, or where nobody asks */
  art: PictureBox | null;
}

const even = (v: number): number => Math.round(v * 100) / 100;

/** What width, height and place are measured over, px. */
const measuredOver = (c: PictureContext): PictureBox => c.art ?? { x: 0, y: 0, width: c.width, height: c.height };

/** Height on the stock for a width, mm. */
const heightFor = (c: PictureContext, width: number): number => {
  const over = measuredOver(c);
  return (width * over.height) / over.width;
};

export const pictureFields: readonly Field<PictureContext>[] = [
  {
    key: "measured",
    label: "Measured over",
    type: "choice",
    options: [
      { value: "art", label: "the art" },
      { value: "picture", label: "the whole picture" },
    ],
    help:
      "What width and place are given of: the art, as a ruler shows it on the finished piece, or the whole picture " +
      "with its blank surround.",
    auto: () => ({ value: "picture", reason: "as jobs were before this could be chosen" }),
  },
  {
    key: "width",
    label: "Width",
    type: "length",
    help: "Width on the stock of what is measured; its height follows.",
    min: 1,
    max: 5000,
    step: 1,
    slider: true,
    auto: (c) => {
      const room = { x: c.stock.width - 2 * c.stock.margin, y: c.stock.height - 2 * c.stock.margin };
      const over = measuredOver(c);
      const width = even(Math.max(1, Math.min(room.x, (room.y * over.width) / over.height)));
      return { value: width, reason: "fills the stock inside its margin" };
    },
    consequence: (v, c) =>
      `${even(heightFor(c, v as number))} mm high · ${(measuredOver(c).width / (v as number)).toFixed(1)} px/mm`,
  },
  {
    key: "x",
    label: "From the left",
    type: "length",
    help: "Its left edge from the stock's left edge.",
    min: -5000,
    max: 5000,
    step: 0.5,
    auto: (c, s) => ({ value: even((c.stock.width - (s.width as number)) / 2), reason: "centred" }),
  },
  {
    key: "y",
    label: "From the front",
    type: "length",
    help: "Its near edge from the stock's near edge.",
    min: -5000,
    max: 5000,
    step: 0.5,
    auto: (c, s) => ({ value: even((c.stock.height - heightFor(c, s.width as number)) / 2), reason: "centred" }),
  },
  {
    key: "turn",
    label: "Turned by",
    type: "angle",
    help: "Straightens a picture that was scanned askew; counter-clockwise.",
    min: -360,
    max: 360,
    step: 0.1,
    more: true,
    tool: "straighten",
    auto: () => ({ value: NO_FRAME.turn, reason: "upright as it is" }),
  },
  {
    key: "crop",
    label: "Crop",
    type: "text",
    help: "The part kept: x, y, width and height in pixels.",
    more: true,
    tool: "crop",
    check: (t) => void cropBox(t, 1e9, 1e9),
    auto: () => ({ value: NO_FRAME.crop, reason: "all of it" }),
  },
  {
    key: "erase",
    label: "Erased",
    type: "text",
    help: "Marks wiped off the picture: a watermark, a stray line, a name. Each stays a setting and can be undone.",
    more: true,
    tool: "erase",
    check: (t) => void parseErase(t),
    auto: () => ({ value: NO_FRAME.erase, reason: "nothing" }),
  },
  {
    key: "corners",
    label: "Squared up",
    type: "text",
    help: "For a drawing photographed at an angle: its four corners become a rectangle.",
    more: true,
    tool: "corners",
    check: (t) => void framedSize(1e6, 1e6, { ...NO_FRAME, corners: t }),
    auto: () => ({ value: NO_FRAME.corners, reason: "seen from straight above" }),
  },
];

/** The framing that a picture's own settings ask for. */
export const frameOf = (own: Settings): FrameSettings => ({
  corners: (own.corners as string) ?? NO_FRAME.corners,
  turn: (own.turn as number) ?? NO_FRAME.turn,
  erase: (own.erase as string) ?? NO_FRAME.erase,
  crop: (own.crop as string) ?? NO_FRAME.crop,
});

/** Where the picture's pixels lie on the stock. */
export function placement(
  s: Settings,
  pixelWidth: number,
  pixelHeight: number,
  art: PictureBox | null,
): Placement & { width: number; height: number; y0: number } {
  const over = art ?? { x: 0, y: 0, width: pixelWidth, height: pixelHeight };
  const scale = (s.width as number) / over.width;
  const height = scale * pixelHeight;
  const y1 = (s.y as number) + scale * (over.y + over.height);
  return { scale, x0: (s.x as number) - scale * over.x, y0: y1 - height, y1, width: scale * pixelWidth, height };
}
