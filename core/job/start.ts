import type { Cutter } from "../cutters/profile.ts";
import { cutKind } from "../cuts/register.ts";
import { GIVES } from "../makings/product.ts";
import { makingKind } from "../makings/register.ts";
import { Problem } from "../problem.ts";
import { materialIn, nearestCutter, type Shop, type Wish } from "../shop/shop.ts";
import { type BoardJob, emptyJob, type JobMaking, type StockSettings, takeMachine } from "./document.ts";
import { type Chosen, type Outcome, outcomeById } from "./outcomes.ts";
import { addLettering } from "./edit.ts";
import { type Makings, pictureMakings } from "./sources.ts";

/** Letters of a job's name that is taken from its words. */
const MOST_NAME = 60;
const NOBODY: Chosen = { main: [], clear: [], rest: [], rough: [] };
const WORDS = { main: "cutter", clear: "clearing cutter", rest: "cutter for the rest", rough: "roughing cutter" };

/** Cutters that help an outcome where nobody chooses. */
export const usualHelpers = (o: Outcome, shop: Shop): Partial<Chosen> => o.helpers?.(shop) ?? {};

/** What a job is begun from. */
export interface Start {
  outcome: string;
  /** none where it is made of words alone */
  asset?: NonNullable<JobMaking["asset"]>;
  /** lettering: below what the file gives, or by itself */
  words?: string;
  /** what is said of the stock: the rest is the outcome's own, or usual */
  stock?: Partial<StockSettings>;
  cutters?: Partial<Chosen>;
  /** the outcome's own for a picture when not given */
  makings?: Makings;
}

/**
 * A new job: this picture, or the shapes of this drawing, as that outcome on this stock.
 * @throws Problem `unknown-outcome`; `too-many-cutters` where more are given than it can use; `no-such-cutter` where
 * the rack has none that would do
 */
export function startJob(shop: Shop, { outcome, asset, words, stock = {}, cutters = {}, makings }: Start): BoardJob {
  const o = outcomeById(outcome);
  const chosen: Chosen = { ...NOBODY, ...cutters };
  checkChosen(o, chosen);
  const make = makings ?? o.makings ?? pictureMakings;
  // A workshop may have put its usual material or machine aside: then it is made with what there is.
  const material = shop.materials.some((m) => m.id === o.material) && { material: materialIn(shop, o.material!) };
  const name = asset ? asset.name.replace(/\.[^.]+$/, "") : (words ?? "Words").replace(/\s+/g, " ").slice(0, MOST_NAME);
  const job = emptyJob(shop, name, { ...o.stock, ...material, ...stock });
  if (shop.machines.some((m) => m.id === o.machine)) takeMachine(job, o.machine!, shop);
  if (asset) job.makings = make(asset);
  else addLettering(job, "", words === undefined ? {} : { text: words });
  const art = job.makings[job.makings.length - 1];
  if (o.trace && make === pictureMakings) art.settings.trace = o.trace;
  const main = (wish: Wish): Cutter => ({ ...(chosen.main[0] ?? nearestCutter(shop, wish)) });
  const cuts = o.cuts({ cutters: chosen, stock: job.stock, shop, main });
  const wanted = cutKind(cuts[0].kind).reads.art.gives;
  const { gives } = makingKind(art.kind);
  if (gives !== wanted)
    throw new Problem(
      "wrong-outcome",
      `"${o.id}" is made from ${GIVES[wanted]}, and this file gives ${GIVES[gives]}. Use a picture.`,
    );
  job.cuts = cuts.map((c) => ({ ...c, reads: { art: art.id } }));
  if (asset && words !== undefined) {
    if (gives !== "shapes")
      throw new Problem(
        "wrong-outcome",
        `"${o.id}" is made from ${GIVES[gives]}, and words are shapes. Leave them out.`,
      );
    addLettering(job, art.id, { text: words });
  }
  return job;
}

/** An outcome is not given cutters for which it has no use. */
function checkChosen(o: Outcome, chosen: Chosen): void {
  const takes = { main: 1, clear: 0, rest: 0, rough: 0, ...o.takes };
  for (const k of Object.keys(takes) as (keyof Chosen)[]) {
    if (chosen[k].length <= takes[k]) continue;
    const most = takes[k] === 1 ? `one ${WORDS[k]}` : `at most ${takes[k]} ${WORDS[k]}s`;
    throw new Problem(
      "too-many-cutters",
      takes[k] === 0
        ? `"${o.id}" has no use for a ${WORDS[k]}.`
        : `"${o.id}" takes ${most}; ${chosen[k].length} were given.`,
    );
  }
}
