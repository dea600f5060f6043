import type { Cutter } from "../cutters/profile.ts";
import type { Fit } from "../picture/fitness.ts";
import { LEAST_THROUGH } from "../cuts/profile/estimate.ts";
import { Problem } from "../problem.ts";
import { isOwned, nearestCutter, type Shop, type Wish } from "../shop/shop.ts";
import type { BoardJob, StockSettings } from "./document.ts";
import { bodyMakings, heightMakings, lithoMakings, type Makings, toneMakings } from "./sources.ts";
import { carved, drilled, free, hatched, lined, pocketed, shaded, standing, type Suits, surfaced } from "./suits.ts";

/** Cutters that were chosen for an outcome, in the order they come; empty where it chooses itself. */
export interface Chosen {
  main: readonly Cutter[];
  clear: readonly Cutter[];
  rest: readonly Cutter[];
  rough: readonly Cutter[];
}

/** What an outcome chooses its cuts from. */
export interface Choosing {
  cutters: Chosen;
  stock: StockSettings;
  shop: Shop;
  /** the main cutter that was chosen, else the one in the rack that comes nearest to a wish */
  main(wish: Wish): Cutter;
}

/** What a picture can become: each starts a job with sensible cuts. Add one as an entry here. */
export interface Outcome {
  id: string;
  title: string;
  /** one line for someone who has not made one before */
  about: string;
  /** whether a picture suits it at its size, and why */
  suits(f: Fit): Suits;
  /** how the outline is traced, when not by ink */
  trace?: string;
  /** the stock it is usually made from, where nothing else was said */
  stock?: Partial<Omit<StockSettings, "material">>;
  /** the material and the machine that it usually takes, by their ids in the shop, where that has them */
  material?: string;
  machine?: string;
  /** how many cutters may be chosen for each part of it; one main cutter and nothing else when not given */
  takes?: Partial<Record<keyof Chosen, number>>;
  /** what it makes of a picture; an outline when not given */
  makings?: Makings;
  /** cutters that help where nobody chooses */
  helpers?(shop: Shop): Partial<Chosen>;
  cuts(from: Choosing): BoardJob["cuts"];
}

/** More cutters for one purpose than anyone changes between. */
const MOST_CUTTERS = 6;

type Cut = BoardJob["cuts"][number];
const cut = (
  id: string,
  kind: string,
  name: string,
  cutter: Cutter,
  settings: Cut["settings"] = {},
  target?: string,
): Cut => ({ id, kind, name, on: true, reads: {}, ...(target && { target }), cutter, settings });
const nth = (id: string, i: number): string => (i === 0 ? id : `${id}-${i + 1}`);

const V60: Wish = { kind: "v", angle: 60 };

const carve = (side: "in" | "stands", border: string | null) => (from: Choosing) => [
  ...from.cutters.clear.map((cutter, i) =>
    cut(nth("clear", i), "clear", i === 0 ? "Clear" : `Clear ${i + 1}`, cutter, {}, "carve"),
  ),
  cut("carve", "vcarve", "Carve", from.main(V60), side === "in" ? {} : { side, ...(border && { border }) }),
];

/** Beside what is cut free there is room for the cutter and for a frame that holds together, mm. */
const FRAME = 15;

/** Flutes reach this far beyond the stock that they cut through, mm. */
const REACHES_BEYOND = 0.5;

/** The thinnest flat cutter fit to cut through that reaches through the stock; the longest where none does. */
function longEnough(shop: Shop, thickness: number): Cutter {
  const flats = shop.cutters
    .filter((c) => c.kind === "flat" && c.diameter >= LEAST_THROUGH && isOwned(c))
    .sort((a, b) => a.diameter - b.diameter);
  const fit = flats.find((c) => c.fluteLength > thickness + REACHES_BEYOND) ?? flats[flats.length - 1];
  return fit ? { ...fit } : nearestCutter(shop, { kind: "flat", diameter: LEAST_THROUGH });
}

/** What a second cutter takes off walls that a first one roughed, mm. */
const ROUGH_LEAVE = 0.4;

function cutOut({ cutters, stock, shop }: Choosing): Cut[] {
  const [first, second] = cutters.main;
  if (!second) return [cut("cut", "profile", "Cut out", first ?? longEnough(shop, stock.thickness))];
  return [
    cut("rough", "profile", "Rough out", first, { leave: ROUGH_LEAVE }),
    cut("cut", "profile", "Cut out", second),
  ];
}

/** Metals are engraved finely: what cuts wood would break in them. */
const isMetal = ({ material }: StockSettings): boolean =>
  material.family === "soft metal" || material.family === "steel";

/** A V cutter alone would scrape wide floors for hours. */
const clearing = (shop: Shop): Partial<Chosen> => ({ clear: ifAny(shop, { kind: "flat", diameter: 3 }) });
/** The cutter nearest to a wish, or none: what only helps can be gone without. */
const ifAny = (shop: Shop, wish: Wish): Cutter[] =>
  shop.cutters.some((c) => c.kind === wish.kind) ? [nearestCutter(shop, wish)] : [];

/** Roughing cutters, then one that follows the surface. */
const surface = (wish: Wish) => (from: Choosing) => [
  ...from.cutters.rough.map((cutter, i) =>
    cut(nth("rough", i), "rough", i === 0 ? "Rough" : `Rough ${i + 1}`, cutter, {}, "finish"),
  ),
  cut("finish", "finish", "Finish", from.main(wish)),
  ...from.cutters.rest.map((cutter, i) =>
    cut(nth("rest", i), "restfinish", i === 0 ? "Rest" : `Rest ${i + 1}`, cutter, {}, "finish"),
  ),
];

export const OUTCOMES: readonly Outcome[] = [
  {
    id: "sign",
    title: "Carved sign",
    about: "The ink is carved into the stock with a V cutter.",
    suits: carved,
    takes: { clear: MOST_CUTTERS },
    helpers: clearing,
    cuts: carve("in", null),
  },
  {
    id: "raised",
    title: "Raised sign",
    about: "The ink is left standing; everything round it is carved away.",
    suits: standing,
    takes: { clear: MOST_CUTTERS },
    helpers: clearing,
    cuts: carve("stands", null),
  },
  {
    id: "cutout",
    title: "Cut-out",
    about: "Each piece of ink is cut free of the stock, held by tabs.",
    suits: free,
    stock: { margin: FRAME },
    takes: { main: 2 },
    cuts: cutOut,
  },
  {
    id: "engrave",
    title: "Engraved line",
    about: "One line along the middle of every stroke, as wide as it was drawn.",
    suits: lined,
    trace: "centre",
    cuts: ({ main, stock }) => [
      cut("engrave", "engrave", "Engrave", main(isMetal(stock) ? { kind: "v", angle: 30 } : V60), {
        by: "width",
        depth: isMetal(stock) ? 0.4 : 2,
      }),
    ],
  },
  {
    id: "pocket",
    title: "Pocket",
    about: "The ink is taken out to a flat floor with upright walls.",
    suits: pocketed,
    takes: { rest: MOST_CUTTERS },
    cuts: ({ main, cutters }) => [
      cut("pocket", "pocket", "Pocket", main({ kind: "flat", diameter: 3 })),
      ...cutters.rest.map((cutter, i) =>
        cut(nth("rest", i), "rest", i === 0 ? "Rest" : `Rest ${i + 1}`, cutter, {}, "pocket"),
      ),
    ],
  },
  {
    id: "hatch",
    title: "Hatched",
    about: "The ink is filled with fine engraved lines.",
    suits: hatched,
    cuts: ({ main, stock }) => [cut("hatch", "hatch", "Hatch", main({ kind: "v", angle: isMetal(stock) ? 20 : 30 }))],
  },
  {
    id: "drill",
    title: "Drilled",
    about: "A hole at the centre of every circle in the picture.",
    suits: drilled,
    cuts: ({ main }) => [cut("drill", "drill", "Drill", main({ kind: "drill", diameter: 5 }))],
  },
  {
    id: "relief",
    title: "Relief",
    about: "Light parts stand high, dark ones lie deep: a surface cut by a round cutter.",
    suits: surfaced,
    takes: { rough: MOST_CUTTERS, rest: MOST_CUTTERS },
    makings: heightMakings,
    helpers: (shop) => ({ rough: ifAny(shop, { kind: "flat", diameter: 6 }) }),
    cuts: surface({ kind: "ball", diameter: 3 }),
  },
  {
    id: "rounded",
    title: "Rounded body",
    about: "The ink stands on a ground cut away round it, and swells from its edges to its middle.",
    suits: standing,
    takes: { rough: MOST_CUTTERS, rest: MOST_CUTTERS },
    makings: bodyMakings,
    helpers: (shop) => ({ rough: ifAny(shop, { kind: "flat", diameter: 6 }) }),
    cuts: surface({ kind: "ball", diameter: 3 }),
  },
  {
    id: "lithophane",
    title: "Lithophane",
    about: "A translucent sheet, thinner where the picture is light: it appears when light shines through.",
    suits: surfaced,
    stock: { thickness: 4 },
    material: "acrylic",
    takes: { rough: MOST_CUTTERS, rest: MOST_CUTTERS },
    makings: lithoMakings,
    helpers: (shop) => ({ rough: ifAny(shop, { kind: "flat", diameter: 3 }) }),
    cuts: surface({ kind: "taper" }),
  },
  {
    id: "lines",
    title: "Shaded lines",
    about: "Grooves through a coat of paint, wider where the picture is lighter: a portrait in lines.",
    suits: shaded,
    stock: { thickness: 12, paint: "#1d1b1a", coat: 0.1 },
    material: "mdf",
    makings: toneMakings,
    cuts: ({ main }) => [cut("lines", "lines", "Shaded lines", main(V60))],
  },
  {
    id: "plasma",
    title: "Plasma cut",
    about: "Sheet metal cut by a torch, with kerf and lead-ins.",
    suits: free,
    stock: { thickness: 3, margin: FRAME },
    material: "steel",
    machine: "plasma-table",
    cuts: ({ main }) => [cut("plasma", "plasma", "Plasma", main({ kind: "torch", diameter: 1.5 }))],
  },
];

/** All outcomes, first those that a picture suits; each of both in their own order. */
export function byPromise(f: Fit): Outcome[] {
  const good = OUTCOMES.filter((o) => o.suits(f).good);
  return [...good, ...OUTCOMES.filter((o) => !good.includes(o))];
}

/** @throws Problem `unknown-outcome` */
export function outcomeById(id: string): Outcome {
  const found = OUTCOMES.find((o) => o.id === id);
  if (!found)
    throw new Problem(
      "unknown-outcome",
      `A picture cannot become "${id}". Known: ${OUTCOMES.map((o) => o.id).join(", ")}.`,
    );
  return found;
}
