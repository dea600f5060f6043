import { type Arcs, traceArcs } from "../../outline/colours/arcs.ts";
import { joinCorners, labelPixels, type Labels, mergeSpecks } from "../../outline/colours/labels.ts";
import { findColours, type Swatch } from "../../outline/colours/palette.ts";
import { colourShape, fitArcs } from "../../outline/colours/shapes.ts";
import type { Outline, Placement } from "../../outline/outline.ts";
import type { Raster } from "../../picture/raster.ts";
import { Problem } from "../../problem.ts";
import type { Tools } from "../kind.ts";
import type { RasterProduct } from "../product.ts";
import { coloursOf } from "./fields.ts";
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
  swatches: Swatch[];
  labels: Labels;
  arcs: Arcs;
  dropped: number;
}

/** Settings by which a picture is parted into colours. */
interface Parting {
  colours: number;
  specks: number;
}

/** The picture parted into colours, and the borders between them. @throws Problem `one-tone` */
export function bordersOf({ raster, place }: RasterProduct, v: Parting, { kept, progress }: Tools): Borders {
  const palette = kept.of("palette", [raster, Math.round(v.colours)], findColours);
  if (palette.swatches.length < 2)
    throw new Problem(
      "one-tone",
      "The picture has only one colour: there is nothing in it to trace. Use a picture with more.",
    );
  const parted = (r: Raster, { swatches, table }: typeof palette, least: number): Borders => {
    const labels = labelPixels(r, swatches, table);
    progress(0.2);
    const dropped = mergeSpecks(labels, least);
    joinCorners(labels);
    progress(0.3);
    return { swatches, labels, arcs: traceArcs(labels, r, swatches), dropped };
  };
  return kept.of("borders", [raster, palette, Math.round(v.specks / place.scale ** 2)], parted, 2);
}

/** The picture parted into colours, which of them the outline goes round, and which borders are its edge. */
export function coloursOfOutline(p: RasterProduct, v: Parting & { keep: string }, tools: Tools) {
  const borders = bordersOf(p, v, tools);
  const { swatches, labels, arcs } = borders;
  const ground = groundOf(labels);
  const wanted = coloursOf(v.keep);
  const kept = swatches.map((_, l) => (wanted.length === 0 ? l !== ground : false));
  for (const c of wanted) kept[nearestSwatch(swatches, c)] = true;
  const side = (l: number) => l < kept.length && kept[l];
  return { borders, kept, ground, isEdge: (k: number) => side(arcs.left[k]) !== side(arcs.right[k]) };
}

export function colourOutline(
  p: RasterProduct,
  v: Parting & { keep: string; corner: number },
  tools: Tools,
): { colours: ColourResult; fit: (hold: number) => Outline; edge: Float64Array } {
  const { borders, kept, ground, isEdge } = coloursOfOutline(p, v, tools);
  const { swatches, labels, arcs, dropped } = borders;
  const { scale, x0, y1 } = p.place;
  const fitted = (b: Borders, place: Placement, hold: number, degrees: number) =>
    fitArcs(b.arcs, place, hold, (degrees * Math.PI) / 180, (s) => tools.progress(0.3 + 0.7 * s));
  return {
    colours: { swatches, kept, ground, labels },
    edge: spread(arcs.xy, arcs.starts, p.place, isEdge),
    fit: (hold) => {
      const fit = tools.kept.of("arcs", [borders, { scale, x0, y1 }, hold, v.corner], fitted, 3);
      const shape = colourShape(fit, kept);
      return {
        shape,
        nodes: shape.kinds.length,
        maxDeviation: fit.maxDeviation,
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
