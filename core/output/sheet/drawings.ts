import { rgb } from "pdf-lib";
import qrcode from "qrcode-generator";
import { type Cutter, profileOf } from "../../cutters/profile.ts";
import { formatLength } from "../../units.ts";
import { plainLetters } from "../gcode/names.ts";
import { INK, type Paper, PENCIL, SOFT } from "./paper.ts";

/** A place on the stock and a rectangle on it, mm. */
interface Rectangle {
  x: number;
  y: number;
  width: number;
  height: number;
}
export interface StockDrawing {
  width: number;
  height: number;
  zero: { x: number; y: number };
  /** what is cut lies within */
  bounds: Rectangle | null;
  clamps: readonly (Rectangle & { tall: number; round?: boolean })[];
}

/** Room for measures round the drawing, points. */
const MEASURES = 26;
const WOOD = rgb(0.95, 0.92, 0.85);
const STEEL = rgb(0.72, 0.76, 0.74);

/** The stock from above with its measures, its work zero, the bounds of what is cut, and what holds it. */
export function drawStock(
  paper: Paper,
  at: { x: number; y: number; wide: number; high: number },
  s: StockDrawing,
): void {
  const k = Math.min((at.wide - 2 * MEASURES) / s.width, (at.high - 2 * MEASURES) / s.height);
  const [w, h] = [s.width * k, s.height * k];
  const left = at.x + (at.wide - w) / 2;
  const top = at.y + (at.high - h) / 2;
  const X = (x: number) => left + x * k;
  const Y = (y: number) => top + h - y * k;
  paper.box(left, top, w, h, { fill: WOOD, edge: INK });
  if (s.bounds)
    paper.box(X(s.bounds.x), Y(s.bounds.y + s.bounds.height), s.bounds.width * k, s.bounds.height * k, {
      edge: PENCIL,
      dashed: true,
    });
  for (const c of s.clamps) {
    if (c.round) paper.circle(X(c.x + c.width / 2), Y(c.y + c.height / 2), (c.width / 2) * k, INK, STEEL);
    else paper.box(X(c.x), Y(c.y + c.height), c.width * k, c.height * k, { fill: STEEL, edge: INK });
    paper.text(X(c.x + c.width / 2), Y(c.y + c.height / 2) + 3, `${formatLength(c.tall)}`, {
      size: 7,
      align: "centre",
    });
  }
  const [zx, zy] = [X(s.zero.x), Y(s.zero.y)];
  paper.circle(zx, zy, 4.5, PENCIL);
  paper.line(zx - 9, zy, zx + 9, zy, PENCIL, false, 0.9);
  paper.line(zx, zy - 9, zx, zy + 9, PENCIL, false, 0.9);
  const measure = { size: 8, colour: SOFT, align: "centre" } as const;
  paper.line(left, top + h + 12, left + w, top + h + 12, SOFT);
  for (const x of [left, left + w]) paper.line(x, top + h + 8, x, top + h + 16, SOFT);
  paper.text(left + w / 2, top + h + 22, `${formatLength(s.width)} mm`, measure);
  paper.line(left - 12, top, left - 12, top + h, SOFT);
  for (const y of [top, top + h]) paper.line(left - 16, y, left - 8, y, SOFT);
  paper.text(left - 15, top - 4, `${formatLength(s.height)} mm`, { ...measure, align: "left" });
}

/** Steps in which a cutter's edge is drawn. */
const STEPS = 24;
const EDGE = rgb(0.3, 0.345, 0.325);
const SHANK = rgb(0.64, 0.68, 0.66);

/** A cutter from its numbers, shank above, to scale within a box. */
export function drawCutter(paper: Paper, cutter: Cutter, x: number, y: number, wide: number, high: number): void {
  const R = cutter.diameter / 2;
  const profile = profileOf(cutter);
  const isTorch = cutter.kind === "torch";
  const edge = isTorch ? 8 * R : Math.max(cutter.fluteLength, Number.isFinite(profile.height) ? profile.height : 0);
  const k = Math.min(wide / (2 * R), (0.68 * high) / edge);
  const c = x + wide / 2;
  const bottom = y + high;
  const rs = Array.from({ length: STEPS + 1 }, (_, i) => (R * i) / STEPS);
  const points = [
    ...rs.map((r): [number, number] => [r * k, -Math.min(edge, profile.h(r)) * k]),
    [R * k, -edge * k] as [number, number],
  ];
  const mirrored = [...points].reverse().map(([px, py]): [number, number] => [-px, py]);
  paper.box(c - R * k, y, 2 * R * k, high - edge * k, { fill: SHANK });
  paper.shape(c, bottom, [...points, ...mirrored], EDGE);
}

/** Room that readers want round the square, modules (ISO/IEC 18004). */
const QUIET = 1;

/** A text as a square that a camera reads (QR code, ISO/IEC 18004). */
export function drawCode(paper: Paper, text: string, x: number, y: number, side: number): void {
  const code = qrcode(0, "L");
  code.addData(plainLetters(text).replace(/[^ -~]/g, "?"), "Byte");
  code.make();
  const n = code.getModuleCount();
  const module = side / (n + 2 * QUIET);
  for (let row = 0; row < n; row++)
    for (let from = 0; from < n;) {
      let to = from;
      while (to < n && code.isDark(row, to)) to++;
      // Dark modules side by side are one rectangle: fewer seams, and a smaller file.
      if (to > from)
        paper.box(x + (QUIET + from) * module, y + (QUIET + row) * module, (to - from) * module, module, { fill: INK });
      from = Math.max(to, from + 1);
    }
}
