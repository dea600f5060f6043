import { MM_PER_INCH } from "../../units.ts";
import { ARC_CCW, ARC_CW, FEED, RAPID, TORCH_OFF, TORCH_ON, type Toolpath } from "../../toolpath/toolpath.ts";
import { type Cycle, CYCLES, strokesOf } from "./canned.ts";
import { PASSED, REFUSED, REMARKED } from "./codes.ts";
import { badLine, type Block, blocksOf } from "./words.ts";
import { hypot } from "../../hypot.ts";

/** What a program does, in mm from its own zero. Straight-down feeds read as feeds: G-code does not tell them apart. */
export interface ReadProgram {
  toolpath: Toolpath;
  /** tool number in force at each move; 0 before any change */
  tool: Int32Array;
  /** 1 for moves with the spindle running, or the torch lit */
  spinning: Uint8Array;
  spindle: number[];
  unit: "mm" | "in";
  dwell: number;
  /** what is in the program and cannot be judged from it, one sentence each */
  remarks: string[];
}

const FIRST_OFFSET = 54;
const LAST_OFFSET = 59.9;
/**
 * Sent to its own home the machine is taken to stand this far above the program's zero, mm: high enough to be over
 * everything.
 */
const HOME_ABOVE = 100;

/**
 * Reads G-code independently of the writer, as RS-274 defines it (T. Kramer, F. Proctor, E. Messina, "The NIST RS274NGC
 * Interpreter", 2000): the words of a line act in the standard's order wherever they stand in it; modal motion,
 * absolute or incremental distances, G2/G3 by centre or radius, drilling cycles, shifted zeros; ends at M2, M30 or the
 * second percent sign.
 * @param torch reads M3 and M5 as a torch lit and put out, the dwell after M3 as its wait
 * @throws Problem `bad-program` with the line number
 */
export function readProgram(text: string, torch = false): ReadProgram {
  const reader = new Reader(torch);
  const blocks = blocksOf(text);
  const end = blocks.findIndex((b) => reader.run(b));
  const after = end < 0 ? 0 : blocks.length - 1 - end;
  if (after > 0)
    reader.remark("after", `has ${after} ${after === 1 ? "line" : "lines"} after its end, which no machine runs.`);
  return reader.take();
}

interface Place {
  x: number;
  y: number;
}
interface Axes extends Place {
  z: number;
}

class Reader {
  private kind: number[] = [];
  private at: Axes[] = [];
  private centre: Place[] = [];
  private feeds: number[] = [];
  private tools: number[] = [];
  private spins: number[] = [];
  private speeds: number[] = [];
  private remarks = new Map<string, string>();
  private scale = 1;
  private unit: "mm" | "in" = "mm";
  private absolute = true;
  private motion = 0;
  private now: Axes = { x: 0, y: 0, z: 0 };
  /** added to what the program says, by G92 */
  private shift: Axes = { x: 0, y: 0, z: 0 };
  private feed = 0;
  private tool = 0;
  private nextTool = 0;
  private running = false;
  private dwell = 0;
  private cycle: Cycle = { code: 0, retract: 0, bottom: 0, peck: 0, dwell: 0 };
  /** cycles return to where they began, not to their own plane */
  private toInitial = true;

  constructor(private readonly torch: boolean) {}

  remark(key: string, what: string): void {
    if (!this.remarks.has(key)) this.remarks.set(key, `The program ${what}`);
  }

  private add(kind: number, to: Axes, cx: number, cy: number, feed: number): void {
    this.kind.push(kind);
    this.at.push({ ...to });
    this.centre.push({ x: cx, y: cy });
    this.feeds.push(feed);
    this.tools.push(this.tool);
    this.spins.push(this.running ? 1 : 0);
    this.now = { ...to };
  }

  /** Runs one line. @returns whether the program ends with it */
  run(block: Block): boolean {
    const { line } = block;
    if (block.optional)
      this.remark("optional", "has lines that a switch of the machine leaves out (/): they are taken to be run.");
    const g = block.words.filter((w) => w.letter === "G").map((w) => w.value);
    const m = block.words.filter((w) => w.letter === "M").map((w) => w.value);
    for (const code of g)
      if (code === 20 || code === 21) {
        this.unit = code === 20 ? "in" : "mm";
        this.scale = code === 20 ? MM_PER_INCH : 1;
      }
    const v: Record<string, number> = {};
    for (const { letter, value } of block.words) {
      if ("GMNO".includes(letter)) continue;
      if (!"XYZIJKRFSTPQLHDABC".includes(letter)) throw badLine(line, `the word ${letter}${value} is not known here.`);
      if ("ABC".includes(letter)) this.remark("turning", "moves axes that turn (A, B, C), which are not judged.");
      v[letter] = "XYZIJRFQ".includes(letter) ? value * this.scale : value;
    }
    if (v.F !== undefined) this.feed = v.F;
    if (v.S !== undefined) this.speeds.push(v.S);
    if (v.T !== undefined) this.nextTool = v.T;
    if (m.includes(6)) this.tool = this.nextTool;
    for (const code of m) this.miscellaneous(code);
    if (g.includes(4)) {
      this.wait(v.P ?? 0);
      return ends(m);
    }
    let machineMove = false;
    let shifted = false;
    for (const code of g) {
      if (code === 53 || code === 28 || code === 30) machineMove = true;
      else if (code === 92) shifted = true;
      else this.setMode(code, line);
    }
    if (shifted) this.shiftZero(v);
    else if (machineMove) this.toMachine(g, v);
    else if (!g.includes(10)) this.move(v, line);
    return ends(m);
  }

  private miscellaneous(code: number): void {
    if (code === 3 || code === 4) this.running = true;
    if (code === 5 || code === 2 || code === 30) this.running = false;
    if (this.torch && (code === 3 || code === 5)) this.add(code === 3 ? TORCH_ON : TORCH_OFF, this.now, 0, 0, 0);
    if (code === 97 || code === 98) this.remark("call", `calls another program (M${code}), which is not read.`);
  }

  private wait(seconds: number): void {
    this.dwell += seconds;
    const last = this.kind.length - 1;
    if (this.kind[last] === TORCH_ON || this.kind[last] === TORCH_OFF) this.feeds[last] = seconds;
  }

  private setMode(code: number, line: number): void {
    if (code === 20 || code === 21) return;
    if (code === 90 || code === 91) this.absolute = code === 90;
    else if (code === 98 || code === 99) this.toInitial = code === 98;
    else if (code === 80) this.motion = -1;
    else if (code >= 0 && code <= 3 && Number.isInteger(code)) this.motion = code;
    else if (CYCLES.has(code)) {
      if (this.motion !== code) this.cycle = { code, retract: NaN, bottom: NaN, peck: 0, dwell: 0 };
      this.motion = code;
    } else if (code === 92.1 || code === 92.2) this.shift = { x: 0, y: 0, z: 0 };
    else if (code >= FIRST_OFFSET && code <= LAST_OFFSET) {
      if (code !== FIRST_OFFSET)
        this.remark(`offset ${code}`, `works from the offset G${code}: it is taken to be the same zero as any other.`);
    } else if (REMARKED[code]) this.remark(`G${code}`, REMARKED[code]);
    else if (REFUSED[code]) throw badLine(line, REFUSED[code]);
    else if (!PASSED.has(code)) throw badLine(line, `G${code} is not known here.`);
  }

  /** Where the words of a line send the machine. */
  private target(v: Record<string, number>): Axes {
    const one = (word: number | undefined, axis: keyof Axes): number => {
      if (word === undefined) return this.now[axis];
      return this.absolute ? word + this.shift[axis] : this.now[axis] + word;
    };
    return { x: one(v.X, "x"), y: one(v.Y, "y"), z: one(v.Z, "z") };
  }

  /** G92: here is what the words say. */
  private shiftZero(v: Record<string, number>): void {
    const words: [number | undefined, keyof Axes][] = [
      [v.X, "x"],
      [v.Y, "y"],
      [v.Z, "z"],
    ];
    for (const [word, axis] of words) if (word !== undefined) this.shift[axis] = this.now[axis] - word;
  }

  /**
   * G28, G30 and G53: by way of a place of the program, where one is given, to one of the machine's own, which is not
   * known.
   */
  private toMachine(g: readonly number[], v: Record<string, number>): void {
    const own = g.includes(53);
    this.remark(
      "machine",
      `moves to places of the machine's own (G${own ? 53 : g.includes(28) ? 28 : 30}): how it gets there is not ` +
        "judged; the cutter is taken to be above everything then.",
    );
    for (const code of g) if (code === 90 || code === 91) this.absolute = code === 90;
    const none = v.X === undefined && v.Y === undefined && v.Z === undefined;
    if (!own && !none) this.add(RAPID, this.target(v), 0, 0, this.feed);
    if (none || v.Z !== undefined)
      this.add(RAPID, { ...this.now, z: Math.max(this.now.z, HOME_ABOVE) }, 0, 0, this.feed);
  }

  private move(v: Record<string, number>, line: number): void {
    const moves = v.X !== undefined || v.Y !== undefined || v.Z !== undefined;
    const arc = this.motion === 2 || this.motion === 3;
    if (CYCLES.has(this.motion)) {
      if (moves) this.drill(v, line);
      return;
    }
    if (!moves && !(arc && (v.I !== undefined || v.J !== undefined))) return;
    if (this.motion < 0) throw badLine(line, "a place to go to, but no motion is in force after G80.");
    const to = this.target(v);
    if (this.motion > 0 && this.feed <= 0) throw badLine(line, "a cutting move without a feed.");
    const { x: cx, y: cy } = arc ? this.arcCentre(v, to, line) : { x: 0, y: 0 };
    this.add([RAPID, FEED, ARC_CW, ARC_CCW][this.motion], to, cx, cy, this.feed);
  }

  private arcCentre(v: Record<string, number>, to: Axes, line: number): Place {
    const { x, y } = this.now;
    if (v.R !== undefined) return centreFromRadius(this.now, to, v.R, this.motion === 2, line);
    const [cx, cy] = [x + (v.I ?? 0), y + (v.J ?? 0)];
    const r0 = hypot(x - cx, y - cy);
    const r1 = hypot(to.x - cx, to.y - cy);
    // Common controllers refuse arcs whose ends differ by more than 0.005 mm and by more than 0.1 % of the radius.
    if (Math.abs(r0 - r1) > 0.005 && Math.abs(r0 - r1) > 0.001 * r0)
      throw badLine(line, `the arc's ends lie ${r0.toFixed(4)} and ${r1.toFixed(4)} mm from its centre.`);
    return { x: cx, y: cy };
  }

  /** A drilling cycle at the place that a line names, as often as it says. */
  private drill(v: Record<string, number>, line: number): void {
    const c = this.cycle;
    const initial = this.now.z;
    if (v.R !== undefined) c.retract = this.absolute ? v.R + this.shift.z : initial + v.R;
    if (v.Z !== undefined) c.bottom = this.absolute ? v.Z + this.shift.z : c.retract + v.Z;
    if (v.Q !== undefined) c.peck = v.Q;
    if (v.P !== undefined) c.dwell = v.P;
    if (Number.isNaN(c.retract) || Number.isNaN(c.bottom))
      throw badLine(line, `the drilling cycle G${c.code} needs a depth (Z) and a plane to begin from (R).`);
    if (this.feed <= 0) throw badLine(line, "a drilling cycle without a feed.");
    const times = this.absolute ? 1 : Math.max(1, Math.round(v.L ?? v.K ?? 1));
    const { Z: _depth, ...place } = v;
    for (let k = 0; k < times; k++) {
      if (this.now.z < c.retract) this.add(RAPID, { ...this.now, z: c.retract }, 0, 0, this.feed);
      const { x, y } = this.target(place);
      this.add(RAPID, { x, y, z: this.now.z }, 0, 0, this.feed);
      this.add(RAPID, { x, y, z: c.retract }, 0, 0, this.feed);
      for (const s of strokesOf(c)) this.add(s.rapid ? RAPID : FEED, { x, y, z: s.z }, 0, 0, this.feed);
      this.dwell += c.code === 82 || c.code === 89 ? c.dwell : 0;
      if (this.toInitial && initial > c.retract) this.add(RAPID, { x, y, z: initial }, 0, 0, this.feed);
    }
  }

  take(): ReadProgram {
    const of = (axis: keyof Axes): Float64Array => Float64Array.from(this.at, (p) => p[axis]);
    return {
      toolpath: {
        kind: Uint8Array.from(this.kind),
        x: of("x"),
        y: of("y"),
        z: of("z"),
        cx: Float64Array.from(this.centre, (c) => c.x),
        cy: Float64Array.from(this.centre, (c) => c.y),
        feed: Float64Array.from(this.feeds),
      },
      tool: Int32Array.from(this.tools),
      spinning: Uint8Array.from(this.spins),
      spindle: this.speeds,
      unit: this.unit,
      dwell: this.dwell,
      remarks: [...this.remarks.values()],
    };
  }
}

const ends = (m: readonly number[]): boolean => m.includes(2) || m.includes(30) || m.includes(99);

/** The centre of an arc given by its radius: under half a turn where that is positive, over it where negative. */
function centreFromRadius(from: Place, to: Place, r: number, clockwise: boolean, line: number): Place {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const chord = hypot(dx, dy);
  if (chord === 0 || chord / 2 > Math.abs(r) * (1 + 1e-6))
    throw badLine(line, "the arc's radius is too small for its ends.");
  const h = Math.sqrt(Math.max(0, r * r - (chord * chord) / 4));
  // Clockwise the centre lies right of the chord, for the shorter arc.
  const side = (clockwise ? -1 : 1) * Math.sign(r);
  return { x: from.x + dx / 2 - (side * h * dy) / chord, y: from.y + dy / 2 + (side * h * dx) / chord };
}
