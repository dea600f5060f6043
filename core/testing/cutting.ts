import "./ready.ts";
import { profileOf } from "../cutters/profile.ts";
import { CLEAR, RAPID } from "../toolpath/toolpath.ts";
import type { CutContext, CutInputs, Peer, Planned, Stock } from "../cuts/kind.ts";
import { cutKind } from "../cuts/register.ts";
import { clearanceOf } from "../geometry/clearance/clearance.ts";
import { ShapeBuilder } from "../geometry/shape.ts";
import { Kept } from "../kept.ts";
import { maskOf } from "../geometry/mask.ts";
import type { HeightField } from "../height/field.ts";
import type { Gives, HeightsProduct, Product, ShapesProduct } from "../makings/product.ts";
import { nesting } from "../geometry/nesting.ts";
import type { Rings } from "../geometry/rings.ts";
import type { Lines } from "../outline/centre.ts";
import { noProgress } from "../problem.ts";
import { newSurface, type Surface } from "../proof/surface.ts";
import { sweep } from "../proof/sweep.ts";
import { resolve, type Settings } from "../settings/fields.ts";
import { mended } from "../geometry/mend.ts";
import { isSound } from "../geometry/sound.ts";
import { greyOf } from "./grey.ts";
import { ROUTER, cutterOf, materialNamed } from "./shop.ts";

interface Peers {
  /** ash on a router when not given */
  material?: CutContext["material"];
  machine?: CutContext["machine"];
  target?: Peer;
  helpers?: Peer[];
  earlier?: Peer[];
}

/** Plans one cut on a region the way a job would, for tests: stock 100 × 100 × 20 mm of ash. */
export function planOn(
  kind: string,
  ink: Rings,
  cutter: string,
  own: Settings,
  peers: Peers = {},
  lines: Lines | null = null,
  held = 0,
): Planned & { values: Settings } {
  if (isSound(ink)) ink.parent = nesting(ink);
  else ink = mended(ink);
  const art = artFor(Object.values(cutKind(kind).reads)[0].gives, ink, lines, held);
  return planReading(kind, { art, border: null }, cutter, own, peers);
}

/** What a cut reads, made of a region: its shapes, a surface sunk inside it, or a picture that is light there. */
function artFor(gives: Gives, ink: Rings, lines: Lines | null, held: number): Product {
  if (gives === "heights") return heightsOf(sunk(ink));
  if (gives !== "grey") return shapesOf(ink, lines, held);
  const size = 200;
  const inside = maskOf(ink, size, size, 100 / size);
  const at = (x: number, y: number) => inside[Math.floor(y * size) * size + Math.floor(x * size)];
  return greyOf(at, { wide: 100, width: size, height: size });
}

/** Plans one cut on what it reads. */
export function planReading(
  kind: string,
  reads: Record<string, Product | null>,
  cutter: string,
  own: Settings,
  peers: Peers = {},
  board: Pick<Stock, "width" | "height" | "thickness"> & Partial<Stock> = { width: 100, height: 100, thickness: 20 },
): Planned & { values: Settings } {
  const context: CutContext = {
    cutter: cutterOf(cutter),
    stock: { margin: 5, coat: 0, travel: CLEAR, ...board },
    material: peers.material ?? materialNamed("ash"),
    machine: peers.machine ?? ROUTER,
    helpers: [],
    earlier: [],
  };
  // Neighbours come with all their settings, as in a job.
  const filled = (p: Peer): Peer => ({
    ...p,
    settings: resolve(cutKind(p.kind).fields, p.settings, { ...context, cutter: p.cutter }).values,
  });
  context.target = peers.target && filled(peers.target);
  context.helpers = (peers.helpers ?? []).map(filled);
  context.earlier = (peers.earlier ?? []).map(filled);
  const k = cutKind(kind);
  const { values } = resolve(k.fields, own, context);
  const made = new Map<Rings, ReturnType<typeof clearanceOf>>();
  const inputs: CutInputs = {
    ...context,
    reads: reads as CutInputs["reads"],
    kept: new Kept(),
    clearance: (r) => {
      if (!made.has(r)) made.set(r, clearanceOf(r));
      return made.get(r)!;
    },
    progress: noProgress,
    grain: null,
  };
  const plan = k.plan(inputs, values);
  // Every cut begins with a rapid above the stock: where the machine comes from is not known.
  const t = plan.toolpath;
  if (t.kind.length > 0 && (t.kind[0] !== RAPID || t.z[0] <= 0))
    throw new Error(`${kind} begins with a move of kind ${t.kind[0]} at z ${t.z[0]}`);
  return { ...plan, values };
}

/** A height as a making would give it. */
export const heightsOf = (field: HeightField): HeightsProduct => ({ is: "heights", field, picture: null, litho: null });

/** A board's surface that lies 3 mm deep inside a region. */
function sunk(ink: Rings): HeightField {
  const [cell, size] = [1, 100];
  const inside = maskOf(ink, size, size, cell);
  return { x0: 0, y0: 0, cell, width: size, height: size, z: Float32Array.from(inside, (v) => (v ? -3 : 0)) };
}

/** Shapes as a making would give them, of rings that are sound. */
export const shapesOf = (ink: Rings, lines: Lines | null = null, held = 0): ShapesProduct => ({
  is: "shapes",
  shape: new ShapeBuilder(1).take(),
  ink,
  lines,
  held,
  mendedAt: [],
  traced: null,
});

/** Sweeps planned cuts over fresh stock of 100 × 100 mm. */
export function proofOf(cuts: { toolpath: Planned["toolpath"]; cutter: string }[], cell: number, size = 100): Surface {
  const s = newSurface(size, size, cell, 20);
  cuts.forEach((c, i) => sweep(s, c.toolpath, profileOf(cutterOf(c.cutter)), i + 1));
  return s;
}
