import sharp, { type Sharp } from "sharp";
import { GrowingF64 } from "@oaken/core/growing";
import { seeded } from "@oaken/core/testing/random";
import { lettering } from "./lettering.ts";
import { CUBIC, flattenSegment } from "@oaken/core/geometry/shape";

/** A drawing whose edges are known exactly: closed polygons of the ink (even–odd), in units of its page. */
export interface Truth {
  name: string;
  width: number;
  height: number;
  loops: [number, number][][];
  /** what happens to its picture */
  faults: { blur: number; noise?: number; jpeg?: number };
}

/** Closed polygons from SVG path data of M, L, Q, C and Z with absolute coordinates. */
export function loopsOf(d: string, tolerance = 0.01): [number, number][][] {
  const loops: [number, number][][] = [];
  const words = d.match(/[MLQCZ]|-?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?/gi) ?? [];
  let at = 0;
  let command = "";
  let [x, y] = [0, 0];
  const next = () => Number(words[at++]);
  const out = new GrowingF64();
  while (at < words.length) {
    if (/[a-z]/i.test(words[at])) command = words[at++].toUpperCase();
    if (command === "Z") continue;
    if (command === "M") {
      [x, y] = [next(), next()];
      loops.push([[x, y]]);
      command = "L";
      continue;
    }
    const loop = loops[loops.length - 1];
    let [ax, ay, bx, by] = [0, 0, 0, 0];
    if (command === "C") [ax, ay, bx, by] = [next(), next(), next(), next()];
    else if (command === "Q") {
      const [qx, qy] = [next(), next()];
      [ax, ay] = [x + (2 / 3) * (qx - x), y + (2 / 3) * (qy - y)];
      [bx, by] = [qx, qy];
    }
    const [ex, ey] = [next(), next()];
    if (command === "Q") [bx, by] = [ex + (2 / 3) * (bx - ex), ey + (2 / 3) * (by - ey)];
    if (command === "L") loop.push([ex, ey]);
    else {
      out.length = 0;
      flattenSegment(CUBIC, x, y, Float64Array.of(ax, ay, bx, by, ex, ey), 0, tolerance, out);
      for (let i = 0; i < out.length; i += 2) loop.push([out.data[i], out.data[i + 1]]);
    }
    [x, y] = [ex, ey];
  }
  return loops.filter((l) => l.length > 2);
}

const W = 1200;
const H = 800;

/** A band along a line: points of both its sides. */
function band(
  x: (t: number) => number,
  y: (t: number) => number,
  half: (t: number) => number,
  n: number,
): [number, number][] {
  const left: [number, number][] = [];
  const right: [number, number][] = [];
  for (let i = 0; i <= n; i++) {
    const t = i / n;
    const [dx, dy] = [x(t + 1e-4) - x(t - 1e-4), y(t + 1e-4) - y(t - 1e-4)];
    const l = Math.hypot(dx, dy);
    const h = half(t);
    left.push([x(t) - (h * dy) / l, y(t) + (h * dx) / l]);
    right.push([x(t) + (h * dy) / l, y(t) - (h * dx) / l]);
  }
  return [...left, ...right.reverse()];
}

function lineArt(): [number, number][][] {
  const loops: [number, number][][] = [];
  for (let i = 0; i < 9; i++) {
    const y0 = 80 + 80 * i;
    loops.push(
      band(
        (t) => 60 + 1080 * t,
        (t) => y0 + 22 * Math.sin(7 * t + i) + 6 * Math.sin(23 * t),
        (t) => 4 + 3 * Math.sin(5 * t + i) ** 2,
        900,
      ),
    );
  }
  return loops;
}

function hatched(): [number, number][][] {
  const loops: [number, number][][] = [];
  for (let y = 14; y < H - 10; y += 9)
    loops.push(
      band(
        (t) => 20 + 1160 * t,
        (t) => y + 2.2 * Math.sin(9 * t + y),
        (t) => 1.6 + 0.8 * Math.sin(3 * t + 0.02 * y) ** 2,
        900,
      ),
    );
  return loops;
}

function figures(): [number, number][][] {
  const random = seeded(7);
  const loops: [number, number][][] = [];
  for (let i = 0; i < 24; i++) {
    const [cx, cy] = [110 + (i % 6) * 196, 110 + Math.floor(i / 6) * 194];
    const waves = [2, 3, 5].map((k) => ({ k, a: 10 * random(), f: 6 * random() }));
    const ring = (r: number, back: boolean): [number, number][] =>
      Array.from({ length: 720 }, (_, q) => {
        const a = ((back ? -q : q) / 720) * 2 * Math.PI;
        const at = r + (r / 70) * waves.reduce((s, w) => s + w.a * Math.cos(w.k * a + w.f), 0);
        return [cx + at * Math.cos(a), cy + at * Math.sin(a)];
      });
    loops.push(ring(70, false));
    if (i % 2) loops.push(ring(34, true));
  }
  return loops;
}

const words = (): [number, number][][] =>
  ["MARROWDALE", "botanic garden", "QUILL & THISTLE", "bee walk", "seed drawer 12"].flatMap((t, i) =>
    loopsOf(lettering(t, W / 2, 150 + 145 * i, 140, 6)),
  );

/** The bench's black and white drawings. */
export const TRUTHS: readonly Truth[] = [
  { name: "clean line art", width: W, height: H, loops: lineArt(), faults: { blur: 0.5 } },
  { name: "hatched drawing", width: W, height: H, loops: hatched(), faults: { blur: 0.5 } },
  { name: "lettering", width: W, height: H, loops: words(), faults: { blur: 0.5 } },
  { name: "noisy JPEG scan", width: W, height: H, loops: figures(), faults: { blur: 1, noise: 6, jpeg: 75 } },
];

const pathOf = (loops: readonly [number, number][][]): string =>
  loops.map((l) => `M${l.map(([x, y]) => `${x.toFixed(3)} ${y.toFixed(3)}`).join("L")}Z`).join("");

/** The drawing as a picture so many pixels wide. */
export async function pictureOfTruth(t: Truth, width: number): Promise<Buffer> {
  const height = Math.round((width * t.height) / t.width);
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${t.width} ` +
    `${t.height}"><rect width="100%" height="100%" fill="#fff"/><path fill-rule="evenodd" ` +
    `d="${pathOf(t.loops)}"/></svg>`;
  let image = sharp(Buffer.from(svg), { limitInputPixels: false }).flatten({ background: "#fff" }).blur(t.faults.blur);
  if (t.faults.noise) image = await noisy(image, t.faults.noise);
  return t.faults.jpeg
    ? image.jpeg({ quality: t.faults.jpeg }).toBuffer()
    : image.png({ compressionLevel: 2 }).toBuffer();
}

async function noisy(image: Sharp, sigma: number): Promise<Sharp> {
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  const random = seeded(99);
  for (let i = 0; i < data.length; i += info.channels) {
    const n = sigma * (random() + random() + random() - 1.5) * 2;
    for (let k = 0; k < 3; k++) data[i + k] = Math.max(0, Math.min(255, data[i + k] + n));
  }
  return sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
}

/** A logo in five flat colours that touch each other, on its ground. */
export function logoSvg(width: number): Buffer {
  const petals = Array.from(
    { length: 8 },
    (_, i) =>
      `<path d="M600 400C${600 + 90 * Math.cos(i * 0.785)} ${400 + 90 * Math.sin(i * 0.785)} ` +
      `${600 + 330 * Math.cos(i * 0.785 - 0.3)} ${400 + 330 * Math.sin(i * 0.785 - 0.3)} ` +
      `${600 + 340 * Math.cos(i * 0.785)} ` +
      `${400 + 340 * Math.sin(i * 0.785)}C${600 + 330 * Math.cos(i * 0.785 + 0.3)} ` +
      `${400 + 330 * Math.sin(i * 0.785 + 0.3)} ${600 + 90 * Math.cos(i * 0.785)} ` +
      `${400 + 90 * Math.sin(i * 0.785)} 600 400Z" fill="${i % 2 ? "#c8401f" : "#e0a030"}"/>`,
  ).join("");
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${Math.round((width * 2) / 3)}" ` +
      `viewBox="0 0 1200 800"><rect width="100%" height="100%" fill="#f4efe2"/><circle cx="600" cy="400" r="360" ` +
      `fill="#1f6b57"/>${petals}<circle cx="600" cy="400" r="84" fill="#24324a"/></svg>`,
  );
}

/** A medal: letters and figures hardly darker than its face, under light that falls off far more than that. */
export async function medal(
  width: number,
): Promise<{ picture: Buffer; ink: Uint8Array; width: number; height: number }> {
  const height = width;
  const d =
    lettering("MARROWDALE", 500, 300, 120, 8) +
    lettering("1884", 500, 560, 210, 12) +
    lettering("FLORA", 500, 740, 120, 14);
  const shape = (fill: string, ground: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 1000 1000"><rect ` +
    `width="100%" height="100%" fill="${ground}"/><path d="${d}" fill="${fill}"/><circle cx="500" cy="500" ` +
    `r="440" fill="none" stroke="${fill}" stroke-width="22"/></svg>`;
  const light =
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><defs><linearGradient id="g" ` +
    `x1="0" y1="0" x2="1" y2="0.7"><stop offset="0" stop-color="#000" stop-opacity="0"/><stop offset="1" ` +
    `stop-color="#000" stop-opacity="0.62"/></linearGradient></defs><rect width="100%" height="100%" ` +
    `fill="url(#g)"/></svg>`;
  const face = sharp(Buffer.from(shape("#a8a49a", "#c4c0b4")))
    .composite([{ input: Buffer.from(light) }])
    .removeAlpha();
  const soft = await noisy(sharp(await face.png().toBuffer()).blur(1), 1.2);
  const mask = await sharp(Buffer.from(shape("#000", "#fff")))
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return {
    picture: await soft.png().toBuffer(),
    ink: Uint8Array.from({ length: width * height }, (_, i) => (mask.data[i * mask.info.channels] < 128 ? 1 : 0)),
    width,
    height,
  };
}
