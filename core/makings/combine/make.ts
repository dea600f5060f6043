import { mended, soundOf } from "../../geometry/mend.ts";
import { type ClearanceOf, grown, thinned } from "../../geometry/morph.ts";
import { boundsOf, ringCount, type Rings } from "../../geometry/rings.ts";
import { asRead, rectangle } from "../../geometry/shape.ts";
import { isSound } from "../../geometry/sound.ts";
import { refitted } from "../../outline/refit.ts";
import { Problem } from "../../problem.ts";
import type { Given, IsSet, Tools } from "../kind.ts";
import type { ShapesProduct } from "../product.ts";
import { type CombineSettings, type reads } from "./combine.ts";

/** Turns sharper than this stay corners. */
const CORNER = (25 * Math.PI) / 180;
/** Edges are read so finely before curves are fitted to them, mm. */
const SPACING = 0.1;

/**
 * Two regions as one. Outer rings wind once round what is inside them, so that adding the rings adds the winding
 * numbers: one region turned round is taken away, and a sheet turned round under both leaves what lies in both.
 */
function combined(a: Rings, b: Rings, how: CombineSettings["how"]): Rings {
  if (how === "add") return mended(joined(a, b), "positive");
  if (how === "subtract") return mended(joined(a, turned(b)), "positive");
  const both = joined(a, b);
  return mended(joined(both, turned(sheetUnder(both))), "positive");
}

/** Edges moved outward, or inward where it is less than 0. */
function movedOut(r: Rings, by: number, clearance: ClearanceOf): Rings {
  if (by === 0 || ringCount(r) === 0) return r;
  return soundOf(by > 0 ? grown(r, by, clearance) : thinned(r, -by, clearance));
}

function joined(a: Rings, b: Rings): Rings {
  const n = ringCount(a);
  return {
    xy: Float64Array.from([...a.xy, ...b.xy]),
    starts: Int32Array.from([...a.starts, ...b.starts.subarray(1).map((v) => v + a.starts[n])]),
    parent: new Int32Array(n + ringCount(b)).fill(-1),
  };
}

/** The same rings the other way round. */
function turned(r: Rings): Rings {
  const xy = new Float64Array(r.xy.length);
  for (let k = 0; k < ringCount(r); k++)
    for (let i = r.starts[k], j = r.starts[k + 1] - 1; i < r.starts[k + 1]; i++, j--)
      xy.set([r.xy[2 * j], r.xy[2 * j + 1]], 2 * i);
  return { ...r, xy };
}

/** A rectangle with all of a region inside it. */
function sheetUnder(r: Rings): Rings {
  const b = boundsOf(r.xy);
  return rectangle(b.minX - 1, b.minY - 1, b.maxX + 1, b.maxY + 1);
}

function nothingLeft(s: CombineSettings): string {
  if (s.offset < 0)
    return "Nothing is left of the shapes: they are narrower than what the offset takes off. Offset less.";
  if (s.how === "overlap") return "The shapes do not overlap: nothing is left. Move one of them, or combine by adding.";
  return "Nothing is left: the second shapes cover the first. Swap them, or combine in another way.";
}

export function make(
  { reads: { first, second } }: Given<typeof reads>,
  s: CombineSettings,
  _: IsSet,
  tools: Tools,
): ShapesProduct {
  const together = second ? combined(first.ink, second.ink, s.how) : first.ink;
  const moved = movedOut(together, s.offset, tools.clearance);
  if (ringCount(moved) === 0) throw new Problem("nothing-left", nothingLeft(s));
  if (moved === first.ink) return { ...first, mendedAt: [], leftOut: [], unwritten: [], traced: null };
  const fit = { hold: s.hold, specks: 0, pinholes: 0, cornerAngle: CORNER };
  const { shape } = refitted(moved, SPACING, fit);
  const ink = asRead(shape);
  return {
    is: "shapes",
    shape,
    ink: isSound(ink) ? ink : mended(ink),
    lines: null,
    held: s.hold + Math.max(first.held, second?.held ?? 0),
    mendedAt: [],
    traced: null,
  };
}
