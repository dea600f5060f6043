import { noProgress, type Progress } from "../problem.ts";
import { boxMeans } from "./box.ts";
import type { Grey, Raster } from "./raster.ts";

/** Rec. ITU-R BT.709 luma weights, applied to the encoded samples: grey as the eye orders it. */
export const LUMA = { r: 0.2126, g: 0.7152, b: 0.0722 } as const;

/** How colours become grey, as the tone step resolves its fields; lengths in pixels. */
export interface ToneSettings {
  /** weights of the channels; only their proportion counts, negative ones darken what has that colour */
  red: number;
  green: number;
  blue: number;
  /** swap black and white, so that the light parts become the ink */
  invert: boolean;
  /** greys that become black and white, 0…1 */
  black: number;
  white: number;
  /** the curve: what a quarter, half and three quarters of the way from black to white become, 0…1 */
  dark: number;
  middle: number;
  light: number;
  /** edge-keeping smoothing: radius in pixels, 0 for none */
  smooth: number;
  /** local contrast: how much of the difference from a wide mean is added, and how wide, px */
  local: number;
  localRadius: number;
  /** unsharp masking over one pixel: how much of the difference is added */
  sharpen: number;
  /** evens out lighting over a window of this radius in pixels, 0 for none */
  even: number;
}

export const PLAIN_TONE: ToneSettings = {
  red: LUMA.r,
  green: LUMA.g,
  blue: LUMA.b,
  invert: false,
  black: 0,
  white: 1,
  dark: 0.25,
  middle: 0.5,
  light: 0.75,
  smooth: 0,
  local: 0,
  localRadius: 20,
  sharpen: 0,
  even: 0,
};

/**
 * Colour to grey, composited on white where the picture is transparent; keeps 16 bits where the picture has them.
 * Order: channels, smoothing, evening, local contrast, sharpening, black and white point with the curve, invert.
 * @param raster RGBA samples
 * @returns grey samples of the same depth
 */
export function toGrey(raster: Raster, settings: Partial<ToneSettings>, progress: Progress = noProgress): Grey {
  const s: ToneSettings = { ...PLAIN_TONE, ...settings };
  let g = mixed(raster, s);
  progress(0.3);
  if (s.smooth > 0) smoothKeepingEdges(g, Math.round(s.smooth));
  progress(0.5);
  if (s.even > 0) evenOut(g, Math.round(s.even));
  progress(0.7);
  if (s.local > 0) addDifference(g, Math.max(2, Math.round(s.localRadius)), s.local);
  if (s.sharpen > 0) addDifference(g, 1, s.sharpen);
  progress(0.9);
  g = curved(g, s);
  return g;
}

function mixed(raster: Raster, s: ToneSettings): Grey {
  const { width, height, data } = raster;
  const wide = data instanceof Uint16Array;
  const max = wide ? 65535 : 255;
  const n = width * height;
  const out = wide ? new Uint16Array(n) : new Uint8Array(n);
  const total = s.red + s.green + s.blue;
  const k = Math.abs(total) < 1e-6 ? 1 : 1 / total;
  // Fixed point: the three weights sum to exactly one unit, so that white stays white.
  const ONE = 1 << 15;
  const wr = Math.round(s.red * k * ONE);
  const wb = Math.round(s.blue * k * ONE);
  const wg = ONE - wr - wb;
  const plain = wr >= 0 && wg >= 0 && wb >= 0;
  if (plain && !wide) {
    mixBytes(data as Uint8Array, wr, wg, wb, out as Uint8Array);
    return { width, height, data: out, max };
  }
  for (let i = 0, j = 0; i < n; i++, j += 4) {
    const a = data[j + 3];
    let v = (data[j] * wr + data[j + 1] * wg + data[j + 2] * wb + ONE / 2) / ONE;
    if (!plain) v = v < 0 ? 0 : v > max ? max : v;
    if (a !== max) v = (v * a + max * (max - a)) / max;
    out[i] = v;
  }
  return { width, height, data: out, max };
}

/** As {@link mixed}, in whole numbers: weights that sum to 2¹⁵, none below nought. */
function mixBytes(rgba: Uint8Array, wr: number, wg: number, wb: number, out: Uint8Array): void {
  for (let i = 0, j = 0; i < out.length; i++, j += 4) {
    const v = (rgba[j] * wr + rgba[j + 1] * wg + rgba[j + 2] * wb + (1 << 14)) >> 15;
    const a = rgba[j + 3];
    out[i] = a === 255 ? v : (v * a + 255 * (255 - a)) / 255;
  }
}

/** Variance below this is noise to smooth away, above it an edge to keep; share of the whole range, squared. */
const EDGE_VARIANCE = 0.04 ** 2;

/** K. He, J. Sun, X. Tang, "Guided image filtering", 2010, the picture guiding itself. */
function smoothKeepingEdges(g: Grey, radius: number): void {
  const { width, height, data, max } = g;
  const mean = boxMeans(width, height, radius, data);
  const square = boxMeans(width, height, radius, data, 2);
  const eps = EDGE_VARIANCE * max * max;
  // mean and square become the slope a and the offset b of each window's line.
  for (let i = 0; i < mean.length; i++) {
    const variance = Math.max(0, square[i] - mean[i] * mean[i]);
    const a = variance / (variance + eps);
    square[i] = mean[i] * (1 - a);
    mean[i] = a;
  }
  const slope = boxMeans(width, height, radius, mean);
  const offset = boxMeans(width, height, radius, square, 1, mean);
  for (let i = 0; i < data.length; i++) data[i] = clamp(slope[i] * data[i] + offset[i], max);
}

/** A stroke this many local standard deviations darker than its surroundings comes out black. */
const EVEN_RANGE = 1.6;
/** Local spread is taken as at least this many times the noise … */
const EVEN_NOISE = 5;
/** … and at least this share of what the busiest parts have, so that flat ground stays flat. */
const EVEN_SHARE = 0.35;
/** The busiest parts: the spread that so many of the windows stay under. */
const EVEN_BUSY = 0.95;

/**
 * Each pixel against the mean and spread of its own window (after J. Sauvola, M. Pietikäinen, "Adaptive document image
 * binarization", 2000), kept as a grey so that edges stay good to parts of a pixel: ground comes out at the middle.
 */
function evenOut(g: Grey, radius: number): void {
  const { width, height, data, max } = g;
  const mean = boxMeans(width, height, radius, data);
  const spread = boxMeans(width, height, radius, data, 2);
  const looks: number[] = [];
  const step = Math.max(1, Math.floor(data.length / 100_000));
  for (let i = 0; i < data.length; i++) {
    spread[i] = Math.sqrt(Math.max(0, spread[i] - mean[i] * mean[i]));
    if (i % step === 0) looks.push(spread[i]);
  }
  looks.sort((a, b) => a - b);
  const least = Math.max(
    1e-6 * max,
    EVEN_NOISE * noiseOf(g),
    EVEN_SHARE * looks[Math.floor(EVEN_BUSY * (looks.length - 1))],
  );
  for (let i = 0; i < data.length; i++)
    data[i] = clamp(max * (0.5 + (data[i] - mean[i]) / (2 * EVEN_RANGE * Math.max(least, spread[i]))), max);
}

/**
 * Standard deviation of the noise: J. Immerkær, "Fast noise variance estimation", 1996, by the median so that edges
 * count little.
 */
export function noiseOf(g: Grey): number {
  const { width, height, data } = g;
  if (width < 3 || height < 3) return 0;
  const step = Math.max(1, Math.floor((width * height) / 200_000));
  const found: number[] = [];
  for (let i = width + 1; i < width * (height - 1) - 1; i += step) {
    const x = i % width;
    if (x === 0 || x === width - 1) continue;
    found.push(
      Math.abs(
        data[i - width - 1] +
          data[i - width + 1] +
          data[i + width - 1] +
          data[i + width + 1] -
          2 * (data[i - width] + data[i - 1] + data[i + 1] + data[i + width]) +
          4 * data[i],
      ),
    );
  }
  found.sort((a, b) => a - b);
  // The mask's norm is 6; the median of a folded normal distribution lies at 0.6745 σ.
  return found.length === 0 ? 0 : found[found.length >> 1] / 6 / 0.6745;
}

function addDifference(g: Grey, radius: number, amount: number): void {
  const { width, height, data, max } = g;
  const mean = boxMeans(width, height, radius, data);
  for (let i = 0; i < data.length; i++) data[i] = clamp(data[i] + amount * (data[i] - mean[i]), max);
}

function curved(g: Grey, s: ToneSettings): Grey {
  const straight = s.black === 0 && s.white === 1 && s.dark === 0.25 && s.middle === 0.5 && s.light === 0.75;
  if (straight && !s.invert) return g;
  const { data, max } = g;
  const table = max === 255 ? new Uint8Array(256) : new Uint16Array(65536);
  const span = Math.max(1e-3, s.white - s.black);
  const curve = monotone([0, 0.25, 0.5, 0.75, 1], [0, s.dark, s.middle, s.light, 1]);
  for (let i = 0; i <= max; i++) {
    const v = Math.max(0, Math.min(1, (i / max - s.black) / span));
    const out = straight ? v : curve(v);
    table[i] = clamp(max * (s.invert ? 1 - out : out), max);
  }
  for (let i = 0; i < data.length; i++) data[i] = table[data[i]];
  return g;
}

const clamp = (v: number, max: number): number => (v < 0 ? 0 : v > max ? max : v + 0.5);

/**
 * A smooth curve through the points that never overshoots: F. Fritsch, R. Carlson, "Monotone piecewise cubic
 * interpolation", 1980.
 */
export function monotone(x: readonly number[], y: readonly number[]): (at: number) => number {
  const n = x.length;
  const slope = Array.from({ length: n - 1 }, (_, i) => (y[i + 1] - y[i]) / (x[i + 1] - x[i]));
  const m = Array.from({ length: n }, (_, i) =>
    i === 0
      ? slope[0]
      : i === n - 1
        ? slope[n - 2]
        : slope[i - 1] * slope[i] <= 0
          ? 0
          : (2 * slope[i - 1] * slope[i]) / (slope[i - 1] + slope[i]),
  );
  for (const end of [0, n - 1]) {
    const s = slope[Math.min(end, n - 2)];
    if (s === 0) m[end] = 0;
  }
  return (at) => {
    let i = 0;
    while (i < n - 2 && at > x[i + 1]) i++;
    const h = x[i + 1] - x[i];
    const t = (at - x[i]) / h;
    const [t2, t3] = [t * t, t * t * t];
    return (
      (2 * t3 - 3 * t2 + 1) * y[i] +
      (t3 - 2 * t2 + t) * h * m[i] +
      (3 * t2 - 2 * t3) * y[i + 1] +
      (t3 - t2) * h * m[i + 1]
    );
  };
}

/** How many samples fall on each of 256 grey steps. */
export function histogram(grey: Grey): Uint32Array {
  const bins = new Uint32Array(256);
  const d = grey.data;
  if (d instanceof Uint16Array) {
    const shift = grey.max === 65535 ? 8 : 0;
    for (let i = 0; i < d.length; i++) bins[d[i] >> shift]++;
    return bins;
  }
  // Four pixels at a time, into bins of two that lie beside each other; words that repeat, most of a drawing, are
  // counted first.
  const words = new Uint32Array(d.buffer, d.byteOffset, d.byteOffset % 4 === 0 ? d.length >> 2 : 0);
  const pairs = new Uint32Array(65536);
  for (let i = 0; i < words.length;) {
    const w = words[i];
    let next = i + 1;
    while (next < words.length && words[next] === w) next++;
    pairs[w & 65535] += next - i;
    pairs[w >>> 16] += next - i;
    i = next;
  }
  for (let i = 0; i < 65536; i++) {
    bins[i & 255] += pairs[i];
    bins[i >> 8] += pairs[i];
  }
  for (let i = 4 * words.length; i < d.length; i++) bins[d[i]]++;
  return bins;
}

/**
 * The ink level that separates the two classes of grey best: N. Otsu, "A threshold selection method from
 * gray-level histograms", IEEE Trans. SMC 9 (1979). Where a whole range serves equally, its middle.
 * @param bins histogram of 256 steps
 * @returns a level in 0…1
 */
export function findInkLevel(bins: Uint32Array): number {
  let total = 0;
  let sum = 0;
  for (let i = 0; i < 256; i++) {
    total += bins[i];
    sum += i * bins[i];
  }
  let w = 0;
  let s = 0;
  let best = -1;
  let first = 127;
  let last = 127;
  for (let i = 0; i < 255; i++) {
    w += bins[i];
    s += i * bins[i];
    if (w === 0 || w === total) continue;
    const gap = s / w - (sum - s) / (total - w);
    const between = w * (total - w) * gap * gap;
    if (between > best * (1 + 1e-9)) {
      best = between;
      first = last = i;
    } else if (between >= best * (1 - 1e-9)) last = i;
  }
  return ((first + last) / 2 + 0.5) / 255;
}

/**
 * The darkest and the lightest grey of a picture, 0…1, but for a share of its pixels that is darker, and one that is
 * lighter.
 */
export function greyRange(bins: Uint32Array, but: number): { dark: number; light: number } {
  let total = 0;
  for (const b of bins) total += b;
  const cut = total * but;
  let lo = 0;
  let hi = 255;
  for (let seen = bins[0]; lo < 255 && seen <= cut; seen += bins[++lo]);
  for (let seen = bins[255]; hi > 0 && seen <= cut; seen += bins[--hi]);
  return { dark: lo / 255, light: Math.max(lo, hi) / 255 };
}

/** Pixels darker or lighter than all others that do not make a picture's contrast. */
const RARE = 0.005;

/** Share of black to white that a picture really uses, 0…1. */
export function contrast(bins: Uint32Array): number {
  const { dark, light } = greyRange(bins, RARE);
  return light - dark;
}
