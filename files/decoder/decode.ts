import { decode as decodeBmp } from "bmp-ts";
import sharp, { type Metadata } from "sharp";
import { Problem } from "@oaken/core/problem";
import { checkPictureSize, MAX_PIXELS, type Raster } from "@oaken/core/picture/raster";
import { pictureKind } from "./kinds.ts";

sharp.cache(false);

/** An SVG has no pixels of its own: it is drawn with about so many along its longer side. */
const SVG_SIDE = 3000;
/** Pixels an inch at which SVG sizes are counted. */
const SVG_DPI = 72;

/**
 * Decodes a picture to upright sRGB RGBA, 8 bit or 16 where the file has 16. Nothing limits the time and memory that a
 * hostile file takes: it runs in the decoder's process only.
 * @throws Problem naming the file and what is wrong with it
 */
export async function decodeHere(bytes: Uint8Array, name: string): Promise<Raster> {
  const kind = pictureKind(bytes, name, bytes.length);
  if (kind === "bmp") return decodeBitmap(bytes, name);
  const broken = kind === "svg" ? undrawable(name) : damaged(name);
  let meta: Metadata;
  try {
    meta = await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw broken;
  }
  const density = kind === "svg" ? await svgDensity(bytes, meta, name) : undefined;
  const turned = (meta.orientation ?? 1) >= 5;
  const width = turned ? meta.height! : meta.width!;
  const height = turned ? meta.width! : meta.height!;
  if (!density) checkPictureSize(width, height, name);
  const wide = meta.depth === "ushort" || meta.depth === "float";
  try {
    let image = sharp(bytes, { failOn: "truncated", limitInputPixels: MAX_PIXELS + 1, density }).rotate();
    image = image.toColourspace(wide ? "rgb16" : "srgb").ensureAlpha();
    const { data, info } = await image.raw({ depth: wide ? "ushort" : "uchar" }).toBuffer({ resolveWithObject: true });
    const samples = wide
      ? new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2)
      : new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
    return {
      width: info.width,
      height: info.height,
      data: toRgba(samples, info.channels, info.width * info.height, wide ? 65535 : 255),
    };
  } catch {
    throw broken;
  }
}

const damaged = (name: string): Problem =>
  new Problem(
    "broken-picture",
    `${name} is damaged or cut short and cannot be read to its end. Save it anew or use another copy.`,
  );

const undrawable = (name: string): Problem =>
  new Problem(
    "broken-picture",
    `${name} cannot be drawn: it is damaged, or asks for more than can be drawn. Save it as a picture (PNG) where it ` +
      "was made.",
  );

/**
 * The density that gives an SVG enough pixels to trace. A size in pixels grows with the density, one in millimetres
 * with its square: the renderer takes it once for the unit and once for the whole.
 */
async function svgDensity(bytes: Uint8Array, meta: Metadata, name: string): Promise<number> {
  const side = Math.max(meta.width ?? 0, meta.height ?? 0);
  if (!(side > 0) || Math.min(meta.width!, meta.height!) * (SVG_SIDE / side) < 16)
    throw new Problem(
      "picture-too-thin",
      `${name} has no size, or next to none on one side. Give the drawing a width and a height.`,
    );
  const base = meta.density ?? SVG_DPI;
  const twice = await sharp(bytes, { limitInputPixels: false, density: 2 * base }).metadata();
  const power = Math.log2(Math.max(twice.width!, twice.height!) / side) > 1.5 ? 2 : 1;
  return Math.max(1, Math.min(100_000, base * (SVG_SIDE / side) ** (1 / power)));
}

/** Brings grey, grey with alpha and RGB to RGBA. */
function toRgba(data: Uint8Array | Uint16Array, channels: number, n: number, max: number): Uint8Array | Uint16Array {
  if (channels === 4) return data;
  const out = max === 255 ? new Uint8Array(4 * n) : new Uint16Array(4 * n);
  for (let i = 0; i < n; i++) {
    const grey = channels < 3;
    for (let k = 0; k < 3; k++) out[4 * i + k] = data[channels * i + (grey ? 0 : k)];
    out[4 * i + 3] = channels === 2 ? data[2 * i + 1] : max;
  }
  return out;
}

function decodeBitmap(bytes: Uint8Array, name: string): Raster {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const broken = damaged(name);
  if (bytes.length < 26) throw broken;
  checkPictureSize(Math.abs(view.getInt32(18, true)), Math.abs(view.getInt32(22, true)), name);
  try {
    const b = decodeBmp(Buffer.from(bytes), { toRGBA: true });
    const data = new Uint8Array(b.data);
    // Most bitmaps carry no alpha; a channel that is 0 everywhere means "not used".
    let anyAlpha = false;
    for (let i = 3; i < data.length && !anyAlpha; i += 4) anyAlpha = data[i] !== 0;
    if (!anyAlpha) for (let i = 3; i < data.length; i += 4) data[i] = 255;
    return { width: b.width, height: b.height, data };
  } catch {
    throw broken;
  }
}
