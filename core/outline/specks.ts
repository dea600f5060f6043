import Flatbush from "flatbush";
import type { Grey } from "../picture/raster.ts";
import { contourArea, type Contours } from "./contours.ts";

/** Pieces smaller than this many pixels tell nothing of what they are: one or two pixels of noise look the same. */
const LEAST_PIXELS = 1.4;
/**
 * What was drawn is at least this share as dark against its ground as the picture's ink is; noise mostly just passes
 * the level.
 */
const CONTRAST = 0.5;
/** A dot belongs to what is as near as so many times its own size, and a little more, px. */
const NEAR = 3;
const NEAR_PIXELS = 2;
/** Lettering is at most so many times as large as the dots that belong to it. */
const LETTER = 24;
/** Dots in a row: at least so many others nearby, of about the same size. */
const FELLOWS = 2;
const ALIKE = 1.6;
/** Rows of dots are only told from noise where each dot is at least so large, px². */
const ROW_PIXELS = 3;

/**
 * Which of the contours under a size were drawn: the dots of an i, full stops, dotted lines, the eye of a small e. They
 * are as dark as the ink, and beside lettering or in a row of their like; specks of noise are paler or stand alone.
 * @param level the ink level, 0 … 1, that the contours were found at
 * @param specks pieces under this are looked at, px²
 * @param pinholes holes under this are looked at, px²
 * @returns 1 for every contour that was drawn, whatever its size
 */
export function drawnContours(c: Contours, grey: Grey, level: number, specks: number, pinholes: number): Uint8Array {
  const n = c.parent.length;
  const drawn = new Uint8Array(n);
  const boxes: Box[] = [];
  const small: number[] = [];
  const area = new Float64Array(n);
  for (let k = 0; k < n; k++) {
    area[k] = contourArea(c, k);
    const isSmall = area[k] < (c.hole[k] ? pinholes : specks);
    boxes.push(boxOf(c, k));
    if (!isSmall) drawn[k] = 1;
    else if (area[k] >= LEAST_PIXELS) small.push(k);
  }
  if (small.length === 0) return drawn;
  const cut = level * grey.max;
  const { ink, paper } = sides(grey, cut);
  const strong = small.filter((k) => {
    const reached = c.hole[k] ? extreme(grey, boxes[k], 1) - cut : cut - extreme(grey, boxes[k], -1);
    return reached >= CONTRAST * (c.hole[k] ? paper - cut : cut - ink);
  });
  // A hole lies in ink that stays: nothing else needs to be near it.
  const dots = strong.filter((k) => {
    if (c.hole[k]) drawn[k] = 1;
    return !c.hole[k];
  });
  const letters = indexOf(
    boxes,
    Array.from(drawn.keys()).filter((k) => drawn[k] === 1 && c.hole[k] === 0),
  );
  const others = indexOf(boxes, dots);
  for (const k of dots) {
    const size = sizeOf(boxes[k]);
    const reach = NEAR * size + NEAR_PIXELS;
    const besideLetter = letters.near(boxes[k], reach).some((q) => sizeOf(boxes[q]) <= LETTER * size);
    const alike =
      area[k] < ROW_PIXELS
        ? 0
        : others.near(boxes[k], reach).filter((q) => q !== k && area[q] < ALIKE * area[k] && area[k] < ALIKE * area[q])
            .length;
    if (besideLetter || alike >= FELLOWS) drawn[k] = 1;
  }
  return drawn;
}

interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

const sizeOf = (b: Box): number => Math.max(b.x1 - b.x0, b.y1 - b.y0);

function boxOf(c: Contours, k: number): Box {
  const b = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (let i = c.starts[k]; i < c.starts[k + 1]; i++) {
    const [x, y] = [c.xy[2 * i], c.xy[2 * i + 1]];
    if (x < b.x0) b.x0 = x;
    if (x > b.x1) b.x1 = x;
    if (y < b.y0) b.y0 = y;
    if (y > b.y1) b.y1 = y;
  }
  return b;
}

/** Mean grey of the picture's ink, and of its paper. */
function sides({ data }: Grey, cut: number): { ink: number; paper: number } {
  let [dark, light, darks, lights] = [0, 0, 0, 0];
  // An even spread of pixels tells as much as all of them.
  const stride = Math.max(1, Math.floor(data.length / 100_000));
  for (let i = 0; i < data.length; i += stride)
    if (data[i] < cut) {
      dark += data[i];
      darks++;
    } else {
      light += data[i];
      lights++;
    }
  return { ink: darks > 0 ? dark / darks : 0, paper: lights > 0 ? light / lights : cut };
}

/** The darkest (−1) or lightest (1) grey of the pixels whose centres lie in a box. */
function extreme({ width: W, height: H, data }: Grey, b: Box, which: 1 | -1): number {
  let best = which < 0 ? Infinity : -Infinity;
  for (let y = Math.max(0, Math.floor(b.y0)); y <= Math.min(H - 1, Math.ceil(b.y1) - 1); y++)
    for (let x = Math.max(0, Math.floor(b.x0)); x <= Math.min(W - 1, Math.ceil(b.x1) - 1); x++) {
      const v = data[y * W + x];
      if (which < 0 ? v < best : v > best) best = v;
    }
  return best;
}

/** Boxes that can be asked for by place. */
function indexOf(boxes: readonly Box[], ids: readonly number[]): { near(b: Box, reach: number): number[] } {
  if (ids.length === 0) return { near: () => [] };
  const index = new Flatbush(ids.length);
  for (const k of ids) index.add(boxes[k].x0, boxes[k].y0, boxes[k].x1, boxes[k].y1);
  index.finish();
  return {
    near: (b, reach) => index.search(b.x0 - reach, b.y0 - reach, b.x1 + reach, b.y1 + reach).map((i) => ids[i]),
  };
}
