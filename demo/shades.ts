import sharp from "sharp";
import { encoded } from "@oaken/core/colour";

/** Pictures with shades, painted here from numbers: light of 0 to 1 by place, x right and y up in picture heights. */
export interface Shades {
  width: number;
  height: number;
  light(x: number, y: number): number;
  /** spread of the noise of a dim photograph, 0 to 1 */
  noise: number;
  jpeg?: number;
}

const clamp = (v: number): number => Math.max(0, Math.min(1, v));
/** 0 below a, 1 above b, smooth between. */
function between(a: number, b: number, v: number): number {
  const t = clamp((v - a) / (b - a));
  return t * t * (3 - 2 * t);
}
const mix = (a: number, b: number, share: number): number => a + (b - a) * clamp(share);
const bump = (v: number, width: number): number => Math.exp(-((v / width) ** 2));

/** Numbers that look thrown, always the same. */
const thrown = (i: number, j: number): number => {
  const v = Math.sin(i * 127.1 + j * 311.7) * 43758.5453;
  return v - Math.floor(v);
};

/** Clouds: values at whole places, smooth between, at several scales. */
function cloud(x: number, y: number): number {
  let [sum, gain] = [0, 0.5];
  for (let scale = 1; scale <= 8; scale *= 2, gain /= 2) {
    const [u, v] = [x * scale, y * scale];
    const [i, j] = [Math.floor(u), Math.floor(v)];
    const [p, q] = [between(0, 1, u - i), between(0, 1, v - j)];
    sum += gain * mix(mix(thrown(i, j), thrown(i + 1, j), p), mix(thrown(i, j + 1), thrown(i + 1, j + 1), p), q);
  }
  return sum;
}

/** A leaf that begins at a place and runs at an angle. */
class Leaf {
  private readonly cos: number;
  private readonly sin: number;
  constructor(
    private readonly x: number,
    private readonly y: number,
    turn: number,
    private readonly long: number,
    private readonly wide: number,
  ) {
    this.cos = Math.cos(turn);
    this.sin = Math.sin(turn);
  }
  /** How far along it a place lies, 0 to 1 on it. */
  along(x: number, y: number): number {
    return ((x - this.x) * this.cos + (y - this.y) * this.sin) / this.long;
  }
  /** 1 on its middle line, 0 on its edge; null beside it. */
  on(x: number, y: number): number | null {
    const s = this.along(x, y);
    if (s < 0 || s > 1) return null;
    const half = Math.sqrt(s) * (1 - s) * 2.2 * this.wide;
    const t = (y - this.y) * this.cos - (x - this.x) * this.sin;
    return Math.abs(t) > half ? null : 1 - (t / half) ** 2;
  }
}

/** The lithophane's picture: a glasshouse with its lamps lit, at dusk, and its light on wet paving. */
export function glasshouse(): Shades {
  const WIDE = 1.5;
  const ground = 0.24;
  const middle = WIDE / 2;
  const half = 0.52;
  const roof = (x: number): number => 0.5 + 0.3 * Math.sqrt(Math.max(0, 1 - ((x - middle) / half) ** 2));
  const inside = (x: number, y: number): boolean => Math.abs(x - middle) < half && y > ground && y < roof(x);
  const bar = (v: number, every: number): number => bump(v / every - Math.round(v / every), 0.055);
  const plants = Array.from({ length: 45 }, (_, i) => {
    const [k, q] = [Math.floor(i / 5), i % 5];
    const turn = Math.PI / 2 + (q - 2) * 0.42 + 0.3 * (thrown(k, q) - 0.5);
    return new Leaf(middle - 0.46 + 0.115 * k, ground, turn, 0.14 + 0.16 * thrown(q, k), 0.034);
  });
  const house = (x: number, y: number): number => {
    const lamp =
      bump(Math.hypot(x - middle + 0.2, y - 0.52), 0.3) + bump(Math.hypot(x - middle - 0.24, y - 0.46), 0.26);
    let light = 0.34 + 0.62 * lamp;
    for (const plant of plants) {
      const on = plant.on(x, y);
      if (on !== null) light = mix(light, 0.1 + 0.16 * on, 0.85);
    }
    const frame = Math.max(bar(x - middle, 0.13), bar(y - ground, 0.13), bump(y - roof(x), 0.012));
    return light * (1 - 0.82 * clamp(frame));
  };
  const sky = (x: number, y: number): number => {
    const glow = bump(y - ground, 0.42) * (0.34 + 0.2 * bump(x - 0.2, 0.5));
    const star = thrown(Math.floor(x * 90), Math.floor(y * 90)) > 0.992 && y > 0.6 ? 0.3 : 0;
    return 0.06 + glow + 0.12 * cloud(2.2 * x, 5 * y) * between(0.3, 0.7, y) + star;
  };
  const seen = (x: number, y: number): number => {
    if (inside(x, y)) return house(x, y);
    if (y < ground) {
      const depth = ground - y;
      const wet =
        0.5 * (inside(x, ground + depth * 1.7) ? house(x + 0.01 * Math.sin(90 * y), ground + depth * 1.7) : 0.05);
      return 0.05 + wet * bump(depth, 0.2) * (0.7 + 0.3 * cloud(9 * x, 40 * y));
    }
    const hill = ground + 0.09 + 0.06 * Math.sin(3.1 * x + 1) + 0.02 * cloud(8 * x, 1);
    return y < hill && Math.abs(x - middle) > half ? 0.07 + 0.04 * cloud(12 * x, 12 * y) : sky(x, y);
  };
  return {
    width: 1050,
    height: 700,
    noise: 0.018,
    jpeg: 82,
    // A camera keeps light as greys that look alike far apart: dim parts are lifted.
    light: (x, y) => encoded(clamp(seen(x, y))),
  };
}

/** The relief's picture, light where it is to stand high: a fern on a dark ground. */
export function fern(): Shades {
  const leaflets: Leaf[] = [];
  const stem = (s: number) => ({ x: 0.5 + 0.16 * Math.sin(2.2 * s - 0.5) * s, y: 0.07 + 0.84 * s });
  for (let k = 0; k < 22; k++) {
    const s = 0.06 + (0.92 * k) / 22;
    const long = 0.36 * Math.sin(Math.PI * Math.min(1, 0.18 + 0.82 * s)) ** 0.8 * (1 - 0.55 * s);
    const { x, y } = stem(s);
    for (const side of [-1, 1]) leaflets.push(new Leaf(x, y, Math.PI / 2 - side * (1.15 - 0.35 * s), long, 0.036));
  }
  return {
    width: 800,
    height: 800,
    noise: 0.006,
    light(x, y) {
      let light = 0.05;
      for (const leaflet of leaflets) {
        const on = leaflet.on(x, y);
        if (on === null) continue;
        const along = leaflet.along(x, y);
        const vein = 0.1 * Math.abs(Math.sin(26 * along)) * (1 - on);
        light = Math.max(light, 0.42 + 0.4 * Math.sqrt(on) - vein - 0.1 * along);
      }
      const s = clamp((y - 0.07) / 0.84);
      const { x: sx } = stem(s);
      const wide = 0.016 * (1.15 - s);
      const off = Math.abs(x - sx) / wide;
      return y > 0.05 && y < 0.92 && off < 1 ? Math.max(light, 0.62 + 0.36 * Math.sqrt(1 - off * off)) : light;
    },
  };
}

/** A few small stones seen from above, for a texture. */
export const stones = (): Shades => ({
  width: 240,
  height: 240,
  noise: 0.004,
  light: (x, y) => 0.1 + 0.8 * pebbles(5 * x, 5 * y),
});

/** Round stones of about one unit: how high each stands above the gaps. */
function pebbles(x: number, y: number): number {
  let nearest = 9;
  const [i, j] = [Math.floor(x), Math.floor(y)];
  for (let b = j - 1; b <= j + 1; b++)
    for (let a = i - 1; a <= i + 1; a++)
      nearest = Math.min(nearest, Math.hypot(a + thrown(a, b) - x, b + thrown(b + 57, a) - y));
  return Math.sqrt(Math.max(0, 1 - (nearest / 0.8) ** 2));
}

/** The shaded lines' picture: a moth in lamplight on a dark wall, its wings banded and dusted. */
export function mothAtNight(): Shades {
  const WIDE = 1.4;
  const [foreWing, hindWing] = [new Leaf(0.02, 0.54, 0.5, 0.62, 0.3), new Leaf(0.02, 0.5, -0.55, 0.46, 0.26)];
  const wings = (u: number, y: number): number | null => {
    // Both sides are alike: u counts outward from the body.
    const fore = foreWing.on(u, y);
    const hind = hindWing.on(u, y);
    if (fore === null && hind === null) return null;
    const out = Math.hypot(u, y - 0.52);
    const bands = 0.5 + 0.5 * Math.sin(46 * out + 3 * Math.sin(9 * y));
    const eye = Math.hypot(u - 0.36, y - (fore !== null ? 0.72 : 0.34));
    const ring = eye < 0.05 ? 0.08 : bump(eye - 0.07, 0.016);
    const dome = Math.sqrt(Math.max(fore ?? 0, hind ?? 0));
    const light = 0.34 + 0.34 * dome + 0.18 * bands * (1 - out) + 0.06 * cloud(40 * u, 40 * y);
    return eye < 0.05 ? mix(0.1, 0.3, eye / 0.05) : mix(light, 0.95, ring);
  };
  return {
    width: 1120,
    height: 800,
    noise: 0.012,
    jpeg: 85,
    light(x, y) {
      const u = Math.abs(x - WIDE / 2);
      const body = (u / 0.035) ** 2 + ((y - 0.5) / 0.2) ** 2;
      if (body < 1) return 0.25 + 0.55 * Math.sqrt(1 - body) * (0.8 + 0.2 * Math.sin(90 * y));
      const feeler = Math.abs(u - (0.03 + 0.5 * (y - 0.68) + 1.1 * (y - 0.68) ** 2));
      if (y > 0.68 && y < 0.88 && feeler < 0.008) return 0.8;
      const on = wings(u, y);
      const lamp = 0.13 * bump(Math.hypot(x - WIDE / 2, y - 0.5), 0.62);
      return on ?? 0.02 + lamp * (0.7 + 0.3 * cloud(14 * x, 14 * y));
    },
  };
}

/** Samples of each pixel, each way. */
const FINER = 2;

/** A raster file of painted shades, with the noise of a photograph. */
export async function photographed({ width, height, light, noise, jpeg }: Shades): Promise<Buffer> {
  const grey = new Uint8Array(width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      let sum = 0;
      for (let q = 0; q < FINER; q++)
        for (let p = 0; p < FINER; p++)
          sum += clamp(light((i + (p + 0.5) / FINER) / height, 1 - (j + (q + 0.5) / FINER) / height));
      const grain = noise * (thrown(i, j) + thrown(j + 9, i) + thrown(i + 3, j + 7) - 1.5);
      grey[j * width + i] = Math.round(255 * clamp(sum / FINER ** 2 + grain));
    }
  const image = sharp(grey, { raw: { width, height, channels: 1 } }).toColourspace("b-w");
  return jpeg ? image.jpeg({ quality: jpeg }).toBuffer() : image.png().toBuffer();
}
