import { GrowingF64 } from "../growing.ts";
import { ARC, arcSweep, contourCount, CUBIC, eachSegment, flattenSegment, type Shape } from "../geometry/shape.ts";

/** Curves that DXF R12 has no name for become chords this close, mm. */
const DXF_TOLERANCE = 0.005;

/**
 * An outline as DXF R12 closed polylines in mm on named layers: lines and arcs stay (an arc as the bulge of its vertex,
 * tan of a quarter of its angle), cubics become chords within 0.005 mm. R12 is what every program and controller reads.
 * @param x0 @param y0 taken as the drawing's origin, mm
 */
export function writeDxf(s: Shape, x0: number, y0: number): string {
  const out: (string | number)[] = [0, "SECTION", 2, "HEADER", 9, "$ACADVER", 1, "AC1009", 9, "$INSUNITS", 70, 4, 9, "$MEASUREMENT", 70, 1, 0, "ENDSEC"];
  out.push(0, "SECTION", 2, "TABLES", 0, "TABLE", 2, "LAYER", 70, 2);
  for (const [name, colour] of [["INK", 7], ["HOLES", 1]] as const) out.push(0, "LAYER", 2, name, 70, 0, 62, colour, 6, "CONTINUOUS");
  out.push(0, "ENDTAB", 0, "ENDSEC", 0, "SECTION", 2, "ENTITIES");
  const depth = (k: number): number => (s.parent[k] < 0 ? 0 : 1 + depth(s.parent[k]));
  const buffer = new GrowingF64();
  for (let k = 0; k < contourCount(s); k++) {
    const layer = depth(k) % 2 === 0 ? "INK" : "HOLES";
    out.push(0, "POLYLINE", 8, layer, 66, 1, 70, 1);
    const vertex = (x: number, y: number, bulge: number) => {
      out.push(0, "VERTEX", 8, layer, 10, (x - x0).toFixed(5), 20, (y - y0).toFixed(5));
      if (bulge !== 0) out.push(42, bulge.toFixed(8));
    };
    eachSegment(s, k, (kind, px, py, at) => {
      const p = s.nodes;
      if (kind === ARC) vertex(px, py, Math.tan(arcSweep(px, py, p[at], p[at + 1], p[at + 2], p[at + 4], p[at + 5]) / 4));
      else {
        vertex(px, py, 0);
        if (kind === CUBIC) {
          buffer.length = 0;
          flattenSegment(kind, px, py, p, at, DXF_TOLERANCE, buffer);
          for (let i = 0; i + 2 < buffer.length; i += 2) vertex(buffer.data[i], buffer.data[i + 1], 0);
        }
      }
    });
    out.push(0, "SEQEND", 8, layer);
  }
  out.push(0, "ENDSEC", 0, "EOF");
  return out.join("\n") + "\n";
}
