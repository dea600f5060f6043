import fontkit, { type Font, type Glyph } from "@pdf-lib/fontkit";
import { type Curve, lineTo, quadraticTo, type Segment } from "../geometry/curve.ts";
import { CUBIC } from "../geometry/shape.ts";
import type { Face, LaidLine, Letter } from "./face.ts";

/**
 * A typeface from its files (TTF, OTF or WOFF): each letter is taken from the first that has it.
 * @throws Error where a file is no font
 */
export function readFace(files: readonly Uint8Array[]): Face {
  const fonts = files.map((f) => fontkit.create(f));
  const [first] = fonts;
  const em = first.unitsPerEm;
  return {
    capital: first.capHeight / em,
    pitch: (first.ascent - first.descent + first.lineGap) / em,
    lay: (text) => laid(text, fonts),
  };
}

/** Text in pieces that one font has, laid out one after another. */
function laid(text: string, fonts: readonly Font[]): LaidLine {
  const letters: Letter[] = [];
  const missing = new Set<string>();
  let at = 0;
  for (const { font, piece } of pieces(text, fonts, missing)) {
    const em = font.unitsPerEm;
    const { glyphs, positions } = font.layout(piece);
    glyphs.forEach((glyph, k) => {
      const { xAdvance, xOffset, yOffset } = positions[k];
      const width = xAdvance / em;
      letters.push({ curves: curvesOf(glyph, em), x: at + xOffset / em, y: yOffset / em, width });
      at += width;
    });
  }
  return { letters, width: at, missing: [...missing] };
}

/** Runs of letters that the same font has, in order; what none has is missing. */
function pieces(text: string, fonts: readonly Font[], missing: Set<string>): { font: Font; piece: string }[] {
  const out: { font: Font; piece: string }[] = [];
  for (const letter of text) {
    const font = fonts.find((f) => f.hasGlyphForCodePoint(letter.codePointAt(0)!));
    const last = out[out.length - 1];
    if (!font) missing.add(letter);
    else if (last?.font === font) last.piece += letter;
    else out.push({ font, piece: letter });
  }
  return out;
}

/** A step of a glyph's outline, in font units: the package's own types leave it out. */
interface Command {
  command: "moveTo" | "lineTo" | "quadraticCurveTo" | "bezierCurveTo" | "closePath";
  args: readonly number[];
}

/** A glyph's outlines, em. */
function curvesOf(glyph: Glyph, em: number): Curve[] {
  const curves: Curve[] = [];
  let [x, y] = [0, 0];
  for (const { command, args } of (glyph.path as unknown as { commands: readonly Command[] }).commands) {
    const n = args.map((v) => v / em);
    const curve = curves[curves.length - 1];
    if (command === "moveTo") curves.push({ x: n[0], y: n[1], segments: [] });
    else if (command === "lineTo") curve.segments.push(lineTo(n[0], n[1]));
    else if (command === "quadraticCurveTo") curve.segments.push(quadraticTo(x, y, n));
    else if (command === "bezierCurveTo") curve.segments.push({ kind: CUBIC, n: n as Segment["n"] });
    else if (x !== curve.x || y !== curve.y) curve.segments.push(lineTo(curve.x, curve.y));
    if (n.length > 1) [x, y] = n.slice(-2);
  }
  return curves.filter((c) => c.segments.length > 0);
}
