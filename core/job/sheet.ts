import { type Cutter, describeCutter, profileOf, sameCutter } from "../cutters/profile.ts";
import type { Note } from "../cuts/kind.ts";
import { drawCode, drawCutter, drawStock } from "../output/sheet/drawings.ts";
import { type Fonts, LINE, Paper, PENCIL, SOFT, WIDE } from "../output/sheet/paper.ts";
import { formatLength, formatTime } from "../units.ts";
import type { BuildResult } from "./build.ts";
import { shortCode } from "./code.ts";
import { stockWords, stopWords, zeroPoint, zeroWords } from "./document.ts";
import type { CutResult } from "./plan.ts";
import { type StepSeen, stepsSeen } from "./steps.ts";

/** What inspection says, as far as paper tells it. */
type Said = Pick<Note, "severity" | "message">;

/** What a setup sheet is made from, besides the built job. */
export interface SheetParts {
  findings: readonly Said[];
  /** the programs that were written, to name each step's: which cuts each holds; the frame holds none */
  programs: readonly { name: string; cuts: readonly string[] }[];
  /** revision and time */
  from: string;
  /** the day, such as 2026-11-27 */
  date?: string;
  /** the finished piece, as PNG */
  proof: Uint8Array;
  /** a picture as PNG */
  png(seen: StepSeen): Uint8Array | Promise<Uint8Array>;
  fonts: Fonts;
}

/** Heights of the sheet's parts, points. */
const DRAWING = 220;
const STEP = 62;
/** How wide the picture of a step is, and the square that a camera reads. */
const PICTURE = 84;
const CODE = 46;
/** More letters make that square too fine to be read from paper. */
const MOST_CODE = 90;
/** A box to tick. */
const TICK = 11;
/** A cutter stands out this far beyond its deepest cut, so that its holder clears the stock, mm. */
const BEYOND = 6;

/**
 * The setup sheet of a board's job: what lies on the bed and where its zero is, which cutter comes when and how fast,
 * what a person does in between, and a box to tick for each step.
 * @returns a PDF
 */
export async function setupSheet(build: BuildResult, parts: SheetParts): Promise<Uint8Array> {
  const { job } = build;
  const paper = await Paper.begin(parts.fonts, `${job.name}, setup sheet`);
  const code = shortCode([job, parts.from]);
  head(paper, build, parts, code);
  await lying(paper, build, parts);
  await steps(paper, build, parts);
  found(paper, parts.findings);
  return paper.finish(`${job.name} · ${parts.from} · ${code}`);
}

function head(paper: Paper, { job, seconds }: BuildResult, { from, date }: SheetParts, code: string): void {
  const whose = [job.naming?.person, job.naming?.class].filter(Boolean).join(", ");
  const lines = paper.wrap(job.name, WIDE - 190, { size: 20, bold: true }).slice(0, 2);
  for (const line of lines) paper.text(0, (paper.y += 22), line, { size: 20, bold: true });
  drawCode(paper, `${code} ${job.name} ${from}`.slice(0, MOST_CODE), WIDE - CODE, 0, CODE);
  const beside = WIDE - CODE - 8;
  paper.text(beside, 18, code, { size: 18, bold: true, align: "right" });
  paper.text(beside, 30, "the same code stands in the programs", { size: 7, colour: SOFT, align: "right" });
  const under = [whose, from, date, `${formatTime(seconds)} of machining`].filter(Boolean).join(" · ");
  paper.text(0, (paper.y += 16), under, { size: 10, colour: SOFT });
  paper.y = Math.max(paper.y + 12, CODE + 6);
  paper.line(0, paper.y, WIDE, paper.y);
}

/** What lies on the bed: the stock with its zero and clamps, and the piece that comes out of it. */
async function lying(paper: Paper, build: BuildResult, { proof }: SheetParts): Promise<void> {
  const { stock, machine } = build.job;
  const zero = zeroPoint(stock);
  const half = WIDE / 2;
  const top = paper.y + 6;
  drawStock(
    paper,
    { x: 0, y: top, wide: half, high: DRAWING },
    { width: stock.width, height: stock.height, zero, bounds: boundsOf(build.cuts), clamps: stock.clamps ?? [] },
  );
  await paper.picture(proof, half + 10, top + 10, half - 10, DRAWING - 20);
  paper.y = top + DRAWING + 4;
  const say = (label: string, text: string) => {
    paper.text(0, paper.y + 10, label, { bold: true });
    paper.y += Math.max(13, paper.paragraph(110, paper.y + 1, WIDE - 110, text));
  };
  say("Stock, as measured", stockWords(stock));
  say("Work zero", zeroWords(stock.zero));
  say("Machine", `${machine.name}, ${build.job.dialect.name.toLowerCase()}`);
  if (stock.clamps?.length)
    say(
      "Clamps",
      stock.clamps
        .map((c) => `X ${formatLength(c.x)} Y ${formatLength(c.y)}, ${formatLength(c.tall)} mm tall`)
        .join("; "),
    );
  paper.y += 6;
}

function boundsOf(cuts: readonly CutResult[]) {
  const on = cuts.filter((c) => c.cut.on && c.toolpath.kind.length > 0);
  if (on.length === 0) return null;
  const x = Math.min(...on.map((c) => c.figures.minX));
  const y = Math.min(...on.map((c) => c.figures.minY));
  const width = Math.max(...on.map((c) => c.figures.maxX)) - x;
  const height = Math.max(...on.map((c) => c.figures.maxY)) - y;
  return { x, y, width, height };
}

/** Every step in its order, with a box to tick. */
async function steps(paper: Paper, build: BuildResult, { programs, png }: SheetParts): Promise<void> {
  const cutting = build.cuts.filter((c) => c.cut.on && c.toolpath.kind.length > 0);
  // One step alone looks like the piece above.
  const seen = cutting.length > 1 ? stepsSeen(build) : null;
  paper.need(40 + STEP);
  paper.text(0, (paper.y += 16), "Steps", { size: 13, bold: true });
  paper.y += 6;
  tick(paper, "Clamp the stock. Measure it: is it as above?");
  tick(paper, `Set the work zero: ${zeroWords(build.job.stock.zero)}.`);
  const frame = programs.find((p) => p.cuts.length === 0);
  if (frame) tick(paper, `Run ${frame.name} with the spindle off: does the frame lie on the stock, clear of clamps?`);
  let before: Cutter | null = null;
  for (const c of cutting) {
    if (c.cut.stop) tick(paper, `Stop. ${stopWords(c.cut.stop)}.`, true);
    const isNew = !before || !sameCutter(before, c.cut.cutter);
    const y = cutStep(paper, c, programs.find((p) => p.cuts.includes(c.id))?.name, isNew);
    if (seen) await paper.picture(await png(seen.get(c.id)!), WIDE - 60 - PICTURE, y + 4, PICTURE, STEP - 8);
    before = c.cut.cutter;
  }
  tick(paper, "Lift the piece out. Clean the machine.");
}

function tick(paper: Paper, text: string, isStop = false): void {
  const say = { size: 10, bold: isStop, ...(isStop && { colour: PENCIL }) };
  const lines = paper.wrap(text, WIDE - 24, say);
  const high = lines.length * 13.5 + 8;
  paper.need(high);
  paper.line(0, paper.y, WIDE, paper.y);
  paper.box(0, paper.y + 4, TICK, TICK, { edge: SOFT });
  lines.forEach((l, i) => paper.text(22, paper.y + 13 + i * 13.5, l, say));
  paper.y += high;
}

/** @returns where on the page it begins */
function cutStep(paper: Paper, c: CutResult, program: string | undefined, isNew: boolean): number {
  paper.need(STEP);
  const y = paper.y;
  const { cutter } = c.cut;
  paper.line(0, y, WIDE, y);
  paper.box(0, y + 4, TICK, TICK, { edge: SOFT });
  drawCutter(paper, cutter, 24, y + 5, 34, STEP - 12);
  const deep = Math.max(0, -c.figures.minZ);
  const isTorch = cutter.kind === "torch";
  const out = Math.max(deep, Number.isFinite(profileOf(cutter).height) ? profileOf(cutter).height : 0) + BEYOND;
  paper.text(72, y + 14, c.cut.name, { size: 11, bold: true });
  const change = isNew ? "put in" : "the same cutter,";
  const stickOut = isTorch ? "" : `, at least ${formatLength(Math.ceil(out))} mm out of the collet`;
  paper.text(72, y + 27, `${change} ${cutter.name ?? describeCutter(cutter)} (${describeCutter(cutter)})${stickOut}`);
  const rates = [
    isTorch ? "" : `${Number(c.values.spindle)} turns/min`,
    `feed ${Number(c.values.feed)} mm/min`,
    isTorch ? "" : `plunge ${Number(c.values.plunge)} mm/min`,
    isTorch ? "through" : `down to ${formatLength(deep)} mm`,
  ].filter(Boolean);
  paper.text(72, y + 40, rates.join(" · "));
  paper.text(72, y + 53, program ?? "", { size: 8.5, colour: SOFT });
  paper.text(WIDE, y + 14, formatTime(c.seconds), { size: 11, bold: true, align: "right" });
  paper.y += STEP;
  return y;
}

/** What inspection said: whoever runs the programs in spite of it puts a name to it. */
function found(paper: Paper, findings: readonly Said[]): void {
  const told = findings.filter((f) => f.severity !== "note");
  paper.line(0, paper.y, WIDE, paper.y);
  if (told.length === 0) return;
  paper.need(60);
  paper.text(0, (paper.y += 20), "Found by inspection", { size: 13, bold: true });
  paper.y += 4;
  for (const f of told) {
    const lines = paper.wrap(f.message, WIDE - 14).length * 12.2 + 4;
    paper.need(lines);
    paper.text(0, paper.y + 10, f.severity === "stop" ? "×" : "!", { bold: true, colour: PENCIL });
    paper.y += paper.paragraph(14, paper.y + 1, WIDE - 14, f.message) + 3;
  }
  paper.need(34);
  paper.text(0, paper.y + 24, "Accepted by", { colour: SOFT });
  paper.line(60, paper.y + 26, 260, paper.y + 26, LINE);
  paper.y += 34;
}
