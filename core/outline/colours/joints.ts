import { ARC, arcSweep, CUBIC, eachSegment, LINE, type Shape, type ShapeBuilder } from "../../geometry/shape.ts";
import { hypot } from "../../hypot.ts";

/** A segment as it is walked along: `n` holds its control points as a shape's nodes do, before its end. */
export interface Segment {
  kind: number;
  x0: number;
  y0: number;
  /** control points of a cubic; centre and turn of an arc */
  n: [number, number, number, number];
  x1: number;
  y1: number;
}

/** The same segment walked the other way. */
export const reversed = ({ kind, x0, y0, n, x1, y1 }: Segment): Segment => ({
  kind,
  x0: x1,
  y0: y1,
  n: kind === ARC ? [n[0], n[1], -n[2], n[3]] : [n[2], n[3], n[0], n[1]],
  x1: x0,
  y1: y0,
});

/** The segments of contour k in order, or backwards. */
export function segmentsOf(s: Shape, k: number, back: boolean): Segment[] {
  const out: Segment[] = [];
  eachSegment(s, k, (kind, x0, y0, at) => {
    const [a, b, c, d, x1, y1] = s.nodes.subarray(at, at + 6);
    out.push({ kind, x0, y0, n: [a, b, c, d], x1, y1 });
  });
  return back ? out.reverse().map(reversed) : out;
}

export function draw(out: ShapeBuilder, { kind, n, x1, y1 }: Segment): void {
  if (kind === LINE) out.line(x1, y1);
  else if (kind === ARC) out.arc(n[0], n[1], n[2], x1, y1);
  else out.cubic(n[0], n[1], n[2], n[3], x1, y1);
}

/** At most this share of a segment is taken off its end. */
const MOST = 0.3;

/** A segment with about `by` mm taken off its end. */
export function shortened(p: Segment, by: number): Segment {
  const { kind, x0, y0, n, x1, y1 } = p;
  if (kind === CUBIC) {
    const speed = 3 * hypot(x1 - n[2], y1 - n[3]);
    return firstPart(p, 1 - Math.min(MOST, by / Math.max(speed, 1e-9)));
  }
  if (kind === ARC) {
    const [cx, cy, turn] = n;
    const sweep = arcSweep(x0, y0, cx, cy, turn, x1, y1);
    const radius = hypot(x0 - cx, y0 - cy);
    const angle = Math.atan2(y0 - cy, x0 - cx) + sweep * (1 - Math.min(MOST, by / (radius * Math.abs(sweep))));
    return { ...p, x1: cx + radius * Math.cos(angle), y1: cy + radius * Math.sin(angle) };
  }
  const t = 1 - Math.min(MOST, by / Math.max(hypot(x1 - x0, y1 - y0), 1e-9));
  return { ...p, x1: x0 + t * (x1 - x0), y1: y0 + t * (y1 - y0) };
}

/** A cubic from its start to parameter t: P. de Casteljau's subdivision. */
function firstPart({ kind, x0, y0, n, x1, y1 }: Segment, t: number): Segment {
  const mix = (a: number, b: number): number => a + t * (b - a);
  const [ax, ay] = [mix(x0, n[0]), mix(y0, n[1])];
  const [mx, my] = [mix(n[0], n[2]), mix(n[1], n[3])];
  const [bx, by] = [mix(n[2], x1), mix(n[3], y1)];
  const [px, py] = [mix(ax, mx), mix(ay, my)];
  const [qx, qy] = [mix(mx, bx), mix(my, by)];
  return { kind, x0, y0, n: [ax, ay, px, py], x1: mix(px, qx), y1: mix(py, qy) };
}
