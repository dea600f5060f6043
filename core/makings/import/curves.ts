import type svgpath from "svgpath";
import { type Curve, lineTo, quadraticTo, type Segment } from "../../geometry/curve.ts";
import { ARC, CUBIC } from "../../geometry/shape.ts";
import { Problem } from "../../problem.ts";
import { hypot } from "../../hypot.ts";

/** More segments than any drawing for a machine has. */
const MOST_SEGMENTS = 500_000;
/** Radii that differ by less than this share are one circle's; ends nearer than this, mm, are one point. */
const ROUND = 1e-9;
const SAME = 1e-6;
/** An ellipse's quarter as a cubic strays by 0.03 % of its radius; an eighth by 1/64 of that. */
const PIECE = Math.PI / 4;

/**
 * The closed parts of a path in mm; of one that is filled the open ones too, as a fill closes them.
 * @returns them, and how many parts were left out, as they enclose nothing
 */
export function closedCurves(
  path: ReturnType<typeof svgpath>,
  isFilled: boolean,
): { curves: Curve[]; leftOut: number } {
  const curves: Curve[] = [];
  let leftOut = 0;
  let segments = 0;
  let curve: Curve | null = null;
  const end = (isClosed: boolean) => {
    if (!curve || curve.segments.length === 0) return;
    const last = curve.segments[curve.segments.length - 1].n;
    const isBack = hypot(last[4] - curve.x, last[5] - curve.y) <= SAME;
    if (isBack) [last[4], last[5]] = [curve.x, curve.y];
    else if (isClosed || isFilled) curve.segments.push(lineTo(curve.x, curve.y));
    if (!isBack && !isClosed && !isFilled) leftOut++;
    else if (isFinite(curve)) curves.push(curve);
  };
  path.iterate((segment, _index, x, y) => {
    // The library turns an arc's flag into a text where it mirrors it.
    const [command, ...words] = segment;
    const n = words.map(Number);
    if (command === "M") {
      end(false);
      curve = { x: n[0], y: n[1], segments: [] };
      return;
    }
    curve ??= { x, y, segments: [] };
    if (command === "Z") {
      end(true);
      // What follows without a move begins where the closed part began.
      curve = { x: curve.x, y: curve.y, segments: [] };
      return;
    }
    const more = segmentsOf(command, n, x, y);
    segments += more.length;
    if (segments > MOST_SEGMENTS) throw tooMany();
    curve.segments.push(...more);
  });
  end(false);
  return { curves, leftOut };
}

const isFinite = (c: Curve): boolean => [c.x, c.y, ...c.segments.flatMap((s) => s.n)].every(Number.isFinite);

/** @throws Problem `bad-drawing` where curves are more than any machine's */
export function checkCount(curves: readonly Curve[]): void {
  if (curves.reduce((sum, c) => sum + c.segments.length, 0) > MOST_SEGMENTS) throw tooMany();
}

const tooMany = (): Problem =>
  new Problem(
    "bad-drawing",
    `The drawing has more than ${MOST_SEGMENTS.toLocaleString("en")} lines and curves. Simplify it where it was drawn.`,
  );

/** A command of a path, absolute, as segments from (x, y). */
function segmentsOf(command: string, n: number[], x: number, y: number): Segment[] {
  if (command === "H") return [lineTo(n[0], y)];
  if (command === "V") return [lineTo(x, n[0])];
  if (command === "C") return [{ kind: CUBIC, n: n as Segment["n"] }];
  if (command === "Q") return [quadraticTo(x, y, n)];
  if (command === "A") return arc(x, y, n);
  return [lineTo(n[0], n[1])];
}

/** An elliptical arc from (x, y), by centre and angles (SVG 2, B.2.4): circular ones stay arcs. */
function arc(x: number, y: number, [rx0, ry0, degrees, large, sweep, ex, ey]: number[]): Segment[] {
  if (hypot(ex - x, ey - y) <= SAME) return [];
  if (!(rx0 > 0 && ry0 > 0)) return [lineTo(ex, ey)];
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const [hx, hy] = [(x - ex) / 2, (y - ey) / 2];
  const [px, py] = [cos * hx + sin * hy, cos * hy - sin * hx];
  // Radii too small for the way are made as large as it needs.
  const grow = Math.max(1, hypot(px / rx0, py / ry0));
  const [rx, ry] = [rx0 * grow, ry0 * grow];
  const over = (rx * py) ** 2 + (ry * px) ** 2;
  const k = Math.sqrt(Math.max(0, (rx * ry) ** 2 / over - 1)) * (Boolean(large) === Boolean(sweep) ? -1 : 1);
  const [ux, uy] = [(k * rx * py) / ry, (-k * ry * px) / rx];
  const [cx, cy] = [cos * ux - sin * uy + (x + ex) / 2, sin * ux + cos * uy + (y + ey) / 2];
  if (Math.abs(rx - ry) <= ROUND * rx) return [{ kind: ARC, n: [cx, cy, sweep ? 1 : -1, 0, ex, ey] }];
  const from = Math.atan2((py - uy) / ry, (px - ux) / rx);
  let turn = Math.atan2((-py - uy) / ry, (-px - ux) / rx) - from;
  if (sweep && turn < 0) turn += 2 * Math.PI;
  if (!sweep && turn > 0) turn -= 2 * Math.PI;
  const pieces = Math.max(1, Math.ceil(Math.abs(turn) / PIECE));
  const step = turn / pieces;
  const handle = (4 / 3) * Math.tan(step / 4);
  const at = (u: number, v: number): [number, number] => [
    cx + cos * rx * u - sin * ry * v,
    cy + sin * rx * u + cos * ry * v,
  ];
  return Array.from({ length: pieces }, (_, i): Segment => {
    const [a, b] = [from + i * step, from + (i + 1) * step];
    const last = i === pieces - 1;
    const [c1x, c1y] = at(Math.cos(a) - handle * Math.sin(a), Math.sin(a) + handle * Math.cos(a));
    const [c2x, c2y] = at(Math.cos(b) + handle * Math.sin(b), Math.sin(b) - handle * Math.cos(b));
    return { kind: CUBIC, n: [c1x, c1y, c2x, c2y, ...(last ? ([ex, ey] as const) : at(Math.cos(b), Math.sin(b)))] };
  });
}
