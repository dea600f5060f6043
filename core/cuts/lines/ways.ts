import { hypot } from "../../hypot.ts";

/** A rectangle on the board, mm. */
export interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** A line along which grooves are cut, sampled; `apart` is how far its neighbours lie from it at each place, mm. */
export interface Way {
  x: Float64Array;
  y: Float64Array;
  apart: Float64Array;
}

/** How far lines lie apart, and how densely they are sampled, mm. */
export interface Sampling {
  spacing: number;
  step: number;
}

/** How far a wave swings to each side, and how long it is, mm. */
export interface Wave {
  swing: number;
  length: number;
}

/** A sampled line as it grows. */
class Growing {
  private readonly x: number[] = [];
  private readonly y: number[] = [];
  private readonly apart: number[] = [];
  add(x: number, y: number, apart: number): void {
    this.x.push(x);
    this.y.push(y);
    this.apart.push(apart);
  }
  take(): Way {
    return { x: Float64Array.from(this.x), y: Float64Array.from(this.y), apart: Float64Array.from(this.apart) };
  }
}

/**
 * Parallel lines over a box at an angle, from one side to the other; waves where they swing. Every wave has the same
 * phase, so that straight across they lie `spacing` apart everywhere, and square to themselves nearer where they slant.
 */
export function parallels(box: Box, degrees: number, { spacing, step }: Sampling, wave: Wave | null = null): Way[] {
  const [dx, dy] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const corners = [box.x0, box.x1].flatMap((x) => [box.y0, box.y1].map((y) => ({ x, y })));
  const along = corners.map(({ x, y }) => x * dx + y * dy);
  const across = corners.map(({ x, y }) => y * dx - x * dy);
  const swing = wave?.swing ?? 0;
  const [u0, u1] = [Math.min(...along), Math.max(...along)];
  const [v0, v1] = [Math.min(...across) - swing, Math.max(...across) + swing];
  // As many as there is room for, the same margin on either side.
  const count = Math.max(1, Math.floor((v1 - v0) / spacing + 1e-9));
  const first = (v0 + v1 - (count - 1) * spacing) / 2;
  const places = Math.max(1, Math.ceil((u1 - u0) / step));
  return Array.from({ length: count }, (_, k) => {
    const way = new Growing();
    for (let i = 0; i <= places; i++) {
      const u = u0 + ((u1 - u0) * i) / places;
      const turn = wave ? (2 * Math.PI * (u - u0)) / wave.length : 0;
      const v = first + k * spacing + (wave ? swing * Math.sin(turn) : 0);
      const slope = wave ? ((2 * Math.PI * swing) / wave.length) * Math.cos(turn) : 0;
      way.add(u * dx - v * dy, u * dy + v * dx, spacing / hypot(1, slope));
    }
    return way.take();
  });
}

const middleOf = (b: Box) => ({ x: (b.x0 + b.x1) / 2, y: (b.y0 + b.y1) / 2 });
const reachOf = (b: Box) => hypot(b.x1 - b.x0, b.y1 - b.y0) / 2;

/** Rings about a box's middle, until they have left it. */
export function rings(box: Box, { spacing, step }: Sampling): Way[] {
  const { x, y } = middleOf(box);
  const out: Way[] = [];
  for (let r = spacing / 2; r < reachOf(box); r += spacing) {
    const way = new Growing();
    const places = Math.max(24, Math.ceil((2 * Math.PI * r) / step));
    for (let i = 0; i <= places; i++) {
      const turn = (2 * Math.PI * i) / places;
      way.add(x + r * Math.cos(turn), y + r * Math.sin(turn), spacing);
    }
    out.push(way.take());
  }
  return out;
}

/** One line from a box's middle outward that gains `spacing` with each turn, until it has left the box. */
export function spiral(box: Box, { spacing, step }: Sampling): Way[] {
  const { x, y } = middleOf(box);
  const most = reachOf(box);
  const way = new Growing();
  for (let turn = 0; ;) {
    const r = (spacing * turn) / (2 * Math.PI);
    if (r > most) return [way.take()];
    way.add(x + r * Math.cos(turn), y + r * Math.sin(turn), spacing);
    turn += Math.min(Math.PI / 12, step / Math.max(r, spacing / 2));
  }
}

/** Places in rows that are shifted by half against each other, each as far from its six neighbours. */
export function dots(box: Box, degrees: number, pitch: number): { x: number; y: number }[] {
  const [dx, dy] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const middle = middleOf(box);
  const n = Math.ceil(reachOf(box) / pitch) + 1;
  const high = (pitch * Math.sqrt(3)) / 2;
  const rows = Math.ceil(reachOf(box) / high) + 1;
  const out: { x: number; y: number }[] = [];
  for (let j = -rows; j <= rows; j++)
    for (let k = -n; k <= n; k++) {
      // There and back, so that the way from dot to dot is short.
      const i = j % 2 === 0 ? k : -k;
      const [u, v] = [(i + (j % 2 === 0 ? 0 : 0.5)) * pitch, j * high];
      const [x, y] = [middle.x + u * dx - v * dy, middle.y + u * dy + v * dx];
      if (isInside(box, x, y)) out.push({ x, y });
    }
  return out;
}

export const isInside = (b: Box, x: number, y: number): boolean => x >= b.x0 && x <= b.x1 && y >= b.y0 && y <= b.y1;
