import { cutterFromRack, RACK } from "../cutters/rack.ts";
import { type Fit, isSoft } from "../picture/fitness.ts";
import { type Machine, PLASMA_TABLE } from "../cutters/feeds.ts";
import type { Cutter } from "../cutters/profile.ts";
import { Problem } from "../problem.ts";
import { emptyJob, type JobDocument, type JobNode, type StockSettings } from "./document.ts";

/** Cutters that were chosen for an outcome, in the order they come; empty where it chooses itself. */
export interface Chosen {
  main: readonly Cutter[];
  clear: readonly Cutter[];
  rest: readonly Cutter[];
}

/** What a picture can become: each starts a job with sensible cuts. Add one as an entry here. */
export interface Outcome {
  id: string;
  title: string;
  /** one line for someone who has not made one before */
  about: string;
  /** whether a picture suits it at its size, and why */
  suits(f: Fit): { good: boolean; why: string };
  /** how the outline is traced, when not by ink */
  trace?: string;
  /** the stock it is usually made from, where nothing else was said */
  stock?: Partial<StockSettings>;
  machine?: Machine;
  /** how many cutters may be chosen for each part of it; one main cutter and nothing else when not given */
  takes?: { main?: number; clear?: number; rest?: number };
  cuts(cutters: Chosen, stock: StockSettings): JobDocument["cuts"];
}

/** More cutters for one purpose than anyone changes between. */
const MOST_CUTTERS = 6;

type Cut = JobDocument["cuts"][number];
const cut = (
  id: string,
  kind: string,
  name: string,
  cutter: Cutter,
  settings: Cut["settings"] = {},
  target?: string,
): Cut => ({ id, kind, name, on: true, reads: [], ...(target && { target }), cutter, settings });
const nth = (id: string, i: number): string => (i === 0 ? id : `${id}-${i + 1}`);

const carve = (side: "in" | "stands", border: string | null) => (c: Chosen) => [
  ...c.clear.map((cutter, i) =>
    cut(nth("clear", i), "clear", i === 0 ? "Clear" : `Clear ${i + 1}`, cutter, {}, "carve"),
  ),
  cut(
    "carve",
    "vcarve",
    "Carve",
    c.main[0] ?? cutterFromRack("v60"),
    side === "in" ? {} : { side, ...(border && { border }) },
  ),
];

/** The thinnest flat cutter of 3 mm and more that reaches through the stock; the longest where none does. */
function longEnough(thickness: number): Cutter {
  const flats = RACK.filter((c) => c.kind === "flat" && c.diameter >= 3).sort((a, b) => a.diameter - b.diameter);
  return { ...(flats.find((c) => c.fluteLength > thickness + 0.5) ?? flats[flats.length - 1]) };
}

/** What a second cutter takes off walls that a first one roughed, mm. */
const ROUGH_LEAVE = 0.4;

function cutOut(c: Chosen, stock: StockSettings): Cut[] {
  const [first, second] = c.main;
  if (!second) return [cut("cut", "profile", "Cut out", first ?? longEnough(stock.thickness))];
  return [
    cut("rough", "profile", "Rough out", first, { leave: ROUGH_LEAVE }),
    cut("cut", "profile", "Cut out", second),
  ];
}

/** A stroke this narrow is too weak to stand by itself, mm. */
const WEAK = 2;
/** A stroke this wide is a filled area, not a line, mm. */
const BROAD = 6;

const carved = (f: Fit): { good: boolean; why: string } =>
  isSoft(f)
    ? { good: false, why: "soft greys have no edge to carve to" }
    : f.contrast < 0.2
      ? { good: false, why: "little contrast: check the outline first" }
      : f.thinnest !== null && f.thinnest < 0.35
        ? { good: false, why: "its thinnest strokes come out as scratches" }
        : { good: true, why: "clear edges and strokes wide enough" };
const standing = (f: Fit): { good: boolean; why: string } =>
  f.thinnest !== null && f.thinnest < 0.8
    ? { good: false, why: `strokes of ${f.thinnest.toFixed(1)} mm may chip when left standing` }
    : carved(f);
const free = (f: Fit): { good: boolean; why: string } =>
  f.thinnest !== null && f.thinnest < WEAK
    ? { good: false, why: `strokes of ${f.thinnest.toFixed(1)} mm are weak when cut free` }
    : isSoft(f)
      ? { good: false, why: "soft greys have no edge to cut along" }
      : f.contours !== null && f.contours > 60
        ? { good: false, why: `${f.contours} separate outlines to cut free` }
        : { good: true, why: "solid pieces" };
const lined = (f: Fit): { good: boolean; why: string } =>
  isSoft(f)
    ? { good: false, why: "soft greys have no strokes to follow" }
    : f.typical !== null && f.typical > BROAD
      ? { good: false, why: "broad areas are no lines: better carved" }
      : { good: true, why: "strokes that one pass can follow" };

const pocketed = (f: Fit): { good: boolean; why: string } =>
  f.thinnest !== null && f.thinnest < 2
    ? { good: false, why: `strokes of ${f.thinnest.toFixed(1)} mm are narrower than usual flat cutters` }
    : carved(f);
const hatched = (f: Fit): { good: boolean; why: string } =>
  f.typical !== null && f.typical < 1.5
    ? { good: false, why: "strokes too narrow to hold lines: better engraved" }
    : carved(f);
const drilled = (f: Fit): { good: boolean; why: string } =>
  isSoft(f)
    ? { good: false, why: "soft greys have no circles to find" }
    : { good: true, why: "where the picture has dots and circles" };

export const OUTCOMES: readonly Outcome[] = [
  {
    id: "sign",
    title: "Carved sign",
    about: "The ink is carved into the stock with a V cutter.",
    suits: carved,
    takes: { clear: MOST_CUTTERS },
    cuts: carve("in", null),
  },
  {
    id: "raised",
    title: "Raised sign",
    about: "The ink is left standing; everything round it is carved away.",
    suits: standing,
    takes: { clear: MOST_CUTTERS },
    cuts: carve("stands", null),
  },
  {
    id: "cutout",
    title: "Cut-out",
    about: "Each piece of ink is cut free of the stock, held by tabs.",
    suits: free,
    takes: { main: 2 },
    cuts: cutOut,
  },
  {
    id: "engrave",
    title: "Engraved line",
    about: "One line along the middle of every stroke, as wide as it was drawn.",
    suits: lined,
    trace: "centre",
    cuts: (c, stock) => [
      cut("engrave", "engrave", "Engrave", c.main[0] ?? cutterFromRack(stock.material === "brass" ? "v30" : "v60"), {
        by: "width",
        depth: stock.material === "brass" ? 0.4 : 2,
      }),
    ],
  },
  {
    id: "pocket",
    title: "Pocket",
    about: "The ink is taken out to a flat floor with upright walls.",
    suits: pocketed,
    takes: { rest: MOST_CUTTERS },
    cuts: (c) => [
      cut("pocket", "pocket", "Pocket", c.main[0] ?? cutterFromRack("flat3")),
      ...c.rest.map((cutter, i) =>
        cut(nth("rest", i), "rest", i === 0 ? "Rest" : `Rest ${i + 1}`, cutter, {}, "pocket"),
      ),
    ],
  },
  {
    id: "hatch",
    title: "Hatched",
    about: "The ink is filled with fine engraved lines.",
    suits: hatched,
    cuts: (c, stock) => [
      cut("hatch", "hatch", "Hatch", c.main[0] ?? cutterFromRack(stock.material === "brass" ? "point20" : "v30")),
    ],
  },
  {
    id: "drill",
    title: "Drilled",
    about: "A hole at the centre of every circle in the picture.",
    suits: drilled,
    cuts: (c) => [cut("drill", "drill", "Drill", c.main[0] ?? cutterFromRack("drill5"))],
  },
  {
    id: "plasma",
    title: "Plasma cut",
    about: "Sheet metal cut by a torch, with kerf and lead-ins.",
    suits: free,
    stock: { material: "steel", thickness: 3 },
    machine: PLASMA_TABLE,
    cuts: (c) => [cut("plasma", "plasma", "Plasma", c.main[0] ?? cutterFromRack("torch15"))],
  },
];

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

/** The makings every drawing gets: its shapes, exactly. */
export const drawingMakings = (asset: NonNullable<JobNode["asset"]>): JobNode[] => [
  { id: "drawing", kind: "import", name: asset.name, reads: [], settings: {}, asset },
];

/** The chain every picture gets: picture, tone, outline. */
export function pictureChain(asset: NonNullable<JobNode["asset"]>): JobNode[] {
  return [
    { id: "picture", kind: "picture", name: asset.name, reads: [], settings: {}, asset },
    { id: "tone", kind: "tone", name: "Tone", reads: ["picture"], settings: {} },
    { id: "outline", kind: "outline", name: "Outline", reads: ["tone"], settings: {} },
  ];
}

const WORDS = { main: "cutter", clear: "clearing cutter", rest: "cutter for the rest" };

/** Clearing cutters where nobody chooses: a V cutter alone would scrape wide floors for hours. */
export const usualClearing = (o: Outcome): Cutter[] => (o.takes?.clear ? [cutterFromRack("flat3")] : []);

/**
 * A new job: this picture, or the shapes of this drawing, as that outcome on this stock.
 * @throws Problem `unknown-outcome`, or `too-many-cutters` where more are given than it can use
 */
export function startJob(
  outcome: string,
  asset: NonNullable<JobNode["asset"]>,
  stock: Partial<StockSettings>,
  cutters: Partial<Chosen> = {},
  makings: (asset: NonNullable<JobNode["asset"]>) => JobNode[] = pictureChain,
): JobDocument {
  const o = outcomeById(outcome);
  const chosen: Chosen = { main: cutters.main ?? [], clear: cutters.clear ?? [], rest: cutters.rest ?? [] };
  const takes = { main: 1, clear: 0, rest: 0, ...o.takes };
  for (const k of ["main", "clear", "rest"] as const)
    if (chosen[k].length > takes[k])
      throw new Problem(
        "too-many-cutters",
        takes[k] === 0
          ? `"${o.id}" has no use for a ${WORDS[k]}.`
          : `"${o.id}" takes ${takes[k] === 1 ? `one ${WORDS[k]}` : `at most ${takes[k]} ${WORDS[k]}s`}; ` +
              `${chosen[k].length} were given.`,
      );
  const job = emptyJob(asset.name.replace(/\.[^.]+$/, ""), { ...o.stock, ...stock });
  if (o.machine) job.machine = { ...o.machine };
  job.nodes = makings(asset);
  const shapes = job.nodes[job.nodes.length - 1];
  if (o.trace && makings === pictureChain) shapes.settings.trace = o.trace;
  job.cuts = o.cuts(chosen, job.stock).map((c) => ({ ...c, reads: [shapes.id] }));
  return job;
}
