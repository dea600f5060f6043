import { placed } from "../../geometry/curve.ts";
import { nestedShape, regionOf } from "../../geometry/region.ts";
import { boundsOf } from "../../geometry/rings.ts";
import { asRead } from "../../geometry/shape.ts";
import type { LaidLine } from "../../lettering/face.ts";
import { refitted } from "../../outline/refit.ts";
import { Problem } from "../../problem.ts";
import type { Tools, Asking, Given, IsSet } from "../kind.ts";
import type { ShapesProduct } from "../product.ts";
import { checkWords, type LetteringContext, type LetteringSettings } from "./fields.ts";
import { laidOut, linesIn } from "./layout.ts";
import { type reads } from "./lettering.ts";

/** Joined letters are read and fitted anew this closely, mm. */
const SPACING = 0.05;
const HOLD = 0.005;
/** Turns sharper than this stay corners, radians. */
const CORNER = (15 * Math.PI) / 180;

const noWords = (unwritten: readonly string[]): string =>
  unwritten.length > 0
    ? `This face has none of these letters (${unwritten.join(" ")}). Choose another, or write them in Latin letters.`
    : "There are no words to cut. Write some on its slip.";

/** Lines of text as a face lays them out: asked for by several fields, so they are kept. */
function linesOf({ kept, face }: Tools, id: string, text: string): LaidLine[] {
  checkWords(text);
  return kept.of("lines", [id, text], (from, words) => linesIn(face(from), words), KEPT_LINES);
}
const KEPT_LINES = 8;

const fittedAgain = (shape: ShapesProduct["shape"]): ShapesProduct["shape"] =>
  refitted(asRead(shape), SPACING, { hold: HOLD, specks: 0, pinholes: 0, cornerAngle: CORNER }).shape;

export function context({ board, person, reads: { beside } }: Asking<typeof reads>, tools: Tools): LetteringContext {
  const { face } = tools;
  const lines = (id: string, text: string) => linesOf(tools, id, text);
  return {
    board,
    person,
    face,
    lines,
    beside: beside && beside.ink.xy.length > 0 ? boundsOf(beside.ink.xy) : null,
    layout: (s) => laidOut(lines(s.face, s.text), face(s.face), s),
  };
}

export function make(_: Given<typeof reads>, s: LetteringSettings, __: IsSet, tools: Tools): ShapesProduct {
  const lines = linesOf(tools, s.face, s.text);
  const unwritten = [...new Set(lines.flatMap((line) => line.missing))];
  const { curves } = laidOut(lines, tools.face(s.face), s);
  if (curves.length === 0) throw new Problem("no-words", noWords(unwritten));
  const region = regionOf(placed(curves, 1, s.x, s.y), "non-zero");
  const own = nestedShape(region.curves);
  // Where letters run into each other they are one shape, with lines for curves: curves are fitted to it again.
  const shape = region.mendedAt.length > 0 ? fittedAgain(own) : own;
  return {
    is: "shapes",
    shape,
    ink: asRead(shape),
    lines: null,
    held: region.mendedAt.length > 0 ? HOLD : 0,
    mendedAt: [],
    unwritten,
    traced: null,
  };
}
