import { readFile } from "node:fs/promises";
import { type Cutter, describeCutter, profileOf } from "@oaken/core/cutters/profile";
import { FORMS, parseCutter } from "@oaken/core/cutters/rack";
import { usualStock, ZEROS, zeroPoint } from "@oaken/core/job/document";
import { readProgram } from "@oaken/core/output/gcode/reader";
import { Problem } from "@oaken/core/problem";
import { newSurface, usualCell } from "@oaken/core/proof/surface";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { machineIn } from "@oaken/core/shop/shop";
import { nothingSwept, sweep } from "@oaken/core/proof/sweep";
import { moveSeconds } from "@oaken/core/toolpath/time";
import { CLEAR, farthest, figures, RAPID, type Toolpath } from "@oaken/core/toolpath/toolpath";
import { formatTime, parseLength } from "@oaken/core/units";
import { readArguments, seeHelp } from "./arguments.ts";
import { parseStock } from "./values.ts";

export const USAGE = `oaken check PROGRAM --stock WxHxT --cutter SPEC [--cutter SPEC …] [options]
  sweeps any G-code program through the stock and says what it would do
  --cutter SPEC    ${FORMS}, or an id of the rack; the first is in the spindle at the
                   start, T1 is the first, T2 the second …
  --zero CORNER    where the program's zero lies on the stock: ${ZEROS[0]} …
  --cell MM        how fine the swept surface is
  --json           print the report`;

/**
 * Runs `oaken check`.
 * @returns 0, or 3 when the program would do damage: through stock at rapid speed, or past the cutter's edge, with the
 * spindle off, or nothing at all
 */
export async function check(args: string[], print: (line: string) => void): Promise<number> {
  const text = { type: "string" } as const;
  const parsed = readArguments("check", {
    args,
    allowPositionals: true,
    options: {
      stock: text,
      cutter: { type: "string", multiple: true },
      zero: text,
      cell: text,
      json: { type: "boolean" },
    },
  });
  const v = parsed.values;
  const [path, more] = parsed.positionals;
  if (!path || more || !v.stock || !v.cutter)
    throw new Problem("usage", `Name one program, with --stock WxHxT and --cutter SPEC. ${seeHelp("check")}`);
  if (v.zero && !ZEROS.includes(v.zero))
    throw new Problem("bad-zero", `"${v.zero}" is not a work zero. Known: ${ZEROS.join(", ")}.`);
  const stock = { ...usualStock(FIRST_SHOP), ...parseStock(v.stock), ...(v.zero && { zero: v.zero }) };
  const cutters = v.cutter.map((spec) => parseCutter(spec, FIRST_SHOP.cutters));
  const program = await readFile(path, "utf8").catch(() => {
    throw new Problem("no-file", `${path} cannot be opened. Check the name and that you may read it.`);
  });
  const torch = cutters[0].kind === "torch";
  const read = readProgram(program, torch);
  const zero = zeroPoint(stock);
  const t = onStock(read.toolpath, zero);
  const cell = v.cell === undefined ? usualCell(stock.width, stock.height) : parseLength(v.cell);
  const surface = newSurface(stock.width, stock.height, cell, stock.thickness);
  const machine = machineIn(FIRST_SHOP, torch ? "plasma-table" : "desk-router");
  const found = { rapids: 0, plunges: 0, tooDeep: 0 };
  const places: { what: string; x: number; y: number; z: number }[] = [];
  for (const run of runsOfTool(read.tool)) {
    const cutter = cutterOf(cutters, read.tool[run.from]);
    const report = nothingSwept();
    sweep(surface, t, profileOf(cutter), Math.max(1, read.tool[run.from]), run.from, run.to, report);
    found.rapids += report.rapids;
    if (report.rapidAt >= 0) places.push(placeOf("rapid through stock", t, report.rapidAt));
    if (!cutter.centreCutting) found.plunges += report.plunges;
    if (!cutter.centreCutting && report.plungeAt >= 0)
      places.push(placeOf("straight down into stock", t, report.plungeAt));
    for (let i = run.from; i < run.to; i++) if (!torch && -t.z[i] > cutter.fluteLength + 1e-6) found.tooDeep++;
  }
  let seconds = 0;
  for (const s of moveSeconds(t, machine)) seconds += s;
  const f = figures(t);
  const cut = cutBounds(t);
  let touched = 0;
  for (const z of surface.z) if (z < -1e-4) touched++;
  let offStock = 0;
  const beyond = ([x, y]: [number, number]): boolean =>
    x < -ON_EDGE || y < -ON_EDGE || x > stock.width + ON_EDGE || y > stock.height + ON_EDGE;
  for (let i = 0; i < t.kind.length; i++)
    if (Math.min(t.z[i], i > 0 ? t.z[i - 1] : t.z[i]) < 0 && farthest(t, i).some(beyond)) offStock++;
  const still = cutsWithoutTurning(t, read.spinning, torch);
  const round = (n: number, d = 3) => Math.round(n * 10 ** d) / 10 ** d;
  const report = {
    program: path,
    unit: read.unit,
    moves: t.kind.length,
    stock: { width: stock.width, height: stock.height, thickness: stock.thickness },
    cutters: cutters.map(describeCutter),
    bounds: {
      minX: round(cut.minX),
      maxX: round(cut.maxX),
      minY: round(cut.minY),
      maxY: round(cut.maxY),
      minZ: round(f.minZ),
    },
    depth: round(Math.max(0, -f.minZ)),
    throughStock: f.minZ < -stock.thickness || (torch && touched > 0),
    cutLength: round(f.cutLength, 1),
    rapidLength: round(f.rapidLength, 1),
    cutArea: round(touched * cell * cell, 1),
    movesOffStock: offStock,
    rapidsThroughStock: found.rapids,
    plungesWithoutCentre: found.plunges,
    movesDeeperThanFlutes: found.tooDeep,
    movesWithSpindleOff: still,
    remarks: read.remarks,
    places,
    // A torch's waits are among its moves.
    seconds: round(seconds + (torch ? 0 : read.dwell), 1),
  };
  const empty = !t.kind.some((k, i) => k !== RAPID && t.z[i] < 0) && touched === 0;
  const bad = found.rapids > 0 || found.tooDeep > 0 || still > 0 || empty;
  if (v.json) print(JSON.stringify(report));
  else {
    print(
      `${report.moves} moves over X ${report.bounds.minX} … ${report.bounds.maxX}, Y ${report.bounds.minY} … ` +
        `${report.bounds.maxY} mm of the stock, ${report.depth} mm ` +
        `deep${report.throughStock ? ", through it" : ""}.`,
    );
    print(
      `${round(f.cutLength / 1000, 2)} m of cutting and ${round(f.rapidLength / 1000, 2)} m of travel, ` +
        `${formatTime(report.seconds)} on a ${machine.name.toLowerCase()}.`,
    );
    for (const p of places) print(`${p.what} near x ${p.x}, y ${p.y}, z ${p.z} mm`);
    for (const r of read.remarks) print(r);
    if (empty) print("The program cuts nothing: no move of it goes below the stock's top.");
    if (still > 0) print(`${still} moves cut while the ${torch ? "torch is out" : "spindle stands still"}.`);
    if (offStock > 0) print(`${offStock} moves cut beyond the stock's edge.`);
    if (found.tooDeep > 0) print(`${found.tooDeep} moves go deeper than the cutter's edge is long.`);
    print(
      bad
        ? `Do not run it${faults(found.rapids, found.tooDeep, still)}.`
        : found.plunges > 0
          ? `${found.plunges} moves straight down with a cutter that does not cut at its centre.`
          : "Nothing wrong was found.",
    );
  }
  return bad ? 3 : 0;
}

/** Moves that end this little beyond the stock's edge end on it, mm. */
const ON_EDGE = 0.001;

const faults = (rapids: number, tooDeep: number, still: number): string => {
  const parts = [
    rapids > 0 ? `${rapids} rapids through stock` : "",
    tooDeep > 0 ? `${tooDeep} moves too deep` : "",
    still > 0 ? `${still} moves with the spindle off` : "",
  ].filter(Boolean);
  return parts.length > 0 ? `: ${parts.join(", ")}` : "";
};

/** Moves at feed below the stock's top with nothing turning. A torch's moves are its own: unlit they cut nothing. */
function cutsWithoutTurning(t: Toolpath, spinning: Uint8Array, torch: boolean): number {
  if (torch) return 0;
  let count = 0;
  for (let i = 0; i < t.kind.length; i++) if (t.kind[i] !== RAPID && t.z[i] < 0 && spinning[i] === 0) count++;
  return count;
}

/** From the program's zero into stock coordinates. */
function onStock(t: Toolpath, zero: { x: number; y: number; z: number }): Toolpath {
  const by = (a: Float64Array, add: number) => a.map((v) => v + add);
  const out = {
    ...t,
    x: by(t.x, zero.x),
    y: by(t.y, zero.y),
    z: by(t.z, zero.z),
    cx: by(t.cx, zero.x),
    cy: by(t.cy, zero.y),
  };
  // A program begins wherever the last one left the machine: taken to be above the stock.
  if (out.kind[0] === RAPID) out.z[0] = Math.max(out.z[0], CLEAR);
  return out;
}

/** Where it cuts, travel left out. */
function cutBounds(t: Toolpath): { minX: number; maxX: number; minY: number; maxY: number } {
  const b = { minX: Infinity, maxX: -Infinity, minY: Infinity, maxY: -Infinity };
  for (let i = 0; i < t.kind.length; i++) {
    if (t.kind[i] === RAPID) continue;
    for (const [x, y] of farthest(t, i)) {
      b.minX = Math.min(b.minX, x);
      b.maxX = Math.max(b.maxX, x);
      b.minY = Math.min(b.minY, y);
      b.maxY = Math.max(b.maxY, y);
    }
  }
  return b;
}

const placeOf = (what: string, t: Toolpath, i: number) => ({
  what,
  x: Math.round(t.x[i] * 100) / 100,
  y: Math.round(t.y[i] * 100) / 100,
  z: Math.round(t.z[i] * 100) / 100,
});

/** Stretches of moves with one tool in the spindle. */
function runsOfTool(tool: Int32Array): { from: number; to: number }[] {
  const out: { from: number; to: number }[] = [];
  for (let i = 0; i < tool.length; i++) {
    if (i === 0 || tool[i] !== tool[i - 1]) out.push({ from: i, to: i });
    out[out.length - 1].to = i + 1;
  }
  return out;
}

/** @throws Problem `no-cutter` when the program changes to a tool that was not named */
function cutterOf(cutters: readonly Cutter[], tool: number): Cutter {
  const c = cutters[Math.max(0, tool - 1)];
  if (!c)
    throw new Problem(
      "no-cutter",
      `The program changes to tool ${tool}, but only ${cutters.length} ` +
        `${cutters.length === 1 ? "cutter was" : "cutters were"} named. Give one --cutter for each tool, in ` +
        "their order.",
    );
  return c;
}
