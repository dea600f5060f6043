import type { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { type Loop, rotate } from "../../toolpath/loops.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import type { Note } from "../kind.ts";
import type { AreaPlan, Level } from "./level.ts";
import { LEAST_HELIX, overFloor, sinkHelix, type Spot, WaysIn } from "./sink.ts";
import { hypot } from "../../hypot.ts";

/** A helix this share of the cutter's radius wide leaves no post in its middle. */
const HELIX_SHARE = 0.8;
/** Ways at depth from open ground are no longer than this many radii: beyond that a helix or ramp is as quick. */
export const LONGEST_WAY = 3;
/**
 * Ways at depth over ground that is open all the way are no longer than this, mm: lifting, travelling and
 * coming down again takes as long as that much way at a usual feed.
 */
export const LONGEST_OPEN_WAY = 30;
/** Open ground is looked at in places so far apart, as a share of the cutter's radius. */
const LOOK = 0.25;
/** Where this cutter has been within this share of its stepover, it meets less than any of its passes takes. */
const OWN = 0.75;
/** Ways may come this much nearer to an edge than the path itself keeps: rounding, mm. */
const SLACK = 0.003;
/** Beginnings tried round a loop for one that open ground is near to. */
const TRIES = 24;

/**
 * The ground of one area: what its cutter has opened of the level at hand, and every way down to that level. Into solid
 * stock the cutter only ever goes round a helix or along a ramp no steeper than asked, or sideways from where it is
 * open already. Where there is room for none of that, one that cuts at its centre plunges, and any other leaves the
 * place out; both are told.
 */
export class Ground {
  private level: Level = { z0: 0, z1: 0, from: 0 };
  /** how near to the edges the level above was opened, mm */
  private above = 0;
  /** places on paths cut at this level, and at the one above, by the cell of a grid that they lie in */
  private cells = new Map<number, Spot[]>();
  private cellsAbove = new Map<number, Spot[]>();
  /** moves of the writer that have been looked at */
  private seen = 0;
  private readonly ways: WaysIn;

  /** @param edges of the region: nothing comes nearer to them than the level's `from` */
  constructor(
    readonly w: ToolpathWriter,
    readonly p: AreaPlan,
    private readonly edges: SegmentGrid,
  ) {
    this.ways = new WaysIn(p.radius, p.centre, p.slope);
  }

  /**
   * From here on the cutter works at this level.
   * @param above how near to the edges the level above has been opened where the cutter now is, mm
   */
  begin(level: Level, above = level.from): void {
    this.look();
    this.cellsAbove = level.z0 === this.level.z1 ? this.cells : new Map();
    this.cells = new Map();
    this.level = level;
    this.above = above;
  }

  /** The same level, and as near to the edges as this one says. @returns as it was before */
  comesNearer(level: Level): Level {
    const before = this.level;
    this.level = level;
    return before;
  }

  /**
   * Gets the cutter to the beginning of a path at the level's depth.
   * @param closed whether the path is a loop, which may then be begun anywhere; its last point is its first
   * @param open whether earlier cutters have opened the ground at its beginning
   * @returns at which of its points the path is to begin; −1 where there is no way in and it is left out
   */
  enter(x: Float64Array, y: Float64Array, closed: boolean, open = false): number {
    const { w, p } = this;
    const { z0, z1 } = this.level;
    if (this.ways.isLeftOut(x[0], y[0])) return -1;
    if (open && this.overOpen(x[0], y[0])) return 0;
    if (open || (p.entry === "plunge" && p.centre)) {
      if (!open) this.alongFloor(x[0], y[0]);
      overFloor(w, x[0], y[0], z0);
      w.plunge(z1);
      return 0;
    }
    const at = this.throughOpen(x, y, closed);
    if (at >= 0) return at;
    const helix = Math.min(HELIX_SHARE * p.radius, this.room(x[0], y[0]));
    if (p.entry !== "ramp" && helix >= LEAST_HELIX * p.radius) {
      this.alongFloor(x[0] + helix, y[0]);
      sinkHelix(w, x[0], y[0], helix, z0, z1, p.slope, !p.conventional);
      w.to(x[0], y[0], z1);
      return 0;
    }
    this.alongFloor(x[0], y[0]);
    return this.ways.sink(w, x, y, closed, z0, z1);
  }

  /** As {@link enter} for a loop: the loop begun where the cutter now is; null where it is left out. */
  enterLoop(loop: Loop, open = false): Loop | null {
    const at = this.enter(loop.x, loop.y, true, open);
    return at < 0 ? null : rotate(loop, at);
  }

  /** What is to be said of the ways in. */
  notes(name: string): Note[] {
    const { p } = this;
    const out = this.ways.notes(name);
    if (p.entry === "plunge" && !p.centre)
      out.push({
        code: "plunge-not-used",
        severity: "note",
        message:
          `${name}: its ${formatLength(2 * p.radius)} mm cutter does not cut at its centre, so that it enters by ` +
          "helix or ramp instead of the plunge asked for.",
      });
    return out;
  }

  /** How far the cutter may go round (x, y) without coming too near to an edge, mm. */
  private room(x: number, y: number): number {
    const { from } = this.level;
    return this.edges.distance(x, y, from + this.p.radius) - from;
  }

  /**
   * Sideways at depth: from where the cutter stands, or down through the open ground nearest to the path.
   * @returns as {@link enter}
   */
  private throughOpen(x: Float64Array, y: Float64Array, closed: boolean): number {
    const { w, p } = this;
    const { z0, z1 } = this.level;
    const most = LONGEST_WAY * p.radius;
    const n = x.length - 1;
    const tries = closed ? Math.min(TRIES, n) : 1;
    const begin = (q: number): number => Math.floor((q * n) / tries);
    if (w.z === z1) {
      const beginnings = Array.from({ length: tries }, (_, q) => begin(q));
      if (closed) beginnings.unshift(nearestOn(x, y, w.x, w.y));
      for (const [k, i] of beginnings.entries()) {
        const isNear = this.clear(w.x, w.y, x[i], y[i], most);
        if (!isNear && !(k === 0 && this.isOpenTo(x[i], y[i]))) continue;
        w.to(x[i], y[i], z1);
        return i;
      }
    }
    for (let q = 0; q < tries; q++) {
      const i = begin(q);
      const spot = this.nearestOpen(x[i], y[i], most);
      if (!spot) continue;
      overFloor(w, spot.x, spot.y, z0);
      w.plunge(z1);
      w.to(x[i], y[i], z1);
      return i;
    }
    return -1;
  }

  /**
   * Sideways as deep as the cutter stands, and down from there, over ground that is open all the way.
   * @returns whether it went
   */
  private overOpen(x: number, y: number): boolean {
    const { w, p, level } = this;
    if (!p.done || w.z >= 0 || !this.isOpenTo(x, y)) return false;
    w.to(x, y, w.z);
    if (w.z < level.z1) w.rapidTo(level.z1);
    else if (w.z > level.z1) w.plunge(level.z1);
    return true;
  }

  /** Whether earlier cutters or this one have opened the ground as deep as it stands, all the way from there. */
  private isOpenTo(x: number, y: number): boolean {
    const { w, p, level } = this;
    if (!this.clear(w.x, w.y, x, y, LONGEST_OPEN_WAY)) return false;
    const at = { ...level, z1: w.z };
    const isDone = (u: number, v: number) => p.done && p.done(u, v, this.edges.distance(u, v, p.c.widest), at) > 0;
    const n = Math.ceil(hypot(x - w.x, y - w.y) / (LOOK * p.radius));
    for (let k = 1; k < n; k++) {
      const [u, v] = [w.x + ((x - w.x) * k) / n, w.y + ((y - w.y) * k) / n];
      if (!isDone(u, v) && !this.hasBeen(u, v)) return false;
    }
    return true;
  }

  /** Along the floor of the level above, where the cutter stands on it and nothing is in the way. */
  private alongFloor(x: number, y: number): void {
    const { w, above } = this;
    // Where a place was left out, nobody knows how far round it the floor is closed.
    if (w.z !== this.level.z0 || w.z >= 0 || this.ways.hasLeftOut) return;
    if (this.clear(w.x, w.y, x, y, LONGEST_OPEN_WAY, above)) w.to(x, y, w.z);
  }

  /** Whether the cutter may go straight from one place to another at depth. */
  private clear(x0: number, y0: number, x1: number, y1: number, most: number, from = this.level.from): boolean {
    if (!(hypot(x1 - x0, y1 - y0) <= most)) return false;
    return this.edges.isClear(x0, y0, x1, y1, from - SLACK);
  }

  /** The nearest place on a path cut at this level from which (x, y) can be reached. */
  private nearestOpen(x: number, y: number, most: number): Spot | null {
    this.look();
    const near = this.spotsNear(this.cells, x, y, most);
    if (near.length === 0) return null;
    const nearest = near.reduce((a, b) => (b.d < a.d ? b : a));
    if (this.clear(nearest.spot.x, nearest.spot.y, x, y, most)) return nearest.spot;
    // Something is in its way, which is rare: the next ones.
    near.sort((a, b) => a.d - b.d);
    for (const { spot } of near.slice(1, TRIES)) if (this.clear(spot.x, spot.y, x, y, most)) return spot;
    return null;
  }

  /**
   * Whether this cutter has been there as deep as it stands: passes lie so near together that hardly any stock is
   * between.
   */
  private hasBeen(x: number, y: number): boolean {
    this.look();
    const { z0, z1 } = this.level;
    if (this.w.z !== z0 && this.w.z !== z1) return false;
    const cells = this.w.z === z1 ? this.cells : this.cellsAbove;
    return this.spotsNear(cells, x, y, OWN * this.p.stepover).length > 0;
  }

  /** The places of a grid within `most` of (x, y), each with how far it is from there. */
  private spotsNear(cells: Map<number, Spot[]>, x: number, y: number, most: number): { spot: Spot; d: number }[] {
    const near: { spot: Spot; d: number }[] = [];
    const [i, j] = [this.cell(x), this.cell(y)];
    const reach = Math.ceil(most / this.side);
    for (let v = j - reach; v <= j + reach; v++)
      for (let u = i - reach; u <= i + reach; u++)
        for (const spot of cells.get(cellKey(u, v)) ?? []) {
          const d = hypot(spot.x - x, spot.y - y);
          if (d <= most) near.push({ spot, d });
        }
    return near;
  }

  private get side(): number {
    return this.p.radius;
  }
  private cell(v: number): number {
    return Math.floor(v / this.side);
  }

  /** Takes note of the paths cut since it last looked: places on them half a radius apart. */
  private look(): void {
    for (; this.seen < this.w.count; this.seen++)
      if (this.w.isLevelAt(this.seen, this.level.z1))
        for (const [x, y] of this.w.placesOn(this.seen, this.side / 2)) this.keep(x, y);
  }
  private keep(x: number, y: number): void {
    const key = cellKey(this.cell(x), this.cell(y));
    const list = this.cells.get(key);
    if (list) list.push({ x, y });
    else this.cells.set(key, [{ x, y }]);
  }
}

/** Which point of a path is nearest to (u, v). */
export function nearestOn(x: Float64Array, y: Float64Array, u: number, v: number): number {
  let best = 0;
  let near = Infinity;
  for (let i = 0; i < x.length; i++) {
    const d = (x[i] - u) ** 2 + (y[i] - v) ** 2;
    if (d < near) [near, best] = [d, i];
  }
  return best;
}

/** Wider than any board is in cells, to either side of its corner. */
const MOST_CELLS = 1 << 22;
const cellKey = (column: number, row: number): number => column * MOST_CELLS + row;
