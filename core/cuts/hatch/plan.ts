import { isFlat, profileOf } from "../../cutters/profile.ts";
import { inset } from "../../geometry/clearance/clearance.ts";
import { ringCount, type Rings } from "../../geometry/rings.ts";
import { spans } from "../../geometry/scanlines.ts";
import { cutAlong, loopOf, rotate, unroll } from "../../toolpath/loops.ts";
import { nearestOrder } from "../../toolpath/order.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { FLAT_SLOPE, WaysIn } from "../area/sink.ts";
import { type Level, levels } from "../area/level.ts";
import type { ArtInputs, Note, Planned } from "../kind.ts";
import type { HatchSettings } from "./hatch.ts";

const degrees = (v: number): number => (v * Math.PI) / 180;

export function plan(inputs: ArtInputs, s: HatchSettings): Planned {
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes: Note[] = [];
  if (ringCount(inputs.reads.art.ink) === 0) return { toolpath: w.take(), notes, facts: {} };
  const p = profileOf(inputs.cutter);
  const depth = Math.min(s.depth, p.height);
  const c = inputs.clearance(inputs.reads.art.ink);
  // The lines' ends and the edge stay inside the ink at the stock's top.
  const keep = p.r(depth);
  if (keep >= c.widest) {
    notes.push({
      code: "cutter-too-wide",
      severity: "stop",
      message:
        `At ${formatLength(depth)} mm deep the cutter is ${formatLength(2 * keep)} mm wide; the widest place to ` +
        `fill is ${formatLength(2 * c.widest)} mm. Go less deep, or use a finer cutter.`,
    });
    return { toolpath: w.take(), notes, facts: {}, within: inputs.reads.art.ink };
  }
  const inner = inset(c, keep).rings;
  const lines: { x: Float64Array; y: Float64Array; closed: boolean }[] = [];
  if (s.way === "rings") {
    for (let at = keep + (s.edge ? s.spacing : s.spacing / 2); at < c.widest; at += s.spacing)
      lines.push(...loopsOf(inset(c, at).rings));
  } else {
    const angles = s.crossed ? [s.angle, s.second] : [s.angle];
    for (const a of angles)
      for (const q of spans(inner, degrees(a), s.spacing))
        lines.push({ x: Float64Array.of(q.x0, q.x1), y: Float64Array.of(q.y0, q.y1), closed: false });
  }
  if (s.edge) lines.push(...loopsOf(inner));
  inputs.progress(0.5);
  const all = levels(depth, s.stepdown, () => 0);
  const order = nearestOrder(
    lines.map((l) => ({ x0: l.x[0], y0: l.y[0], x1: l.x[l.x.length - 1], y1: l.y[l.y.length - 1], oneWay: l.closed })),
  );
  // A point goes straight down; a flat cutter needs a way in.
  const ways = isFlat(p) ? new WaysIn(p.radius, inputs.cutter.centreCutting, FLAT_SLOPE) : null;
  for (const { index, reverse } of order) {
    const l = lines[index];
    if (ways) {
      sinkAndCut(w, ways, l, all);
      continue;
    }
    let [x, y] = reverse ? [l.x.slice().reverse(), l.y.slice().reverse()] : [l.x, l.y];
    w.above(x[0], y[0]);
    for (const level of all) {
      w.plunge(level.z1);
      cutAlong(w, x, y, 0, x.length - 1, level.z1);
      // Back the same way for the next pass; closed lines go on round.
      if (!l.closed) [x, y] = [x.slice().reverse(), y.slice().reverse()];
    }
  }
  if (ways) notes.push(...ways.notes("Hatch"));
  return { toolpath: w.take(), notes, facts: { lines: lines.length }, within: inputs.reads.art.ink };
}

/** One line with a flat cutter, level by level, each sunk along. */
function sinkAndCut(
  w: ToolpathWriter,
  ways: WaysIn,
  l: { x: Float64Array; y: Float64Array; closed: boolean },
  all: readonly Level[],
): void {
  for (const { z0, z1 } of all) {
    const first = ways.sink(w, l.x, l.y, l.closed, z0, z1);
    if (first < 0) return;
    const t = l.closed ? rotate(loopOf(l.x, l.y), first) : l;
    cutAlong(w, t.x, t.y, 0, l.x.length - 1, z1);
  }
}

function loopsOf(r: Rings): { x: Float64Array; y: Float64Array; closed: boolean }[] {
  return Array.from({ length: ringCount(r) }, (_, k) => ({
    ...unroll(r.xy, r.starts[k], r.starts[k + 1], 0, false),
    closed: true,
  }));
}
