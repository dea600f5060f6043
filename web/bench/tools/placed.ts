import { parseErase } from "@oaken/core/picture/erase";
import { showPlaces } from "@oaken/core/settings/places";
import { numbersOf } from "@oaken/core/units";
import { itemsOf, type Space, textOf } from "./space.ts";

/** Something placed by hand: its name and the measures by which it is moved, mm on the stock. */
export interface Placed {
  name: string;
  measures: Measure[];
}
export interface Measure {
  label: "from the left" | "from the front" | "wide" | "high" | "radius";
  mm: number;
  least: number;
  /** the item's text with this measure instead */
  set(mm: number): string;
}

/** Where items lie: the picture's space and how far a crop has moved its origin, px; null for places on the stock. */
export interface Ground {
  space: Space;
  offset: [number, number];
}

/** How the text of a setting is read as a list, by the tool that makes it; and what parts its items. */
interface Reading {
  parts: ";" | null;
  item(text: string, k: number, ground: Ground | null): Placed;
}

const EVERYWHERE = -100_000;
/** A box is at least so large, px. */
const LEAST_BOX = 1;

/** Between numbers as they are kept and the stock: pixels of the uncropped picture, y down; or mm as they are. */
function scales(ground: Ground | null) {
  if (!ground) return { x: (v: number) => v, y: (v: number) => v, toX: (v: number) => v, toY: (v: number) => v, k: 1 };
  const { space, offset } = ground;
  return {
    x: (px: number) => space.toStock(px - offset[0], 0)[0],
    y: (py: number) => space.toStock(0, py - offset[1])[1],
    toX: (mm: number) => space.toPixel(mm, 0)[0] + offset[0],
    toY: (mm: number) => space.toPixel(0, mm)[1] + offset[1],
    k: space.perMm,
  };
}

/** Points, x y by turns, moved together by where the first of them lies. */
function points(n: readonly number[], ground: Ground | null, text: (n: number[]) => string): Measure[] {
  const { x, y, toX, toY } = scales(ground);
  const by = (dx: number, dy: number) => text(n.map((v, i) => v + (i % 2 ? dy : dx)));
  return [
    { label: "from the left", mm: x(n[0]), least: EVERYWHERE, set: (mm) => by(toX(mm) - n[0], 0) },
    { label: "from the front", mm: y(n[1]), least: EVERYWHERE, set: (mm) => by(0, toY(mm) - n[1]) },
  ];
}

/** A box by its near left corner and its size: x, y, width, height in pixels, y down. */
function box(n: readonly number[], ground: Ground, text: (n: number[]) => string): Measure[] {
  const { x, y, toX, toY, k } = scales(ground);
  const [left, top, wide, high] = n;
  const least = LEAST_BOX / k;
  return [
    { label: "from the left", mm: x(left), least: EVERYWHERE, set: (mm) => text([toX(mm), top, wide, high]) },
    {
      label: "from the front",
      mm: y(top + high),
      least: EVERYWHERE,
      set: (mm) => text([left, toY(mm) - high, wide, high]),
    },
    { label: "wide", mm: wide / k, least, set: (mm) => text([left, top, mm * k, high]) },
    // Its near edge stays.
    { label: "high", mm: high / k, least, set: (mm) => text([left, top + high - mm * k, wide, mm * k]) },
  ];
}

const ERASED = { spot: "Mark", rect: "Rectangle", lasso: "Lasso", brush: "Brush" };

const place = (name: string): Reading => ({
  parts: ";",
  item: (text, k, ground) => ({
    name: `${name} ${k + 1}`,
    measures: points(numbersOf(text, name), ground, (n) => (ground ? textOf(n) : showPlaces([[n[0], n[1]]]))),
  }),
});

const READINGS: Record<string, Reading> = {
  crop: {
    parts: null,
    item: (text, _, ground) => ({
      name: "Kept part",
      measures: box(numbersOf(text, "Crop"), ground!, (n) => n.map(Math.round).join(",")),
    }),
  },
  erase: {
    parts: ";",
    item(text, k, ground) {
      const [{ kind, n }] = parseErase(text);
      const name = `${ERASED[kind]} ${k + 1}`;
      const write = (m: number[]) => `${kind} ${textOf(m)}`;
      if (kind === "rect") return { name, measures: box(n, ground!, write) };
      if (kind !== "brush") return { name, measures: points(n, ground, write) };
      const [radius, ...course] = n;
      const perMm = scales(ground).k;
      const width: Measure = {
        label: "radius",
        mm: radius / perMm,
        least: LEAST_BOX / perMm,
        set: (mm) => write([mm * perMm, ...course]),
      };
      return { name, measures: [...points(course, ground, (m) => write([radius, ...m])), width] };
    },
  },
  hide: place("Piece"),
  bridge: place("Bridge"),
  tabs: place("Tab"),
  pierce: place("Pierce"),
  drill: place("Hole"),
};

/** Whether what a tool makes can be listed. */
export const isListed = (tool: string): boolean => tool in READINGS;

const textsOf = (tool: string, value: string): string[] =>
  READINGS[tool].parts ? itemsOf(value) : [value].filter((t) => t.trim());

/** Everything that a tool has placed, in order. @throws Problem for a text that it cannot have made */
export const placedBy = (tool: string, value: string, ground: Ground | null): Placed[] =>
  textsOf(tool, value).map((text, k) => READINGS[tool].item(text, k, ground));

/** The setting with another text for its k-th item, or without it; undefined when none is left. */
export function withItem(tool: string, value: string, k: number, text: string | null): string | undefined {
  const texts = textsOf(tool, value);
  texts.splice(k, 1, ...(text === null ? [] : [text]));
  return texts.length > 0 ? texts.join("; ") : undefined;
}
