import { copyOf } from "../copy.ts";
import type { Machine } from "../cutters/machine.ts";
import type { Material } from "../cutters/materials.ts";
import type { Cutter } from "../cutters/profile.ts";
import { cutterIn } from "../cutters/rack.ts";
import type { Dialect } from "../output/gcode/dialect.ts";
import { Problem } from "../problem.ts";

/** What a workshop has and knows: data that is handed to whoever chooses from it. A job keeps copies of its choices. */
export interface Shop {
  cutters: readonly Cutter[];
  materials: readonly Material[];
  /** the usual one first */
  machines: readonly Machine[];
  /** the usual one first */
  dialects: readonly Dialect[];
}

/** A copy of the entry with this id. */
function entryIn<T extends { id: string }>(entries: readonly T[], what: string, id: string): T {
  const found = entries.find((e) => e.id === id);
  if (!found)
    throw new Problem(`unknown-${what}`, `No ${what} "${id}". Known: ${entries.map((e) => e.id).join(", ")}.`);
  return copyOf(found);
}

/** @throws Problem `unknown-material` */
export const materialIn = (shop: Shop, id: string): Material => entryIn(shop.materials, "material", id);
/** @throws Problem `unknown-machine` */
export const machineIn = (shop: Shop, id: string): Machine => entryIn(shop.machines, "machine", id);
/** @throws Problem `unknown-dialect` */
export const dialectIn = (shop: Shop, id: string): Dialect => entryIn(shop.dialects, "dialect", id);

/** Whether the workshop has one: what it has none of is known, and never chosen by itself. */
export const isOwned = (c: Cutter): boolean => (c.owned ?? 1) > 0;

/** What a cutter should be like: the one of its kind that comes nearest is taken. */
export interface Wish {
  kind: Cutter["kind"];
  /** included angle, degrees */
  angle?: number;
  /** mm */
  diameter?: number;
}

/**
 * The rack's cutter of a kind that comes nearest to a wish: by angle first, then by diameter. One that is owned, where
 * there is any.
 * @throws Problem `no-such-cutter` where the rack has none of the kind
 */
export function nearestCutter(shop: Shop, wish: Wish): Cutter {
  const off = (c: Cutter) => {
    const angle = wish.angle === undefined ? 0 : Math.abs((c.angle ?? 0) - wish.angle);
    const diameter = wish.diameter === undefined ? 0 : Math.abs(c.diameter - wish.diameter);
    return [angle, diameter] as const;
  };
  const byNearness = (a: Cutter, b: Cutter) => off(a)[0] - off(b)[0] || off(a)[1] - off(b)[1];
  const ofKind = shop.cutters.filter((c) => c.kind === wish.kind);
  const owned = ofKind.filter(isOwned);
  const [nearest] = (owned.length > 0 ? owned : ofKind).sort(byNearness);
  if (!nearest) throw new Problem("no-such-cutter", `The rack has no ${wish.kind} cutter. Put one into it first.`);
  return cutterIn(shop.cutters, nearest.id!);
}
