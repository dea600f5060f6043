import type svgpath from "svgpath";
import { ARC, CUBIC, LINE, type Shape, ShapeBuilder } from "../../geometry/shape.ts";
import { Problem } from "../../problem.ts";

/** A segment: its kind and the numbers of {@link Shape}: two control points, or centre and turn, and its end. */
interface Segment {
  kind: number;
  n: [number, number, number, number, number, number];
}

/** A closed curve: where it begins, and its segments; the last ends there. */
export interface Curve {
  x: number;
  y: number;
  segments: Segment[];
}

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
    const isBack = Math.hypot(last[4] - curve.x, last[5] - curve.y) <= SAME;
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

/** Curves made `scale` times as large, then moved. */
export const placed = (curves: readonly Curve[], scale: number, dx: number, dy: number): Curve[] =>
  curves.map((c) => ({
    x: scale * c.x + dx,
    y: scale * c.y + dy,
    segments: c.segments.map(({ kind, n }) => ({
      kind,
      // An arc's third number is its turn, its fourth nothing.
      n: n.map((v, i) => (kind === ARC && (i === 2 || i === 3) ? v : scale * v + (i % 2 ? dy : dx))) as Segment["n"],
    })),
  }));

/** The other way round. */
export function reversed({ x, y, segments }: Curve): Curve {
  const starts = [[x, y], ...segments.map((s) => [s.n[4], s.n[5]])];
  return {
    x,
    y,
    segments: segments
      .map(({ kind, n: [a, b, c, d] }, i): Segment => {
        const [ex, ey] = starts[i];
        if (kind === ARC) return { kind, n: [a, b, -c, 0, ex, ey] };
        return { kind, n: kind === CUBIC ? [c, d, a, b, ex, ey] : [0, 0, 0, 0, ex, ey] };
      })
      .reverse(),
  };
}

/** Curves as a shape; what holds each is told by `parent`, −1 where it is not known. */
export function shapeOf(curves: readonly Curve[], parent: (k: number) => number = () => -1): Shape {
  const b = new ShapeBuilder(curves.reduce((sum, c) => sum + c.segments.length, 1));
  curves.forEach((c, k) => {
    b.begin(c.x, c.y, parent(k));
    for (const { kind, n } of c.segments)
      if (kind === ARC) b.arc(n[0], n[1], n[2], n[4], n[5]);
      else if (kind === CUBIC) b.cubic(...n);
      else b.line(n[4], n[5]);
  });
  return b.take();
}

const lineTo = (x: number, y: number): Segment => ({ kind: LINE, n: [0, 0, 0, 0, x, y] });

/** A command of a path, absolute, as segments from (x, y). */
function segmentsOf(command: string, n: number[], x: number, y: number): Segment[] {
  if (command === "H") return [lineTo(n[0], y)];
  if (command === "V") return [lineTo(x, n[0])];
  if (command === "C") return [{ kind: CUBIC, n: n as Segment["n"] }];
  if (command === "Q") {
    // A quadratic as a cubic: control points two thirds of the way (exact).
    const [qx, qy, ex, ey] = n;
    const third = (a: number, b: number) => a + (2 / 3) * (b - a);
    return [{ kind: CUBIC, n: [third(x, qx), third(y, qy), third(ex, qx), third(ey, qy), ex, ey] }];
  }
  if (command === "A") return arc(x, y, n);
  return [lineTo(n[0], n[1])];
}

/** An elliptical arc from (x, y), by centre and angles (SVG 2, B.2.4): circular ones stay arcs. */
function arc(x: number, y: number, [rx0, ry0, degrees, large, sweep, ex, ey]: number[]): Segment[] {
  if (Math.hypot(ex - x, ey - y) <= SAME) return [];
  if (!(rx0 > 0 && ry0 > 0)) return [lineTo(ex, ey)];
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const [hx, hy] = [(x - ex) / 2, (y - ey) / 2];
  const [px, py] = [cos * hx + sin * hy, cos * hy - sin * hx];
  // Radii too small for the way are made as large as it needs.
  const grow = Math.max(1, Math.hypot(px / rx0, py / ry0));
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
