import { closed, type ClearanceOf, grown, rounded, thinned } from "../geometry/morph.ts";
import { ringCount, type Rings } from "../geometry/rings.ts";
import { asRead, flatten } from "../geometry/shape.ts";
import { type Bridge, bridged } from "../outline/bridges.ts";
import { centreLines, type Lines } from "../outline/centre.ts";
import { type Contours, contoursAt } from "../outline/contours.ts";
import { edgeNoise } from "../outline/noise.ts";
import { fitOutline, keepLarge, type Outline, type OutlineSettings } from "../outline/outline.ts";
import { drawnContours } from "../outline/specks.ts";
import { keepRings, onlyRings } from "../outline/pieces.ts";
import { pick, reduced, refitted } from "../outline/refit.ts";
import { noProgress, Problem, type Progress } from "../problem.ts";
import type { Settings } from "../settings/fields.ts";
import type { PictureResult } from "./chain.ts";
import { hash, type Derived } from "./hash.ts";
import { bordersOf, type ColourResult, colourOutline } from "./colours.ts";
import type { OutlineContext } from "./nodes/outline.ts";
import { spread } from "./spread.ts";
import { parsePlaces } from "../settings/places.ts";

export interface Traced {
  result: Outline;
  lines: Lines | null;
  colours: ColourResult | null;
  bridges: Bridge[];
  held: number;
  /** points of the edge as it was before fitting, x, y by turns, mm: what deviations are measured from */
  edge: Float64Array;
}

/** A thin stroke's centre line may be thinned out by this much of the hold. */
const CENTRE_HOLD = 0.5;

/** Which settings were found by themselves: those look closer at the picture than a number alone can. */
export interface ByItself {
  /** where greys hardly change the fit may stray farther */
  hold: boolean;
  /** small pieces that were drawn stay */
  specks: boolean;
}

/** Contours under the limits that stay all the same, since they were drawn; none where a person set the limits. */
export function drawnOf(
  c: Contours,
  p: Pick<PictureResult, "toneResult" | "place">,
  v: Settings,
  auto: ByItself,
): Uint8Array | undefined {
  if (!auto.specks) return undefined;
  const pixel = p.place.scale ** 2;
  return drawnContours(
    c,
    p.toneResult.grey,
    v.ink as number,
    (v.specks as number) / pixel,
    (v.pinholes as number) / pixel,
  );
}

/** From a toned picture to its outline, with everything asked for on the way. */
export function traceOutline(
  p: PictureResult,
  v: Settings,
  auto: ByItself,
  cache: Derived,
  clearance: ClearanceOf,
  progress: Progress,
): Traced {
  const cornerAngle = ((v.corner as number) * Math.PI) / 180;
  const settings = (hold: number): OutlineSettings => ({
    hold,
    specks: v.specks as number,
    pinholes: v.pinholes as number,
    cornerAngle,
    faint: auto.hold,
  });
  const most = v.nodesMost as number;
  let colours: ColourResult | null = null;
  let fit: (hold: number) => Outline;
  let edge: Float64Array;
  if (v.trace === "colours") {
    const c = colourOutline(p, v, cache, progress);
    colours = c.colours;
    fit = c.fit;
    edge = c.edge;
  } else {
    const contours = contoursOf(p, v, cache);
    const drawn = drawnOf(contours, p, v, auto);
    const keep = keepLarge(contours, p.place.scale, v.specks as number, v.pinholes as number, drawn);
    const noise = edgeNoise(contours, (k) => keep[k] === 1);
    fit = (hold) => fitOutline(contours, p.place, { ...settings(hold), drawn, noise }, progress);
    edge = spread(contours.xy, contours.starts, p.place, (k) => keep[k] === 1);
  }
  let { outline: result, hold: held } = reduced(fit, v.hold as number, most);
  let bridges: Bridge[] = [];
  const reshape = (r: Rings) => {
    const again = reduced(
      (hold) => refitted(r, Math.min(p.place.scale, 0.25), { ...settings(hold), specks: 0, pinholes: 0 }),
      v.hold as number,
      most,
    );
    held = again.hold;
    edge = spread(r.xy, r.starts, { scale: 1, x0: 0, y1: 0 }, () => true, 1);
    result = {
      ...again.outline,
      maxDeviation: Math.max(result.maxDeviation, again.outline.maxDeviation),
      dropped: result.dropped,
      droppedAt: result.droppedAt,
    };
  };
  const [grow, close, round] = [v.grow as number, v.close as number, v.round as number];
  if (ringCount({ starts: result.shape.starts } as Rings) > 0 && (grow !== 0 || close > 0 || round > 0)) {
    let r = asRead(result.shape);
    if (close > 0) r = closed(r, close, clearance);
    if (grow > 0) r = grown(r, grow, clearance);
    if (grow < 0) r = thinned(r, -grow, clearance);
    if (round > 0) r = rounded(r, round, clearance);
    if (ringCount(r) === 0)
      throw new Problem(
        "nothing-left",
        "Nothing is left of the outline: its strokes are narrower than what is taken off them. Grow less, or round " +
          "to a smaller radius.",
      );
    reshape(r);
  }
  const toStock = ([x, y]: [number, number]): [number, number] => [
    p.place.x0 + x * p.place.scale,
    p.place.y1 - y * p.place.scale,
  ];
  const hidden = parsePlaces(v.hide as string, "Hidden pieces").map(toStock);
  if (hidden.length > 0) result = withRings(result, (r) => keepRings(r, hidden));
  const only = parsePlaces(v.only as string, "Pieces alone").map(toStock);
  if (only.length > 0) result = withRings(result, (r) => onlyRings(r, only));
  if ((v.bridges as number) > 0) {
    const b = bridged(
      asRead(result.shape),
      v.bridges as number,
      parsePlaces(v.bridgesAt as string, "Bridges").map(toStock),
    );
    bridges = b.bridges;
    if (bridges.length > 0) reshape(b.ink);
  }
  const lines =
    v.trace === "centre" ? centreLines(clearance(asRead(result.shape)), Math.max(0.005, CENTRE_HOLD * held)) : null;
  return { result, lines, colours, bridges, held, edge };
}

function withRings(o: Outline, which: (r: Rings) => boolean[]): Outline {
  const shape = pick(o.shape, which(flatten(o.shape, 0.02)));
  return { ...o, shape, nodes: shape.kinds.length };
}

/** What automatic values of an outline may ask of the picture: each is found out when it is asked for, and kept. */
export function outlineContext(p: PictureResult, cache: Derived): OutlineContext {
  const { scale } = p.place;
  return {
    found: p.toneResult.found,
    scale,
    noise: (v) => {
      if (v.trace === "colours")
        return cache.get("arc-noise", hash(`${p.rasterKey}|${v.colours}|${v.specks}|${scale}`), () =>
          edgeNoise(bordersOf(p, v, cache, noProgress).arcs),
        );
      return cache.get("edge-noise", hash(`${p.toneResult.key}|${v.ink}`), () => {
        const c = contoursOf(p, v, cache);
        const keep = keepLarge(c, 1, LEAST_PIXELS, LEAST_PIXELS);
        return edgeNoise(c, (k) => keep[k] === 1);
      });
    },
  };
}

/** Contours smaller than this many pixels tell nothing of the picture's edges. */
const LEAST_PIXELS = 9;

export const contoursOf = (p: PictureResult, v: Settings, cache: Derived): Contours =>
  cache.get("contours", hash(`${p.toneResult.key}|${v.ink}`), () => contoursAt(p.toneResult.grey, v.ink as number));
