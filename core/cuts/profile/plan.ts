import { ringCount, regionArea } from "../../geometry/rings.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { parsePlaces } from "../../settings/places.ts";
import { unroll } from "../../toolpath/loops.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { begunAt, placeOn } from "../contour/gentle.ts";
import { type LeadRules, placeLead, wayOut } from "../contour/leads.ts";
import { type ContourLoop, contourLoops, contourOrder, joinedNote } from "../contour/loops.ts";
import { placeTabs, type Tab, tabNotes, tabsFromPlaces, tabsInCorners } from "../contour/tabs.ts";
import type { ArtInputs, Freed, Mark, Note, Planned } from "../kind.ts";
import { depthOf, type ProfileSettings } from "./fields.ts";
import { fartherPaths, isBeside, openPaths } from "./beside.ts";
import { shapeOf } from "./pass.ts";
import { along, hasWayIn, OVERLAP, passes, type Ready, takeSliver } from "./rounds.ts";
export { profileSeconds } from "./estimate.ts";
export { profileLeft } from "./estimate.ts";

export function plan(inputs: ArtInputs, s: ProfileSettings): Planned {
  const { cutter, stock } = inputs;
  const { ink } = inputs.reads.art;
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes: Note[] = [];
  if (ringCount(ink) === 0) return { toolpath: w.take(), notes, facts: {} };
  const away = cutter.diameter / 2 + s.leave;
  const { loops, waste, missed, joined } = contourLoops(inputs, s, away);
  inputs.progress(0.5);
  if (missed.length > 0) {
    const one = s.side === "outside" ? "hole" : "opening";
    const what = missed.length === 1 ? `${one} is` : `${one}s are`;
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
  const shape = shapeOf(inputs, s);
  const byHand = parsePlaces(s.tabsAt, "Tabs");
  const marks: Mark[] = [];
  const cornered: { x: number; y: number }[] = [];
  let short = 0;
  const ready = (l: ContourLoop, on: readonly Mark[] | null): Ready => {
    let loop = unroll(l.xy, l.start, l.end, 0, s.direction === "conventional");
    const lead = rules.shape === "none" ? null : placeLead(loop, rules);
    if (lead) loop = begunAt(loop, lead.place);
    const out = lead && wayOut(placeOn(loop, OVERLAP), lead, rules);
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
    return { loop, tabs, lead, out };
  };
  const farther = s.side !== "on" && s.lastPass > 0 ? contourLoops(inputs, s, away + s.lastPass).loops : [];
  const first = fartherPaths(loops, farther);
  let crowded = 0;
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
    const before = first.get(l) ?? [];
    const open = before.map((q) => ready(q, own));
    const isOpen =
      open.length > 0 &&
      open.every((q) => hasWayIn(q, cutter)) &&
      isBeside(r.loop, openPaths(before), cutter.diameter / 2);
    if (isOpen) {
      for (const q of open) passes(w, q, depth - skin, s, shape);
      takeSliver(w, r, open, { off: s.lastPass, z1: -(depth - skin) }, shape, rules);
    } else {
      if (s.lastPass > 0 && s.side !== "on") crowded++;
      passes(w, r, depth - skin, s, shape);
    }
    w.lift();
  }
  if (skin > 0)
    for (const { r } of plans) {
      along(w, r, -(depth - skin), -depth, shape);
      w.lift();
    }
  if (crowded > 0)
    notes.push({
      code: "no-last-pass",
      severity: "note",
      message:
        `${crowded === 1 ? "One contour has" : `${crowded} contours have`} no room for passes that leave ` +
        `${formatLength(s.lastPass)} mm: there each pass cuts to size.`,
    });
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
