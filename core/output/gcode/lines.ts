import { type Cutter, describeCutter, sameCutter } from "../../cutters/profile.ts";
import { arcSweep } from "../../geometry/shape.ts";
import { Problem } from "../../problem.ts";
import { ARC_CW, CLEAR, isArc, RAPID, TORCH_OFF, TORCH_ON, type Toolpath } from "../../toolpath/toolpath.ts";
import { plainLetters } from "./names.ts";
import { blockLines, type Dialect, unitScale } from "./dialect.ts";
import { hypot } from "../../hypot.ts";

/** Part of a cut's moves, from one lift to another. */
export interface Piece {
  name: string;
  cutter: Cutter;
  /** the cutter's number in the whole job, from 1 */
  tool: number;
  spindle: number;
  toolpath: Toolpath;
  /** what a person does before it, in words */
  stop?: string;
  from: number;
  to: number;
}

/**
 * No word of a program has more digits before its point: coordinates of ten metres, feeds and speeds of a hundred
 * thousand have fewer.
 */
const MOST = 1e7;
/** An arc by its radius turns at most this far, rad: near a half turn its centre is not certain any more. */
const MOST_TURN = (2 * Math.PI) / 3;
/** How far lines that stand for an arc may be from it, mm. */
export const CHORD = 0.005;

interface Place {
  x: number;
  y: number;
}

/** How far an arc turns from one place to another, rad, by its sign; a whole circle where both are the same. */
const turnOf = (isClockwise: boolean, c: Place, from: Place, to: Place): number =>
  arcSweep(from.x, from.y, c.x, c.y, isClockwise ? -1 : 1, to.x, to.y);

/** In how many parts a dialect writes an arc: one with its centre, several by its radius, many as lines. */
function arcParts(d: Dialect, radius: number, turn: number): number {
  if (d.arcs && d.arcForm !== "radius") return 1;
  const most = d.arcs ? MOST_TURN : 2 * Math.acos(Math.max(0.5, 1 - CHORD / radius));
  return Math.max(1, Math.ceil(turn / most - 1e-9));
}

/** How many lines a move takes at most. */
export function linesOf(t: Toolpath, i: number, d: Dialect): number {
  if (!isArc(t.kind[i]) || i === 0) return 2;
  const c = { x: t.cx[i], y: t.cy[i] };
  const to = { x: t.x[i], y: t.y[i] };
  const turn = turnOf(t.kind[i] === ARC_CW, c, { x: t.x[i - 1], y: t.y[i - 1] }, to);
  return arcParts(d, hypot(to.x - c.x, to.y - c.y), Math.abs(turn)) + 1;
}

/**
 * A number as a program's word: so many decimals, no exponent, no minus zero.
 * @throws Problem `not-a-number` where it is none that a machine could read
 */
function digits(v: number, decimals: number): string {
  if (!(Math.abs(v) < MOST)) throw unreadable(String(v));
  const t = v.toFixed(decimals);
  const short = decimals > 0 ? t.replace(/\.?0+$/, "") : t;
  return short === "-0" ? "0" : short;
}

const unreadable = (what: string): Problem =>
  new Problem(
    "not-a-number",
    `The program would hold ${what}, which no machine can read, and is not written. Check the cut's feeds, speeds ` +
      "and sizes; if they are as they should be, this is a fault of Oaken Bit.",
  );

const ASCII: Record<string, string> = { "°": " deg", "×": "x", "·": "-", "–": "-" };

/** The lines of one program, written cut by cut. */
export class ProgramLines {
  readonly lines: string[] = [];
  private readonly k: number;
  private readonly unit: number;
  private readonly safe: string;
  private cutter: Cutter | null = null;
  private px = NaN;
  private py = NaN;
  private pz: number;
  private mode = "";
  private feed = "";

  constructor(
    private readonly d: Dialect,
    private readonly zero: { x: number; y: number; z: number },
    /** how high above the stock rapids go, mm */
    private readonly height = CLEAR,
  ) {
    this.k = unitScale(d);
    this.unit = 10 ** d.decimals;
    this.pz = this.Z(height);
    this.safe = this.text(this.pz);
  }

  /** Comments, units and modes, then the dialect's own block. */
  begin(comments: readonly [about: string, text: string][], first: Piece): void {
    for (const [about, text] of comments) this.say(about, text);
    this.lines.push(this.d.unit === "mm" ? "G21" : "G20", "G17 G90 G94 G54");
    this.block(this.d.begin, first);
  }

  end(last: Piece): void {
    if (this.d.end === undefined) this.lines.push("M5", "M30");
    else this.block(this.d.end, last);
  }

  private block(block: string | undefined, p: Piece): void {
    if (block === undefined) return;
    const values = { safe: this.safe, spindle: digits(p.spindle, 0), tool: String(p.tool) };
    this.lines.push(...blockLines(block, values));
  }

  /**
   * A comment: what it is about, then text that may come from anybody. Brackets would end it; and it never begins with
   * that text, for comments that begin with words such as MSG or LOG make some controllers print, log or open files.
   */
  say(about: string, text: string): void {
    const form = this.d.comments ?? "round";
    if (form === "none") return;
    const plain = plainLetters(text)
      .replace(/[()]/g, "")
      .replace(/[^\x20-\x7e]/g, (c) => ASCII[c] ?? "?");
    this.lines.push(form === "round" ? `(${about}: ${plain})` : `; ${about}: ${plain}`);
  }

  private round(v: number): number {
    return Math.round(v * this.unit) / this.unit;
  }
  private X(x: number): number {
    return this.round((x - this.zero.x) * this.k);
  }
  private Y(y: number): number {
    return this.round((y - this.zero.y) * this.k);
  }
  private Z(z: number): number {
    return this.round((z - this.zero.z) * this.k);
  }
  private text(v: number): string {
    return digits(v, this.d.decimals);
  }

  /** Stop, cutter change and spindle before a piece's moves. */
  private prepare(p: Piece): void {
    const { d } = this;
    const turns = p.cutter.kind !== "torch";
    const start = () => this.lines.push(`M3 S${digits(p.spindle, 0)}`, `G4 P${d.dwell}`);
    const isSame = this.cutter !== null && sameCutter(this.cutter, p.cutter);
    if (p.stop !== undefined && p.from === 0) {
      if (this.cutter) this.lines.push(`G0 Z${this.safe}`, "M5");
      this.say("stop", p.stop);
      if (this.cutter) {
        this.lines.push("M0");
        if (isSame && turns) start();
      }
    }
    if (!isSame) {
      if (this.cutter) this.lines.push("M5");
      this.say("cutter", `${p.tool}, ${describeCutter(p.cutter)}`);
      if (d.files === "all" && (d.change ?? "tool") === "tool") this.lines.push(`T${p.tool} M6`);
      else if (d.files === "all" && this.cutter) this.lines.push("M0");
      this.lines.push(`G0 Z${this.safe}`);
      if (turns) start();
      this.cutter = p.cutter;
    } else if (turns) this.lines.push(`S${digits(p.spindle, 0)}`);
    this.say("cut", p.name);
    this.px = NaN;
    this.py = NaN;
    this.pz = this.Z(this.height);
    this.mode = "";
    this.feed = "";
  }

  /** Writes the moves of a piece, and lifts at its end. */
  cut(p: Piece): void {
    this.prepare(p);
    for (let i = p.from; i < p.to; i++) this.move(p.toolpath, i);
    if (this.pz < this.Z(this.height)) this.lines.push(`G0 Z${this.safe}`);
  }

  /** Goes along places above everything with the spindle off, and waits at each where that is wanted. */
  trace(places: readonly Place[], feed: number, waits: boolean): void {
    this.lines.push("M5", `G0 Z${this.safe}`);
    places.forEach((p, i) => {
      const at = { x: this.X(p.x), y: this.Y(p.y), z: this.Z(this.height) };
      this.pz = at.z;
      this.write(i === 0 ? "G0" : "G1", at, "", feed);
      if (waits) this.lines.push("M0");
    });
  }

  private move(t: Toolpath, i: number): void {
    const { d } = this;
    if (t.kind[i] === TORCH_ON || t.kind[i] === TORCH_OFF) {
      this.lines.push(t.kind[i] === TORCH_ON ? d.torchOn : d.torchOff);
      if (t.feed[i] > 0) this.lines.push(`G4 P${this.text(this.round(t.feed[i]))}`);
      return;
    }
    const [x, y, z] = [this.X(t.x[i]), this.Y(t.y[i]), this.Z(t.z[i])];
    // An arc shorter than the last decimal's reach has no stable centre any more: it is a line.
    if (isArc(t.kind[i]) && (hypot(x - this.px, y - this.py) > 4 / this.unit || this.isCircle(t, i))) {
      const centre = { x: (t.cx[i] - this.zero.x) * this.k, y: (t.cy[i] - this.zero.y) * this.k };
      const isClockwise = t.kind[i] === ARC_CW;
      const to = { x, y, z };
      if (d.arcs && d.arcForm !== "radius") {
        const i0 = this.text(this.round(centre.x - this.px));
        const j0 = this.text(this.round(centre.y - this.py));
        this.write(isClockwise ? "G2" : "G3", to, ` I${i0} J${j0}`, t.feed[i]);
      } else this.arcInParts(isClockwise, centre, to, t.feed[i]);
    } else this.write(t.kind[i] === RAPID ? "G0" : "G1", { x, y, z }, "", t.feed[i]);
  }

  /** An arc that comes back to where it began, all the way round. */
  private isCircle(t: Toolpath, i: number): boolean {
    const radius = hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]);
    return i > 0 && t.x[i] === t.x[i - 1] && t.y[i] === t.y[i - 1] && radius * this.k > 4 / this.unit;
  }

  /** An arc by its radius, in parts that are well short of a half turn; or as lines where the dialect has no arcs. */
  private arcInParts(isClockwise: boolean, c: Place, to: Place & { z: number }, feed: number): void {
    const { d } = this;
    const from = { x: this.px, y: this.py, z: this.pz };
    const a0 = Math.atan2(from.y - c.y, from.x - c.x);
    const turn = turnOf(isClockwise, c, from, to);
    const radius = hypot(to.x - c.x, to.y - c.y);
    const parts = arcParts(d, radius / this.k, Math.abs(turn));
    for (let k = 1; k <= parts; k++) {
      const share = k / parts;
      const at =
        k === parts
          ? to
          : {
              x: this.round(c.x + radius * Math.cos(a0 + turn * share)),
              y: this.round(c.y + radius * Math.sin(a0 + turn * share)),
              z: this.round(from.z + (to.z - from.z) * share),
            };
      if (!d.arcs) {
        this.write("G1", at, "", feed);
        continue;
      }
      // Rounded end points may lie farther apart than two radii: no circle passes both then.
      const half = hypot(at.x - this.px, at.y - this.py) / 2;
      const r = Math.max(this.round(radius), Math.ceil(half * this.unit) / this.unit);
      this.write(isClockwise ? "G2" : "G3", at, ` R${this.text(r)}`, feed);
    }
  }

  private write(g: string, { x, y, z }: Place & { z: number }, centre: string, feed: number): void {
    let words = "";
    if (x !== this.px) words += ` X${this.text(x)}`;
    if (y !== this.py) words += ` Y${this.text(y)}`;
    if (z !== this.pz) words += ` Z${this.text(z)}`;
    // A whole circle names no place: it ends where it began.
    if (words === "" && centre === "") return;
    words += centre;
    if (g !== "G0") {
      const f = digits(feed * this.k, this.d.unit === "mm" ? 0 : 1);
      if (f === "0") throw unreadable(`a feed of ${feed} mm/min`);
      if (f !== this.feed) words += ` F${f}`;
      this.feed = f;
    }
    this.lines.push(g === this.mode ? words.slice(1) : g + words);
    this.mode = g;
    this.px = x;
    this.py = y;
    this.pz = z;
  }

  /** The program's text, its lines numbered where the dialect wants that. */
  get content(): string {
    const step = this.d.numbers;
    let n = 0;
    const numbered = (l: string) => (isComment(l) ? l : `N${(n += step!)} ${l}`);
    const lines = step === undefined ? this.lines : this.lines.map(numbered);
    return lines.join("\n") + "\n";
  }
}

const isComment = (line: string): boolean => line.startsWith("(") || line.startsWith(";");
