import { profileOf } from "../../cutters/profile.ts";
import { ringCount } from "../../geometry/rings.ts";
import { backwards, type Trail } from "../../geometry/trail.ts";
import { cutAlong, loopOf, rotate } from "../../toolpath/loops.ts";
import { thin } from "../../geometry/thin.ts";
import { shortOrder } from "../../toolpath/order.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { FLAT_SLOPE, WaysIn } from "../area/sink.ts";
import { levels } from "../area/level.ts";
import type { ArtInputs, Note, Planned } from "../kind.ts";
import type { EngraveSettings } from "./engrave.ts";

/** How far thinned moves of changing depth may be from the line, mm. */
const LINE_TOLERANCE = 0.003;
/** Levels closer than this are one pass, mm. */
const LEVEL = 1e-6;

export function plan(inputs: ArtInputs, s: EngraveSettings): Planned {
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes: Note[] = [];
  const p = profileOf(inputs.cutter);
  const most = Math.min(s.depth, p.height);
  const byWidth = s.by === "width" && inputs.reads.art.lines !== null && inputs.cutter.kind !== "flat";
  if (s.by === "width" && !byWidth)
    notes.push({
      code: "no-stroke-width",
      severity: "warning",
      message:
        inputs.reads.art.lines === null
          ? "Engraving as wide as the strokes needs a centre line: set the outline's trace to centre line. Until " +
            "then the depth is the same everywhere."
          : "A flat cutter cuts one width at any depth: use a V, ball or tapered one to follow the strokes' width.",
    });
  const lines = byWidth ? linesByWidth(inputs, p, most) : linesByDepth(inputs, most);
  const ends = lines.map((l) => ({ x0: l.x[0], y0: l.y[0], x1: l.x[l.x.length - 1], y1: l.y[l.y.length - 1] }));
  const order = shortOrder(ends);
  // A point goes straight down; a flat cutter needs a way in.
  const ways = inputs.cutter.kind === "flat" ? new WaysIn(p.radius, inputs.cutter.centreCutting, FLAT_SLOPE) : null;
  order.forEach(({ index, reverse }, k) => {
    const line = reverse ? backwards(lines[index]) : lines[index];
    if (ways) followFlat(w, line, s.stepdown, ways);
    else follow(w, line, s.stepdown);
    if ((k & 31) === 0) inputs.progress(k / order.length);
  });
  if (ways) notes.push(...ways.notes("Engrave"));
  return { toolpath: w.take(), notes, facts: {} };
}

function linesByDepth(inputs: ArtInputs, depth: number): Trail[] {
  const out: Trail[] = [];
  const add = (xy: Float64Array, from: number, to: number, close: boolean) => {
    const n = to - from + (close ? 1 : 0);
    const at = (i: number) => from + (i % (to - from));
    out.push({
      x: Float64Array.from({ length: n }, (_, i) => xy[2 * at(i)]),
      y: Float64Array.from({ length: n }, (_, i) => xy[2 * at(i) + 1]),
      z: new Float64Array(n).fill(-depth),
    });
  };
  const { lines, ink } = inputs.reads.art;
  if (lines)
    for (let k = 0; k + 1 < lines.starts.length; k++) add(lines.xy, lines.starts[k], lines.starts[k + 1], false);
  else
    for (let k = 0; k < ringCount(ink); k++)
      if (ink.starts[k + 1] - ink.starts[k] > 1) add(ink.xy, ink.starts[k], ink.starts[k + 1], true);
  return out;
}

/** A cutter h deep opens r(h) to either side: the depth for half a stroke's width is h(r). */
function linesByWidth(inputs: ArtInputs, p: ReturnType<typeof profileOf>, most: number): Trail[] {
  const l = inputs.reads.art.lines!;
  const out: Trail[] = [];
  for (let k = 0; k + 1 < l.starts.length; k++) {
    const x: number[] = [];
    const y: number[] = [];
    const z: number[] = [];
    for (let i = l.starts[k]; i < l.starts[k + 1]; i++) {
      x.push(l.xy[2 * i]);
      y.push(l.xy[2 * i + 1]);
      const r = l.width[i] / 2;
      z.push(-Math.min(most, r >= p.radius ? p.height : p.h(r)));
    }
    out.push({ x: Float64Array.from(x), y: Float64Array.from(y), z: Float64Array.from(z) });
  }
  return out;
}

/** One line of one depth with a flat cutter: pass by pass, each sunk along. */
function followFlat(w: ToolpathWriter, l: Trail, stepdown: number, ways: WaysIn): void {
  const n = l.x.length - 1;
  const closed = n > 1 && l.x[0] === l.x[n] && l.y[0] === l.y[n];
  for (const { z0, z1 } of levels(-l.z[0], stepdown, () => 0)) {
    const first = ways.sink(w, l.x, l.y, closed, z0, z1);
    if (first < 0) return;
    const t = closed ? rotate(loopOf(l.x, l.y), first) : l;
    cutAlong(w, t.x, t.y, 0, n, z1);
  }
}

/** One line in as many passes as its depth asks for, to and fro. */
function follow(w: ToolpathWriter, l: Trail, stepdown: number): void {
  let deepest = 0;
  for (const z of l.z) deepest = Math.min(deepest, z);
  const passes = Math.max(1, Math.ceil(-deepest / stepdown - LEVEL));
  let back = false;
  for (let k = 1; k <= passes; k++) {
    const floor = (deepest * k) / passes;
    const z = l.z.map((v) => Math.max(v, floor));
    const level = z.every((v) => v === z[0]);
    const keep = level ? null : thin(l.x, l.y, z, 0, z.length - 1, LINE_TOLERANCE);
    const n = l.x.length;
    const first = back ? n - 1 : 0;
    if (k === 1) w.above(l.x[first], l.y[first]);
    w.plunge(z[first]);
    if (level) {
      const t = back ? backwards(l) : l;
      cutAlong(w, t.x, t.y, 0, n - 1, z[0]);
    } else for (const i of back ? keep!.slice().reverse() : keep!) w.to(l.x[i], l.y[i], z[i]);
    back = !back;
  }
}
