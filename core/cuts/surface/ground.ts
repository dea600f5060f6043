import { type Cutter, isCone, type Profile, profileOf } from "../../cutters/profile.ts";
import type { HeightField } from "../../height/field.ts";
import { highestOf } from "../../height/sampled.ts";
import { tipSurface } from "../../height/surface.ts";
import { Tips } from "../../height/tips.ts";
import type { HeightsProduct } from "../../makings/product.ts";
import type { CutInputs } from "../kind.ts";

/** So many samples across a round or flat tip: between fewer it would dip. */
const ACROSS_TIP = 8;
/** Samples at most: beyond it several of the field's become one. */
const MOST_SAMPLES = 12e6;

/** How wide a cutter's tip is; a point comes down on single samples, and needs none between them. */
function tipWidth(p: Profile): number {
  if (p.pieces) return 2 * p.pieces[0].r1;
  if (p.ball > 0) return 2 * p.ball;
  return p.flat > 0 ? 2 * p.flat : Infinity;
}

interface BoardSize {
  width: number;
  height: number;
}

/** The part of the board that a cutter may pass over, with some more where the board ends there, mm. */
export interface Passed {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** Over the field, and so far past it where the board ends there, mm, that the rim comes out clean. */
export function passedOver(f: HeightField, board: BoardSize, overrun: number): Passed {
  const far = { x: f.x0 + f.width * f.cell, y: f.y0 + f.height * f.cell };
  const past = (gap: number) => (gap < overrun ? overrun : 0);
  return {
    x0: Math.max(-overrun, f.x0 - past(f.x0)),
    y0: Math.max(-overrun, f.y0 - past(f.y0)),
    x1: Math.min(board.width + overrun, far.x + past(board.width - far.x)),
    y1: Math.min(board.height + overrun, far.y + past(board.height - far.y)),
  };
}

/**
 * The wanted surface as a cutter meets it: the field where it is, the stock's top round it; beyond the board the
 * height of its edge goes on, so that the cutter runs out level. Samples are the field's own, with more between
 * them where the tip is small; or, where there are too many, each the highest of several.
 */
export function groundOf(
  f: HeightField,
  board: BoardSize,
  p: Profile,
  grain: number | null,
  over = passedOver(f, board, p.radius),
): HeightField {
  const area = (over.x1 - over.x0 + 2 * p.radius) * (over.y1 - over.y0 + 2 * p.radius);
  // An odd number of parts keeps the field's own samples, where its peaks are.
  const least = Math.max(grain ?? 0, Math.sqrt(area / MOST_SAMPLES));
  const finer = 2 * Math.ceil(((f.cell * ACROSS_TIP) / tipWidth(p) - 1) / 2 - 1e-9) + 1;
  let parts = Math.max(1, finer);
  while (parts > 1 && f.cell / parts < least) parts -= 2;
  const coarser = Math.max(1, Math.ceil(least / (f.cell / parts) - 1e-9));
  const cell = (f.cell * coarser) / parts;
  // Samples fall on the field's: whole cells from its corner, a radius farther than the cutter goes.
  const before = (gap: number) => Math.ceil(gap / cell) * cell;
  const x0 = f.x0 - before(f.x0 - over.x0 + p.radius);
  const y0 = f.y0 - before(f.y0 - over.y0 + p.radius);
  const width = Math.ceil((over.x1 + p.radius - x0) / cell);
  const height = Math.ceil((over.y1 + p.radius - y0) / cell);
  const sides = sidesOf(f, board);
  const places = (from: number, count: number, first: number, last: number) =>
    Float64Array.from({ length: count * coarser }, (_, k) =>
      Math.max(first, Math.min(last, from + ((k + 0.5) / coarser) * cell)),
    );
  const xs = places(x0, width, sides.x0, sides.x1);
  const ys = places(y0, height, sides.y0, sides.y1);
  const z = highestOf(f, xs, ys, coarser);
  const ground = { x0, y0, cell, width, height, z };
  raiseRim(ground, f, sides);
  return ground;
}

/**
 * Where a field ends on the board its outermost samples are raised to the stock's top: the upright wall there lies
 * between samples, and the cutter is not to reach past it.
 */
function raiseRim({ x0, y0, cell, width, height, z }: HeightField, f: HeightField, sides: Passed): void {
  const far = { x: f.x0 + f.width * f.cell, y: f.y0 + f.height * f.cell };
  const inside = { x0: f.x0 - sides.x0, y0: f.y0 - sides.y0, x1: sides.x1 - far.x, y1: sides.y1 - far.y };
  const isRim = (gap: number, deep: number) => gap > 0 && deep > 0 && deep < cell;
  for (let j = 0; j < height; j++) {
    const y = y0 + (j + 0.5) * cell;
    const isRow = isRim(inside.y0, y - f.y0) || isRim(inside.y1, far.y - y);
    for (let i = 0; i < width; i++) {
      const x = x0 + (i + 0.5) * cell;
      if (isRow || isRim(inside.x0, x - f.x0) || isRim(inside.x1, far.x - x)) z[j * width + i] = 0;
    }
  }
}

/**
 * Where the surface of a board ends: at its sides, or at the field's where that ends less than a sample short of
 * them by rounding, so that no sliver stays.
 */
function sidesOf(f: HeightField, board: BoardSize): Passed {
  const far = { x: f.x0 + f.width * f.cell, y: f.y0 + f.height * f.cell };
  const side = (gap: number, own: number, boards: number) => (Math.abs(gap) < f.cell ? own : boards);
  return {
    x0: side(f.x0, Math.max(0, f.x0), 0),
    y0: side(f.y0, Math.max(0, f.y0), 0),
    x1: side(board.width - far.x, Math.min(board.width, far.x), board.width),
    y1: side(board.height - far.y, Math.min(board.height, far.y), board.height),
  };
}

/** Roughing needs no finer samples than so many from a cutter's axis to its rim. */
const ROUGH_ACROSS = 24;

/** The samples that roughing takes of a surface, mm, each the highest of several; 0 where it takes the field's own. */
function roughCell(f: HeightField, p: Profile, grain: number | null): number {
  const several = Math.floor(p.radius / ROUGH_ACROSS / f.cell);
  const cell = several * f.cell;
  return several >= 2 && cell > (grain ?? 0) ? cell : 0;
}

/** A cutter that is wider all round by so much, mm, and so stands clear of all that samples stand for. */
const widened = (p: Profile, by: number): Profile => ({
  ...p,
  radius: p.radius + by,
  h: (r) => p.h(Math.max(0, r - by)),
  r: (h) => p.r(h) + by,
});

/** Grounds that are kept: each holds three numbers for each of its samples, four with the tips over them. */
const LARGE = { name: "ground", most: 2 };
/** Small ones of a first look, which choosing asks for again for every two cutters. */
const SMALL = { name: "small-ground", most: 16 };
/** As many samples as make a ground small: sixteen of them hold less than a large one. */
const FEW_SAMPLES = 400_000;

/** A surface on a board with the lowest tips of a cutter over it. */
export class Ground {
  readonly tips: Tips;
  /** whether the cutter comes down on single samples, so that its tips have a peak over each */
  readonly isPointed: boolean;
  private found: HeightField | null = null;

  /** @param isFine whether the surface is looked at between its samples too */
  constructor(
    readonly surface: HeightField,
    private readonly cutter: Profile,
    readonly passed: Passed,
    readonly isFine = true,
  ) {
    this.tips = new Tips(surface, cutter, isFine ? undefined : Infinity);
    this.isPointed = isFine && isCone(cutter) && 2 * cutter.flat < surface.cell;
  }

  /** The lowest tips over all samples, found when they are first asked for. */
  get over(): HeightField {
    return (this.found ??= { ...this.surface, z: tipSurface(this.surface, this.cutter).z });
  }
}

/**
 * The ground of a cut, kept: several cuts ask for the same.
 * @param overrun how far past the board's edge the cutter goes, mm; its radius when not given
 * @param isRough whether the cutter keeps off the surface anyway, so that coarser samples do
 */
export function groundFor(
  { kept, stock, grain }: Pick<CutInputs, "kept" | "stock" | "grain">,
  art: HeightsProduct,
  cutter: Cutter,
  overrun: number | null = null,
  isRough = false,
): Ground {
  const { width, height } = stock;
  const cell = isRough ? roughCell(art.field, profileOf(cutter), grain) : 0;
  const { name, most } = grain !== null && width * height <= FEW_SAMPLES * grain ** 2 ? SMALL : LARGE;
  return kept.of(
    name,
    [art, cutter, { width, height }, grain, overrun, cell],
    (a, c, board, g, run, coarse): Ground => {
      const p = profileOf(c);
      const passed = passedOver(a.field, board, run ?? p.radius);
      const surface = groundOf(a.field, board, p, coarse || g, passed);
      // What a coarse sample stands for lies up to half its diagonal beside it, and a field's own sample farther.
      if (coarse > 0) return new Ground(surface, widened(p, coarse * Math.SQRT1_2 + a.field.cell), passed, false);
      // A first look's samples are the highest of several: no need to look between them.
      return new Ground(surface, p, passed, g === null);
    },
    most,
  );
}
