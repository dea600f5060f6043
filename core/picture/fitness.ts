import { SCRATCH } from "../cutters/profile.ts";
import type { Grey, Raster } from "./raster.ts";

/** What can be said of a picture before anything is traced. */
export interface Fitness {
  /** colours that fill at least half a percent each, 8 levels a channel */
  flatColours: number;
  /** share of pixels that belong to one of them */
  flatShare: number;
  /** share of pixels within a sixth of the grey range of the ink level: neither clearly ink nor clearly ground */
  greyShare: number;
  contrast: number;
}

const LEVELS = 8;
/** Pixels looked at: a spread of these tells as much as all of them. */
const LOOKS = 400_000;

/**
 * Colour statistics of a picture from an even spread of its pixels.
 * @param bins histogram of its grey, as the tone step makes it
 * @param level ink level, 0…1
 */
export function fitnessOf(r: Raster, bins: Uint32Array, contrast: number, level: number): Fitness {
  const shift = r.data instanceof Uint16Array ? 8 : 0;
  const n = r.width * r.height;
  const stride = Math.max(1, Math.floor(n / LOOKS));
  const counts = new Uint32Array(LEVELS ** 3);
  let seen = 0;
  for (let i = 0; i < n; i += stride, seen++) {
    const o = 4 * i;
    const a = (r.data[o + 3] >> shift) / 255;
    const level = (k: number) =>
      Math.min(LEVELS - 1, ((((r.data[o + k] >> shift) * a + 255 * (1 - a)) * LEVELS) / 256) | 0);
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
    if (Math.abs(i / 255 - level) < (hi - lo) / 255 / 6) grey += bins[i];
  }
  return { flatColours, flatShare: flat / seen, greyShare: grey / total, contrast };
}

/** What is known of a picture at a size, for judging what it can become. Lengths in mm. */
export interface Fit extends Fitness {
  pixelsPerMm: number;
  width: number;
  /** standard deviation of the noise, share of the whole range */
  noise: number;
  /** how much more neighbours differ across the 8-pixel blocks of a JPEG than inside them */
  blocks: number;
  thinnest: number | null;
  typical: number | null;
  contours: number | null;
  /** how many of the contours are circles */
  circles: number | null;
  /** how much darker the ground is where it is darkest, as a share */
  uneven: number;
  /**
   * what is found in the picture, as a share of its area and as a crop (see `frame.ts`); null where nothing is found
   */
  art: { share: number; crop: string } | null;
}

/** A change that would help, ready to be made. */
export interface Cure {
  label: string;
  width?: number;
  grow?: number;
  smooth?: number;
  /** window to even out lighting in, mm */
  even?: number;
  /** the part to keep, as the picture's crop */
  crop?: string;
}

/** A judgement in plain words; `good` is false where the piece would disappoint. */
export interface Judgement {
  good: boolean;
  text: string;
  cure?: Cure;
}

/** Pixels in a millimetre for crisp edges, and the fewest that serve. */
const CRISP = 8;
const ENOUGH = 4;
/** Half the included angle of the usual V cutter. */
const USUAL_HALF_ANGLE = Math.PI / 6;
const NOISY = 0.02;
const BLOCKY = 1.35;
const MANY_CONTOURS = 3000;
/** Ground darker by this share somewhere is told by eye. */
const UNEVEN = 0.12;

/** A blank surround that leaves less than this share of a picture to its art is worth a word. */
const SURROUNDED = 0.5;

/** More soft greys than this are a photograph's. */
export const isSoft = (f: Fit): boolean => f.greyShare > 0.25;
const smoothOver = (f: Fit): number => Math.round((2 / f.pixelsPerMm) * 100) / 100;
const evenOver = (f: Fit): number => Math.max(1, Math.round(f.width / 6));

/**
 * What the tone step should do so that a picture that cannot be cut as it is can be: a photograph of a coin, a page in
 * bad light. Nothing where a picture is fine.
 */
export function preparation(f: Fit): Pick<Cure, "even" | "smooth"> | null {
  const even = isSoft(f) || f.uneven > UNEVEN || f.contrast < 0.2;
  const smooth = f.noise > NOISY || f.blocks > BLOCKY || (even && isSoft(f));
  if (!even && !smooth) return null;
  return { ...(even && { even: evenOver(f) }), ...(smooth && { smooth: smoothOver(f) }) };
}

/** Everything worth knowing before a picture is begun with. */
export function judge(f: Fit): Judgement[] {
  const out: Judgement[] = [];
  if (f.art && f.art.share < SURROUNDED)
    out.push({
      good: true,
      text:
        `The art takes up ${Math.max(1, Math.round(100 * f.art.share))} % of the picture; its blank surround ` +
        "counts for nothing.",
      cure: { label: "crop to the art", crop: f.art.crop },
    });
  const perMm = f.pixelsPerMm.toFixed(1);
  const least = Math.floor((f.width * f.pixelsPerMm) / ENOUGH);
  if (f.pixelsPerMm >= CRISP)
    out.push({ good: true, text: `${perMm} pixels in a millimetre at this width: crisp edges.` });
  else if (f.pixelsPerMm >= ENOUGH)
    out.push({ good: true, text: `${perMm} pixels in a millimetre at this width: enough.` });
  else
    out.push({
      good: false,
      text:
        `${perMm} pixels in a millimetre at this width: edges will wobble. Use a larger picture or a smaller ` +
        "piece.",
      cure: { label: `make it ${least} mm wide`, width: least },
    });
  if (f.contrast >= 0.5) out.push({ good: true, text: "Strong contrast between ink and ground." });
  else if (f.contrast >= 0.2) out.push({ good: true, text: "Moderate contrast: watch the ink level." });
  else
    out.push({
      good: false,
      text: "Little contrast: the tracing may come out in freckles. Even out the lighting in the tone step.",
    });
  if (isSoft(f))
    out.push({
      good: false,
      text: `${Math.round(100 * f.greyShare)} % soft greys: a drawing traces better than a photo.`,
    });
  else if (f.flatColours <= 12)
    out.push({
      good: true,
      text:
        `${f.flatColours === 1 ? "One flat colour" : `About ${f.flatColours} flat colours`}: easy to part into ` +
        "ink and ground.",
    });
  else out.push({ good: true, text: "Many shades, but few between dark and light." });
  const smooth = smoothOver(f);
  if (f.noise > NOISY)
    out.push({
      good: false,
      text: "The picture is noisy: edges come out rough.",
      cure: { label: `smooth over ${smooth} mm`, smooth },
    });
  else if (f.blocks > BLOCKY)
    out.push({
      good: false,
      text: "JPEG blocks show: edges come out with small steps.",
      cure: { label: `smooth over ${smooth} mm`, smooth },
    });
  if (f.uneven > UNEVEN)
    out.push({
      good: false,
      text:
        `The light is uneven: the ground is ${Math.round(100 * f.uneven)} % darker at one end. Even it out ` +
        "before tracing by colour.",
      cure: { label: "even out the light", even: evenOver(f) },
    });
  if (f.thinnest !== null && f.typical !== null) {
    const deep = f.thinnest / 2 / Math.tan(USUAL_HALF_ANGLE);
    if (deep >= SCRATCH)
      out.push({
        good: true,
        text: `Strokes from ${f.thinnest.toFixed(1)} mm, typically ${f.typical.toFixed(1)} mm wide.`,
      });
    else {
      const want = 2 * SCRATCH * Math.tan(USUAL_HALF_ANGLE);
      const wider = Math.ceil((f.width * want) / Math.max(0.01, f.thinnest));
      const grow = Math.ceil(((want - f.thinnest) / 2) * 100) / 100;
      const enlarge = wider <= 3 * f.width && (f.width * f.pixelsPerMm) / wider >= ENOUGH;
      out.push({
        good: false,
        text:
          `Strokes are ${f.thinnest.toFixed(2)} mm at their thinnest: a 60° V cutter goes only ` +
          `${deep.toFixed(2)} mm deep. Make it ${wider} mm wide, or thicken lines by ${(2 * grow).toFixed(2)} mm.`,
        cure: enlarge
          ? { label: `make it ${wider} mm wide`, width: wider }
          : { label: `thicken lines by ${(2 * grow).toFixed(2)} mm`, grow },
      });
    }
  }
  if (f.contours !== null && f.contours > MANY_CONTOURS)
    out.push({
      good: false,
      text:
        `${f.contours.toLocaleString("en")} separate outlines: long to cut. Drop larger specks, or smooth the ` +
        "picture.",
      cure: { label: `smooth over ${smooth} mm`, smooth },
    });
  return out;
}

/** Tiles a side that the ground's brightness is looked at in. */
const TILES = 6;
/** From tile to tile light changes by no more than this share of itself: what is darker is ink. */
const GRADUAL = 0.2;
/** Ground makes up at least so much of a picture, in tiles. */
const LEAST_GROUND = (TILES * TILES) / 2;

/**
 * How much darker the picture's ground is in its darkest part than in its lightest, as a share; 0 where the ground is
 * dark, or where there is hardly any.
 */
export function unevenness(g: Grey): number {
  const lights = lightsOf(g);
  const most = Math.max(...lights);
  if (most < 0.4) return 0;
  const ground = groundRound(lights, lights.indexOf(most));
  if (ground.length < LEAST_GROUND) return 0;
  return (most - Math.min(...ground.map((k) => lights[k]))) / most;
}

/** How light the lightest tenth of each tile begins, 0 to 1, row by row. */
function lightsOf({ width, height, data, max }: Grey): number[] {
  const out: number[] = [];
  const step = Math.max(1, Math.floor(Math.min(width, height) / (TILES * 30)));
  for (let v = 0; v < TILES; v++)
    for (let u = 0; u < TILES; u++) {
      const greys: number[] = [];
      for (let y = Math.floor((v * height) / TILES); y < ((v + 1) * height) / TILES; y += step)
        for (let x = Math.floor((u * width) / TILES); x < ((u + 1) * width) / TILES; x += step)
          greys.push(data[y * width + x] / max);
      greys.sort((a, b) => a - b);
      out.push(greys[Math.floor(0.9 * (greys.length - 1))] ?? 0);
    }
  return out;
}

/** The tiles that are reached from one of them without ever coming from light to ink. */
function groundRound(lights: readonly number[], from: number): number[] {
  const reached = new Set([from]);
  // What is added while it is gone through is gone through too.
  for (const k of reached) {
    const u = k % TILES;
    const beside = [k - TILES, k + TILES, ...(u > 0 ? [k - 1] : []), ...(u < TILES - 1 ? [k + 1] : [])];
    for (const other of beside.filter((n) => n >= 0 && n < lights.length))
      if (Math.abs(lights[other] - lights[k]) <= GRADUAL * Math.max(lights[other], lights[k])) reached.add(other);
  }
  return [...reached];
}

/**
 * How much more neighbouring greys differ across the borders of 8 × 8 blocks than elsewhere; 1 where there are no
 * blocks.
 */
export function blockiness(g: Grey): number {
  const { width, height, data } = g;
  let [on, off, nOn, nOff] = [0, 0, 0, 0];
  const step = Math.max(1, Math.floor(height / 400));
  for (let y = 0; y < height; y += step)
    for (let x = 1; x < width; x++) {
      // Strong edges belong to the drawing: blocks show in what is nearly flat.
      const d = Math.abs(data[y * width + x] - data[y * width + x - 1]);
      if (d > 0.06 * g.max) continue;
      if (x % 8 === 0) {
        on += d;
        nOn++;
      } else {
        off += d;
        nOff++;
      }
    }
  return nOn === 0 || nOff === 0 || off === 0 ? 1 : on / nOn / (off / nOff);
}
