import { Problem } from "../problem.ts";
import type { HeightField } from "./field.ts";
import { hypot } from "../hypot.ts";

/** Triangles of a solid: nine numbers each, three corners' x, y, z. */
export interface Mesh {
  xyz: Float32Array;
}

/** More triangles than a relief shows, and than fit into memory beside everything else. */
export const MOST_TRIANGLES = 10_000_000;

/** Sizes of a binary STL's head and of a triangle in it, bytes. */
const HEAD = 84;
const EACH = 50;

/**
 * Reads an STL, binary or text.
 * @throws Problem `bad-solid` where it is damaged, empty or too large
 */
export function readStl(bytes: Uint8Array): Mesh {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.length >= HEAD ? view.getUint32(80, true) : -1;
  // A text may begin as a binary's head does, and a head may begin with "solid": the size tells.
  const isBinary = count >= 0 && bytes.length >= HEAD + EACH * count && !looksLikeText(bytes);
  if (!isBinary && !looksLikeText(bytes))
    throw new Problem(
      "bad-solid",
      count >= 0
        ? `The STL is cut short: it says ${count.toLocaleString("en")} triangles and holds ` +
            `${Math.max(0, Math.floor((bytes.length - HEAD) / EACH)).toLocaleString("en")}. Save it anew.`
        : "The file is not an STL. Save the solid as STL where it was made.",
    );
  const xyz = isBinary ? binary(view, checked(count)) : text(bytes);
  if (xyz.length === 0) throw new Problem("bad-solid", "The STL holds no triangle. Save it anew where it was made.");
  for (const v of xyz)
    if (!Number.isFinite(v))
      throw new Problem("bad-solid", "The STL holds corners that are no numbers. Save it anew where it was made.");
  return { xyz };
}

/** A text STL begins with its name and has a facet soon. */
const looksLikeText = (b: Uint8Array): boolean => /^\s*solid[\s\S]*?facet/i.test(ascii(b.subarray(0, 1000)));

/** Bytes as letters, piece by piece: an engine takes only so many at once. */
function ascii(bytes: Uint8Array): string {
  const parts = [];
  for (let k = 0; k < bytes.length; k += PIECE) parts.push(String.fromCharCode(...bytes.subarray(k, k + PIECE)));
  return parts.join("");
}
const PIECE = 8192;

function checked(count: number): number {
  if (count <= MOST_TRIANGLES) return count;
  throw new Problem(
    "bad-solid",
    `The STL has ${(count / 1e6).toFixed(1)} million triangles; up to ${MOST_TRIANGLES / 1e6} million are taken. ` +
      "Simplify it where it was made.",
  );
}

function binary(view: DataView, count: number): Float32Array {
  const xyz = new Float32Array(9 * count);
  for (let k = 0; k < count; k++)
    for (let q = 0; q < 9; q++) xyz[9 * k + q] = view.getFloat32(HEAD + EACH * k + 12 + 4 * q, true);
  return xyz;
}

function text(bytes: Uint8Array): Float32Array {
  const said = ascii(bytes);
  const corners = said.matchAll(/vertex\s+(\S+)\s+(\S+)\s+(\S+)/gi);
  const out: number[] = [];
  for (const [, x, y, z] of corners) {
    out.push(Number(x), Number(y), Number(z));
    if (out.length > 9 * MOST_TRIANGLES) checked(out.length / 9);
  }
  if (out.length % 9 !== 0)
    throw new Problem("bad-solid", "The STL ends within a triangle. Save it anew where it was made.");
  return Float32Array.from(out);
}

/** A written solid has at most so many triangles when nothing else is asked. */
export const USUAL_TRIANGLES = 500_000;

/**
 * A surface over a board as a closed solid with the sides and underside of a board, binary STL, mm: each edge has
 * two triangles. Samples are joined by triangles; where these would be more than `most`, only every n-th is used.
 */
export function writeStl(f: HeightField, bottom: number, most = USUAL_TRIANGLES): Uint8Array {
  let skip = 1;
  while (triangles(picks(f.width, skip).length, picks(f.height, skip).length) > most) skip++;
  const i = picks(f.width, skip);
  const j = picks(f.height, skip);
  const [W, H] = [i.length, j.length];
  // The outermost samples lie half a cell inside: they are moved out to the field's sides.
  const x = i.map((c, k) => f.x0 + (k === 0 ? 0 : k === W - 1 ? f.width : c + 0.5) * f.cell);
  const y = j.map((c, k) => f.y0 + (k === 0 ? 0 : k === H - 1 ? f.height : c + 0.5) * f.cell);
  const at = (a: number, b: number): Corner => [x[a], y[b], Math.max(bottom + LEAST_LEFT, f.z[j[b] * f.width + i[a]])];
  const out = new Triangles(triangles(W, H));
  for (let b = 0; b + 1 < H; b++)
    for (let a = 0; a + 1 < W; a++) {
      const [p, q, r, s] = [at(a, b), at(a + 1, b), at(a + 1, b + 1), at(a, b + 1)];
      out.add(p, q, r);
      out.add(p, r, s);
    }
  const under = (a: number, b: number): Corner => [x[a], y[b], bottom];
  const [sw, se, ne, nw] = [under(0, 0), under(W - 1, 0), under(W - 1, H - 1), under(0, H - 1)];
  // Each side is a fan from one of its lower corners: its upper edge is the surface's, its lower one straight.
  out.fan(
    sw,
    se,
    Array.from({ length: W }, (_, k) => at(W - 1 - k, 0)),
  );
  out.fan(
    se,
    ne,
    Array.from({ length: H }, (_, k) => at(W - 1, H - 1 - k)),
  );
  out.fan(
    ne,
    nw,
    Array.from({ length: W }, (_, k) => at(k, H - 1)),
  );
  out.fan(
    nw,
    sw,
    Array.from({ length: H }, (_, k) => at(0, k)),
  );
  out.add(sw, nw, ne);
  out.add(sw, ne, se);
  return out.take();
}

/** A solid is nowhere thinner than this, so that it stays one where the stock is cut through, mm. */
const LEAST_LEFT = 0.001;

const triangles = (w: number, h: number): number => 2 * (w - 1) * (h - 1) + 2 * w + 2 * h + 2;

/** Every n-th of some samples, with the last. */
function picks(count: number, skip: number): number[] {
  const out = [];
  for (let k = 0; k < count - 1; k += skip) out.push(k);
  return [...out, count - 1];
}

type Corner = readonly [number, number, number];

/** Triangles as they are written: their normals follow from their corners. */
class Triangles {
  private readonly bytes: Uint8Array;
  private readonly view: DataView;
  private count = 0;
  constructor(most: number) {
    this.bytes = new Uint8Array(HEAD + EACH * most);
    this.view = new DataView(this.bytes.buffer);
  }
  add(a: Corner, b: Corner, c: Corner): void {
    const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
    const v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const length = hypot(n[0], n[1], n[2]) || 1;
    let at = HEAD + EACH * this.count++;
    for (const k of [n[0] / length, n[1] / length, n[2] / length, ...a, ...b, ...c]) {
      this.view.setFloat32(at, k, true);
      at += 4;
    }
  }
  /** A side whose lower edge runs from one corner to another; `upper` comes back above it. */
  fan(from: Corner, to: Corner, upper: readonly Corner[]): void {
    this.add(from, to, upper[0]);
    for (let k = 1; k < upper.length; k++) this.add(from, upper[k - 1], upper[k]);
  }
  take(): Uint8Array {
    this.view.setUint32(80, this.count, true);
    return this.bytes.subarray(0, HEAD + EACH * this.count);
  }
}
