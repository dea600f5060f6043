import type { SegmentGrid } from "../../geometry/segmentgrid.ts";
import type { Loop } from "../../toolpath/loops.ts";
import { Bending, nearestPlace, type Place, placeOn } from "./gentle.ts";
import { hypot } from "../../hypot.ts";

/** A way from the waste onto a contour: from (x0, y0), where the cutter goes in, to its first place. */
export interface Lead {
  place: Place;
  x0: number;
  y0: number;
  /** a quarter turn about this centre, or a straight line when there is none */
  centre: { x: number; y: number } | null;
  /** which way the turn goes */
  ccw: boolean;
}

export interface LeadRules {
  shape: "arc" | "line" | "none";
  /** the waste is on the right of the contour's way: it runs conventionally */
  right?: boolean;
  /** how far the way in starts from the contour, mm */
  reach: number;
  /** the part's own edges and its neighbours' */
  edges: SegmentGrid;
  /** nothing of the way may be nearer to an edge than this, mm */
  away: number;
  /** the sheet: ways begin on it */
  width: number;
  height: number;
}

/** Places tried round a contour, gentlest first. */
const PLACES = 48;
/** Ways shorter than this share of what was asked are given up. */
const SHRINKS = [1, 0.75, 0.55, 0.4, 0.28, 0.2];
/** A way may come this much nearer to an edge than the path itself keeps: rounding, mm. */
export const SLACK = 0.004;

/**
 * Where to come onto a contour, and how: on the longest gentle run, from the waste on its left, as long as asked where
 * that touches no part and stays on the sheet, otherwise shorter, otherwise at another place. Null when nothing fits.
 */
export function placeLead(l: Loop, rules: LeadRules): Lead | null {
  const bending = new Bending(l);
  const window = Math.max(2 * rules.reach, bending.total / 40);
  const tries = Array.from({ length: PLACES }, (_, k) => ((k + 0.5) * bending.total) / PLACES).map((s) => ({
    s,
    bend: bending.near(s, window),
  }));
  tries.sort((a, b) => a.bend - b.bend || a.s - b.s);
  for (const shrink of SHRINKS)
    for (const t of tries.slice(0, shrink === SHRINKS[SHRINKS.length - 1] ? PLACES : PLACES / 3)) {
      const lead = leadAt(placeOn(l, t.s), rules, rules.reach * shrink);
      if (lead) return lead;
    }
  return null;
}

/** The way in that a person dragged: from the place they chose onto the nearest place of the contour. */
export function leadFrom(l: Loop, x: number, y: number, rules: LeadRules): Lead | null {
  const near = nearestPlace(l, x, y);
  if (near.d < 1e-3) return null;
  const place = placeOn(l, near.s);
  if (rules.shape === "line") {
    const lead: Lead = { place, x0: x, y0: y, centre: null, ccw: true };
    return fits(lead, rules) ? lead : null;
  }
  return leadAt(place, rules, near.d);
}

/**
 * The way off a contour at a place of it, told as a lead that would come from there: by the same turn as the way on,
 * smaller where that would touch a part. Null where none fits: there the cutter lifts off the wall.
 */
export function wayOut(place: Place, { x0, y0, place: on }: Lead, rules: LeadRules): Lead | null {
  const back = { ...place, ux: -place.ux, uy: -place.uy };
  // A turn begins as far along the contour as off it.
  const reach = Math.abs((x0 - on.x) * on.ux + (y0 - on.y) * on.uy);
  for (const shrink of SHRINKS) {
    const out = leadAt(back, { ...rules, right: !rules.right }, reach * shrink);
    if (out) return out;
  }
  return null;
}

function leadAt(place: Place, rules: LeadRules, reach: number): Lead | null {
  const { x, y, ux, uy } = place;
  // Towards the waste.
  const [nx, ny] = rules.right ? [uy, -ux] : [-uy, ux];
  const lead: Lead =
    rules.shape === "arc"
      ? {
          place,
          x0: x + reach * (nx - ux),
          y0: y + reach * (ny - uy),
          centre: { x: x + reach * nx, y: y + reach * ny },
          ccw: !rules.right,
        }
      : {
          place,
          x0: x + reach * (nx - ux) * Math.SQRT1_2,
          y0: y + reach * (ny - uy) * Math.SQRT1_2,
          centre: null,
          ccw: true,
        };
  return fits(lead, rules) ? lead : null;
}

/** The points of a way, from where it begins to the contour. */
export function leadPoints(lead: Lead, steps: number): [number, number][] {
  const { place, x0, y0, centre } = lead;
  if (!centre)
    return Array.from({ length: steps + 1 }, (_, k) => [
      x0 + ((place.x - x0) * k) / steps,
      y0 + ((place.y - y0) * k) / steps,
    ]);
  const a0 = Math.atan2(y0 - centre.y, x0 - centre.x);
  const turn = lead.ccw ? Math.PI / 2 : -Math.PI / 2;
  const r = hypot(x0 - centre.x, y0 - centre.y);
  return Array.from({ length: steps + 1 }, (_, k) => [
    centre.x + r * Math.cos(a0 + (turn * k) / steps),
    centre.y + r * Math.sin(a0 + (turn * k) / steps),
  ]);
}

function fits(lead: Lead, rules: LeadRules): boolean {
  if (lead.x0 < 0 || lead.y0 < 0 || lead.x0 > rules.width || lead.y0 > rules.height) return false;
  const reach = hypot(lead.x0 - lead.place.x, lead.y0 - lead.place.y);
  // Close enough together that no crossing of an edge is stepped over.
  const steps = Math.min(2000, Math.max(12, Math.ceil((2 * reach) / Math.max(rules.away, 0.05))));
  for (const [x, y] of leadPoints(lead, steps))
    if (rules.edges.distance(x, y, rules.away + reach) < rules.away - SLACK) return false;
  return true;
}
