import { parseArgs } from "node:util";
import { Problem } from "@oaken/core/problem";
import { parseLength } from "@oaken/core/units";
import { ZEROS, type StockSettings } from "@oaken/core/job/document";

/** What `oaken make` was asked to do, as text; lengths in mm already. */
export interface MakeOptions {
  input: string;
  as: string;
  out: string;
  size?: number;
  stock?: Pick<StockSettings, "width" | "height" | "thickness">;
  zero?: string;
  material?: string;
  cutter?: string;
  clear?: string;
  depth?: string;
  ink?: string;
  invert: boolean;
  hold?: string;
  specks?: string;
  border?: string;
  tabs?: string;
  dialect?: string;
  cell?: number;
  set: string[];
  json: boolean;
  force: boolean;
}

export const USAGE = `oaken make PICTURE --as sign|raised|cutout --out DIR [options]
oaken make job.json --out DIR [options]
  lengths in mm, or with a unit (6in)
  --size W               width of the artwork, proportion kept
  --stock WxHxT          stock as measured
  --zero CORNER          ${ZEROS[0]} … ${ZEROS[ZEROS.length - 1]}
  --material ID          --dialect ID          --cell MM
  --cutter SPEC          flat:D, ball:D, v:ANGLE:D[:TIP], taper:TIPRADIUS:HALFANGLE:D, or an id of the rack
  --clear SPEC|none      clearing cutter before a V cutter
  --depth F|none         the floor; for a cut-out through the stock when not given
  --ink 0..1  --invert  --hold MM  --specks MM2
  --border stock|frame:MM|grow:MM     for raised
  --tabs N|none          --set path=value     any other setting, such as carve.ridge=0.1
  --json                 print the report      --force   write in spite of findings that stop`;

/** @throws Problem `usage` or what is wrong with a value */
export function parseMake(args: string[]): MakeOptions {
  const text = { type: "string" } as const;
  let parsed;
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: {
        as: text, out: text, size: text, stock: text, zero: text, material: text, cutter: text, clear: text, depth: text, ink: text, hold: text, specks: text,
        border: text, tabs: text, dialect: text, cell: text, set: { type: "string", multiple: true }, invert: { type: "boolean" }, json: { type: "boolean" }, force: { type: "boolean" },
      },
    });
  } catch (e) {
    throw new Problem("usage", `${(e as Error).message.split(". ")[0]}.\n${USAGE}`);
  }
  const v = parsed.values;
  if (parsed.positionals.length !== 1) throw new Problem("usage", `Name one picture or job file.\n${USAGE}`);
  if (!v.out) throw new Problem("usage", `Say where to write with --out DIR.\n${USAGE}`);
  if (v.zero && !ZEROS.includes(v.zero)) throw new Problem("bad-zero", `"${v.zero}" is not a work zero. Known: ${ZEROS.join(", ")}.`);
  return {
    input: parsed.positionals[0],
    as: v.as ?? "sign",
    out: v.out,
    size: v.size === undefined ? undefined : positive("--size", v.size, 5000),
    stock: v.stock === undefined ? undefined : parseStock(v.stock),
    zero: v.zero,
    material: v.material,
    cutter: v.cutter,
    clear: v.clear,
    depth: v.depth,
    ink: v.ink,
    invert: v.invert ?? false,
    hold: v.hold,
    specks: v.specks,
    border: v.border,
    tabs: v.tabs,
    dialect: v.dialect,
    cell: v.cell === undefined ? undefined : positive("--cell", v.cell, 10),
    set: v.set ?? [],
    json: v.json ?? false,
    force: v.force ?? false,
  };
}

function positive(option: string, value: string, most: number): number {
  const mm = parseLength(value);
  if (!(mm > 0) || mm > most) throw new Problem("bad-length", `${option} ${value}: give a length above 0 and up to ${most} mm.`);
  return mm;
}

function parseStock(value: string): { width: number; height: number; thickness: number } {
  const parts = value.split(/\s*[x×]\s*/i);
  if (parts.length !== 3) throw new Problem("bad-stock", `--stock ${value}: write width x height x thickness, such as 300x200x18.`);
  const [width, height, thickness] = parts.map((p, i) => positive("--stock", p, i === 2 ? 500 : 10000));
  return { width, height, thickness };
}
