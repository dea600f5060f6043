import type { Raster } from "./raster.ts";

/** What can be said of a picture before anything is traced. */
export interface Fitness {
  /** colours that fill at least half a percent each, 8 levels a channel */
  flatColours: number;
  /** share of pixels that belong to one of them */
  flatShare: number;
  /** share of pixels between dark and light thirds of the grey range */
  greyShare: number;
  contrast: number;
}

const LEVELS = 8;
/** Pixels looked at: a spread of these tells as much as all of them. */
const LOOKS = 400_000;

/** Colour statistics of a picture from an even spread of its pixels. */
export function fitnessOf(r: Raster, bins: Uint32Array, contrast: number): Fitness {
  const shift = r.data instanceof Uint16Array ? 8 : 0;
  const n = r.width * r.height;
  const stride = Math.max(1, Math.floor(n / LOOKS));
  const counts = new Uint32Array(LEVELS ** 3);
  let seen = 0;
  for (let i = 0; i < n; i += stride, seen++) {
    const o = 4 * i;
    const a = (r.data[o + 3] >> shift) / 255;
    const level = (k: number) => Math.min(LEVELS - 1, ((((r.data[o + k] >> shift) * a + 255 * (1 - a)) * LEVELS) / 256) | 0);
    counts[(level(0) * LEVELS + level(1)) * LEVELS + level(2)]++;
  }
  let flatColours = 0;
  let flat = 0;
  for (const c of counts)
    if (c > 0.005 * seen) {
      flatColours++;
      flat += c;
    }
  let total = 0;
  let grey = 0;
  let lo = 0;
  let hi = 255;
  while (lo < 255 && bins[lo] === 0) lo++;
  while (hi > 0 && bins[hi] === 0) hi--;
  for (let i = 0; i < 256; i++) {
    total += bins[i];
    if (i > lo + (hi - lo) / 3 && i < hi - (hi - lo) / 3) grey += bins[i];
  }
  return { flatColours, flatShare: flat / seen, greyShare: grey / total, contrast };
}

/** A judgement in plain words, gravest first. `good` is false where the piece would disappoint. */
export function judge(f: Fitness, pixelsPerMm: number, thinnest: number | null, typical: number | null): { good: boolean; text: string }[] {
  const out: { good: boolean; text: string }[] = [];
  out.push(
    pixelsPerMm >= 8
      ? { good: true, text: `${pixelsPerMm.toFixed(1)} pixels in a millimetre at this width: crisp edges.` }
      : pixelsPerMm >= 4
        ? { good: true, text: `${pixelsPerMm.toFixed(1)} pixels in a millimetre at this width: enough.` }
        : { good: false, text: `${pixelsPerMm.toFixed(1)} pixels in a millimetre at this width: edges will wobble. Use a larger picture or a smaller piece.` },
  );
  out.push(
    f.contrast >= 0.5
      ? { good: true, text: "Strong contrast between ink and ground." }
      : f.contrast >= 0.2
        ? { good: true, text: "Moderate contrast: watch the ink level." }
        : { good: false, text: "Little contrast: the tracing may come out in freckles." },
  );
  out.push(
    f.greyShare > 0.25
      ? { good: false, text: `${Math.round(100 * f.greyShare)} % soft greys: a drawing traces better than a photo.` }
      : f.flatColours <= 12
        ? { good: true, text: `${f.flatColours === 1 ? "One flat colour" : `About ${f.flatColours} flat colours`}: easy to part into ink and ground.` }
        : { good: true, text: "Many shades, but few between dark and light." },
  );
  if (thinnest !== null && typical !== null)
    out.push(
      thinnest >= 0.5
        ? { good: true, text: `Strokes from ${thinnest.toFixed(1)} mm, typically ${typical.toFixed(1)} mm wide.` }
        : { good: false, text: `Thinnest strokes are ${thinnest.toFixed(2)} mm: a V cutter only scratches those. Typical: ${typical.toFixed(1)} mm.` },
    );
  return out;
}
