import { describe, expect, it } from "vitest";
import { nesting } from "../geometry/nesting.ts";
import { flatten, ShapeBuilder } from "../geometry/shape.ts";
import { ringArea } from "../geometry/rings.ts";
import { drawingStyle, writeDxf } from "./dxf.ts";
import { writeSvg } from "./svg.ts";

/** A shape with every kind of segment, and a round hole. */
function drawing() {
  const b = new ShapeBuilder();
  b.begin(0, 0, -1);
  b.line(30, 0);
  b.arc(30, 10, 1, 30, 20);
  b.cubic(20, 30, 10, 30, 0, 20);
  b.line(0, 0);
  b.begin(20, 10, 0);
  b.arc(15, 10, -1, 10, 10);
  b.arc(15, 10, -1, 20, 10);
  const s = b.take();
  return { ...s, parent: nesting(flatten(s, 0.01)) };
}
const areas = () => {
  const r = flatten(drawing(), 0.001);
  return [0, 1].map((k) => ringArea(r, k));
};
/** Group codes and values of each entity. */
function entities(dxf: string) {
  const lines = dxf.trim().split("\n");
  const pairs = Array.from({ length: lines.length / 2 }, (_, i) => [Number(lines[2 * i]), lines[2 * i + 1]] as const);
  const from = pairs.findIndex(([c, v]) => c === 2 && v === "ENTITIES");
  const out: { type: string; layer: string; pairs: (readonly [number, string])[] }[] = [];
  for (const p of pairs.slice(from + 1)) {
    if (p[0] === 0) out.push({ type: p[1], layer: "", pairs: [] });
    else if (out.length > 0) {
      out[out.length - 1].pairs.push(p);
      if (p[0] === 8) out[out.length - 1].layer = p[1];
    }
  }
  return out;
}
const numbers = (e: { pairs: (readonly [number, string])[] }, code: number) =>
  e.pairs.filter(([c]) => c === code).map(([, v]) => Number(v));

/** Area of a polyline with bulges: chords, and a circular segment for each bulge. */
function polylineArea(v: { x: number; y: number; bulge: number }[]): number {
  let sum = 0;
  v.forEach((a, i) => {
    const b = v[(i + 1) % v.length];
    sum += (a.x * b.y - b.x * a.y) / 2;
    if (a.bulge !== 0) {
      const angle = 4 * Math.atan(a.bulge);
      const r = Math.hypot(b.x - a.x, b.y - a.y) / 2 / Math.sin(Math.abs(angle) / 2);
      sum += (Math.sign(angle) * r * r * (Math.abs(angle) - Math.sin(Math.abs(angle)))) / 2;
    }
  });
  return sum;
}

describe("DXF read back by its own rules", () => {
  for (const style of ["arcs", "lines"] as const)
    it(`${style}: closed polylines of the same area on named layers`, () => {
      const e = entities(writeDxf(drawing(), 0, 0, style));
      const polylines = e.filter((q) => q.type === "POLYLINE");
      expect(polylines.map((q) => q.layer)).toEqual(["INK", "HOLES"]);
      for (const p of polylines) expect(numbers(p, 70)).toEqual([1]);
      const found: number[] = [];
      let v: { x: number; y: number; bulge: number }[] = [];
      for (const q of e) {
        if (q.type === "VERTEX") v.push({ x: numbers(q, 10)[0], y: numbers(q, 20)[0], bulge: numbers(q, 42)[0] ?? 0 });
        if (q.type === "SEQEND") {
          found.push(polylineArea(v));
          v = [];
        }
      }
      areas().forEach((a, k) => expect(found[k]).toBeCloseTo(a, 0));
      if (style === "lines") expect(e.some((q) => numbers(q, 42).length > 0)).toBe(false);
    });

  it("splines: one closed cubic a contour, with knots and control points that agree", () => {
    const e = entities(writeDxf(drawing(), 0, 0, "splines")).filter((q) => q.type === "SPLINE");
    expect(e.map((q) => q.layer)).toEqual(["INK", "HOLES"]);
    e.forEach((q, k) => {
      const [x, y] = [numbers(q, 10), numbers(q, 20)];
      expect(numbers(q, 73)[0]).toBe(x.length);
      expect(numbers(q, 72)[0]).toBe(numbers(q, 40).length);
      expect(numbers(q, 40).length).toBe(x.length + 4);
      expect([x[0], y[0]]).toEqual([x[x.length - 1], y[y.length - 1]]);
      // Area of the Béziers between every third control point.
      let sum = 0;
      for (let i = 0; i + 3 < x.length; i += 3)
        for (let t = 0; t < 200; t++) {
          const at = (u: number, c: number[]) =>
            (1 - u) ** 3 * c[i] + 3 * (1 - u) ** 2 * u * c[i + 1] + 3 * (1 - u) * u * u * c[i + 2] + u ** 3 * c[i + 3];
          const [a, b] = [t / 200, (t + 1) / 200];
          sum += (at(a, x) * at(b, y) - at(b, x) * at(a, y)) / 2;
        }
      expect(sum).toBeCloseTo(areas()[k], 1);
    });
  });

  it("puts centre lines on a layer of their own, and into the SVG as strokes", () => {
    const lines = {
      xy: Float64Array.of(0, 0, 10, 0, 10, 10),
      width: Float64Array.of(2, 2, 2),
      starts: Int32Array.of(0, 3),
      closed: Uint8Array.of(0),
    };
    expect(
      entities(writeDxf(drawing(), 0, 0, "arcs", lines)).filter((q) => q.layer === "CENTRE" && q.type === "VERTEX")
        .length,
    ).toBe(3);
    expect(writeSvg(drawing(), { x: 0, y: 0, width: 40, height: 30 }, lines)).toMatch(
      /stroke-width="2" d="M0 30L10 30L10 20"/,
    );
  });

  it("knows its styles", () => expect(() => drawingStyle("crayon")).toThrow(/arcs, lines, splines/));
});
