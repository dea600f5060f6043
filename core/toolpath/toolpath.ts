import { hypot } from "../hypot.ts";

/** Kinds of moves. Arcs lie in the XY plane and may climb or sink evenly (a helix). */
export const RAPID = 0;
export const FEED = 1;
export const ARC_CW = 2;
export const ARC_CCW = 3;
/** Straight down at plunge speed. */
export const PLUNGE = 4;
/** A torch lights or goes out where it stands; `feed` holds the seconds it then waits. */
export const TORCH_ON = 5;
export const TORCH_OFF = 6;

/**
 * Moves as a struct of arrays; move i ends at x[i], y[i], z[i] and begins where the one before ended, the first at
 * (x[0], y[0], clear height). Arcs turn about (cx[i], cy[i]). Feeds in mm/min. Crosses to workers by transfer.
 */
export interface Toolpath {
  kind: Uint8Array;
  x: Float64Array;
  y: Float64Array;
  z: Float64Array;
  cx: Float64Array;
  cy: Float64Array;
  feed: Float64Array;
}

/** Height above the stock for sideways rapids, mm. */
export const CLEAR = 5;
/** Height above the stock at which rapids down end and feeding begins, mm. */
export const NEAR = 0.5;

/** Whether a kind of move is round. */
export const isArc = (kind: number): boolean => kind === ARC_CW || kind === ARC_CCW;
export const moveCount = (t: Toolpath): number => t.kind.length;

/** Whether a move goes from one place above the stock to another: only there can a program be parted. */
export const isTravel = (t: Toolpath, i: number): boolean =>
  t.kind[i] === RAPID && t.z[i] >= CLEAR && t.z[i - 1] >= CLEAR;

/** Writes moves; knows where the cutter is, lifts before it travels, and drops moves that go nowhere. */
export class ToolpathWriter {
  private kinds: number[] = [];
  private xs: number[] = [];
  private ys: number[] = [];
  private zs: number[] = [];
  private cxs: number[] = [];
  private cys: number[] = [];
  private feeds: number[] = [];
  x = NaN;
  y = NaN;
  z = CLEAR;
  /** share of the feed that following cuts run at: small holes and corners of a torch are slower */
  share = 1;
  constructor(
    readonly feedRate: number,
    readonly plungeRate: number,
    readonly rapidRate: number,
  ) {}

  private add(kind: number, x: number, y: number, z: number, cx: number, cy: number, feed: number): void {
    if (x === this.x && y === this.y && z === this.z && (kind === RAPID || kind === FEED || kind === PLUNGE)) return;
    this.kinds.push(kind);
    this.xs.push(x);
    this.ys.push(y);
    this.zs.push(z);
    this.cxs.push(cx);
    this.cys.push(cy);
    this.feeds.push(feed);
    this.x = x;
    this.y = y;
    this.z = z;
  }
  /** Up to clear height. */
  lift(): void {
    if (this.kinds.length > 0 && this.z < CLEAR) this.add(RAPID, this.x, this.y, CLEAR, 0, 0, this.rapidRate);
  }
  /** Lift, travel above (x, y), come down near the stock's top. */
  above(x: number, y: number, height = NEAR): void {
    this.lift();
    this.add(RAPID, x, y, CLEAR, 0, 0, this.rapidRate);
    this.add(RAPID, x, y, height, 0, 0, this.rapidRate);
  }
  /** Straight up or down where nothing is in the way. */
  rapidTo(z: number): void {
    this.add(RAPID, this.x, this.y, z, 0, 0, this.rapidRate);
  }
  torch(on: boolean, seconds: number): void {
    this.add(on ? TORCH_ON : TORCH_OFF, this.x, this.y, this.z, 0, 0, seconds);
  }
  plunge(z: number): void {
    this.add(PLUNGE, this.x, this.y, z, 0, 0, this.plungeRate);
  }
  /** A straight cut; sinking steeper than the plunge rate allows slows down. */
  to(x: number, y: number, z: number): void {
    this.add(FEED, x, y, z, 0, 0, this.feedFor(hypot(x - this.x, y - this.y, z - this.z), z));
  }
  /** A round cut; it sinks evenly, and slows down as a straight one does. */
  arc(ccw: boolean, cx: number, cy: number, x: number, y: number, z: number): void {
    const r = hypot(x - cx, y - cy);
    const way = r * Math.abs(turnAbout(ccw, cx, cy, this.x, this.y, x, y));
    this.add(ccw ? ARC_CCW : ARC_CW, x, y, z, cx, cy, this.feedFor(hypot(way, z - this.z), z));
  }
  /** The feed of a cut so many mm long, down or up to z. */
  private feedFor(length: number, z: number): number {
    const sink = this.z - z;
    const most = sink > 0 && length > 0 ? (this.plungeRate * length) / sink : Infinity;
    return Math.min(this.feedRate, most) * this.share;
  }
  get count(): number {
    return this.kinds.length;
  }
  /** Whether move i cuts, level at a height. */
  isLevelAt(i: number, z: number): boolean {
    const isCut = this.kinds[i] === FEED || isArc(this.kinds[i]);
    return isCut && i > 0 && this.zs[i] === z && this.zs[i - 1] === z;
  }
  /** Places along move i but for its beginning, no farther apart than this; mm. */
  placesOn(i: number, apart: number): [x: number, y: number][] {
    const [x0, y0, x, y] = [this.xs[i - 1], this.ys[i - 1], this.xs[i], this.ys[i]];
    const [cx, cy, kind] = [this.cxs[i], this.cys[i], this.kinds[i]];
    const isRound = isArc(kind);
    const turn = isRound ? turnAbout(kind === ARC_CCW, cx, cy, x0, y0, x, y) : 0;
    const length = isRound ? Math.abs(turn) * hypot(x0 - cx, y0 - cy) : hypot(x - x0, y - y0);
    const steps = Math.max(1, Math.ceil(length / apart));
    return Array.from({ length: steps }, (_, k): [number, number] => {
      const share = (k + 1) / steps;
      if (!isRound) return [x0 + share * (x - x0), y0 + share * (y - y0)];
      const [sin, cos] = [Math.sin(share * turn), Math.cos(share * turn)];
      return [cx + cos * (x0 - cx) - sin * (y0 - cy), cy + sin * (x0 - cx) + cos * (y0 - cy)];
    });
  }
  take(): Toolpath {
    this.lift();
    return {
      kind: Uint8Array.from(this.kinds),
      x: Float64Array.from(this.xs),
      y: Float64Array.from(this.ys),
      z: Float64Array.from(this.zs),
      cx: Float64Array.from(this.cxs),
      cy: Float64Array.from(this.cys),
      feed: Float64Array.from(this.feeds),
    };
  }
}

/** Lengths and bounds of a toolpath, mm. */
export interface PathFigures {
  cutLength: number;
  rapidLength: number;
  minZ: number;
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/**
 * The places at which move i reaches farthest: its end, and where an arc passes due right, away, left or near of its
 * centre.
 */
export function farthest(t: Toolpath, i: number): [number, number][] {
  const out: [number, number][] = [[t.x[i], t.y[i]]];
  if (i === 0 || (t.kind[i] !== ARC_CW && t.kind[i] !== ARC_CCW)) return out;
  const [cx, cy] = [t.cx[i], t.cy[i]];
  const r = hypot(t.x[i] - cx, t.y[i] - cy);
  const from = Math.atan2(t.y[i - 1] - cy, t.x[i - 1] - cx);
  const sweep = sweepOf(t, i);
  for (let quarter = 0; quarter < 4; quarter++) {
    const angle = (quarter * Math.PI) / 2;
    // How far on from the beginning, the way that the arc turns.
    const on = ((((angle - from) * Math.sign(sweep)) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
    if (on < Math.abs(sweep)) out.push([cx + r * Math.cos(angle), cy + r * Math.sin(angle)]);
  }
  return out;
}

/** Length of one move, arcs with their rise. */
export function moveLength(t: Toolpath, i: number): number {
  if (i === 0) return 0;
  const dz = t.z[i] - t.z[i - 1];
  if (isArc(t.kind[i])) {
    const r = hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]);
    return hypot(r * Math.abs(sweepOf(t, i)), dz);
  }
  return hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1], dz);
}

/** Signed angle of arc move i. */
export const sweepOf = (t: Toolpath, i: number): number =>
  turnAbout(t.kind[i] === ARC_CCW, t.cx[i], t.cy[i], t.x[i - 1], t.y[i - 1], t.x[i], t.y[i]);

/** Signed angle from one place to another about (cx, cy): a full turn where they are the same. */
function turnAbout(ccw: boolean, cx: number, cy: number, x0: number, y0: number, x1: number, y1: number): number {
  let a = Math.atan2(y1 - cy, x1 - cx) - Math.atan2(y0 - cy, x0 - cx);
  if (ccw) {
    if (a <= 1e-9) a += 2 * Math.PI;
  } else if (a >= -1e-9) a -= 2 * Math.PI;
  return a;
}

export function figures(t: Toolpath): PathFigures {
  const f: PathFigures = {
    cutLength: 0,
    rapidLength: 0,
    minZ: 0,
    minX: Infinity,
    minY: Infinity,
    maxX: -Infinity,
    maxY: -Infinity,
  };
  for (let i = 0; i < t.kind.length; i++) {
    const len = moveLength(t, i);
    if (t.kind[i] === RAPID) f.rapidLength += len;
    else f.cutLength += len;
    f.minZ = Math.min(f.minZ, t.z[i]);
    for (const [x, y] of farthest(t, i)) {
      f.minX = Math.min(f.minX, x);
      f.maxX = Math.max(f.maxX, x);
      f.minY = Math.min(f.minY, y);
      f.maxY = Math.max(f.maxY, y);
    }
  }
  return f;
}
