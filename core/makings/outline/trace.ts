import { closing, rounding, stepped } from "../../geometry/morph.ts";
import { ringCount, type Rings } from "../../geometry/rings.ts";
import { asRead, flatten } from "../../geometry/shape.ts";
import { type Bridge, bridged } from "../../outline/bridges.ts";
import { centreLines, type Lines } from "../../outline/centre.ts";
import { type Contours, contoursAt } from "../../outline/contours.ts";
import { edgeNoise } from "../../outline/noise.ts";
import { fitOutline, keepLarge, type Outline, type OutlineSettings as FitSettings } from "../../outline/outline.ts";
import { drawnContours } from "../../outline/specks.ts";
import { keepRings, onlyRings } from "../../outline/pieces.ts";
import { pick, reduced, refitted } from "../../outline/refit.ts";
import { Problem } from "../../problem.ts";
import type { Settings } from "../../settings/fields.ts";
import type { IsSet, Tools } from "../kind.ts";
import type { GreyProduct } from "../product.ts";
import { bordersOf, type ColourResult, colourOutline } from "./colours.ts";
import { edgeFields, type Edges, type OutlineContext, type OutlineSettings } from "./fields.ts";
import { spread } from "./spread.ts";
import { parsePlaces } from "../../settings/places.ts";

export interface Traced {
  result: Outline;
  lines: Lines | null;
  colours: ColourResult | null;
  bridges: Bridge[];
  /** pieces under this were dropped, mm² */
  specks: number;
  held: number;
  /** points of the edge as it was before fitting, x, y by turns, mm: what deviations are measured from */
  edge: Float64Array;
}

/** A thin stroke's centre line may be thinned out by this much of the hold. */
const CENTRE_HOLD = 0.5;

/**
 * Contours under the limits that stay all the same, since they were drawn; none where a person set the limits.
 */
export function drawnOf(
  c: Contours,
  from: GreyProduct,
  v: { ink: number; specks: number; pinholes: number },
  isSet: IsSet,
): Uint8Array | undefined {
  if (isSet("specks") || isSet("pinholes")) return undefined;
  const pixel = from.picture.place.scale ** 2;
  return drawnContours(c, from.grey, v.ink, v.specks / pixel, v.pinholes / pixel);
}

/** From a toned picture to its outline, with everything asked for on the way. */
export function traceOutline(from: GreyProduct, v: OutlineSettings, isSet: IsSet, tools: Tools): Traced {
  const { clearance, progress } = tools;
  const { place } = from.picture;
  const cornerAngle = (v.corner * Math.PI) / 180;
  const settings = (hold: number): FitSettings => ({
    hold,
    specks: v.specks,
    pinholes: v.pinholes,
    cornerAngle,
    faint: !isSet("hold"),
  });
  const most = v.nodesMost;
  let colours: ColourResult | null = null;
  let fit: (hold: number) => Outline;
  let edge: Float64Array;
  if (v.trace === "colours") {
    const c = colourOutline(from.picture, v, tools);
    colours = c.colours;
    fit = c.fit;
    edge = c.edge;
  } else {
    const contours = contoursOf(from, v.ink, tools);
    const drawn = drawnOf(contours, from, v, isSet);
    const keep = keepLarge(contours, place.scale, v.specks, v.pinholes, drawn);
    const noise = edgeNoise(contours, (k) => keep[k] === 1);
    fit = (hold) => fitOutline(contours, place, { ...settings(hold), drawn, noise }, progress);
    edge = spread(contours.xy, contours.starts, place, (k) => keep[k] === 1);
  }
  let { outline: result, hold: held } = reduced(fit, v.hold, most);
  let bridges: Bridge[] = [];
  const reshape = (r: Rings) => {
    const again = reduced(
      (hold) => refitted(r, Math.min(place.scale, 0.25), { ...settings(hold), specks: 0, pinholes: 0 }),
      v.hold,
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
  const [grow, close, round] = [v.grow, v.close, v.round];
  if (ringCount({ starts: result.shape.starts } as Rings) > 0 && (grow !== 0 || close > 0 || round > 0)) {
    const steps = [...closing(close), grow, ...rounding(round)];
    const r = stepped(asRead(result.shape), steps, clearance);
    if (ringCount(r) === 0)
      throw new Problem(
        "nothing-left",
        "Nothing is left of the outline: its strokes are narrower than what is taken off them. Grow less, or round " +
          "to a smaller radius.",
      );
    reshape(r);
  }
  const toStock = ([x, y]: [number, number]): [number, number] => [
    place.x0 + x * place.scale,
    place.y1 - y * place.scale,
  ];
  const hidden = parsePlaces(v.hide, "Hidden pieces").map(toStock);
  if (hidden.length > 0) result = withRings(result, (r) => keepRings(r, hidden));
  const only = parsePlaces(v.only, "Pieces alone").map(toStock);
  if (only.length > 0) result = withRings(result, (r) => onlyRings(r, only));
  if (v.bridges > 0) {
    const b = bridged(asRead(result.shape), v.bridges, parsePlaces(v.bridgesAt, "Bridges").map(toStock));
    bridges = b.bridges;
    if (bridges.length > 0) reshape(b.ink);
  }
  const lines =
    v.trace === "centre" ? centreLines(clearance(asRead(result.shape)), Math.max(0.005, CENTRE_HOLD * held)) : null;
  return { result, lines, colours, bridges, specks: v.specks, held, edge };
}

function withRings(o: Outline, which: (r: Rings) => boolean[]): Outline {
  const shape = pick(o.shape, which(flatten(o.shape, 0.02)));
  return { ...o, shape, nodes: shape.kinds.length };
}

/** What automatic values of an outline may ask of the picture: each is found out when it is asked for, and kept. */
export function outlineContext(from: GreyProduct, tools: Tools): OutlineContext {
  return {
    found: from.found,
    scale: from.picture.place.scale,
    noise: (v) => noiseOf(from, v, tools),
  };
}

function noiseOf(from: GreyProduct, v: Edges, tools: Tools): number {
  if (v.trace === "colours")
    return tools.kept.of("arc-noise", [bordersOf(from.picture, v, tools)], ({ arcs }) => edgeNoise(arcs));
  return tools.kept.of("edge-noise", [contoursOf(from, v.ink, tools)], (c) => {
    const keep = keepLarge(c, 1, LEAST_PIXELS, LEAST_PIXELS);
    return edgeNoise(c, (k) => keep[k] === 1);
  });
}

/** Where an outline's edges are, without what takes long to find out. */
export function edgesOf(from: GreyProduct, own: Settings, tools: Tools) {
  const { values } = edgeFields.resolve(own, outlineContext(from, tools));
  return { values, isSet: (key: string) => own[key] !== undefined };
}

/** Contours smaller than this many pixels tell nothing of the picture's edges. */
const LEAST_PIXELS = 9;

export const contoursOf = ({ grey }: GreyProduct, ink: number, { kept }: Tools): Contours =>
  kept.of("contours", [grey, ink], contoursAt);
