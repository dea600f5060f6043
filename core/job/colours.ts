import { type Arcs, traceArcs } from "../outline/colours/arcs.ts";
import { joinCorners, labelPixels, type Labels, mergeSpecks } from "../outline/colours/labels.ts";
import { findColours, type Swatch } from "../outline/colours/palette.ts";
import { colourShape, fitArcs } from "../outline/colours/shapes.ts";
import type { Outline } from "../outline/outline.ts";
import { Problem, type Progress } from "../problem.ts";
import type { Settings } from "../settings/fields.ts";
import type { PictureResult } from "./chain.ts";
import { hash, type Derived } from "./hash.ts";
import { coloursOf } from "./nodes/outline.ts";
import { spread } from "./spread.ts";

/** The colours a picture was parted into. */
export interface ColourResult {
  swatches: Swatch[];
  /** which of them the outline goes round */
  kept: boolean[];
  /** the colour along the picture's edge */
  ground: number;
  labels: Labels;
}

interface Borders {
  key: string;
  swatches: Swatch[];
  labels: Labels;
  arcs: Arcs;
  dropped: number;
}

/** The picture parted into colours, and the borders between them. @throws Problem `one-tone` */
export function bordersOf(
  { raster, rasterKey, place }: PictureResult,
  v: Settings,
  cache: Derived,
  progress: Progress,
): Borders {
  const count = Math.round(v.colours as number);
  const paletteKey = hash(`${rasterKey}|colours ${count}`);
  const { swatches, table } = cache.get("palette", paletteKey, () => findColours(raster, count));
  if (swatches.length < 2)
    throw new Problem(
      "one-tone",
      "The picture has only one colour: there is nothing in it to trace. Use a picture with more.",
    );
  const least = Math.round((v.specks as number) / place.scale ** 2);
  const key = hash(`${paletteKey}|${least}`);
  return cache.get(
    "labels",
    key,
    () => {
      const labels = labelPixels(raster, swatches, table);
      progress(0.2);
      const dropped = mergeSpecks(labels, least);
      joinCorners(labels);
      progress(0.3);
      return { key, swatches, labels, arcs: traceArcs(labels, raster, swatches), dropped };
    },
    2,
  );
}

/** The picture parted into colours, which of them the outline goes round, and which borders are its edge. */
export function coloursOfOutline(
  p: PictureResult,
  v: Settings,
  cache: Derived,
  progress: Progress,
): Borders & { kept: boolean[]; ground: number; isEdge: (arc: number) => boolean } {
  const borders = bordersOf(p, v, cache, progress);
  const { swatches, labels, arcs } = borders;
  const ground = groundOf(labels);
  const wanted = coloursOf(v.keep as string);
  const kept = swatches.map((_, l) => (wanted.length === 0 ? l !== ground : false));
  for (const c of wanted) kept[nearestSwatch(swatches, c)] = true;
  const side = (l: number) => l < kept.length && kept[l];
  return { ...borders, kept, ground, isEdge: (k) => side(arcs.left[k]) !== side(arcs.right[k]) };
}

export function colourOutline(
  p: PictureResult,
  v: Settings,
  cache: Derived,
  progress: Progress,
): { colours: ColourResult; fit: (hold: number) => Outline; edge: Float64Array } {
  const { place } = p;
  const { key, swatches, labels, arcs, dropped, kept, ground, isEdge } = coloursOfOutline(p, v, cache, progress);
  const cornerAngle = ((v.corner as number) * Math.PI) / 180;
  return {
    colours: { swatches, kept, ground, labels },
    edge: spread(arcs.xy, arcs.starts, place, isEdge),
    fit: (hold) => {
      const arcsKey = hash(`${key}|${hold}|${v.corner}|${place.scale}|${place.x0}|${place.y1}`);
      const fitted = cache.get(
        "arcs",
        arcsKey,
        () => fitArcs(arcs, place, hold, cornerAngle, (s) => progress(0.3 + 0.7 * s)),
        3,
      );
      const shape = colourShape(fitted, kept);
      return {
        shape,
        nodes: shape.kinds.length,
        maxDeviation: fitted.maxDeviation,
        dropped,
        droppedAt: new Float64Array(0),
      };
    },
  };
}

/** The colour that most of the picture's edge has. */
function groundOf({ width: W, height: H, data }: Labels): number {
  const count = new Uint32Array(256);
  for (let x = 0; x < W; x++) (count[data[x]]++, count[data[(H - 1) * W + x]]++);
  for (let y = 0; y < H; y++) (count[data[y * W]]++, count[data[y * W + W - 1]]++);
  return count.indexOf(Math.max(...count));
}

/** The swatch nearest to a colour, 0…255. */
function nearestSwatch(swatches: readonly Swatch[], c: readonly number[]): number {
  let best = 0;
  let least = Infinity;
  swatches.forEach((s, i) => {
    const d = (s.rgb[0] - c[0]) ** 2 + (s.rgb[1] - c[1]) ** 2 + (s.rgb[2] - c[2]) ** 2;
    if (d < least) [least, best] = [d, i];
  });
  return best;
}
