import { Problem } from "../problem.ts";
import type { Raster } from "./raster.ts";

/**
 * What is wiped off a picture, written as text so that it is a setting like any other: items parted by semicolons,
 * lengths in pixels. `rect x y w h` · `lasso x y x y …` · `brush radius x y x y …` · `spot x y`, the connected
 * mark at that place.
 */
export type Erase = { kind: "rect" | "lasso" | "brush" | "spot"; n: number[] };

const LEAST: Record<Erase["kind"], number> = { rect: 4, lasso: 6, brush: 3, spot: 2 };

/** @throws Problem `bad-erase` */
export function parseErase(text: string): Erase[] {
  const out: Erase[] = [];
  for (const part of text.split(";")) {
    const words = part
      .trim()
      .split(/[\s,]+/)
      .filter(Boolean);
    if (words.length === 0) continue;
    const kind = words[0] as Erase["kind"];
    const n = words.slice(1).map(Number);
    const even = kind === "brush" ? n.length % 2 === 1 : n.length % 2 === 0;
    if (!(kind in LEAST) || n.length < LEAST[kind] || n.some((v) => !Number.isFinite(v)) || !even)
      throw new Problem(
        "bad-erase",
        `Erase: "${part.trim().slice(0, 60)}" cannot be read. Write rect x y w h, lasso x y x y x y …, brush ` +
          "radius x y … or spot x y.",
      );
    out.push({ kind, n });
  }
  return out;
}

/** Pixels covered by one item, as a mask over its own box. */
interface Mask {
  x: number;
  y: number;
  width: number;
  height: number;
  in: Uint8Array;
}

/** A copy with every item filled from the ground around it. */
export function eraseFrom(r: Raster, items: readonly Erase[]): Raster {
  const out: Raster = { ...r, data: r.data.slice() };
  for (const item of items) {
    const m = item.kind === "spot" ? spotMask(out, item.n[0], item.n[1]) : drawnMask(out, item);
    if (m) fill(out, m);
  }
  return out;
}

function drawnMask(r: Raster, e: Erase): Mask | null {
  const { n } = e;
  const reach = e.kind === "brush" ? n[0] : 0;
  const points =
    e.kind === "rect"
      ? [n[0], n[1], n[0] + n[2], n[1], n[0] + n[2], n[1] + n[3], n[0], n[1] + n[3]]
      : e.kind === "brush"
        ? n.slice(1)
        : n;
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += 2) {
    x0 = Math.min(x0, points[i] - reach);
    x1 = Math.max(x1, points[i] + reach);
    y0 = Math.min(y0, points[i + 1] - reach);
    y1 = Math.max(y1, points[i + 1] + reach);
  }
  const x = Math.max(0, Math.floor(x0));
  const y = Math.max(0, Math.floor(y0));
  const width = Math.min(r.width, Math.ceil(x1)) - x;
  const height = Math.min(r.height, Math.ceil(y1)) - y;
  if (width <= 0 || height <= 0) return null;
  const m: Mask = { x, y, width, height, in: new Uint8Array(width * height) };
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const px = x + i + 0.5;
      const py = y + j + 0.5;
      m.in[j * width + i] = (e.kind === "brush" ? nearPolyline(points, px, py, reach) : insidePolygon(points, px, py))
        ? 1
        : 0;
    }
  return m;
}

function insidePolygon(p: readonly number[], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2)
    if (p[i + 1] > y !== p[j + 1] > y && x < p[i] + ((y - p[i + 1]) / (p[j + 1] - p[i + 1])) * (p[j] - p[i]))
      inside = !inside;
  return inside;
}

function nearPolyline(p: readonly number[], x: number, y: number, reach: number): boolean {
  for (let i = 0; i < p.length; i += 2) {
    const k = Math.max(0, i - 2);
    const dx = p[i] - p[k];
    const dy = p[i + 1] - p[k + 1];
    const t = Math.max(0, Math.min(1, ((x - p[k]) * dx + (y - p[k + 1]) * dy) / (dx * dx + dy * dy || 1)));
    if ((x - p[k] - t * dx) ** 2 + (y - p[k + 1] - t * dy) ** 2 <= reach * reach) return true;
  }
  return false;
}

/** Soft edges round a mark, wiped with it, px. */
const EDGE = 2;

/** A colour as it looks on white, which is what lies under transparent parts. */
const onWhite = (c: readonly number[], max: number): number[] =>
  [0, 1, 2].map((k) => (c[k] * c[3] + max * (max - c[3])) / max);

/**
 * What a mark stands on: the commonest colour along the picture's border; or in all of the picture where the border is
 * transparent somewhere, as it is round a turned picture or a drawing without a ground.
 */
function groundOf(r: Raster): number[] {
  const { width: W, height: H, data } = r;
  let clear = false;
  const border = commonColour(r, (visit) => {
    const each = (x: number, y: number) => {
      if (data[4 * (y * W + x) + 3] === 0) clear = true;
      visit(x, y);
    };
    for (let x = 0; x < W; x++) (each(x, 0), each(x, H - 1));
    for (let y = 0; y < H; y++) (each(0, y), each(W - 1, y));
  });
  if (!clear) return border;
  return commonColour(r, (visit) => {
    for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) visit(x, y);
  });
}

/** The connected mark at a place: every pixel joined to it that is nearer to its colour than to the ground's. */
function spotMask(r: Raster, sx: number, sy: number): Mask | null {
  const { width: W, height: H, data } = r;
  const x0 = Math.round(sx);
  const y0 = Math.round(sy);
  if (x0 < 0 || y0 < 0 || x0 >= W || y0 >= H) return null;
  const max = data instanceof Uint16Array ? 65535 : 255;
  const ground = onWhite(groundOf(r), max);
  const seed = 4 * (y0 * W + x0);
  const own = onWhite([data[seed], data[seed + 1], data[seed + 2], data[seed + 3]], max);
  const apart = (i: number, c: readonly number[]) => {
    const a = data[i + 3];
    if (a === max) return (data[i] - c[0]) ** 2 + (data[i + 1] - c[1]) ** 2 + (data[i + 2] - c[2]) ** 2;
    const p = onWhite([data[i], data[i + 1], data[i + 2], a], max);
    return (p[0] - c[0]) ** 2 + (p[1] - c[1]) ** 2 + (p[2] - c[2]) ** 2;
  };
  if (apart(seed, ground) < 1) return null;
  const mark = (i: number) => data[4 * i + 3] > 0 && apart(4 * i, own) < apart(4 * i, ground);
  const seen = new Uint8Array(W * H);
  const stack = [y0 * W + x0];
  seen[stack[0]] = 1;
  const found: number[] = [];
  let [lx, ly, hx, hy] = [x0, y0, x0, y0];
  while (stack.length > 0) {
    const i = stack.pop()!;
    found.push(i);
    const x = i % W;
    const y = (i - x) / W;
    lx = Math.min(lx, x);
    hx = Math.max(hx, x);
    ly = Math.min(ly, y);
    hy = Math.max(hy, y);
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        const u = x + dx;
        const v = y + dy;
        if (u < 0 || v < 0 || u >= W || v >= H) continue;
        const k = v * W + u;
        if (seen[k] || !mark(k)) continue;
        seen[k] = 1;
        stack.push(k);
      }
  }
  const x = Math.max(0, lx - EDGE);
  const y = Math.max(0, ly - EDGE);
  const width = Math.min(W, hx + EDGE + 1) - x;
  const height = Math.min(H, hy + EDGE + 1) - y;
  const m: Mask = { x, y, width, height, in: new Uint8Array(width * height) };
  for (const i of found) {
    const px = (i % W) - x;
    const py = Math.floor(i / W) - y;
    for (let v = Math.max(0, py - EDGE); v <= Math.min(height - 1, py + EDGE); v++)
      for (let u = Math.max(0, px - EDGE); u <= Math.min(width - 1, px + EDGE); u++) m.in[v * width + u] = 1;
  }
  return m;
}

/** Fills the mask with the commonest colour just outside it. */
function fill(r: Raster, m: Mask): void {
  const at = (i: number, j: number) => i >= 0 && j >= 0 && i < m.width && j < m.height && m.in[j * m.width + i] === 1;
  const colour = commonColour(r, (visit) => {
    for (let j = -1; j <= m.height; j++)
      for (let i = -1; i <= m.width; i++) {
        if (at(i, j) || !(at(i - 1, j) || at(i + 1, j) || at(i, j - 1) || at(i, j + 1))) continue;
        const x = m.x + i;
        const y = m.y + j;
        if (x >= 0 && y >= 0 && x < r.width && y < r.height) visit(x, y);
      }
  });
  for (let j = 0; j < m.height; j++)
    for (let i = 0; i < m.width; i++)
      if (m.in[j * m.width + i]) {
        const o = 4 * ((m.y + j) * r.width + m.x + i);
        for (let k = 0; k < 4; k++) r.data[o + k] = colour[k];
      }
}

/** The mean of the fullest of 8 × 8 × 8 colour boxes among the visited pixels; white where none is visited. */
function commonColour(r: Raster, each: (visit: (x: number, y: number) => void) => void): number[] {
  const max = r.data instanceof Uint16Array ? 65535 : 255;
  const shift = max === 65535 ? 13 : 5;
  const count = new Uint32Array(513);
  const sum = new Float64Array(4 * 513);
  each((x, y) => {
    const o = 4 * (y * r.width + x);
    // Transparent pixels look alike, whatever colour they hide.
    const box =
      r.data[o + 3] === 0
        ? 512
        : ((r.data[o] >> shift) << 6) | ((r.data[o + 1] >> shift) << 3) | (r.data[o + 2] >> shift);
    count[box]++;
    for (let k = 0; k < 4; k++) sum[4 * box + k] += r.data[o + k];
  });
  let best = 0;
  for (let i = 1; i < 513; i++) if (count[i] > count[best]) best = i;
  return count[best] === 0
    ? [max, max, max, max]
    : [0, 1, 2, 3].map((k) => Math.round(sum[4 * best + k] / count[best]));
}
