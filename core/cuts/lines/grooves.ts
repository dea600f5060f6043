import type { Profile } from "../../cutters/profile.ts";

/** What a groove through a coat of paint is made with: all in mm. */
export interface Groove {
  profile: Profile;
  /** thickness of the paint */
  coat: number;
  /** the deepest that the tip may go */
  deepest: number;
}

/** How wide the bare floor of a groove is whose tip lies so deep: the cutter's width at the paint's underside. */
export const bareWidth = ({ profile, coat }: Groove, depth: number): number =>
  depth <= coat ? 0 : 2 * profile.r(depth - coat);

/** No machine goes less than this through the paint and no less, mm: round and flat tips bare some width at once. */
const THROUGH = 0.005;

/** How deep the tip goes for a bare width: r(δ − k) = w/2. */
export const depthFor = ({ profile, coat, deepest }: Groove, width: number): number =>
  Math.min(deepest, coat + Math.max(THROUGH, profile.h(Math.min(profile.radius, width / 2))));

/** How deep a tip goes that leaves a strip of paint of this width between two grooves so far apart. */
export const deepestFor = (p: Profile, spacing: number, strip: number): number =>
  p.h(Math.min(p.radius, Math.max(0, spacing - strip) / 2));

/** The narrowest that a tip bares where it is just through the paint: little for a point, much for a round tip. */
export const leastWidth = ({ profile }: Groove): number => 2 * profile.r(THROUGH);

/** Of two sets of lines that cross, each bares so much that both together bare this share. */
export const shareOfEach = (share: number): number => 1 - Math.sqrt(Math.max(0, 1 - share));
/** What both together bare where each bares this share. */
export const shareOfBoth = (each: number): number => 1 - (1 - each) ** 2;

/** The area that each dot has for itself where rows are shifted by half, in pitches squared. */
export const DOT_AREA = Math.sqrt(3) / 2;
/** The bare share of dots of this bare width. */
export const shareOfDots = (width: number, pitch: number): number =>
  (Math.PI * width * width) / 4 / (DOT_AREA * pitch * pitch);
/** The bare width of dots for a share. */
export const widthOfDots = (share: number, pitch: number): number =>
  2 * Math.sqrt((share * DOT_AREA * pitch * pitch) / Math.PI);

/** A tip that bares less than this share of the spacing where it is just through the paint counts as a point. */
const POINT = 0.015;

/** Whether a cutter draws lines too fine to see, so that the finest may be left out and black stays black. */
export const isPoint = (g: Groove, spacing: number): boolean => leastWidth(g) <= POINT * spacing;
