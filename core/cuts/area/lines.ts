import { inset } from "../../geometry/clearance/clearance.ts";
import { ringCount, type Rings } from "../../geometry/rings.ts";
import { alongRing, type RingWay, type Span, spans, turnedSpan } from "../../geometry/scanlines.ts";
import { cutAlong, unroll } from "../../toolpath/loops.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { Ground } from "./ground.ts";
import type { AreaPlan, Level } from "./level.ts";

/** Ways along the edge from one line to the next longer than this many steps are lifted over. */
const LONGEST_LINK = 4;

/**
 * Clears one level in parallel lines to and fro, from one to the next along the edge where that is near, then once
 * along the edge itself.
 * @param angle of the lines, radians
 */
export function clearLines(g: Ground, level: Level, angle: number): boolean {
  const { w, p } = g;
  g.begin(level);
  if (level.from >= p.c.widest) return false;
  const { rings } = inset(p.c, level.from);
  const rows = new Map<number, Span[]>();
  for (const s of spans(rings, angle, p.stepover)) (rows.get(s.row) ?? rows.set(s.row, []).get(s.row)!).push(s);
  const order = [...rows.keys()].sort((a, b) => a - b);
  let last: Span | null = null;
  for (let left = [...rows.values()].reduce((n, r) => n + r.length, 0); left > 0; left--) {
    const linked: Linked | null = last && next(rows.get(last.row + 1) ?? [], last, p, rings);
    let span: Span;
    let entered = true;
    if (linked) {
      span = linked.span;
      cutAlong(w, linked.way.x, linked.way.y, 0, linked.way.x.length - 1, level.z1);
    } else {
      span = nearest(order, rows, w);
      entered = g.enter(Float64Array.of(span.x0, span.x1), Float64Array.of(span.y0, span.y1), false) >= 0;
    }
    const row = rows.get(span.row)!;
    row.splice(
      row.findIndex((q) => q.x0 === span.x0 || q.x0 === span.x1),
      1,
    );
    if (entered) w.to(span.x1, span.y1, level.z1);
    last = entered ? span : null;
  }
  for (let k = 0; k < ringCount(rings); k++) {
    const loop = g.enterLoop(unroll(rings.xy, rings.starts[k], rings.starts[k + 1], 0, p.conventional));
    if (loop) cutAlong(w, loop.x, loop.y, 0, loop.x.length - 1, level.z1);
  }
  return true;
}

/** A line, and the way along the edge to its beginning. */
interface Linked {
  span: Span;
  way: RingWay;
}

/** The line of a row that the edge leads to soonest from the end of the last one; null where none is near. */
function next(row: readonly Span[], last: Span, p: AreaPlan, rings: Rings): Linked | null {
  let best: Linked | null = null;
  for (const s of row)
    for (const span of [s, turnedSpan(s)]) {
      if (span.ring0 !== last.ring1) continue;
      const way = alongRing(rings, span.ring0, last.at1, span.at0, LONGEST_LINK * p.stepover);
      if (way && (!best || way.length < best.way.length)) best = { span, way };
    }
  return best;
}

/** The first row that has lines left, and its line nearest to the cutter. */
function nearest(order: readonly number[], rows: ReadonlyMap<number, Span[]>, w: ToolpathWriter): Span {
  const row = rows.get(order.find((r) => rows.get(r)!.length > 0)!)!;
  let best = row[0];
  let near = Infinity;
  for (const s of row)
    for (const t of [s, turnedSpan(s)]) {
      const d = Number.isNaN(w.x) ? 0 : (t.x0 - w.x) ** 2 + (t.y0 - w.y) ** 2;
      if (d < near) {
        near = d;
        best = t;
      }
    }
  return best;
}
