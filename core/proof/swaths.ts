import { isFlat, type Profile } from "../cutters/profile.ts";
import { arcSteps } from "../geometry/shape.ts";
import { cutSloping } from "./line.ts";
import { cutPoint } from "./point.ts";
import { cutAbreast, Swath } from "./swath.ts";
import { cutAbreastRound, cutJoint, RoundMove } from "./round.ts";
import type { Surface } from "./surface.ts";
import { hypot } from "../hypot.ts";

/**
 * A slight bend may take a flat cutter's swaths this far past their true rim, in cells: far below what a cell can
 * show.
 */
const MITRE = 0.05;

/**
 * Steps in which an arc of this sweep is followed by chords, so that they and a flat cutter's mitres keep within {@link
 * MITRE}.
 */
export function chordSteps(arcRadius: number, angle: number, cutterRadius: number, cell: number): number {
  // The bend whose mitre just keeps within, less a little, so that an arc that meets another at a slight bend keeps
  // too.
  const bend = 0.95 * 2 * Math.acos(1 / (1 + (MITRE * cell) / cutterRadius));
  return Math.max(arcSteps(arcRadius, angle, MITRE * cell), Math.ceil(Math.abs(angle) / bend));
}

/**
 * Straight moves that follow one another. Where two swaths meet, cells under the bend lie abreast of one or the other,
 * or in the wedge between: the cutter's whole disc is swept only where a row begins and ends. Without this, moves
 * much shorter than the cutter is wide would pass over every cell dozens of times.
 */
export class Swaths {
  private last: Swath | RoundMove | null = null;
  private spare: Swath | RoundMove;
  private other: Swath | RoundMove;
  private level: boolean;
  /** the cutter's whole disc, or deeper, was swept where the next move begins */
  private stood = false;
  constructor(
    private s: Surface,
    private p: Profile,
    private cut: number,
  ) {
    this.level = isFlat(p);
    const isRound = p.ball > 0;
    this.spare = isRound ? new RoundMove() : new Swath();
    this.other = isRound ? new RoundMove() : new Swath();
  }

  /** A move that begins where the one before it ended, unless {@link end} came between. */
  line(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): void {
    const { s, p, cut, last } = this;
    const next = this.spare;
    if (z0 >= 0 && z1 >= 0) return this.end();
    if (!next.set(p, x0, y0, z0, x1, y1, z1)) {
      this.withEnds();
      // Straight down or up: the lower end's disc.
      if (hypot(x1 - x0, y1 - y0) < 1e-9) cutPoint(s, p, cut, x0, y0, Math.min(z0, z1));
      else cutSloping(s, p, cut, x0, y0, z0, x1, y1, z1);
      return;
    }
    if (last) {
      this.joint(last, next);
      this.abreast(last);
    } else if (!this.stood) cutPoint(s, p, cut, x0, y0, z0);
    this.stood = false;
    this.spare = this.other;
    this.other = next;
    this.last = next;
  }

  private joint(from: Swath | RoundMove, to: Swath | RoundMove): void {
    const { s, p, cut } = this;
    if (from instanceof RoundMove && to instanceof RoundMove) cutJoint(s, p, cut, to.x0, to.y0, to.z0, from, to);
    // One cutter's moves are all of one kind.
    if (!(from instanceof Swath && to instanceof Swath)) return;
    if (this.level) this.bend(from, to);
    else cutPoint(s, p, cut, to.x0, to.y0, to.z0, from, to);
  }

  private abreast(move: Swath | RoundMove): void {
    if (move instanceof RoundMove) cutAbreastRound(this.s, this.cut, move);
    else cutAbreast(this.s, this.p, this.cut, move);
  }

  /**
   * Between two swaths of a flat cutter. Its disc is abreast of a sinking swath's end nowhere and of its start
   * everywhere; of a rising one's the other way round.
   */
  private bend(from: Swath, to: Swath): void {
    if (from.slope > 0 || to.slope < 0) return;
    if (from.slope === 0 && to.slope === 0 && mitred(from, to, this.p.radius, this.s.cell)) return;
    cutPoint(this.s, this.p, this.cut, to.x0, to.y0, to.z0, from.slope === 0 ? from : null, to.slope === 0 ? to : null);
  }

  /** The next move, swept by others or here, takes the cutter's disc at both of its ends along. */
  withEnds(): void {
    if (this.last) this.abreast(this.last);
    this.last = null;
    this.stood = true;
  }

  /** Nothing follows: the row's last swath and the cutter standing at its end. */
  end(): void {
    const { last } = this;
    this.withEnds();
    if (last) cutPoint(this.s, this.p, this.cut, last.x1, last.y1, last.z1);
    this.stood = false;
  }
}

/** Lets two swaths of a flat cutter meet in a mitre where that hardly leaves its disc. */
function mitred(a: Swath, b: Swath, radius: number, cell: number): boolean {
  const cos = a.ux * b.ux + a.uy * b.uy;
  if (cos < 0.5) return false;
  const sin = Math.abs(a.ux * b.uy - a.uy * b.ux);
  const tanHalf = sin / (1 + cos);
  if (radius * (Math.sqrt(1 + tanHalf * tanHalf) - 1) > MITRE * cell) return false;
  a.after = b.before = radius * tanHalf;
  return true;
}

/** One straight move by itself. */
export function sweepLine(
  s: Surface,
  p: Profile,
  cut: number,
  x0: number,
  y0: number,
  z0: number,
  x1: number,
  y1: number,
  z1: number,
): void {
  const c = new Swaths(s, p, cut);
  c.line(x0, y0, z0, x1, y1, z1);
  c.end();
}
