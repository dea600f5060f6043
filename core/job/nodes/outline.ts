import type { Field } from "../../settings/fields.ts";
import { formatLength } from "../../units.ts";

export interface OutlineContext {
  /** ink level found in the picture's own greys */
  found: number;
  /** mm per pixel */
  scale: number;
}

/** A fit no closer than this share of a pixel, nor than HOLD_LEAST mm: closer only follows noise. */
const HOLD_PIXELS = 0.5;
const HOLD_LEAST = 0.02;
const HOLD_MOST = 0.1;

export const outlineFields: readonly Field<OutlineContext>[] = [
  {
    key: "ink",
    label: "Ink level",
    type: "share",
    help: "The grey at which ink begins: 0 is black, 100 % is white. Higher takes more in.",
    min: 0.004,
    max: 0.996,
    step: 0.004,
    slider: true,
    auto: (c) => ({ value: Math.round(Math.max(0.01, Math.min(0.99, c.found)) * 250) / 250, reason: "parts the picture's greys into two groups best" }),
  },
  {
    key: "hold",
    label: "Hold within",
    type: "length",
    help: "How far the fitted lines and curves may stray from the picture's edge.",
    min: 0.002,
    max: 5,
    step: 0.01,
    slider: true,
    auto: (c) => {
      const v = Math.round(Math.max(HOLD_LEAST, Math.min(HOLD_MOST, HOLD_PIXELS * c.scale)) * 1000) / 1000;
      return { value: v, reason: `half a pixel is ${formatLength(HOLD_PIXELS * c.scale, "mm", 3)} mm` };
    },
  },
  {
    key: "specks",
    label: "Specks under",
    type: "area",
    help: "Pieces of ink smaller than this are dropped.",
    min: 0,
    max: 100000,
    step: 0.1,
    auto: (c) => ({ value: Math.round(Math.max(0.1, 9 * c.scale * c.scale) * 100) / 100, reason: "too small to cut, or nine pixels" }),
  },
  { key: "pinholes", label: "Pinholes under", type: "area", help: "Holes in the ink smaller than this are filled.", min: 0, max: 100000, step: 0.1, auto: (_c, s) => ({ value: s.specks as number, reason: "as specks" }) },
  { key: "corner", label: "Corners from", type: "angle", help: "Turns sharper than this stay corners; gentler ones become smooth.", min: 5, max: 175, step: 5, more: true, auto: () => ({ value: 40, reason: "keeps the corners of letters, smooths pixel steps" }) },
];
