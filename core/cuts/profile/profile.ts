import { feedsFor } from "../../cutters/feeds.ts";
import { inset } from "../../geometry/clearance/clearance.ts";
import { complement, regionArea, ringArea, ringCount } from "../../geometry/rings.ts";
import { rateField, type Settings } from "../../settings/fields.ts";
import { cutAlong, unroll, type Loop } from "../../toolpath/loops.ts";
import { nearestOrder } from "../../toolpath/trails.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import type { CutContext, CutInputs, CutKind, Note, Planned } from "../kind.ts";
import { placeTabs, tabLimit, type Tab } from "./tabs.ts";

const depthOf = (c: CutContext, s: Settings): number => (s.through ? c.stock.thickness + (s.past as number) : (s.depth as number));
const feedsAt = (c: CutContext, s: Settings) => feedsFor(c.cutter, c.material, c.machine, Math.min(s.stepdown as number, depthOf(c, s)), c.cutter.diameter);
/** Beyond the art the plan looks this many cutter diameters: room for every outside path. */
const ROOM = 3;

/** Cuts along the outside of every piece and the inside of every hole, holes first, leaving tabs. */
export const profile: CutKind = {
  kind: "profile",
  title: "Cut out",
  cutters: ["flat", "ball"],
  summary: (s, c) => `flat ${formatLength(c.diameter)}${(s.tabs as number) > 0 ? ` · ${s.tabs} tabs` : ""}`,
  fields: [
    { key: "through", label: "Through the stock", type: "switch", auto: () => ({ value: true, reason: "a cut-out" }) },
    {
      key: "depth",
      label: "Depth",
      type: "length",
      min: 0.01,
      max: 200,
      step: 0.1,
      when: (s) => s.through === false,
      auto: (c) => ({ value: Math.round((c.stock.thickness / 2) * 100) / 100, reason: "half the stock" }),
      consequence: (v, c) => `leaves ${formatLength(Math.max(0, c.stock.thickness - (v as number)))} of ${formatLength(c.stock.thickness)} mm`,
    },
    {
      key: "past",
      label: "Past the underside",
      type: "length",
      help: "Cuts a little into the board below, so that no skin is left. Put a spoil board under the stock.",
      min: 0,
      max: 5,
      step: 0.05,
      more: true,
      when: (s) => s.through === true,
      auto: () => ({ value: 0.2, reason: "leaves no skin; needs a spoil board" }),
    },
    {
      key: "stepdown",
      label: "Stepdown",
      type: "length",
      help: "Depth of each pass.",
      min: 0.05,
      max: 100,
      step: 0.1,
      auto: (c) => feedsFor(c.cutter, c.material, c.machine, 1, c.cutter.diameter).stepdown,
      consequence: (v, c, s) => `${Math.max(1, Math.ceil(depthOf(c, s) / (v as number) - 1e-6))} passes`,
    },
    { key: "tabs", label: "Tabs on each piece", type: "number", help: "Short bridges that hold the piece until you cut it free.", min: 0, max: 40, step: 1, auto: (_c, s) => ({ value: s.through ? 4 : 0, reason: s.through ? "holds a piece on every side" : "the piece stays in the stock" }) },
    { key: "tabWidth", label: "Tab width", type: "length", min: 0.5, max: 50, step: 0.5, more: true, when: (s) => (s.tabs as number) > 0, auto: (c) => ({ value: Math.max(4, c.cutter.diameter), reason: "about the cutter's diameter" }) },
    {
      key: "tabHeight",
      label: "Tab thickness",
      type: "length",
      min: 0.2,
      max: 50,
      step: 0.1,
      more: true,
      when: (s) => (s.tabs as number) > 0,
      auto: (c) => ({ value: Math.round(Math.min(2, c.stock.thickness / 3) * 10) / 10, reason: "strong enough to hold, thin enough to saw" }),
    },
    { key: "leave", label: "Leave on walls", type: "length", min: 0, max: 10, step: 0.05, more: true, auto: () => ({ value: 0, reason: "cut to size" }) },
    {
      key: "direction",
      label: "Direction",
      type: "choice",
      options: [
        { value: "climb", label: "climb" },
        { value: "conventional", label: "conventional" },
      ],
      help: "Climb: the cutter's edge comes out of the stock thin, for a cleaner wall. Conventional pulls less on machines with play.",
      more: true,
      auto: () => ({ value: "climb", reason: "the cleaner wall" }),
    },
    { key: "ramp", label: "Ramp angle", type: "angle", help: "How steeply the cutter sinks along its path instead of plunging.", min: 0.5, max: 45, step: 0.5, more: true, auto: () => ({ value: 3, reason: "gentle on flat cutters" }) },
    rateField("feed", "Feed", "feed", (c: CutContext, s) => feedsAt(c, s).feed),
    rateField("plunge", "Plunge", "feed", (c: CutContext, s) => feedsAt(c, s).plunge),
    rateField("spindle", "Spindle speed", "speed", (c: CutContext, s) => feedsAt(c, s).spindle),
  ],
  plan,
};

interface ProfileLoop {
  xy: Float64Array;
  start: number;
  end: number;
  /** how many rings lie around the contour it follows: deeper ones first */
  depth: number;
  outside: boolean;
}

function plan(inputs: CutInputs, s: Settings): Planned {
  const { ink, cutter } = inputs;
  const w = new ToolpathWriter(s.feed as number, s.plunge as number, inputs.machine.rapid);
  const notes: Note[] = [];
  const n = ringCount(ink);
  if (n === 0) return { toolpath: w.take(), notes, facts: {} };
  const away = cutter.diameter / 2 + (s.leave as number);
  const outsideWorld = complement(ink, ROOM * cutter.diameter + 2 * (s.leave as number));
  const c = inputs.clearance(outsideWorld);
  inputs.progress(0.5);
  const { rings, follows } = inset(c, away);
  const nest = nestDepths(ink.parent);
  const loops: ProfileLoop[] = [];
  const reached = new Uint8Array(n);
  for (let k = 0; k < ringCount(rings); k++) {
    const ring = follows[k];
    if (ring >= n) continue; // the frame
    reached[ring] = 1;
    // The world outside lies on a loop's left: clockwise loops go round pieces, counter-clockwise ones lie in holes.
    loops.push({ xy: rings.xy, start: rings.starts[k], end: rings.starts[k + 1], depth: nest[ring], outside: ringArea(rings, k) < 0 });
  }
  const missed = [...reached].filter((r, k) => !r && nest[k] % 2 === 1).length;
  if (missed > 0) notes.push({ code: "hole-too-small", severity: "warning", message: `${missed} ${missed === 1 ? "hole is" : "holes are"} too narrow for the ${formatLength(cutter.diameter)} mm cutter and will not be cut. Use a smaller cutter.` });

  // Deepest nesting first, so that holes are cut while their piece is still held; within a depth, the nearest next.
  const depths = [...new Set(loops.map((l) => l.depth))].sort((a, b) => b - a);
  const facts = { tabs: 0, pieces: loops.filter((l) => l.outside).length, area: regionArea(ink) };
  for (const d of depths) {
    const group = loops.filter((l) => l.depth === d);
    const ends = group.map((l) => ({ x0: l.xy[2 * l.start], y0: l.xy[2 * l.start + 1], x1: l.xy[2 * l.start], y1: l.xy[2 * l.start + 1], oneWay: true }));
    for (const { index } of nearestOrder(ends, Number.isNaN(w.x) ? 0 : w.x, Number.isNaN(w.y) ? 0 : w.y)) facts.tabs += cutLoop(w, group[index], inputs, s);
  }
  return { toolpath: w.take(), notes, facts, within: outsideWorld };
}

/** How many rings lie around each. */
function nestDepths(parent: Int32Array): Int32Array {
  const depth = new Int32Array(parent.length);
  for (let k = 0; k < parent.length; k++) for (let p = parent[k]; p >= 0; p = parent[p]) depth[k]++;
  return depth;
}

/** One contour in all its passes: ramps down along itself, then once round at full depth of the pass. @returns tabs left */
function cutLoop(w: ToolpathWriter, l: ProfileLoop, inputs: CutInputs, s: Settings): number {
  const loop = unroll(l.xy, l.start, l.end, 0, s.direction === "conventional");
  const total = loop.s[loop.s.length - 1];
  const depth = depthOf(inputs, s);
  const passes = Math.max(1, Math.ceil(depth / (s.stepdown as number) - 1e-6));
  const slope = Math.tan(((s.ramp as number) * Math.PI) / 180);
  const half = ((s.tabWidth as number) + inputs.cutter.diameter) / 2;
  const top = -inputs.stock.thickness + (s.tabHeight as number);
  const tabs = l.outside && s.through ? placeTabs(loop, s.tabs as number, 2 * (half + (s.tabHeight as number))) : [];
  w.above(loop.x[0], loop.y[0]);
  w.to(loop.x[0], loop.y[0], 0);
  let at = 0;
  for (let k = 1; k <= passes; k++) {
    const z0 = (-depth * (k - 1)) / passes;
    const z1 = (-depth * k) / passes;
    at = pass(w, loop, total, at, z0, z1, slope, tabs, half, top);
  }
  w.lift();
  return tabs.length;
}

/** From distance `at` along the loop: sink from z0 to z1, then once round. @returns where it ends, as a distance along the loop */
function pass(w: ToolpathWriter, l: Loop, total: number, at: number, z0: number, z1: number, slope: number, tabs: readonly Tab[], half: number, top: number): number {
  const rampLength = (z0 - z1) / slope;
  const end = at + rampLength + total;
  const marks: number[] = [at, at + rampLength, end];
  const n = l.x.length - 1;
  for (let turn = Math.floor(at / total); turn * total < end; turn++) for (let i = 0; i < n; i++) marks.push(turn * total + l.s[i]);
  const wall = top - z1;
  if (wall > 0)
    for (let turn = Math.floor(at / total) - 1; turn * total < end; turn++)
      for (const t of tabs) for (const d of [-half - wall, -half, half, half + wall]) marks.push(turn * total + t.at + d);
  marks.sort((a, b) => a - b);
  const along = marks.filter((m, i) => m >= at && m <= end && (i === 0 || m - marks[i - 1] > 1e-7));
  const x = new Float64Array(along.length);
  const y = new Float64Array(along.length);
  const z = new Float64Array(along.length);
  let seg = 0;
  let lastTurn = NaN;
  for (let i = 0; i < along.length; i++) {
    const turn = Math.floor(along[i] / total);
    const s = along[i] - turn * total;
    if (turn !== lastTurn) seg = 0;
    lastTurn = turn;
    while (seg < n - 1 && l.s[seg + 1] < s) seg++;
    const len = l.s[seg + 1] - l.s[seg];
    const f = len > 0 ? Math.min(1, (s - l.s[seg]) / len) : 0;
    x[i] = l.x[seg] + f * (l.x[seg + 1] - l.x[seg]);
    y[i] = l.y[seg] + f * (l.y[seg + 1] - l.y[seg]);
    const plain = Math.max(z1, z0 - (along[i] - at) * slope);
    z[i] = wall > 0 ? Math.max(plain, tabLimit(tabs, total, half, top, z1, s)) : plain;
  }
  for (let i = 0; i + 1 < along.length; ) {
    let j = i + 1;
    while (j + 1 < along.length && z[j + 1] === z[i] && z[j] === z[i]) j++;
    if (j > i + 1 && z[j] === z[i]) cutAlong(w, x, y, i, j, z[i]);
    else {
      w.to(x[i + 1], y[i + 1], z[i + 1]);
      j = i + 1;
    }
    i = j;
  }
  return (at + rampLength) % total;
}
