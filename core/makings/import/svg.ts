import { SaxesParser, type SaxesTagPlain } from "saxes";
import svgpath from "svgpath";
import { Problem } from "../../problem.ts";
import { type Curve, placed, shapeOf } from "../../geometry/curve.ts";
import { regionOf } from "../../geometry/region.ts";
import { boundsOf } from "../../geometry/rings.ts";
import { asRead } from "../../geometry/shape.ts";
import { checkCount, closedCurves } from "./curves.ts";
import { pathOf } from "./elements.ts";

/**
 * What a drawing holds: the curves that bound each of its elements, outer ones counter-clockwise, in mm, y up, with the
 * lower left corner of all of them at 0, 0.
 */
export interface Drawing {
  curves: Curve[];
  width: number;
  height: number;
  /** where an element crosses itself and was mended, mm */
  mendedAt: { x: number; y: number }[];
  /** what was left out, in words, each once: text, pictures, lines that close nowhere */
  leftOut: string[];
}

/** Elements whose content is not drawn where it stands. */
const UNDRAWN = new Set([
  "defs",
  "clippath",
  "mask",
  "symbol",
  "marker",
  "pattern",
  "lineargradient",
  "radialgradient",
]);
/** Elements that are drawn but have no outline here, in the words that say so. */
const WITHOUT_OUTLINE: Record<string, string> = {
  text: "text (turn it into paths where it was drawn)",
  image: "pictures inside it",
  use: "copies by reference (turn them into paths where they were drawn)",
  foreignobject: "foreign objects",
};

/** mm of the units of SVG (CSS Values and Units 3); a number without one is a 96th of an inch. */
const UNITS: Record<string, number> = {
  mm: 1,
  cm: 10,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  px: 25.4 / 96,
  "": 25.4 / 96,
};

function length(text: string | undefined): number | null {
  const m = /^\s*([+-]?[\d.]+(?:e[+-]?\d+)?)\s*(mm|cm|in|pt|pc|px|)\s*$/i.exec(text ?? "");
  const v = m && Number(m[1]) * UNITS[m[2].toLowerCase()];
  return v && Number.isFinite(v) && v > 0 ? v : null;
}

/** mm of one unit of the drawing: from its own width and view box where it has both (SVG 2, 8.2). */
function scaleOf(attributes: Record<string, string>): number {
  const box = (attributes.viewBox ?? "")
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const [width, height] = [length(attributes.width), length(attributes.height)];
  if (box.length !== 4 || !(box[2] > 0 && box[3] > 0)) return UNITS.px;
  const scales = [width && width / box[2], height && height / box[3]].filter((v): v is number => v !== null);
  return scales.length > 0 ? Math.min(...scales) : UNITS.px;
}

/** Properties that an element passes on to what is within it, where that does not say otherwise. */
const INHERITED = ["fill", "fill-rule", "visibility"] as const;
type Look = Record<(typeof INHERITED)[number], string>;

/** Declarations of a style: `fill: none; stroke: black`. */
function declared(text: string): Record<string, string> {
  const pairs = text.split(";").map((d) => d.split(":").map((part) => part.trim()));
  return Object.fromEntries(pairs.filter(([name, value]) => name && value));
}

/** The rules for classes of a style sheet (`.cut { fill: none }`); others are passed over. */
function classRules(sheet: string): Map<string, Record<string, string>> {
  const rules = new Map<string, Record<string, string>>();
  for (const [, names, body] of sheet.matchAll(/((?:\.[\w-]+\s*,?\s*)+)\{([^}]*)\}/g))
    for (const [, name] of names.matchAll(/\.([\w-]+)/g)) rules.set(name, { ...rules.get(name), ...declared(body) });
  return rules;
}

/** What holds for an element and all within it. */
interface Frame {
  tag: string;
  transform: string[];
  isDrawn: boolean;
  look: Look;
}

/**
 * Reads the closed shapes of an SVG drawing, exactly: lines, circular arcs and cubics stay what they are.
 * @throws Problem `bad-drawing` where it cannot be read, or holds no closed shape
 */
export function readSvg(text: string): Drawing {
  const curves: Curve[] = [];
  const mendedAt: Drawing["mendedAt"] = [];
  const leftOut = new Set<string>();
  const frames: Frame[] = [];
  let scale = UNITS.px;
  let rules: ReturnType<typeof classRules> = new Map();
  const open = ({ name, attributes }: SaxesTagPlain) => {
    const tag = name.replace(/^.*:/, "").toLowerCase();
    const outer = frames[frames.length - 1];
    if (!outer && tag === "svg") scale = scaleOf(attributes);
    const { transform } = attributes;
    const classes = (attributes.class ?? "").split(/\s+/).map((name) => rules.get(name));
    const own: Record<string, string> = Object.assign({ ...attributes }, ...classes, declared(attributes.style ?? ""));
    const look = { ...(outer?.look ?? { fill: "black", "fill-rule": "nonzero", visibility: "visible" }) };
    for (const name of INHERITED) if (own[name] && own[name] !== "inherit") look[name] = own[name];
    const frame: Frame = {
      tag,
      transform: [...(transform ? [transform] : []), ...(outer?.transform ?? [])],
      isDrawn: (outer?.isDrawn ?? true) && !UNDRAWN.has(tag) && own.display !== "none",
      look,
    };
    frames.push(frame);
    if (!frame.isDrawn || look.visibility === "hidden") return;
    if (WITHOUT_OUTLINE[tag]) leftOut.add(WITHOUT_OUTLINE[tag]);
    const d = pathOf(tag, attributes);
    if (d === null) return;
    let path = svgpath(d);
    for (const t of frame.transform) path = path.transform(t);
    path = path.matrix([scale, 0, 0, -scale, 0, 0]).abs().unshort();
    // A path with an error is drawn up to it (SVG 2, 9.5.4).
    const isFilled = look.fill !== "none" && tag !== "line";
    const closed = closedCurves(path, isFilled);
    if (closed.leftOut > 0) leftOut.add("lines that enclose nothing");
    const rule = look["fill-rule"] === "evenodd" ? "even-odd" : "non-zero";
    const region = regionOf(closed.curves, rule);
    curves.push(...region.curves);
    mendedAt.push(...region.mendedAt);
    checkCount(curves);
  };
  const parser = new SaxesParser();
  parser.on("error", (e) => {
    throw new Problem("bad-drawing", `The drawing cannot be read: ${e.message}. Save it anew where it was drawn.`);
  });
  parser.on("doctype", (said) => {
    // Drawing programs name their own addresses so; longer ones are no addresses.
    for (const [, name, value] of said.matchAll(/<!ENTITY\s+([\w.-]+)\s+"([^"]{0,200})"/g))
      parser.ENTITIES[name] = value;
  });
  parser.on("opentag", open);
  const read = (sheet: string) => {
    if (frames[frames.length - 1]?.tag === "style") rules = new Map([...rules, ...classRules(sheet)]);
  };
  parser.on("text", read);
  parser.on("cdata", read);
  parser.on("closetag", () => void frames.pop());
  parser.write(text).close();
  const { minX, minY, maxX, maxY } = boundsOf(asRead(shapeOf(curves)).xy);
  if (!(maxX > minX && maxY > minY))
    throw new Problem("bad-drawing", `The drawing holds no closed shape.${inWords([...leftOut])}`);
  return {
    curves: placed(curves, 1, -minX, -minY),
    width: maxX - minX,
    height: maxY - minY,
    mendedAt: mendedAt.map(({ x, y }) => ({ x: x - minX, y: y - minY })),
    leftOut: [...leftOut],
  };
}

const inWords = (leftOut: readonly string[]): string => (leftOut.length > 0 ? ` Left out: ${leftOut.join("; ")}.` : "");
