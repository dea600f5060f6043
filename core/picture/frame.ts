import { numbersOf } from "../units.ts";
import { Problem } from "../problem.ts";
import { eraseFrom, parseErase } from "./erase.ts";
import type { Raster } from "./raster.ts";
import { hypot } from "../hypot.ts";

/** How a picture is brought into shape before its tone, as settings: nothing is burnt into the file. */
export interface FrameSettings {
  /**
   * eight numbers: x y of the far left, far right, near right and near left corner of what shall be a rectangle, px;
   * empty for none
   */
  corners: string;
  /** turned by so many degrees, counter-clockwise */
  turn: number;
  /** what is wiped away, in pixels of the turned picture; see `erase.ts` */
  erase: string;
  /** x, y, width, height kept, in pixels of the turned picture; empty for all */
  crop: string;
}

/** A rectangle of a picture, px. */
export interface PictureBox {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The smallest box round two. */
export function boxAround(a: PictureBox, b: PictureBox): PictureBox {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  const right = Math.max(a.x + a.width, b.x + b.width);
  const bottom = Math.max(a.y + a.height, b.y + b.height);
  return { x, y, width: right - x, height: bottom - y };
}

export const NO_FRAME: FrameSettings = { corners: "", turn: 0, erase: "", crop: "" };

/** Smallest side of a crop, px. */
const LEAST_CROP = 16;

/** The part of a `width` × `height` picture that a crop keeps, whole pixels. @throws Problem `bad-crop` */
export function cropBox(crop: string, width: number, height: number): PictureBox {
  if (crop.trim() === "") return { x: 0, y: 0, width, height };
  const n = numbersOf(crop, "Crop");
  if (n.length !== 4)
    throw new Problem(
      "bad-crop",
      `Crop: write x, y, width and height in pixels, such as 40,30,800,600; "${crop}" has ${n.length} numbers.`,
    );
  const x = Math.max(0, Math.round(n[0]));
  const y = Math.max(0, Math.round(n[1]));
  const w = Math.min(width, Math.round(n[0] + n[2])) - x;
  const h = Math.min(height, Math.round(n[1] + n[3])) - y;
  if (w < LEAST_CROP || h < LEAST_CROP)
    throw new Problem(
      "bad-crop",
      `Crop: "${crop}" keeps less than ${LEAST_CROP} pixels of the ${width} × ${height} picture. ` +
        "Choose a larger part.",
    );
  return { x, y, width: w, height: h };
}

/** Size in pixels that framing leads to, without touching a pixel. @throws Problem on bad settings */
export function framedSize(width: number, height: number, s: FrameSettings): { width: number; height: number } {
  const squared = squaredSize(s.corners, width, height);
  const turned = turnedSize(squared.width, squared.height, s.turn);
  const box = cropBox(s.crop, turned.width, turned.height);
  return { width: box.width, height: box.height };
}

/**
 * Squares up, turns, erases and crops, in this order. The picture itself where nothing is asked.
 * @throws Problem `bad-setting`, `bad-crop` or `bad-corners`
 */
export function framed(r: Raster, s: FrameSettings): Raster {
  let out = r;
  if (s.corners.trim() !== "") out = squaredUp(out, s.corners);
  if (s.turn % 360 !== 0) out = turned(out, s.turn);
  const erased = parseErase(s.erase);
  if (erased.length > 0) out = eraseFrom(out, erased);
  const box = cropBox(s.crop, out.width, out.height);
  return box.width === out.width && box.height === out.height ? out : cropped(out, box);
}

function cropped(r: Raster, b: PictureBox): Raster {
  const data =
    r.data instanceof Uint16Array ? new Uint16Array(4 * b.width * b.height) : new Uint8Array(4 * b.width * b.height);
  for (let y = 0; y < b.height; y++) {
    const from = 4 * ((b.y + y) * r.width + b.x);
    data.set(r.data.subarray(from, from + 4 * b.width), 4 * y * b.width);
  }
  return { width: b.width, height: b.height, data };
}

/** Size of a picture turned by so many degrees, px. */
export function turnedSize(width: number, height: number, degrees: number): { width: number; height: number } {
  if (degrees % 360 === 0) return { width, height };
  const a = (degrees * Math.PI) / 180;
  const [c, s] = [Math.abs(Math.cos(a)), Math.abs(Math.sin(a))];
  return {
    width: Math.max(1, Math.round(c * width + s * height)),
    height: Math.max(1, Math.round(s * width + c * height)),
  };
}

function turned(r: Raster, degrees: number): Raster {
  const { width, height } = turnedSize(r.width, r.height, degrees);
  const a = (degrees * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  return resampled(r, width, height, (x, y, at) => {
    const dx = x - width / 2;
    const dy = y - height / 2;
    at[0] = r.width / 2 + c * dx - s * dy;
    at[1] = r.height / 2 + s * dx + c * dy;
  });
}

function cornerPoints(corners: string): number[] {
  const n = numbersOf(corners, "Corners");
  if (n.length !== 8)
    throw new Problem(
      "bad-corners",
      `Corners: write x and y of all four, eight numbers; "${corners}" has ${n.length}.`,
    );
  // All four turns the same way, or the four-sided figure folds over itself.
  const turn = (i: number) => {
    const p = (k: number) => [n[2 * ((i + k) % 4)], n[2 * ((i + k) % 4) + 1]];
    const [ax, ay] = p(0);
    const [bx, by] = p(1);
    const [cx, cy] = p(2);
    return (bx - ax) * (cy - by) - (by - ay) * (cx - bx);
  };
  if (![0, 1, 2, 3].every((i) => turn(i) > 1))
    throw new Problem(
      "bad-corners",
      "Corners: the four points must go round clockwise, far left first, without crossing. Drag them apart.",
    );
  return n;
}

/** Size of a picture squared up by its corners, px. @throws Problem `bad-corners` */
export function squaredSize(corners: string, width: number, height: number): { width: number; height: number } {
  if (corners.trim() === "") return { width, height };
  const n = cornerPoints(corners);
  const side = (i: number, j: number) => hypot(n[2 * i] - n[2 * j], n[2 * i + 1] - n[2 * j + 1]);
  return {
    width: Math.max(LEAST_CROP, Math.round((side(0, 1) + side(3, 2)) / 2)),
    height: Math.max(LEAST_CROP, Math.round((side(0, 3) + side(1, 2)) / 2)),
  };
}

/**
 * The plane projection that takes the unit square to four points (P. Heckbert, "Fundamentals of texture mapping and
 * image warping", 1989, §2.2.3).
 */
function squaredUp(r: Raster, corners: string): Raster {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = cornerPoints(corners);
  const { width, height } = squaredSize(corners, r.width, r.height);
  const sx = x0 - x1 + x2 - x3;
  const sy = y0 - y1 + y2 - y3;
  const det = (x1 - x2) * (y3 - y2) - (x3 - x2) * (y1 - y2);
  const g = (sx * (y3 - y2) - (x3 - x2) * sy) / det;
  const h = ((x1 - x2) * sy - sx * (y1 - y2)) / det;
  const [a, b, d, e] = [x1 - x0 + g * x1, x3 - x0 + h * x3, y1 - y0 + g * y1, y3 - y0 + h * y3];
  return resampled(r, width, height, (x, y, at) => {
    const u = x / width;
    const v = y / height;
    const w = g * u + h * v + 1;
    at[0] = (a * u + b * v + x0) / w;
    at[1] = (d * u + e * v + y0) / w;
  });
}

/** Every pixel of a new picture from its place in the old one, bilinear; transparent outside. */
function resampled(
  r: Raster,
  width: number,
  height: number,
  from: (x: number, y: number, at: Float64Array) => void,
): Raster {
  const wide = r.data instanceof Uint16Array;
  const data = wide ? new Uint16Array(4 * width * height) : new Uint8Array(4 * width * height);
  const at = new Float64Array(2);
  const W = r.width;
  const H = r.height;
  const src = r.data;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      from(x + 0.5, y + 0.5, at);
      const fx = at[0] - 0.5;
      const fy = at[1] - 0.5;
      if (fx < -0.5 || fy < -0.5 || fx > W - 0.5 || fy > H - 0.5) continue;
      const i = Math.max(0, Math.min(W - 1, Math.floor(fx)));
      const j = Math.max(0, Math.min(H - 1, Math.floor(fy)));
      const i1 = Math.min(W - 1, i + 1);
      const j1 = Math.min(H - 1, j + 1);
      const tx = Math.max(0, Math.min(1, fx - i));
      const ty = Math.max(0, Math.min(1, fy - j));
      const p = 4 * (j * W + i);
      const q = 4 * (j * W + i1);
      const u = 4 * (j1 * W + i);
      const v = 4 * (j1 * W + i1);
      const o = 4 * (y * width + x);
      for (let k = 0; k < 4; k++)
        data[o + k] =
          (1 - ty) * ((1 - tx) * src[p + k] + tx * src[q + k]) + ty * ((1 - tx) * src[u + k] + tx * src[v + k]) + 0.5;
    }
  return { width, height, data };
}
