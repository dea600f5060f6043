import { feedsFor } from "../../cutters/feeds.ts";
import { profileOf } from "../../cutters/profile.ts";
import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { ringCount, type Rings } from "../../geometry/rings.ts";
import { rateField, type Settings } from "../../settings/fields.ts";
import { cutAlong, type Loop, rampDown, unroll } from "../../toolpath/loops.ts";
import { trails } from "../../geometry/trails.ts";
import { nearestOrder } from "../../toolpath/trails.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import type { CutContext, CutInputs, CutKind, Note, Planned } from "../kind.ts";
import { effectiveFloor } from "../vcarve/floor.ts";

const targetFloor = (c: CutContext): number => (c.target ? effectiveFloor(c.target.settings, profileOf(c.target.cutter)) : 0);
const feedsAt = (c: CutContext, s: Settings) => feedsFor(c.cutter, c.material, c.machine, Math.min(s.stepdown as number, targetFloor(c) || 1), s.stepover as number);

/** Takes the wide floors of a carve with a flat cutter before the V cutter comes. */
export const clear: CutKind = {
  kind: "clear",
  title: "Clear",
  cutters: ["flat"],
  summary: (s, c) => `flat ${formatLength(c.diameter)} · ${formatLength(s.stepdown as number)} a pass`,
  fields: [
    {
      key: "stepover",
      label: "Stepover",
      type: "length",
      help: "Distance between neighbouring rings.",
      min: 0.01,
      max: 100,
      step: 0.1,
      auto: (c) => ({ value: Math.round(Math.min(0.45, c.material.stepover) * c.cutter.diameter * 100) / 100, reason: `${Math.min(0.45, c.material.stepover)} × the cutter in ${c.material.name.toLowerCase()}` }),
    },
    {
      key: "stepdown",
      label: "Stepdown",
      type: "length",
      help: "Depth of each pass.",
      min: 0.05,
      max: 100,
      step: 0.1,
      auto: (c) => feedsFor(c.cutter, c.material, c.machine, 1, c.cutter.diameter / 2).stepdown,
      consequence: (v, c) => {
        const n = Math.max(1, Math.ceil(targetFloor(c) / (v as number) - 1e-6));
        return `${n} ${n === 1 ? "pass" : "passes"} to the floor at ${formatLength(targetFloor(c))} mm`;
      },
    },
    {
      key: "leave",
      label: "Leave on walls",
      type: "length",
      help: "Kept off the sloping wall for the V cutter to finish.",
      min: 0,
      max: 10,
      step: 0.05,
      more: true,
      auto: () => ({ value: 0.1, reason: "the V cutter finishes the wall" }),
    },
    {
      key: "ramp",
      label: "Ramp angle",
      type: "angle",
      help: "How steeply the cutter sinks along its path instead of plunging.",
      min: 0.5,
      max: 45,
      step: 0.5,
      more: true,
      auto: () => ({ value: 3, reason: "gentle on flat cutters" }),
    },
    rateField("feed", "Feed", "feed", (c: CutContext, s) => feedsAt(c, s).feed),
    rateField("plunge", "Plunge", "feed", (c: CutContext, s) => feedsAt(c, s).plunge),
    rateField("spindle", "Spindle speed", "speed", (c: CutContext, s) => feedsAt(c, s).spindle),
  ],
  plan,
};

function plan(inputs: CutInputs, s: Settings): Planned {
  const w = new ToolpathWriter(s.feed as number, s.plunge as number, inputs.machine.rapid);
  const notes: Note[] = [];
  const { target } = inputs;
  if (!target) return { toolpath: w.take(), notes: [{ code: "clear-without-carve", severity: "warning", message: "This clearing cut has no carve to clear for. Add a carve or remove it." }], facts: {} };
  const carve = profileOf(target.cutter);
  const floor = effectiveFloor(target.settings, carve);
  const region = inputs.carveRegion(target.settings);
  if (!region || ringCount(region) === 0) return { toolpath: w.take(), notes, facts: {} };
  const c = inputs.clearance(region);
  inputs.progress(0.4);
  const radius = inputs.cutter.diameter / 2;
  const levels = Math.max(1, Math.ceil(floor / (s.stepdown as number) - 1e-6));
  let empty = true;
  for (let k = 1; k <= levels; k++) {
    const depth = (floor * k) / levels;
    const before = (floor * (k - 1)) / levels;
    // The wall slopes: shallower passes reach farther out.
    const from = carve.r(depth) + radius + (s.leave as number);
    if (from >= c.widest) continue;
    empty = false;
    clearLevel(w, c, from, s.stepover as number, radius, -before, -depth, Math.tan(((s.ramp as number) * Math.PI) / 180));
    inputs.progress(0.4 + (0.6 * k) / levels);
  }
  if (empty) notes.push({ code: "nothing-to-clear", severity: "note", message: `No floor is wide enough for the ${formatLength(inputs.cutter.diameter)} mm clearing cutter; the V cutter takes it all. A smaller clearing cutter might help.` });
  return { toolpath: w.take(), notes, facts: {}, within: region };
}

/** A ring with its distance inside the first one, in steps. */
interface LevelRing {
  rings: Rings;
  k: number;
  step: number;
}

/** All rings of one depth, innermost first where they nest, linked without lifting where the way is certainly clear. */
function clearLevel(w: ToolpathWriter, c: Clearance, from: number, stepover: number, radius: number, z0: number, z1: number, slope: number): void {
  const all: LevelRing[] = [];
  for (let step = 0; ; step++) {
    const at = from + step * stepover;
    if (at >= c.widest) break;
    const { rings } = inset(c, at);
    for (let k = 0; k < ringCount(rings); k++) all.push({ rings, k, step });
  }
  const first = (r: LevelRing) => 2 * r.rings.starts[r.k];
  const done = new Uint8Array(all.length);
  let atStep = -1;
  for (let left = all.length; left > 0; left--) {
    // Outward from where the cutter is: the nearest ring one step farther out; otherwise the innermost left.
    let best = -1;
    let bestPoint = 0;
    let near = Infinity;
    if (atStep > 0)
      for (let i = 0; i < all.length; i++) {
        if (done[i] || all[i].step !== atStep - 1) continue;
        const hit = nearestPoint(all[i], w.x, w.y);
        if (hit.d < near) {
          near = hit.d;
          best = i;
          bestPoint = hit.i;
        }
      }
    // Staying down is safe where both ends keep their distance over the whole link: |link| ≤ (2·step − 1)·stepover.
    const linked = best >= 0 && near <= (2 * atStep - 1) * stepover && near <= 1.5 * stepover;
    if (!linked) {
      best = -1;
      for (let i = 0; i < all.length; i++) if (!done[i] && (best < 0 || all[i].step > all[best].step || (all[i].step === all[best].step && nearer(all[i], all[best], w)))) best = i;
      bestPoint = nearestPoint(all[best], Number.isNaN(w.x) ? all[best].rings.xy[first(all[best])] : w.x, Number.isNaN(w.y) ? all[best].rings.xy[first(all[best]) + 1] : w.y).i;
    }
    const r = all[best];
    done[best] = 1;
    const start = r.rings.starts[r.k];
    const end = r.rings.starts[r.k + 1];
    let loop = unroll(r.rings.xy, start, end, bestPoint - start, false);
    if (linked) w.to(loop.x[0], loop.y[0], z1);
    else {
      w.above(loop.x[0], loop.y[0]);
      w.to(loop.x[0], loop.y[0], Math.min(z0, 0) + (z0 < 0 ? 0.05 : 0));
      const reached = rampDown(w, loop, w.z, z1, slope);
      loop = rotate(loop, reached);
    }
    cutAlong(w, loop.x, loop.y, 0, loop.x.length - 1, z1);
    atStep = r.step;
  }
  pips(w, c, from, stepover, radius, z1);
}

function nearer(a: LevelRing, b: LevelRing, w: ToolpathWriter): boolean {
  return Number.isNaN(w.x) ? false : nearestPoint(a, w.x, w.y).d < nearestPoint(b, w.x, w.y).d;
}

function nearestPoint(r: LevelRing, x: number, y: number): { i: number; d: number } {
  let best = r.rings.starts[r.k];
  let near = Infinity;
  for (let i = best; i < r.rings.starts[r.k + 1]; i++) {
    const d = (r.rings.xy[2 * i] - x) ** 2 + (r.rings.xy[2 * i + 1] - y) ** 2;
    if (d < near) {
      near = d;
      best = i;
    }
  }
  return { i: best, d: Math.sqrt(near) };
}

/** The same closed loop begun at point i. */
export function rotate(l: Loop, i: number): Loop {
  if (i === 0) return l;
  const n = l.x.length - 1;
  const xy = new Float64Array(2 * n);
  for (let k = 0; k < n; k++) {
    xy[2 * k] = l.x[k];
    xy[2 * k + 1] = l.y[k];
  }
  return unroll(xy, 0, n, i, false);
}

/**
 * Rings leave pips where they turn sharply: along the axis two rings' corners are stepover / sin(half angle) apart, more
 * than the cutter covers. Those stretches of the axis are cut too.
 */
function pips(w: ToolpathWriter, c: Clearance, from: number, stepover: number, radius: number, z: number): void {
  const { axis, kept } = c;
  const a: number[] = [];
  const b: number[] = [];
  for (let e = 0; e < axis.a.length; e++) {
    if (!kept[e]) continue;
    const i = axis.a[e];
    const j = axis.b[e];
    const lo = Math.min(axis.d[i], axis.d[j]);
    if (lo < from) continue;
    const len = Math.hypot(axis.x[i] - axis.x[j], axis.y[i] - axis.y[j]);
    if (len < 1e-6) continue;
    const slope = Math.abs(axis.d[i] - axis.d[j]) / len;
    // Gap between the corners of neighbouring rings, and how far to either side each ring's own cut reaches.
    if (stepover < slope * 1.9 * radius) continue;
    const beyond = (lo - from) / stepover;
    if (slope < 0.05 && (beyond - Math.floor(beyond)) * stepover < 0.95 * radius) continue;
    a.push(i);
    b.push(j);
  }
  const paths = trails(axis.x, axis.y, axis.d, a, b);
  const order = nearestOrder(paths.map((t) => ({ x0: t.x[0], y0: t.y[0], x1: t.x[t.x.length - 1], y1: t.y[t.y.length - 1] })), w.x, w.y);
  for (const { index, reverse } of order) {
    const t = paths[index];
    const x = reverse ? t.x.slice().reverse() : t.x;
    const y = reverse ? t.y.slice().reverse() : t.y;
    w.above(x[0], y[0]);
    w.plunge(z);
    cutAlong(w, x, y, 0, x.length - 1, z);
  }
}
