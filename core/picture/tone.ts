import type { Grey, Raster } from "./raster.ts";

/** Rec. ITU-R BT.709 luma weights, applied to the encoded samples: grey as the eye orders it. */
export const LUMA = { r: 0.2126, g: 0.7152, b: 0.0722 } as const;

export interface ToneSettings {
  /** Swap black and white, so that the light parts become the ink. */
  invert: boolean;
}

/**
 * Colour to grey: luma, composited on white where the picture is transparent. Keeps 16 bits where the picture has them.
 * @param raster RGBA samples
 * @returns grey samples of the same depth
 */
export function toGrey(raster: Raster, settings: ToneSettings): Grey {
  const { width, height, data } = raster;
  const wide = data instanceof Uint16Array;
  const max = wide ? 65535 : 255;
  const n = width * height;
  const out = wide ? new Uint16Array(n) : new Uint8Array(n);
  // Fixed point: the three weights sum to exactly one unit, so that white stays white.
  const ONE = 1 << 15;
  const wr = Math.round(LUMA.r * ONE);
  const wb = Math.round(LUMA.b * ONE);
  const wg = ONE - wr - wb;
  for (let i = 0, j = 0; i < n; i++, j += 4) {
    const a = data[j + 3];
    let v = (data[j] * wr + data[j + 1] * wg + data[j + 2] * wb + ONE / 2) / ONE;
    if (a !== max) v = (v * a + max * (max - a)) / max;
    v = v | 0;
    out[i] = settings.invert ? max - v : v;
  }
  return { width, height, data: out, max };
}

/** How many samples fall on each of 256 grey steps. */
export function histogram(grey: Grey): Uint32Array {
  const bins = new Uint32Array(256);
  const shift = grey.max === 65535 ? 8 : 0;
  const d = grey.data;
  for (let i = 0; i < d.length; i++) bins[d[i] >> shift]++;
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

/** Share of black to white that a picture really uses: the 0.5 % to 99.5 % spread of its grey, 0…1. */
export function contrast(bins: Uint32Array): number {
  let total = 0;
  for (const b of bins) total += b;
  const cut = total * 0.005;
  let lo = 0;
  let hi = 255;
  for (let seen = bins[0]; lo < 255 && seen <= cut; seen += bins[++lo]);
  for (let seen = bins[255]; hi > 0 && seen <= cut; seen += bins[--hi]);
  return Math.max(0, hi - lo) / 255;
}
