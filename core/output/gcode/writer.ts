import { type Cutter, describeCutter, sameCutter } from "../../cutters/profile.ts";
import { isTravel, type Toolpath } from "../../toolpath/toolpath.ts";
import { type Dialect, unitScale } from "./dialect.ts";
import { linesOf, type Piece, ProgramLines } from "./lines.ts";
import { readBack } from "./readback.ts";
import { checkPattern, type NameParts, programNames, USUAL_PATTERN } from "./names.ts";

/** One cut as a program needs it: moves in stock coordinates, with its cutter and spindle speed. */
export interface ProgramCut {
  name: string;
  cutter: Cutter;
  spindle: number;
  toolpath: Toolpath;
  /** what a person does before it, in words */
  stop?: string;
}

export interface ProgramHead {
  job: string;
  /** of a job with several boards: which one */
  board?: string;
  /** what the work zero is, in words */
  zero: string;
  /** revision and time, so that a stale program is known as stale */
  from: string;
  /** the stock's size, in words */
  stock?: string;
  /** the short code that the setup sheet bears too */
  code?: string;
  /** whose piece it is */
  person?: string;
  class?: string;
  /** of the day it is written, such as 2026-11-27 */
  date?: string;
  /** how files are named; see {@link USUAL_PATTERN} */
  pattern?: string;
  /** the longest name that the controller shows, letters */
  mostLetters?: number;
  /** how high above the stock rapids go, mm; clear height when not given */
  height?: number;
}

export interface Program {
  name: string;
  text: string;
  lines: number;
  /** indices of the cuts it holds */
  cuts: number[];
}

/** Lines that a program has besides its moves, at most: comments, modes, change, spindle, end; and a dialect's own. */
const AROUND = 24;
const around = (d: Dialect): number => AROUND + (d.begin?.split("\n").length ?? 0) + (d.end?.split("\n").length ?? 0);

/**
 * G-code per ISO 6983 / RS-274: units, plane, distance mode, work offset and feed mode at the top, safe height before
 * any sideways rapid, coordinates from the work zero in the dialect's unit and decimals. Where a dialect takes no more
 * than so many lines, a program goes on in the next file from a lift. Each is read back before it is given.
 * @param zero the work zero in stock coordinates, mm
 * @throws Problem `not-a-number`, `bad-pattern`, `bad-dialect`, `unfaithful-program`
 */
export function writePrograms(
  cuts: readonly ProgramCut[],
  dialect: Dialect,
  zero: { x: number; y: number; z: number },
  head: ProgramHead,
): Program[] {
  const pattern = head.pattern ?? USUAL_PATTERN;
  checkPattern(pattern);
  const files = groupsOf(cuts, dialect).flatMap((group) => filesOf(group, cuts, dialect));
  const names = programNames(
    pattern,
    files.map((pieces, k) => nameParts(pieces, k, cuts, head)),
    dialect.extension,
    head.mostLetters,
  );
  return files.map((pieces, k) => {
    const out = new ProgramLines(dialect, zero, head.height);
    out.begin(headComments(head, boundsOf(pieces), zero, dialect), pieces[0]);
    for (const p of pieces) out.cut(p);
    out.end(pieces[pieces.length - 1]);
    readBack(out.content, pieces, dialect, zero);
    return {
      name: names[k],
      text: out.content,
      lines: out.lines.length,
      cuts: [...new Set(pieces.map((p) => p.index))],
    };
  });
}

/** A piece, and which cut it is of. */
type OfCut = Piece & { index: number };

/** Cuts that come into one program, by their indices. */
function groupsOf(cuts: readonly ProgramCut[], dialect: Dialect): number[][] {
  const groups: number[][] = [];
  cuts.forEach((c, i) => {
    if (c.toolpath.kind.length === 0) return;
    const last = groups[groups.length - 1];
    // Where files are one for each cutter, a stop begins a file of its own: what is to be done happens between files.
    const goesOn =
      last && (dialect.files === "all" || (c.stop === undefined && sameCutter(cuts[last[0]].cutter, c.cutter)));
    if (goesOn) last.push(i);
    else groups.push([i]);
  });
  return groups;
}

/** The pieces of each file that a group of cuts takes: one file where its lines are few enough. */
function filesOf(group: readonly number[], cuts: readonly ProgramCut[], dialect: Dialect): OfCut[][] {
  const most = (dialect.mostLines ?? Infinity) - around(dialect);
  const files: OfCut[][] = [[]];
  let room = most;
  let tool = 0;
  let before: Cutter | null = null;
  for (const index of group) {
    const c = cuts[index];
    if (!before || !sameCutter(before, c.cutter)) tool++;
    before = c.cutter;
    for (const { from, to, lines } of stretchesOf(c.toolpath, most, dialect)) {
      const needs = lines + AROUND;
      if (needs > room && files[files.length - 1].length > 0) {
        files.push([]);
        room = most;
      }
      room -= needs;
      files[files.length - 1].push({ ...c, index, tool, from, to });
    }
  }
  return files;
}

/** Moves from one lift to another that are few enough for a file, with their lines; all at once where they are. */
function stretchesOf(t: Toolpath, most: number, dialect: Dialect): { from: number; to: number; lines: number }[] {
  const n = t.kind.length;
  if (most === Infinity) return [{ from: 0, to: n, lines: 0 }];
  /** lines before each move */
  const before = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) before[i + 1] = before[i] + linesOf(t, i, dialect);
  const out: { from: number; to: number; lines: number }[] = [];
  let from = 0;
  let lift = 0;
  const take = (to: number) => {
    out.push({ from, to, lines: before[to] - before[from] });
    from = to;
  };
  for (let i = 1; i <= n; i++) {
    if (i < n && !isTravel(t, i)) continue;
    if (before[i] - before[from] + AROUND > most && lift > from) take(lift);
    lift = i;
  }
  if (from < n) take(n);
  return out;
}

function nameParts(
  pieces: readonly OfCut[],
  k: number,
  cuts: readonly ProgramCut[],
  { job, person, class: ofClass, date }: ProgramHead,
): NameParts {
  const names = [...new Set(pieces.map((p) => cuts[p.index].name))];
  const cutters = new Set(pieces.map((p) => describeCutter(p.cutter)));
  const isAll = names.length > 1 && cutters.size > 1;
  return {
    number: String(k + 1).padStart(2, "0"),
    job,
    cut: isAll ? "all cuts" : names.join(" "),
    cutter: isAll ? "" : describeCutter(pieces[0].cutter),
    person,
    class: ofClass,
    date,
  };
}

/** What a program says of itself before its first word. */
function headComments(
  head: ProgramHead,
  { x0, y0, x1, y1 }: Box,
  zero: { x: number; y: number },
  dialect: Dialect,
): [string, string][] {
  const whose = [head.person, head.class].filter(Boolean).join(", ");
  const scale = unitScale(dialect);
  const say = (v: number) => (v * scale).toFixed(dialect.unit === "mm" ? 1 : 2);
  return [
    ["job", head.board ? `${head.job}, ${head.board}` : head.job],
    ["from", `${head.from}; work zero ${head.zero}`],
    ...(head.code ? [["code", head.code] as [string, string]] : []),
    ...(whose ? [["for", whose] as [string, string]] : []),
    ...(head.stock ? [["stock", head.stock] as [string, string]] : []),
    [
      "bounds",
      `X ${say(x0 - zero.x)} to ${say(x1 - zero.x)}, Y ${say(y0 - zero.y)} to ${say(y1 - zero.y)} ${dialect.unit}`,
    ],
  ];
}

interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

function boundsOf(pieces: readonly Piece[]): Box {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { toolpath: t, from, to } of pieces)
    for (let i = from; i < to; i++) {
      if (Number.isNaN(t.x[i]) || Number.isNaN(t.y[i])) continue;
      [x0, x1] = [Math.min(x0, t.x[i]), Math.max(x1, t.x[i])];
      [y0, y1] = [Math.min(y0, t.y[i]), Math.max(y1, t.y[i])];
    }
  return { x0, y0, x1, y1 };
}

/** How fast the frame is traced, mm/min: one can follow it with the eye. */
const FRAME_FEED = 1500;

/**
 * A program that goes round the bounds of all cuts above the stock with the spindle off, so that one sees that they lie
 * where they should, and clear of what holds the stock.
 * @param stops whether it waits at every corner
 */
export function framingProgram(
  cuts: readonly ProgramCut[],
  dialect: Dialect,
  zero: { x: number; y: number; z: number },
  head: ProgramHead,
  stops: boolean,
): Program {
  const pieces = cuts.map((c): Piece => ({ ...c, tool: 1, from: 0, to: c.toolpath.kind.length }));
  const box = boundsOf(pieces);
  const out = new ProgramLines(dialect, zero, head.height);
  out.begin([...headComments(head, box, zero, dialect), ["frame", "spindle off; above the stock"]], pieces[0]);
  const corners = [
    { x: box.x0, y: box.y0 },
    { x: box.x1, y: box.y0 },
    { x: box.x1, y: box.y1 },
    { x: box.x0, y: box.y1 },
  ];
  out.trace([...corners, corners[0]], FRAME_FEED, stops);
  out.end(pieces[0]);
  const parts = [{ number: "00", job: head.job, cut: "frame", cutter: "", person: head.person, class: head.class }];
  const [name] = programNames(head.pattern ?? USUAL_PATTERN, parts, dialect.extension, head.mostLetters);
  return { name, text: out.content, lines: out.lines.length, cuts: [] };
}
