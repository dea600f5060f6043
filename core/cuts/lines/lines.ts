import { profileOf } from "../../cutters/profile.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { FINEST_SEEN, formatLength } from "../../units.ts";
import { rateFields } from "../fields.ts";
import { type CutContext, defineCut, TONE_ART } from "../kind.ts";
import { bareWidth, deepestFor, type Groove, isPoint, leastWidth, shareOfBoth, shareOfDots } from "./grooves.ts";
import { hypot } from "../../hypot.ts";
import { later } from "../../later.ts";

/** So many lines over a board's shorter side show a face; of dots, which take longer each, fewer. */
const LINES_OVER = 140;
const DOTS_OVER = 80;
/** A cutter that bares less than this of the surface where the picture is white needs more room between lines. */
const GOOD_WHITE = 0.6;
/** Strips of paint narrower than this break off, mm; wider ones where lines lie wide apart. */
const LEAST_STRIP = 0.1;
const USUAL_STRIP = 0.08;
/** Nearer lines tear the paint between them, mm. */
const LEAST_SPACING = 0.5;
/** A tip's own width is at most this share of the spacing: blacks would turn grey. */
const TIP_SHARE = 0.1;
/** What must stay below the deepest groove, mm. */
const FLOOR_LEFT = 0.5;

const fields = fieldsFor<CutContext>()
  .choice("shape", "Lines", {
    options: [
      { value: "lines", label: "straight" },
      { value: "waves", label: "waves" },
      { value: "rings", label: "rings" },
      { value: "spiral", label: "one spiral" },
      { value: "dots", label: "dots" },
    ],
    auto: () => ({ value: "lines", reason: "quick to cut, and shows every tone" }),
  })
  .angle("angle", "Angle", {
    help: "Of the lines, or of the rows of dots, from left to right.",
    min: -180,
    max: 180,
    step: 5,
    when: (s) => s.shape !== "rings" && s.shape !== "spiral",
    // Rows of dots run in three directions: with this one none is level or upright.
    auto: (_, s) => ({ value: s.shape === "dots" ? 10 : 30, reason: "slanting, it runs along nothing in the picture" }),
  })
  .switch("crossed", "Crossed", {
    help: "A second set of lines over the first: each is narrower.",
    when: (s) => s.shape === "lines",
    auto: () => ({ value: false, reason: "one set of lines" }),
  })
  .angle("second", "Second angle", {
    min: -180,
    max: 180,
    step: 5,
    when: (s) => s.shape === "lines" && s.crossed,
    auto: (_, s) => ({ value: s.angle > 90 ? s.angle - 90 : s.angle + 90, reason: "square to the first" }),
  })
  .length("spacing", "Spacing", {
    help: "From the middle of one line or dot to the middle of the next.",
    min: 0.1,
    max: 50,
    step: 0.1,
    slider: true,
    auto: spacingFor,
    consequence: (v) => `lines melt into tones from ${formatLength(v / Math.tan(FINEST_SEEN) / 1000, "mm", 1)} m away`,
  })
  .length("wave", "Wave length", {
    min: 0.5,
    max: 1000,
    step: 1,
    when: (s) => s.shape === "waves",
    auto: (_, s) => ({ value: Math.round(15 * s.spacing * 10) / 10, reason: "fifteen spacings: gentle turns" }),
  })
  .length("swing", "Swing", {
    help: "How far waves go to each side.",
    min: 0,
    max: 100,
    step: 0.1,
    when: (s) => s.shape === "waves",
    auto: (_, s) => ({ value: Math.round(0.08 * s.wave * 100) / 100, reason: "a twelfth of the wave length" }),
  })
  .length("strip", "Narrowest strip of paint", {
    help: "What stays between two grooves at their widest.",
    min: 0,
    max: 10,
    step: 0.05,
    more: true,
    auto: (_, s) => ({
      value: Math.max(LEAST_STRIP, Math.round(USUAL_STRIP * s.spacing * 100) / 100),
      reason: "narrower strips break off",
    }),
  })
  .length("depth", "Deepest", {
    help: "How deep the tip goes where the picture is white.",
    min: 0.01,
    max: 50,
    step: 0.05,
    slider: true,
    auto: (c, s) => {
      const p = profileOf(c.cutter);
      const wanted = deepestFor(p, narrowest(s), s.strip);
      const most = Math.max(0.01, Math.min(p.height, c.stock.thickness - FLOOR_LEFT));
      if (wanted > most) return { value: Math.round(most * 1000) / 1000, reason: "as deep as cutter and stock allow" };
      return {
        value: Math.max(0.01, Math.round(wanted * 1000) / 1000),
        reason: `leaves strips of ${formatLength(s.strip)} mm`,
      };
    },
    consequence: (depth, c, s) => {
      const { least, most } = reachOf(grooveOf(c, depth), s);
      return `bares ${percent(least)} to ${percent(most)} of the surface`;
    },
  })
  .with(rateFields<{ depth: number; spacing: number }>((_, s) => ({ depth: s.depth, width: s.spacing })));
export type LinesSettings = SettingsOf<typeof fields>;

/** Settings that say how near to each other lines lie. */
type Apart = Pick<LinesSettings, "shape" | "spacing" | "wave" | "swing">;

export const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** Lines so near that the board shows detail, so far apart that the cutter can draw tones between. */
function spacingFor({ cutter, stock }: CutContext, s: { shape: string }): { value: number; reason: string } {
  const profile = profileOf(cutter);
  const over = s.shape === "dots" ? DOTS_OVER : LINES_OVER;
  const fine = Math.min(stock.width, stock.height) / over;
  const whiteAt = (spacing: number): number => {
    const deepest = deepestFor(profile, spacing, LEAST_STRIP);
    const wide = bareWidth({ profile, coat: stock.coat, deepest }, deepest);
    return s.shape === "dots" ? shareOfDots(wide, spacing) : wide / spacing;
  };
  let forCutter = Math.max((2 * profile.flat) / TIP_SHARE, LEAST_SPACING);
  while (whiteAt(forCutter) < GOOD_WHITE && forCutter < 2 * profile.radius) forCutter *= 1.02;
  const most = 2 * profile.radius + LEAST_STRIP;
  const value = Math.round(Math.max(forCutter, Math.min(most, fine)) * 100) / 100;
  if (fine <= forCutter) return { value, reason: "as near as this cutter can draw tones from black to white" };
  if (fine >= most) return { value, reason: "as far apart as this cutter can bare white" };
  return { value, reason: `${over} lines over the board's shorter side show a face` };
}

/** How near neighbouring lines come to each other, mm: waves where they slant most. */
export const narrowest = (s: Apart): number =>
  s.shape === "waves" ? s.spacing / hypot(1, (2 * Math.PI * s.swing) / s.wave) : s.spacing;

export const grooveOf = ({ cutter, stock }: CutContext, depth: number): Groove => {
  const profile = profileOf(cutter);
  return { profile, coat: stock.coat, deepest: Math.min(depth, profile.height) };
};

/** The least and the largest share of bare surface that a cutter reaches at a spacing. */
export function reachOf(g: Groove, s: Apart & Pick<LinesSettings, "crossed">): { least: number; most: number } {
  const wide = bareWidth(g, g.deepest);
  // Lines too narrow to see are left out: black stays black.
  const narrow = isPoint(g, s.spacing) ? 0 : Math.min(wide, leastWidth(g));
  if (s.shape === "dots") return { least: 0, most: Math.min(1, shareOfDots(wide, s.spacing)) };
  const both = s.shape === "lines" && s.crossed ? shareOfBoth : (v: number) => v;
  return { least: both(Math.min(1, narrow / s.spacing)), most: both(Math.min(1, wide / s.spacing)) };
}

const work = later(() => import("./plan.ts"));

/** Tones drawn by grooves through paint, as wide as the picture is light. */
export const lines = defineCut({
  kind: "lines",
  title: "Shaded lines",
  about: "light and shade by grooves through paint",
  cutters: ["v", "taper", "ball"],
  summary: (s) => `${s.shape}, ${formatLength(s.spacing)} mm apart`,
  fields,
  reads: TONE_ART,
  handles: { depth: "depth", crossed: { field: "crossed", value: "on" } },
  intent: (s) => ({ depth: s.depth, through: false }),
  sample: { cutter: "v:60:6", settings: { spacing: 4 } },
  plan: work("plan"),
});
