import { ARC, CUBIC, LINE, type Shape, ShapeBuilder } from "./shape.ts";

/** A segment: its kind and the numbers of {@link Shape}: two control points, or centre and turn, and its end. */
export interface Segment {
  kind: number;
  n: [number, number, number, number, number, number];
}

/** A closed curve: where it begins, and its segments; the last ends there. */
export interface Curve {
  x: number;
  y: number;
  segments: Segment[];
}

export const lineTo = (x: number, y: number): Segment => ({ kind: LINE, n: [0, 0, 0, 0, x, y] });

/** A quadratic from (x, y) as a cubic, exactly: its control points lie two thirds of the way. */
export function quadraticTo(x: number, y: number, [qx, qy, ex, ey]: readonly number[]): Segment {
  const third = (a: number, b: number) => a + (2 / 3) * (b - a);
  return { kind: CUBIC, n: [third(x, qx), third(y, qy), third(ex, qx), third(ey, qy), ex, ey] };
}

/** Curves made `scale` times as large, turned counter-clockwise about the origin by `turn` (radians), then moved. */
export function placed(curves: readonly Curve[], scale: number, dx: number, dy: number, turn = 0): Curve[] {
  const [cos, sin] = [scale * Math.cos(turn), scale * Math.sin(turn)];
  const at = (x: number, y: number): [number, number] => [cos * x - sin * y + dx, sin * x + cos * y + dy];
  return curves.map((c) => {
    const [x, y] = at(c.x, c.y);
    const segments = c.segments.map(({ kind, n }): Segment => {
      // An arc's third number is its turn, its fourth nothing.
      const second: [number, number] = kind === ARC ? [n[2], n[3]] : at(n[2], n[3]);
      return { kind, n: [...at(n[0], n[1]), ...second, ...at(n[4], n[5])] };
    });
    return { x, y, segments };
  });
}

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
