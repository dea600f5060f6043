import { ringCount, regionArea } from "../../geometry/rings.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { parsePlaces } from "../../settings/places.ts";
import { type Loop, unroll } from "../../toolpath/loops.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { LEAST_HELIX, overFloor, sinkAlong } from "../area/sink.ts";
import { begunAt, nearestPlace, placeOn } from "../contour/gentle.ts";
import { type Lead, type LeadRules, leadPoints, placeLead } from "../contour/leads.ts";
import { type ContourLoop, contourLoops, contourOrder, joinedNote } from "../contour/loops.ts";
import { placeTabs, type Tab, tabNotes, tabsFromPlaces, tabsInCorners } from "../contour/tabs.ts";
import { slopeOf } from "../fields.ts";
import {
  ART,
  type CutContext,
  type ArtInputs,
  defineCut,
  type Freed,
  type Mark,
  type Note,
  type Planned,
} from "../kind.ts";
import { depthOf, profileFields, type ProfileSettings } from "./fields.ts";
import { profileLeft, profileSeconds } from "./estimate.ts";
import { pass, type PassShape } from "./pass.ts";

/** Walls of a square tab are this steep, rise over run. */
const SQUARE_SLOPE = 20;

/** Cuts along the shapes, on either side or on the line, what lies inside a ring before the ring. */
export const profile = defineCut({
  kind: "profile",
  title: "Cut out",
  about: "along the shape, through or not",
  cutters: ["flat", "ball"],
  summary: (s, c) => {
    const side = { outside: "", inside: " · inside", on: " · on the line" }[s.side];
    return `${c.kind} ${formatLength(c.diameter)} mm${side}${s.tabs > 0 ? ` · ${s.tabs} tabs` : ""}`;
  },
  fields: profileFields,
  reads: ART,
  handles: {
    depth: "depth",
    unlimited: { field: "through", value: true },
    tabs: { field: "tabs", usual: 4 },
    marks: { tab: "tabsAt" },
  },
  intent: (s, c) => ({ depth: depthOf(c, s), through: s.through }),
  sample: { cutter: "flat:6" },
  estimate: profileSeconds,
  left: profileLeft,
  plan,
});

/** A contour ready to cut: where it begins, its tabs, its way in. */
interface Ready {
  loop: Loop;
  tabs: Tab[];
  lead: Lead | null;
}

function plan(inputs: ArtInputs, s: ProfileSettings): Planned {
  const { cutter, stock } = inputs;
  const { ink } = inputs.reads.art;
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes: Note[] = [];
  if (ringCount(ink) === 0) return { toolpath: w.take(), notes, facts: {} };
  const away = cutter.diameter / 2 + s.leave;
  const { loops, waste, missed, joined } = contourLoops(inputs, s, away);
  inputs.progress(0.5);
  if (missed.length > 0) {
    const what =
      s.side === "outside"
        ? missed.length === 1
          ? "hole is"
          : "holes are"
        : missed.length === 1
          ? "opening is"
          : "openings are";
    notes.push({
      code: "hole-too-small",
      severity: "warning",
      message:
        `${missed.length} ${what} too narrow for the ${formatLength(cutter.diameter)} mm cutter and will not be ` +
        "cut. Use a smaller cutter.",
      at: { x: ink.xy[2 * ink.starts[missed[0]]], y: ink.xy[2 * ink.starts[missed[0]] + 1] },
    });
  }
  if (joined.length > 0) notes.push(joinedNote(ink, joined, `${formatLength(cutter.diameter)} mm cutter`));
  const depth = depthOf(inputs, s);
  const skin = s.through ? Math.min(s.skin, depth / 2) : 0;
  const rules: LeadRules = {
    shape: s.lead > 0 && s.side !== "on" ? "arc" : "none",
    right: s.direction === "conventional",
    reach: s.lead,
    edges: new SegmentGrid(ink),
    away,
    width: stock.width,
    height: stock.height,
  };
  const shape: PassShape = {
    slope: slopeOf(s),
    half: (s.tabWidth + cutter.diameter) / 2,
    top: -stock.thickness + s.tabHeight,
    tabSlope: s.tabShape === "square" ? SQUARE_SLOPE : 1,
  };
  const byHand = parsePlaces(s.tabsAt, "Tabs");
  const marks: Mark[] = [];
  const cornered: { x: number; y: number }[] = [];
  let short = 0;
  const ready = (l: ContourLoop, on: readonly Mark[] | null): Ready => {
    let loop = unroll(l.xy, l.start, l.end, 0, s.direction === "conventional");
    const lead = rules.shape === "none" ? null : placeLead(loop, rules);
    if (lead) loop = begunAt(loop, lead.place);
    const tabLength = 2 * (shape.half + s.tabHeight);
    let tabs: Tab[] = [];
    if (l.frees && s.through) {
      // The same places on the wall for every path along it.
      const mine = on ?? nearOnes(byHand, loops, l);
      tabs =
        mine.length > 0
          ? tabsFromPlaces(
              loop,
              mine.map((m) => (Array.isArray(m) ? m : [m.x, m.y]) as [number, number]),
            )
          : placeTabs(loop, s.tabs, tabLength);
      if (mine.length === 0 && tabs.length < s.tabs) short++;
      if (!on && mine.length > 0)
        cornered.push(...tabsInCorners(loop, tabs, tabLength).map((t) => xy(placeOn(loop, t.at))));
    }
    return { loop, tabs, lead };
  };
  const rough = s.side !== "on" && s.lastPass > 0 ? contourLoops(inputs, s, away + s.lastPass).loops : [];
  const facts = { tabs: 0, pieces: loops.filter((l) => l.frees).length, area: regionArea(ink), skin };
  const order = contourOrder(loops, 0, 0);
  const all = order.map((i) => ({ l: loops[i], r: ready(loops[i], null) }));
  const plans = all.filter(({ r }) => hasWayIn(r, cutter));
  const tight = all.find(({ r }) => !hasWayIn(r, cutter));
  if (tight)
    notes.push({
      code: "no-way-in",
      severity: "stop",
      message:
        `${all.length - plans.length === 1 ? "One contour is" : `${all.length - plans.length} contours are`} too ` +
        `small to sink along: the ${formatLength(cutter.diameter)} mm cutter does not cut at its centre. Use a ` +
        "smaller cutter or one that cuts at its centre.",
      at: { x: tight.r.loop.x[0], y: tight.r.loop.y[0] },
    });
  for (const { l, r } of plans) {
    facts.tabs += r.tabs.length;
    const own = r.tabs.map((t): Mark => ({ kind: "tab", ...xy(placeOn(r.loop, t.at)) }));
    marks.push(...own);
    if (r.lead) marks.push({ kind: "pierce", x: r.lead.x0, y: r.lead.y0 });
    const wide = rough.filter((q) => q.ring === l.ring).map((q) => ready(q, own));
    for (const q of wide) passes(w, q, depth - skin, s, shape);
    if (wide.length === 0) passes(w, r, depth - skin, s, shape);
    else besideOpen(w, r, wide, -(depth - skin), shape);
    w.lift();
  }
  if (skin > 0)
    for (const { r } of plans) {
      along(w, r, -(depth - skin), -depth, shape);
      w.lift();
    }
  notes.push(...tabNotes(cornered, s, facts.tabs));
  if (short > 0)
    notes.push({
      code: "tabs-do-not-fit",
      severity: "note",
      message:
        `${short} ${short === 1 ? "piece is" : "pieces are"} too small for ${s.tabs} tabs each ` +
        `${formatLength(s.tabWidth)} mm wide: ${short === 1 ? "it gets" : "they get"} as many as fit.`,
    });
  const holder = skin > 0 ? "skin" : null;
  const freed: Freed = { pieces: facts.pieces, heldBy: facts.tabs > 0 ? "tabs" : holder };
  return {
    toolpath: w.take(),
    notes,
    facts,
    marks,
    ...(s.through && { freed }),
    ...(s.side !== "on" && { within: waste }),
  };
}

const xy = ({ x, y }: { x: number; y: number }) => ({ x, y });

/** Places by hand that are nearer to this contour than to any other. */
function nearOnes(
  places: readonly [number, number][],
  loops: readonly ContourLoop[],
  mine: ContourLoop,
): [number, number][] {
  const distance = (l: ContourLoop, x: number, y: number): number => {
    let best = Infinity;
    for (let i = l.start; i < l.end; i++) best = Math.min(best, (l.xy[2 * i] - x) ** 2 + (l.xy[2 * i + 1] - y) ** 2);
    return best;
  };
  return places.filter(([x, y]) => loops.every((l) => l === mine || distance(l, x, y) >= distance(mine, x, y)));
}

/** One contour in all its passes. */
function passes(w: ToolpathWriter, r: Ready, depth: number, s: { stepdown: number }, shape: PassShape): void {
  const n = Math.max(1, Math.ceil(depth / s.stepdown - 1e-6));
  if (r.lead) {
    for (let k = 1; k <= n; k++) along(w, r, (-depth * (k - 1)) / n, (-depth * k) / n, shape);
    return;
  }
  w.above(r.loop.x[0], r.loop.y[0]);
  w.to(r.loop.x[0], r.loop.y[0], 0);
  let at = 0;
  for (let k = 1; k <= n; k++) at = pass(w, r.loop, at, (-depth * (k - 1)) / n, (-depth * k) / n, shape, r.tabs);
}

/**
 * Whether the cutter gets down along a contour: one that does not cut at its centre would leave a post in the middle of
 * a small round.
 */
function hasWayIn({ loop, lead }: Ready, cutter: CutContext["cutter"]): boolean {
  const total = loop.s[loop.s.length - 1];
  return total > 1e-6 && (cutter.centreCutting || lead !== null || total >= Math.PI * LEAST_HELIX * cutter.diameter);
}

/**
 * The last pass at full depth, beside paths that are open already: down in the nearest of those and over from there.
 * @param open the paths that were cut, to the same depth
 */
function besideOpen(w: ToolpathWriter, r: Ready, open: readonly Ready[], z1: number, shape: PassShape): void {
  if (r.lead) return along(w, r, 0, z1, shape);
  const { loop, tabs } = r;
  let best = { way: Infinity, i: 0, x: loop.x[0], y: loop.y[0] };
  for (let i = 0; i + 1 < loop.x.length; i++) {
    // Over a tab the ground stays closed.
    if (tabs.some((t) => aroundLoop(loop, t.at, loop.s[i]) < shape.half + (shape.top - z1) / shape.tabSlope)) continue;
    for (const q of open) {
      const near = nearestPlace(q.loop, loop.x[i], loop.y[i]);
      if (near.d >= best.way) continue;
      const place = placeOn(q.loop, near.s);
      best = { way: near.d, i, x: place.x, y: place.y };
    }
    if (best.way < Infinity && i > MOST_LOOKED) break;
  }
  // Tabs all round: nowhere is open, so it sinks along the contour.
  if (best.way === Infinity) return along(w, r, 0, z1, shape);
  overFloor(w, best.x, best.y, z1);
  w.plunge(z1);
  w.to(loop.x[best.i], loop.y[best.i], z1);
  pass(w, loop, loop.s[best.i], z1, z1, shape, tabs, OVERLAP);
}

/** Places of a contour looked at for the nearest open ground. */
const MOST_LOOKED = 200;

/** Distance between two places of a loop, the shorter way round. */
function aroundLoop(l: Loop, a: number, b: number): number {
  const total = l.s[l.s.length - 1];
  const d = Math.abs(a - b) % total;
  return Math.min(d, total - d);
}

/** Beyond where it began, mm, so that no witness stays. */
const OVERLAP = 1;

/**
 * One pass at one depth: in by the lead where there is one, sinking along it in the waste, else sinking along the
 * contour.
 */
function along(w: ToolpathWriter, r: Ready, z0: number, z1: number, shape: PassShape): void {
  const { loop, lead } = r;
  if (!lead) {
    w.above(loop.x[0], loop.y[0]);
    if (z0 < 0) w.rapidTo(z0 + 0.5);
    w.to(loop.x[0], loop.y[0], z0);
    pass(w, loop, 0, z0, z1, shape, r.tabs);
    return;
  }
  const way = leadPoints(lead, 16);
  sinkAlong(
    w,
    Float64Array.from(way, (p) => p[0]),
    Float64Array.from(way, (p) => p[1]),
    z0,
    z1,
    shape.slope,
  );
  if (lead.centre) w.arc(lead.ccw, lead.centre.x, lead.centre.y, loop.x[0], loop.y[0], z1);
  else w.to(loop.x[0], loop.y[0], z1);
  pass(w, loop, 0, z1, z1, shape, r.tabs, OVERLAP);
  // Away from the wall by the same turn, mirrored.
  const end = placeOn(loop, OVERLAP);
  const reach = lead.centre ? Math.hypot(lead.place.x - lead.centre.x, lead.place.y - lead.centre.y) : 0;
  if (reach > 0) {
    const side = lead.ccw ? 1 : -1;
    const [nx, ny] = [-end.uy * side, end.ux * side];
    w.arc(
      lead.ccw,
      end.x + reach * nx,
      end.y + reach * ny,
      end.x + reach * (nx + end.ux),
      end.y + reach * (ny + end.uy),
      z1,
    );
  }
}
