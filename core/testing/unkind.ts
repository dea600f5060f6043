import type { Raster } from "../picture/raster.ts";

/** Pictures that are unkind to a tracer, each drawn from a random source: greys 0 … 255 before faults are put on. */
type Draw = (random: () => number, w: number, h: number) => Float64Array;

const grid = (w: number, h: number, at: (x: number, y: number) => number): Float64Array =>
  Float64Array.from({ length: w * h }, (_, i) => at(i % w, Math.floor(i / w)));

/** Value noise: random greys on a coarse grid, smooth between. */
function octave(random: () => number, w: number, h: number, step: number): Float64Array {
  const cols = Math.ceil(w / step) + 2;
  const knots = Float64Array.from({ length: cols * (Math.ceil(h / step) + 2) }, () => random() - 0.5);
  const ease = (t: number): number => t * t * (3 - 2 * t);
  return grid(w, h, (x, y) => {
    const [i, j] = [Math.floor(x / step), Math.floor(y / step)];
    const [u, v] = [ease(x / step - i), ease(y / step - j)];
    const [a, b, c, d] = [
      knots[j * cols + i],
      knots[j * cols + i + 1],
      knots[(j + 1) * cols + i],
      knots[(j + 1) * cols + i + 1],
    ];
    return (a * (1 - u) + b * u) * (1 - v) + (c * (1 - u) + d * u) * v;
  });
}

/** Noise whose strength falls with its frequency, as in photographs. */
const photograph: Draw = (random, w, h) => {
  const out = new Float64Array(w * h).fill(128);
  for (let step = 1, weight = 20; step < w; step *= 2, weight *= 1.6) {
    const o = octave(random, w, h, step);
    for (let i = 0; i < out.length; i++) out[i] += weight * o[i];
  }
  return out;
};

const grain: Draw = (random, w, h) => grid(w, h, () => 255 * random());
const blurredGrain: Draw = (random, w, h) =>
  blurred(grain(random, w, h), w, h, 1 + Math.floor(3 * random())).map((v) => 128 + 3 * (v - 128));
/** Whole patches of one grey, so that the level may lie exactly on one of them. */
const plateaus: Draw = (random, w, h) => {
  const steps = 2 + Math.floor(5 * random());
  return octave(random, w, h, 3 + Math.floor(12 * random())).map((v) => (Math.round((v + 0.5) * steps) / steps) * 255);
};
const checkers: Draw = (random, w, h) => {
  const size = 1 + Math.floor(4 * random());
  const [dark, light] = [100 * random(), 155 + 100 * random()];
  return grid(
    w,
    h,
    (x, y) => ((Math.floor(x / size) + Math.floor(y / size)) % 2 ? dark : light) + 6 * (random() - 0.5),
  );
};

/** Strokes with soft edges: straight pieces between random places, as wide as `width` says. */
function strokes(
  random: () => number,
  w: number,
  h: number,
  count: number,
  width: () => number,
  soft: number,
): Float64Array {
  const out = new Float64Array(w * h).fill(255);
  for (let k = 0; k < count; k++) {
    const [x0, y0, x1, y1] = [w * random(), h * random(), w * random(), h * random()];
    const half = width() / 2;
    const [dx, dy] = [x1 - x0, y1 - y0];
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const t = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy || 1)));
        const d = Math.hypot(x - x0 - t * dx, y - y0 - t * dy) - half;
        out[y * w + x] = Math.min(out[y * w + x], 255 * Math.max(0, Math.min(1, 0.5 + d / soft)));
      }
  }
  return out;
}
const lettering: Draw = (random, w, h) => strokes(random, w, h, 14, () => 1.5 + 2.5 * random(), 1);
const hairlines: Draw = (random, w, h) => strokes(random, w, h, 16, () => 1, 0.8);
const blobs: Draw = (random, w, h) => strokes(random, w, h, 6, () => 6 + 20 * random(), 1 + 4 * random());
const ramp: Draw = (random, w, h) => {
  const [a, b] = [random() - 0.5, random() - 0.5];
  return grid(w, h, (x, y) => 128 + 255 * (a * (x / w - 0.5) + b * (y / h - 0.5)) * 2);
};

const DRAWN: Record<string, Draw> = {
  photograph,
  grain,
  blurredGrain,
  plateaus,
  checkers,
  lettering,
  hairlines,
  blobs,
  ramp,
};

/** A box of (2r + 1)² pixels averaged. */
function blurred(v: Float64Array, w: number, h: number, r: number): Float64Array {
  return grid(w, h, (x, y) => {
    let [sum, n] = [0, 0];
    for (let j = Math.max(0, y - r); j <= Math.min(h - 1, y + r); j++)
      for (let i = Math.max(0, x - r); i <= Math.min(w - 1, x + r); i++) {
        sum += v[j * w + i];
        n++;
      }
    return sum / n;
  });
}

type Fault = (random: () => number, v: Float64Array, w: number, h: number) => Float64Array;

const none: Fault = (_r, v) => v;
const noisy: Fault = (random, v) => {
  const sigma = 30 * random();
  return v.map((g) => g + sigma * (random() + random() + random() - 1.5));
};
const twoGreys: Fault = (_r, v) => v.map((g) => (g < 128 ? 0 : 255));
/** Two greys by error diffusion: R. Floyd, L. Steinberg 1976. */
const dithered: Fault = (_r, v, w, h) => {
  const out = v.slice();
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const next = out[i] < 128 ? 0 : 255;
      const error = out[i] - next;
      out[i] = next;
      const give = (dx: number, dy: number, share: number): void => {
        if (x + dx >= 0 && x + dx < w && y + dy < h) out[i + dy * w + dx] += error * share;
      };
      give(1, 0, 7 / 16);
      give(-1, 1, 3 / 16);
      give(0, 1, 5 / 16);
      give(1, 1, 1 / 16);
    }
  return out;
};
/** Blocks of 8 × 8 through a cosine transform whose finer parts are coarsely rounded, as JPEG keeps them. */
const compressed: Fault = (random, v, w, h) => {
  const step = 8 + 60 * random();
  const out = v.slice();
  const c = (k: number, x: number): number =>
    Math.cos(((2 * x + 1) * k * Math.PI) / 16) * (k === 0 ? Math.SQRT1_2 : 1) * 0.5;
  for (let by = 0; by + 8 <= h; by += 8)
    for (let bx = 0; bx + 8 <= w; bx += 8) {
      const block = grid(8, 8, (x, y) => v[(by + y) * w + bx + x]);
      const cosine = (from: Float64Array, forward: boolean): Float64Array => {
        const rows = grid(8, 8, (k, y) => sum8((x) => from[y * 8 + x] * (forward ? c(k, x) : c(x, k))));
        return grid(8, 8, (x, k) => sum8((y) => rows[y * 8 + x] * (forward ? c(k, y) : c(y, k))));
      };
      const rounded = cosine(block, true).map(
        (f, i) => Math.round(f / (step * (1 + (i % 8) + (i >> 3)) * 0.25)) * step * (1 + (i % 8) + (i >> 3)) * 0.25,
      );
      const back = cosine(rounded, false);
      for (let i = 0; i < 64; i++) out[(by + (i >> 3)) * w + bx + (i % 8)] = back[i];
    }
  return out;
};
const sum8 = (at: (i: number) => number): number => {
  let sum = 0;
  for (let i = 0; i < 8; i++) sum += at(i);
  return sum;
};
/** Made small and large again: every pixel becomes a square of them, or is spread smoothly. */
const upscaled: Fault = (random, v, w, h) => {
  const by = 2 + Math.floor(3 * random());
  const blocky = grid(w, h, (x, y) => v[Math.floor(y / by) * by * w + Math.floor(x / by) * by]);
  return random() < 0.5 ? blocky : blurred(blocky, w, h, by >> 1);
};
const fewGreys: Fault = (random, v) => {
  const steps = 3 + Math.floor(6 * random());
  return v.map((g) => (Math.round((g / 255) * steps) / steps) * 255);
};

const FAULTS: Record<string, Fault> = { none, noisy, twoGreys, dithered, compressed, upscaled, fewGreys };

export interface Unkind {
  name: string;
  raster: Raster;
}

/**
 * A random picture with random faults, w × h pixels; in colours where asked: the grey goes through a random palette.
 */
export function unkind(random: () => number, w: number, h: number, colours: boolean): Unkind {
  const one = <T>(of: Record<string, T>): [string, T] =>
    Object.entries(of)[Math.floor(random() * Object.keys(of).length)];
  const [drawn, draw] = one(DRAWN);
  const [spoilt, fault] = one(FAULTS);
  const grey = fault(random, draw(random, w, h), w, h);
  const palette = Array.from({ length: 2 + Math.floor(5 * random()) }, () => [
    255 * random(),
    255 * random(),
    255 * random(),
  ]);
  const data = new Uint8Array(4 * w * h);
  for (let i = 0; i < w * h; i++) {
    const g = Math.max(0, Math.min(255, Math.round(grey[i])));
    const at = (g / 255) * (palette.length - 1);
    const [a, b, t] = [
      palette[Math.floor(at)],
      palette[Math.min(palette.length - 1, Math.floor(at) + 1)],
      at - Math.floor(at),
    ];
    for (let k = 0; k < 3; k++) data[4 * i + k] = colours ? Math.round(a[k] + t * (b[k] - a[k])) : g;
    data[4 * i + 3] = 255;
  }
  return { name: `${drawn}, ${spoilt}`, raster: { width: w, height: h, data } };
}
