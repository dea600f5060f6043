import { Problem } from "../../problem.ts";
import { MM_PER_INCH } from "../../units.ts";
import { ARC_CCW, ARC_CW, FEED, RAPID, TORCH_OFF, TORCH_ON, type Toolpath } from "../../toolpath/toolpath.ts";

/** What a program does, in mm from its own zero. Straight-down feeds read as feeds: G-code does not tell them apart. */
export interface ReadProgram {
  toolpath: Toolpath;
  /** tool number in force at each move; 0 before any change */
  tool: Int32Array;
  spindle: number[];
  unit: "mm" | "in";
  dwell: number;
}

/** Words this reader knows how to pass over: plane, modes and offsets that change no coordinate here. */
const PASSED = new Set([17, 40, 49, 54, 55, 56, 57, 58, 59, 61, 64, 80, 94]);

/**
 * Reads G-code independently of the writer: words in any order, modal motion, absolute or incremental distances,
 * G2/G3 by centre or radius, comments in brackets and after semicolons.
 * @param torch reads M3 and M5 as a torch lit and put out, the dwell after M3 as its wait
 * @throws Problem `bad-program` with the line number
 */
export function readProgram(text: string, torch = false): ReadProgram {
  const kind: number[] = [];
  const xs: number[] = [];
  const ys: number[] = [];
  const zs: number[] = [];
  const cxs: number[] = [];
  const cys: number[] = [];
  const feeds: number[] = [];
  const tools: number[] = [];
  const spindle: number[] = [];
  let scale = 1;
  let unit: "mm" | "in" = "mm";
  let absolute = true;
  let motion = 0;
  let x = 0;
  let y = 0;
  let z = 0;
  let feed = 0;
  let tool = 0;
  let nextTool = 0;
  let dwell = 0;
  const add = (k: number, tx: number, ty: number, tz: number, cx: number, cy: number, f: number) => {
    kind.push(k);
    xs.push(tx);
    ys.push(ty);
    zs.push(tz);
    cxs.push(cx);
    cys.push(cy);
    feeds.push(f);
    tools.push(tool);
  };
  const event = (k: number) => add(k, x, y, z, 0, 0, 0);
  const lines = text.split(/\r?\n/);
  for (let n = 0; n < lines.length; n++) {
    const bad = (what: string) => new Problem("bad-program", `Line ${n + 1} of the program: ${what}`);
    const line = lines[n].replace(/\([^)]*\)/g, " ").replace(/;.*/, "").replace(/^\s*%.*/, "").trim();
    if (!line || line.startsWith("/")) continue;
    const words: [string, number][] = [];
    const pattern = /([A-Za-z])\s*([-+]?(?:\d+\.?\d*|\.\d+))|(\S)/g;
    for (let m = pattern.exec(line); m; m = pattern.exec(line)) {
      if (m[3]) throw bad(`"${line}" cannot be read at "${m[3]}".`);
      words.push([m[1].toUpperCase(), Number(m[2])]);
    }
    let moves = false;
    let isDwell = false;
    const v: Record<string, number> = {};
    for (const [letter, value] of words) {
      if (letter === "G") {
        if (value === 20 || value === 21) {
          unit = value === 20 ? "in" : "mm";
          scale = value === 20 ? MM_PER_INCH : 1;
        } else if (value === 90 || value === 91) absolute = value === 90;
        else if (value >= 0 && value <= 3 && Number.isInteger(value)) motion = value;
        else if (value === 4) isDwell = true;
        else if (value === 28 || value === 53) throw bad(`G${value} moves in machine coordinates, which cannot be checked against the stock.`);
        else if (!PASSED.has(value)) throw bad(`G${value} is not known here.`);
      } else if (letter === "M") {
        if (value === 6) tool = nextTool;
        if (torch && (value === 3 || value === 5)) event(value === 3 ? TORCH_ON : TORCH_OFF);
      } else if (letter === "T") nextTool = value;
      else if (letter === "S") spindle.push(value);
      else if (letter === "F") feed = value * scale;
      else if ("XYZIJR".includes(letter)) {
        v[letter] = value * scale;
        if ("XYZ".includes(letter)) moves = true;
      } else if (letter === "P") v.P = value;
      else if (letter !== "N") throw bad(`the word ${letter}${value} is not known here.`);
    }
    if (isDwell) {
      dwell += v.P ?? 0;
      if (kind[kind.length - 1] === TORCH_ON || kind[kind.length - 1] === TORCH_OFF) feeds[feeds.length - 1] = v.P ?? 0;
      continue;
    }
    if (!moves && v.I === undefined && v.J === undefined) continue;
    const tx = v.X === undefined ? x : absolute ? v.X : x + v.X;
    const ty = v.Y === undefined ? y : absolute ? v.Y : y + v.Y;
    const tz = v.Z === undefined ? z : absolute ? v.Z : z + v.Z;
    let cx = 0;
    let cy = 0;
    if (motion >= 2) {
      if (v.R !== undefined) [cx, cy] = centreFromRadius(x, y, tx, ty, v.R, motion === 2, bad);
      else {
        cx = x + (v.I ?? 0);
        cy = y + (v.J ?? 0);
      }
      const r0 = Math.hypot(x - cx, y - cy);
      const r1 = Math.hypot(tx - cx, ty - cy);
      // Common controllers refuse arcs whose ends differ by more than 0.005 mm and by more than 0.1 % of the radius.
      if (Math.abs(r0 - r1) > 0.005 && Math.abs(r0 - r1) > 0.001 * r0) throw bad(`the arc's ends lie ${r0.toFixed(4)} and ${r1.toFixed(4)} mm from its centre.`);
    } else if (motion === 1 && feed <= 0) throw bad("a cutting move without a feed.");
    add(motion === 0 ? RAPID : motion === 1 ? FEED : motion === 2 ? ARC_CW : ARC_CCW, tx, ty, tz, cx, cy, feed);
    x = tx;
    y = ty;
    z = tz;
  }
  return {
    toolpath: { kind: Uint8Array.from(kind), x: Float64Array.from(xs), y: Float64Array.from(ys), z: Float64Array.from(zs), cx: Float64Array.from(cxs), cy: Float64Array.from(cys), feed: Float64Array.from(feeds) },
    tool: Int32Array.from(tools),
    spindle,
    unit,
    dwell,
  };
}

function centreFromRadius(x0: number, y0: number, x1: number, y1: number, r: number, clockwise: boolean, bad: (w: string) => Problem): [number, number] {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const chord = Math.hypot(dx, dy);
  if (chord === 0 || chord / 2 > Math.abs(r) * (1 + 1e-6)) throw bad("the arc's radius is too small for its ends.");
  const h = Math.sqrt(Math.max(0, r * r - (chord * chord) / 4));
  // A positive radius is the arc under half a turn; clockwise its centre lies right of the chord.
  const side = (clockwise ? -1 : 1) * Math.sign(r);
  return [x0 + dx / 2 - (side * h * dy) / chord, y0 + dy / 2 + (side * h * dx) / chord];
}
