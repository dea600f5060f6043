import { parseCutter } from "../cutters/rack.ts";
import { HOBBY_ROUTER } from "../cutters/feeds.ts";
import { materialById } from "../cutters/materials.ts";
import { profileOf } from "../cutters/profile.ts";
import type { CutContext, CutInputs, Peer, Planned } from "../cuts/kind.ts";
import { cutKind } from "../cuts/register.ts";
import { clearanceOf } from "../geometry/clearance/clearance.ts";
import { ShapeBuilder } from "../geometry/shape.ts";
import { Kept } from "../kept.ts";
import type { ShapesProduct } from "../makings/product.ts";
import { nesting } from "../geometry/nesting.ts";
import type { Rings } from "../geometry/rings.ts";
import type { Lines } from "../outline/centre.ts";
import { noProgress } from "../problem.ts";
import { newSurface, type Surface } from "../proof/surface.ts";
import { sweep } from "../proof/sweep.ts";
import { resolve, type Settings } from "../settings/fields.ts";
import { mended } from "../geometry/mend.ts";
import { isSound } from "../geometry/sound.ts";
import { RAPID } from "../toolpath/toolpath.ts";

/** Plans one cut on a region the way a job would, for tests: stock 100 × 100 × 20 mm of ash. */
export function planOn(
  kind: string,
  ink: Rings,
  cutter: string,
  own: Settings,
  peers: { target?: Peer; helpers?: Peer[]; earlier?: Peer[] } = {},
  lines: Lines | null = null,
  held = 0,
): Planned & { values: Settings } {
  if (isSound(ink)) ink.parent = nesting(ink);
  else ink = mended(ink);
  const context: CutContext = {
    cutter: parseCutter(cutter),
    stock: { width: 100, height: 100, thickness: 20, margin: 5 },
    material: materialById("ash"),
    machine: HOBBY_ROUTER,
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
    reads: { art: shapesOf(ink, lines, held), border: null },
    kept: new Kept(),
    clearance: (r) => {
      if (!made.has(r)) made.set(r, clearanceOf(r));
      return made.get(r)!;
    },
    progress: noProgress,
  };
  const plan = k.plan(inputs, values);
  // Every cut begins with a rapid above the stock: where the machine comes from is not known.
  const t = plan.toolpath;
  if (t.kind.length > 0 && (t.kind[0] !== RAPID || t.z[0] <= 0))
    throw new Error(`${kind} begins with a move of kind ${t.kind[0]} at z ${t.z[0]}`);
  return { ...plan, values };
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
  cuts.forEach((c, i) => sweep(s, c.toolpath, profileOf(parseCutter(c.cutter)), i + 1));
  return s;
}
