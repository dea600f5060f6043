import { type Fit, isSoft } from "../picture/fitness.ts";

/** Whether a picture suits something at its size, and why. */
export interface Suits {
  good: boolean;
  why: string;
}

/** A stroke this narrow is too weak to stand by itself, mm. */
const WEAK = 2;
/** A stroke this wide is a filled area, not a line, mm. */
const BROAD = 6;

const yes = (why: string): Suits => ({ good: true, why });
const no = (why: string): Suits => ({ good: false, why });
const strokes = (mm: number): string => `strokes of ${mm.toFixed(1)} mm`;

export function carved(f: Fit): Suits {
  if (isSoft(f)) return no("soft greys have no edge to carve to");
  if (f.contrast < 0.2) return no("little contrast: check the outline first");
  if (f.thinnest !== null && f.thinnest < 0.35) return no("its thinnest strokes come out as scratches");
  return yes("clear edges and strokes wide enough");
}

export function standing(f: Fit): Suits {
  if (f.thinnest !== null && f.thinnest < 0.8) return no(`${strokes(f.thinnest)} may chip when left standing`);
  return carved(f);
}

export function free(f: Fit): Suits {
  if (f.thinnest !== null && f.thinnest < WEAK) return no(`${strokes(f.thinnest)} are weak when cut free`);
  if (isSoft(f)) return no("soft greys have no edge to cut along");
  if (f.contours !== null && f.contours > 60) return no(`${f.contours} separate outlines to cut free`);
  return yes("solid pieces");
}

export function lined(f: Fit): Suits {
  if (isSoft(f)) return no("soft greys have no strokes to follow");
  if (f.typical !== null && f.typical > BROAD) return no("broad areas are no lines: better carved");
  return yes("strokes that one pass can follow");
}

export function pocketed(f: Fit): Suits {
  if (f.thinnest !== null && f.thinnest < 2) return no(`${strokes(f.thinnest)} are narrower than usual flat cutters`);
  return carved(f);
}

export function hatched(f: Fit): Suits {
  if (f.typical !== null && f.typical < 1.5) return no("strokes too narrow to hold lines: better engraved");
  return carved(f);
}

/** Art of which less than this share of the outlines are circles is no pattern of holes. */
const MOSTLY = 0.5;

export function drilled(f: Fit): Suits {
  const { circles, contours } = f;
  if (isSoft(f)) return no("soft greys have no circles to find");
  if (circles !== null && contours !== null && circles < MOSTLY * contours)
    return no(`only ${circles} of its ${contours} outlines ${circles === 1 ? "is a circle" : "are circles"}`);
  return yes("where the picture has dots and circles");
}

export const shaded = (f: Fit): Suits =>
  f.contrast < 0.2 ? no("little contrast: set black and white points first") : yes("tones as wide and narrow grooves");

/** A picture of so few flat colours has no shades to make a surface of. */
const FEW_COLOURS = 5;

export function surfaced(f: Fit): Suits {
  const isFlat = f.contours !== null && !isSoft(f) && f.flatColours <= FEW_COLOURS;
  return isFlat ? no("flat colours make steps, not a surface") : yes("soft greys give a rounded surface");
}
