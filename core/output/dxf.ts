import { GrowingF64 } from "../growing.ts";
import type { Lines } from "../outline/centre.ts";
import {
  ARC,
  arcSweep,
  contourCount,
  CUBIC,
  eachSegment,
  flattenSegment,
  LINE,
  type Shape,
} from "../geometry/shape.ts";
import { Problem } from "../problem.ts";
import { hypot } from "../hypot.ts";

/**
 * How curves are written. arcs: polylines with arcs as they are and other curves as chords, which every program and
 * controller reads (R12) · lines: polylines of straight chords only (R12) · splines: one closed cubic spline a
 * contour (R2000).
 */
export const DRAWING_STYLES = ["arcs", "lines", "splines"] as const;
export type DrawingStyle = (typeof DRAWING_STYLES)[number];

/** @throws Problem `bad-drawing` */
export function drawingStyle(text: string): DrawingStyle {
  const found = DRAWING_STYLES.find((d) => d === text);
  if (!found) throw new Problem("bad-drawing", `No way of drawing "${text}". Known: ${DRAWING_STYLES.join(", ")}.`);
  return found;
}

/** Curves that are written as chords keep this close, mm. */
const DXF_TOLERANCE = 0.005;
/** Arcs become cubics in pieces no larger than this: off by less than 0.00003 of the radius. */
const CUBIC_ARC = Math.PI / 4;

type Out = (string | number)[];

/**
 * An outline in mm on the layers INK, HOLES and, for centre lines, CENTRE; every contour is one closed entity.
 * @param x0 @param y0 taken as the drawing's origin, mm
 */
export function writeDxf(
  s: Shape,
  x0: number,
  y0: number,
  style: DrawingStyle = "arcs",
  lines: Lines | null = null,
): string {
  const modern = style === "splines";
  const out: Out = [
    0,
    "SECTION",
    2,
    "HEADER",
    9,
    "$ACADVER",
    1,
    modern ? "AC1015" : "AC1009",
    9,
    "$INSUNITS",
    70,
    4,
    9,
    "$MEASUREMENT",
    70,
    1,
    0,
    "ENDSEC",
  ];
  out.push(0, "SECTION", 2, "TABLES", 0, "TABLE", 2, "LAYER");
  let handle = 16;
  const entity = (type: string, layer: string, kind: string): void => {
    out.push(0, type);
    if (modern) out.push(5, (handle++).toString(16).toUpperCase(), 100, "AcDbEntity");
    out.push(8, layer);
    if (modern) out.push(100, kind);
  };
  if (modern) out.push(5, "2", 100, "AcDbSymbolTable");
  out.push(70, 3);
  for (const [name, colour] of [
    ["INK", 7],
    ["HOLES", 1],
    ["CENTRE", 3],
  ] as const) {
    out.push(0, "LAYER");
    if (modern)
      out.push(5, (handle++).toString(16).toUpperCase(), 100, "AcDbSymbolTableRecord", 100, "AcDbLayerTableRecord");
    out.push(2, name, 70, 0, 62, colour, 6, "CONTINUOUS");
  }
  out.push(0, "ENDTAB", 0, "ENDSEC", 0, "SECTION", 2, "ENTITIES");
  const depth = (k: number): number => (s.parent[k] < 0 ? 0 : 1 + depth(s.parent[k]));
  for (let k = 0; k < contourCount(s); k++) {
    const layer = depth(k) % 2 === 0 ? "INK" : "HOLES";
    if (modern) spline(out, entity, layer, controls(s, k), x0, y0);
    else polyline(out, layer, vertices(s, k, style === "arcs"), x0, y0, true);
  }
  if (lines)
    for (let k = 0; k + 1 < lines.starts.length; k++) {
      const v: number[][] = [];
      for (let i = lines.starts[k]; i < lines.starts[k + 1]; i++) v.push([lines.xy[2 * i], lines.xy[2 * i + 1], 0]);
      if (!modern) polyline(out, "CENTRE", lines.closed[k] ? v.slice(0, -1) : v, x0, y0, lines.closed[k] === 1);
      else
        for (let i = 0; i + 1 < v.length; i++) {
          entity("LINE", "CENTRE", "AcDbLine");
          out.push(
            10,
            n(v[i][0] - x0),
            20,
            n(v[i][1] - y0),
            30,
            0,
            11,
            n(v[i + 1][0] - x0),
            21,
            n(v[i + 1][1] - y0),
            31,
            0,
          );
        }
    }
  out.push(0, "ENDSEC", 0, "EOF");
  return out.join("\n") + "\n";
}

const n = (v: number): string => v.toFixed(5);

/** x, y and bulge (the tangent of a quarter of the arc's angle to the next vertex) of every vertex. */
function vertices(s: Shape, k: number, arcs: boolean): number[][] {
  const out: number[][] = [];
  const buffer = new GrowingF64();
  eachSegment(s, k, (kind, px, py, at) => {
    const p = s.nodes;
    out.push([
      px,
      py,
      kind === ARC && arcs ? Math.tan(arcSweep(px, py, p[at], p[at + 1], p[at + 2], p[at + 4], p[at + 5]) / 4) : 0,
    ]);
    if (kind === LINE || (kind === ARC && arcs)) return;
    buffer.length = 0;
    flattenSegment(kind, px, py, p, at, DXF_TOLERANCE, buffer);
    for (let i = 0; i + 2 < buffer.length; i += 2) out.push([buffer.data[i], buffer.data[i + 1], 0]);
  });
  return out;
}

function polyline(out: Out, layer: string, v: readonly number[][], x0: number, y0: number, closed: boolean): void {
  out.push(0, "POLYLINE", 8, layer, 66, 1, 70, closed ? 1 : 0);
  for (const [x, y, bulge] of v) {
    out.push(0, "VERTEX", 8, layer, 10, n(x - x0), 20, n(y - y0));
    if (bulge !== 0) out.push(42, bulge.toFixed(8));
  }
  out.push(0, "SEQEND", 8, layer);
}

/** Control points of the contour as cubic Béziers one after another, each beginning where the last ended. */
function controls(s: Shape, k: number): number[][] {
  const out: number[][] = [[s.origin[2 * k], s.origin[2 * k + 1]]];
  eachSegment(s, k, (kind, px, py, at) => {
    const p = s.nodes;
    const [x, y] = [p[at + 4], p[at + 5]];
    if (kind === CUBIC) out.push([p[at], p[at + 1]], [p[at + 2], p[at + 3]], [x, y]);
    else if (kind === LINE)
      out.push([px + (x - px) / 3, py + (y - py) / 3], [x - (x - px) / 3, y - (y - py) / 3], [x, y]);
    else {
      const [cx, cy] = [p[at], p[at + 1]];
      const sweep = arcSweep(px, py, cx, cy, p[at + 2], x, y);
      const r = hypot(px - cx, py - cy);
      const a0 = Math.atan2(py - cy, px - cx);
      const parts = Math.ceil(Math.abs(sweep) / CUBIC_ARC);
      const step = sweep / parts;
      const h = (4 / 3) * Math.tan(step / 4) * r;
      for (let i = 0; i < parts; i++) {
        const [a, b] = [a0 + i * step, a0 + (i + 1) * step];
        const end = i + 1 === parts ? [x, y] : [cx + r * Math.cos(b), cy + r * Math.sin(b)];
        out.push(
          [cx + r * Math.cos(a) - h * Math.sin(a), cy + r * Math.sin(a) + h * Math.cos(a)],
          [cx + r * Math.cos(b) + h * Math.sin(b), cy + r * Math.sin(b) - h * Math.cos(b)],
          end,
        );
      }
    }
  });
  return out;
}

/** A cubic spline whose knots come three at a time, so that it passes through the joints as the Béziers do. */
function spline(
  out: Out,
  entity: (type: string, layer: string, kind: string) => void,
  layer: string,
  c: readonly number[][],
  x0: number,
  y0: number,
): void {
  const spans = (c.length - 1) / 3;
  entity("SPLINE", layer, "AcDbSpline");
  out.push(70, 9, 71, 3, 72, 3 * (spans + 1) + 2, 73, c.length, 74, 0);
  for (let i = 0; i <= spans; i++) for (let q = 0; q < (i === 0 || i === spans ? 4 : 3); q++) out.push(40, i);
  for (const [x, y] of c) out.push(10, n(x - x0), 20, n(y - y0), 30, 0);
}
