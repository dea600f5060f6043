import { type Cutter, describeCutter, sameCutter } from "../../cutters/profile.ts";
import { Problem } from "../../problem.ts";
import { ARC_CCW, ARC_CW, CLEAR, RAPID, TORCH_OFF, TORCH_ON, type Toolpath } from "../../toolpath/toolpath.ts";
import { type Dialect, unitScale } from "./dialect.ts";

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
}

export interface Program {
  name: string;
  text: string;
  lines: number;
  /** indices of the cuts it holds */
  cuts: number[];
}

/**
 * G-code per ISO 6983 / RS-274: units, plane, distance mode, work offset and feed mode at the top, safe height before
 * any sideways rapid, coordinates from the work zero in the dialect's unit and decimals.
 * @param zero the work zero in stock coordinates, mm
 */
export function writePrograms(
  cuts: readonly ProgramCut[],
  dialect: Dialect,
  zero: { x: number; y: number; z: number },
  head: ProgramHead,
): Program[] {
  const groups: number[][] = [];
  cuts.forEach((c, i) => {
    if (c.toolpath.kind.length === 0) return;
    const last = groups[groups.length - 1];
    // Where files are one for each cutter, a stop begins a file of its own: what is to be done happens between files.
    if (
      last &&
      (dialect.files === "all" || c.stop === undefined) &&
      (dialect.files === "all" || sameCutter(cuts[last[0]].cutter, c.cutter))
    )
      last.push(i);
    else groups.push([i]);
  });
  return groups.map((group, k) => {
    const first = cuts[group[0]];
    const what =
      dialect.files === "all" && groups[0].length > 1
        ? "all cuts"
        : `${group.map((i) => cuts[i].name).join(" ")} ${describeCutter(first.cutter)}`;
    const name = `${String(k + 1).padStart(2, "0")}-${fileName(`${head.job} ${what}`)}.${dialect.extension}`;
    const lines = programLines(
      group.map((i) => cuts[i]),
      dialect,
      zero,
      head,
    );
    return { name, text: lines.join("\n") + "\n", lines: lines.length, cuts: group };
  });
}

/** A file name that every controller reads: lower-case letters, digits and dashes. */
export function fileName(text: string): string {
  return (
    text
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[̀-ͯ°]/g, "")
      .replace(/[^a-z0-9.]+/g, "-")
      .replace(/^[-.]+|[-.]+$/g, "")
      .slice(0, 60) || "job"
  );
}

const ASCII: Record<string, string> = { "°": " deg", "×": "x", "·": "-", "–": "-" };
/**
 * A comment: what it is about, then text that may come from anybody. Brackets would end it; and it never begins with
 * that text, for comments that begin with words such as MSG or LOG make some controllers print, log or open files.
 */
const comment = (about: "job" | "cut" | "cutter" | "stop" | "from", text: string): string =>
  `(${about}: ${text.replace(/[()]/g, "").replace(/[^\x20-\x7e]/g, (c) => ASCII[c] ?? "?")})`;

/**
 * No word of a program has more digits before its point: coordinates of ten metres, feeds and speeds of a hundred
 * thousand have fewer.
 */
const MOST = 1e7;

/**
 * A number as a program's word: so many decimals, no exponent, no minus zero.
 * @throws Problem `not-a-number` where it is none that a machine could read
 */
function digits(v: number, decimals: number): string {
  if (!(Math.abs(v) < MOST))
    throw new Problem(
      "not-a-number",
      `The program would hold ${v}, which no machine can read, and is not written. Check the cut's feeds, speeds and ` +
        "sizes; if they are as they should be, this is a fault of Oaken Bit.",
    );
  const t = v.toFixed(decimals);
  const short = decimals > 0 ? t.replace(/\.?0+$/, "") : t;
  return short === "-0" ? "0" : short;
}

function programLines(
  cuts: readonly ProgramCut[],
  d: Dialect,
  zero: { x: number; y: number; z: number },
  head: ProgramHead,
): string[] {
  const k = unitScale(d);
  const unit = 10 ** d.decimals;
  const round = (v: number) => Math.round(v * unit) / unit;
  const text = (v: number) => digits(v, d.decimals);
  const X = (x: number) => round((x - zero.x) * k);
  const Y = (y: number) => round((y - zero.y) * k);
  const Z = (z: number) => round((z - zero.z) * k);
  const out = [
    comment("job", head.board ? `${head.job}, ${head.board}` : head.job),
    comment("from", `${head.from}; work zero ${head.zero}`),
    d.unit === "mm" ? "G21" : "G20",
    "G17 G90 G94 G54",
  ];
  let cutter: Cutter | null = null;
  let tool = 0;
  const beam = cuts[0].cutter.kind === "torch";
  for (const c of cuts) {
    if (c.stop !== undefined) {
      if (cutter) out.push(`G0 Z${text(Z(CLEAR))}`, "M5");
      out.push(comment("stop", c.stop));
      if (cutter) {
        out.push("M0");
        if (sameCutter(cutter, c.cutter)) out.push(`M3 S${digits(c.spindle, 0)}`, `G4 P${d.dwell}`);
      }
    }
    if (!cutter || !sameCutter(cutter, c.cutter)) {
      if (cutter) out.push("M5");
      tool++;
      out.push(comment("cutter", `${tool}, ${describeCutter(c.cutter)}`));
      if (d.files === "all") out.push(`T${tool} M6`);
      out.push(`G0 Z${text(Z(CLEAR))}`);
      if (c.cutter.kind !== "torch") out.push(`M3 S${digits(c.spindle, 0)}`, `G4 P${d.dwell}`);
      cutter = c.cutter;
    } else if (!beam) out.push(`S${digits(c.spindle, 0)}`);
    out.push(comment("cut", c.name));
    const t = c.toolpath;
    let px = NaN;
    let py = NaN;
    let pz = Z(CLEAR);
    let mode = "";
    let feed = "";
    for (let i = 0; i < t.kind.length; i++) {
      if (t.kind[i] === TORCH_ON || t.kind[i] === TORCH_OFF) {
        out.push(t.kind[i] === TORCH_ON ? d.torchOn : d.torchOff);
        if (t.feed[i] > 0) out.push(`G4 P${text(round(t.feed[i]))}`);
        continue;
      }
      const x = X(t.x[i]);
      const y = Y(t.y[i]);
      const z = Z(t.z[i]);
      const isArc = t.kind[i] === ARC_CW || t.kind[i] === ARC_CCW;
      let words = "";
      if (x !== px) words += ` X${text(x)}`;
      if (y !== py) words += ` Y${text(y)}`;
      if (z !== pz) words += ` Z${text(z)}`;
      if (words === "") continue;
      let g = t.kind[i] === RAPID ? "G0" : "G1";
      // An arc shorter than the last decimal's reach has no stable centre any more: it is a line.
      if (isArc && d.arcs && Math.hypot(x - px, y - py) > 4 / unit) {
        g = t.kind[i] === ARC_CW ? "G2" : "G3";
        words += ` I${text(round((t.cx[i] - zero.x) * k - px))} J${text(round((t.cy[i] - zero.y) * k - py))}`;
      }
      const f = digits(t.feed[i] * k, d.unit === "mm" ? 0 : 1);
      if (g !== "G0" && f !== feed) {
        words += ` F${f}`;
        feed = f;
      }
      out.push(g === mode ? words.slice(1) : g + words);
      mode = g;
      px = x;
      py = y;
      pz = z;
    }
    if (pz < Z(CLEAR)) out.push(`G0 Z${text(Z(CLEAR))}`);
  }
  out.push("M5", "M30");
  return out;
}
