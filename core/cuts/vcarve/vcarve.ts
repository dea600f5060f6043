import { feedsFor } from "../../cutters/feeds.ts";
import { describeCutter, profileOf } from "../../cutters/profile.ts";
import { regionArea, ringCount, type Rings } from "../../geometry/rings.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { SCRATCH } from "../../picture/fitness.ts";
import { rateField, type Settings } from "../../settings/fields.ts";
import { formatLength } from "../../units.ts";
import { type Trail, trails } from "../../geometry/trails.ts";
import { between, type Ends, nearestOrder } from "../../toolpath/trails.ts";
import { thin as thinLine } from "../../geometry/thin.ts";
import { cutAlong } from "../../toolpath/loops.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { CutContext, CutInputs, CutKind, Note, Planned } from "../kind.ts";
import { borderFields, effectiveFloor, floorFields } from "./floor.ts";
import { axisBelow } from "./axis.ts";
import { floorTrails } from "./rest.ts";
import { thinParts } from "./thin.ts";

/** How far thinned carving moves may be from the medial axis, mm. */
const THIN = 0.002;

const feedsAt = (c: CutContext, s: Settings) => feedsFor(c.cutter, c.material, c.machine, Math.min(s.floor as number, c.material.stepdown * c.cutter.diameter), c.cutter.diameter);

/** Carves with a pointed cutter so that the stock's top keeps the outline exactly and walls slope at the cutter's angle. */
export const vcarve: CutKind = {
  kind: "vcarve",
  title: "Carve",
  cutters: ["v", "taper", "ball"],
  summary: (s, c) => `${c.kind === "v" ? `V ${c.angle}°` : describeCutter(c)} · ${s.limited ? `floor ${formatLength(s.floor as number)}` : "no floor"}`,
  fields: [
    ...floorFields,
    ...borderFields,
    {
      key: "ridge",
      label: "Ridge on the floor",
      type: "length",
      help: "Height of the lines a pointed cutter leaves between its passes over a floor. Lower is smoother and slower.",
      min: 0.005,
      max: 2,
      step: 0.01,
      when: (s) => s.limited === true,
      auto: () => ({ value: 0.1, reason: "a minute of sanding takes it away" }),
      consequence: (v, c) => `passes ${formatLength(2 * profileOf(c.cutter).r(v as number), "mm", 3)} mm apart`,
    },
    {
      key: "stepdown",
      label: "Deepest pass",
      type: "length",
      help: "Deeper strokes are carved in several passes, each this much deeper than the last.",
      min: 0.05,
      max: 100,
      step: 0.1,
      more: true,
      auto: (c) => {
        const deep = Math.round(Math.max(0.2, c.material.stepdown * c.cutter.diameter * 0.75) * 100) / 100;
        return { value: deep, reason: `what ${c.material.name.toLowerCase()} lets a ${formatLength(c.cutter.diameter)} mm V take at once` };
      },
    },
    rateField("feed", "Feed", "feed", (c: CutContext, s) => feedsAt(c, s).feed),
    rateField("plunge", "Plunge", "feed", (c: CutContext, s) => feedsAt(c, s).plunge),
    rateField("spindle", "Spindle speed", "speed", (c: CutContext, s) => feedsAt(c, s).spindle),
  ],
  plan,
};

function plan(inputs: CutInputs, s: Settings): Planned {
  const profile = profileOf(inputs.cutter);
  const w = new ToolpathWriter(s.feed as number, s.plunge as number, inputs.machine.rapid);
  const region = inputs.carveRegion(s);
  if (!region || ringCount(region) === 0) return { toolpath: w.take(), notes: region ? [] : [outsideBorder], facts: {} };
  const floor = effectiveFloor(s, profile);
  const c = inputs.clearance(region);
  inputs.progress(0.4);
  const rho = profile.r(floor);
  const axis = axisBelow(c, rho, (d) => -Math.min(floor, Math.max(0, profile.h(Math.min(d, profile.radius)))), profile.flat, profile.ball > 0);
  const all: Trail[] = trails(axis.x, axis.y, axis.z, axis.a, axis.b);
  const { paths: floorPaths, scraped } = floorTrails(inputs, c, s, profile, floor, rho);
  inputs.progress(0.8);
  all.push(...floorPaths);

  const step = s.stepdown as number;
  const passes = Math.max(1, Math.ceil(Math.min(floor, profile.height, profile.h(Math.min(c.widest, profile.radius))) / step - 1e-6));
  for (let k = 0; k < passes; k++) {
    const top = k === 0 ? Infinity : -k * step;
    const low = k === passes - 1 ? -floor : -(k + 1) * step;
    const parts = passes === 1 ? all : all.flatMap((t) => between(t, top, low));
    cut(w, parts, k === passes - 1 && c.widest > rho ? overFloorLinks(region, rho, floor) : null);
  }
  const thin = thinParts(c, profile.r(SCRATCH));
  const facts = { widest: c.widest, deepest: Math.min(floor, profile.h(Math.min(c.widest, profile.radius))), scraped, area: regionArea(region), thinArea: thin.area, thinX: thin.x, thinY: thin.y };
  const ideal = { region, floor, slope: profile.ball > 0 ? Infinity : profile.coneSlope, ridge: s.ridge as number };
  const notes: Note[] = scraped > LONG_SCRAPE ? [{ code: "v-scrapes-floor", severity: "warning", message: `The V cutter scrapes ${formatLength(scraped / 1000, "mm", 1)} m of open floor. Clear wide floors with a flat cutter first.` }] : [];
  return { toolpath: w.take(), notes, facts, within: region, ...(profile.ball === 0 && { ideal }) };
}

/** Scraping longer than this on open floor deserves a clearing cutter, mm. */
const LONG_SCRAPE = 15000;


const outsideBorder = { code: "ink-outside-border", severity: "stop" as const, message: "The art reaches beyond its border, or no outline is chosen for it, so nothing can be left standing there. Make the art smaller, move it, or choose or widen the border." };

/** Ways over the floor longer than this are lifted over: up, across at rapid speed and down again takes no longer. mm */
const LONGEST_LINK = 15;
/** Ways may come so much nearer to a wall than its foot, mm. */
const LINK_SLACK = 0.002;

/** Coming down into stock takes as long as this much more way at rapid speed. */
const PLUNGE_COST = 4;

/** Tells whether the cutter may go straight from one place on the floor to another at depth: nowhere nearer to a wall than its foot. */
function overFloorLinks(region: Rings, rho: number, floor: number): (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number) => boolean {
  const edges = new SegmentGrid(region);
  return (x0, y0, z0, x1, y1, z1) => {
    if (Math.abs(z0 + floor) > 1e-9 || Math.abs(z1 + floor) > 1e-9) return false;
    return Math.hypot(x1 - x0, y1 - y0) <= LONGEST_LINK && edges.distanceOfWay(x0, y0, x1, y1, rho) >= rho - LINK_SLACK;
  };
}

/** Runs trails nearest first; stays down where one begins at the end of another, or where the floor between them is open. */
function cut(w: ToolpathWriter, parts: readonly Trail[], link: ReturnType<typeof overFloorLinks> | null): void {
  const ends = parts.map((t): Ends => {
    const last = t.x.length - 1;
    return { x0: t.x[0], y0: t.y[0], z0: t.z[0], x1: t.x[last], y1: t.y[last], z1: t.z[last] };
  });
  // Corners begin at the stock's top: coming down there costs nothing, and the way in carves.
  const order = nearestOrder(ends, 0, 0, (way, z, z1) => (way < 1e-6 || (link && z === z1 && way < LONGEST_LINK) ? 0 : PLUNGE_COST * -z1));
  for (const { index, reverse } of order) {
    const t = reverse ? backwards(parts[index]) : parts[index];
    if (level(t)) {
      // Floor rings: as few lines and arcs as hold them.
      // Written so that a cutter that is nowhere yet comes down too.
      if (link?.(w.x, w.y, w.z, t.x[0], t.y[0], t.z[0])) w.to(t.x[0], t.y[0], t.z[0]);
      else if (!(Math.hypot(t.x[0] - w.x, t.y[0] - w.y, t.z[0] - w.z) <= 1e-6)) {
        w.above(t.x[0], t.y[0]);
        w.plunge(t.z[0]);
      }
      cutAlong(w, t.x, t.y, 0, t.x.length - 1, t.z[0]);
      continue;
    }
    const keep = thinLine(t.x, t.y, t.z, 0, t.x.length - 1, THIN);
    const first = keep[0];
    const joined = Math.hypot(t.x[first] - w.x, t.y[first] - w.y, t.z[first] - w.z) < 1e-6;
    if (!joined && link?.(w.x, w.y, w.z, t.x[first], t.y[first], t.z[first])) w.to(t.x[first], t.y[first], t.z[first]);
    else if (!joined) {
      w.above(t.x[first], t.y[first]);
      w.plunge(t.z[first]);
    }
    for (let i = 1; i < keep.length; i++) w.to(t.x[keep[i]], t.y[keep[i]], t.z[keep[i]]);
  }
}

const level = (t: Trail): boolean => t.x.length > 3 && t.z.every((z) => z === t.z[0]);
const backwards = (t: Trail): Trail => ({ x: t.x.slice().reverse(), y: t.y.slice().reverse(), z: t.z.slice().reverse() });
