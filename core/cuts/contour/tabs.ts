import type { Loop } from "../../toolpath/loops.ts";
import { formatLength } from "../../units.ts";
import type { Note } from "../kind.ts";
import { Bending, nearestPlace } from "./gentle.ts";

/** A bridge of stock along a loop: its middle, as a distance from the loop's beginning, mm. */
export interface Tab {
  at: number;
}

/** Corners closer to a tab than this much of its length make a bad place for it. */
const CORNER_WINDOW = 0.75;
/** Places tried for each tab. */
const TRIES = 25;

/** How many tabs fit on a loop without running into each other. @param length of each with its slopes, mm */
export const mostTabs = (total: number, length: number): number => Math.floor(total / (2 * length));

/**
 * Tabs evenly round a loop, each moved to the gentlest run within its share: bending is summed over the tab's length
 * and a little beyond, and the place where least of it falls is taken. Fewer than asked where they would run into each
 * other.
 */
export function placeTabs(l: Loop, count: number, length: number): Tab[] {
  const bending = new Bending(l);
  const { total } = bending;
  count = Math.min(count, mostTabs(total, length));
  if (count < 1) return [];
  const share = total / count;
  const out: Tab[] = [];
  for (let k = 0; k < count; k++) {
    const middle = (k + 0.5) * share;
    let best = middle;
    let least = Infinity;
    for (let q = 0; q < TRIES; q++) {
      const off = (q / (TRIES - 1) - 0.5) * (share - length) * 0.8;
      const at = (middle + off + total) % total;
      const b = bending.near(at, length * CORNER_WINDOW) + (1e-3 * Math.abs(off)) / share;
      if (b < least) {
        least = b;
        best = at;
      }
    }
    out.push({ at: best });
  }
  return out;
}

/** Tabs placed by hand, each on the loop at its nearest place. */
export const tabsFromPlaces = (l: Loop, places: readonly (readonly [number, number])[]): Tab[] =>
  places.map(([x, y]) => ({ at: nearestPlace(l, x, y).s }));

/** Lowest z allowed at distance s along the loop: `top` over a tab, falling away at `slope` on either side of it. */
export function tabLimit(
  tabs: readonly Tab[],
  total: number,
  half: number,
  top: number,
  bottom: number,
  s: number,
  slope: number,
): number {
  let limit = bottom;
  for (const t of tabs) {
    let d = Math.abs((s % total) - t.at);
    d = Math.min(d, total - d);
    limit = Math.max(limit, Math.min(top, top - (d - half) * slope));
  }
  return limit;
}

/** A tab that bends by more than this along its length stands in a corner, radians. */
const IN_CORNER = (40 * Math.PI) / 180;

/** The tabs that stand in a corner: they are hard to saw off and to file flush. */
export function tabsInCorners(l: Loop, tabs: readonly Tab[], length: number): Tab[] {
  const bending = new Bending(l);
  return tabs.filter((t) => bending.near(t.at, length / 2) > IN_CORNER);
}

/** A tab with less than this left of it, mm², breaks under the cutter. */
const LEAST_TAB = 1.5;

/** What is to be said of tabs: ones by hand that stand in a corner, ones too thin to hold. */
export function tabNotes(
  cornered: readonly { x: number; y: number }[],
  { tabWidth, tabHeight }: { tabWidth: number; tabHeight: number },
  count: number,
): Note[] {
  const notes: Note[] = [];
  if (cornered.length > 0)
    notes.push({
      code: "tab-in-corner",
      severity: "warning",
      message:
        `${cornered.length === 1 ? "A tab stands" : `${cornered.length} tabs stand`} in a corner, where it is hard ` +
        "to saw off and to file flush. Drag it to a straight run, or take the places by hand away.",
      at: cornered[0],
    });
  if (count > 0 && tabWidth * tabHeight < LEAST_TAB)
    notes.push({
      code: "thin-tabs",
      severity: "warning",
      message:
        `Tabs of ${formatLength(tabWidth)} × ${formatLength(tabHeight)} mm break while the piece is cut. Make them ` +
        "wider or thicker.",
    });
  return notes;
}
