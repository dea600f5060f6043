import { arePaces, PACE } from "../cutters/machine.ts";
import { checkCutter, type Cutter } from "../cutters/profile.ts";
import { checkDialect, type Dialect } from "../output/gcode/dialect.ts";
import { Problem } from "../problem.ts";
import { type Column, type Entry, ID, readFigure, sayFigure } from "./column.ts";
import { cutterColumns, suitedCutter } from "./cutters.ts";
import { dialectColumns } from "./dialects.ts";
import { machineColumns } from "./machines.ts";
import { materialColumns } from "./materials.ts";
import type { Shop } from "./shop.ts";

/** A part of the shop: entries of one sort, the table that they are edited in and the files that they travel in. */
export interface Part {
  id: keyof Shop;
  title: string;
  /** what one entry is called */
  one: string;
  columns: readonly Column[];
  /** what no single column can tell. @throws Problem */
  check(entry: Entry): void;
  /** a changed entry without figures that mean nothing for it now, and with the usual ones that it needs */
  suited?(entry: Entry): Entry;
}

const name: Column = { key: "name", label: "Name", type: "text" };
const rising = (steps: readonly number[]): boolean => steps.every((s, i) => i === 0 || s > steps[i - 1]);

/** Every part of the shop. Another one is a line here and columns of its own. */
export const PARTS: readonly Part[] = [
  {
    id: "cutters",
    title: "Rack",
    one: "cutter",
    columns: [name, ...cutterColumns],
    check: (e) => checkCutter(e as unknown as Cutter),
    suited: suitedCutter,
  },
  {
    id: "materials",
    title: "Materials",
    one: "material",
    columns: [name, ...materialColumns],
    check: () => {},
  },
  {
    id: "machines",
    title: "Machines",
    one: "machine",
    columns: [name, ...machineColumns],
    check: (e) => {
      if ((e.spindleLeast as number) > (e.spindleMost as number))
        throw new Problem("bad-entry", "Slowest spindle: it is above the fastest.");
      if (e.spindleSteps && !rising(e.spindleSteps as number[]))
        throw new Problem("bad-entry", "Spindle's steps: give them rising, such as 10000 17000 24000.");
      if (e.paces && !arePaces(e.paces as string))
        throw new Problem("bad-entry", `Pace by material: a pace lies between ${PACE.least} and ${PACE.most}.`);
    },
  },
  {
    id: "dialects",
    title: "Dialects",
    one: "dialect",
    columns: [name, ...dialectColumns],
    check: (e) => checkDialect(e as unknown as Dialect),
  },
];

/** @throws Problem `unknown-part` */
export function partNamed(id: string): Part {
  const found = PARTS.find((p) => p.id === id);
  if (!found)
    throw new Problem("unknown-part", `The shop has no "${id}". It has ${PARTS.map((p) => p.id).join(", ")}.`);
  return found;
}

/**
 * A figure of an entry that comes from outside: what its column would write is what it may hold.
 * @throws Problem `bad-entry` naming the column
 */
export function readValue(c: Column, value: unknown): unknown {
  if (value === undefined || value === null) return readFigure(c, "");
  if (typeof value === "object" && !Array.isArray(value))
    throw new Problem("bad-entry", `${c.label}: it is no figure.`);
  return readFigure(c, sayFigure(c, value));
}

/**
 * Checks an entry that comes from outside, figure by figure, so that what is wrong is named by its column.
 * @returns the same, with no other keys
 * @throws Problem `bad-entry`
 */
export function readEntry(part: Part, given: unknown): Entry {
  if (typeof given !== "object" || given === null || Array.isArray(given))
    throw new Problem("bad-entry", `A ${part.one} is an object with its figures.`);
  const from = given as Record<string, unknown>;
  if (typeof from.id !== "string" || !new RegExp(ID).test(from.id))
    throw new Problem("bad-entry", "Id: use lower-case letters, digits and dashes, up to 60 of them.");
  const known = new Set(["id", ...part.columns.map((c) => c.key)]);
  const other = Object.keys(from).find((k) => !known.has(k));
  if (other !== undefined) throw new Problem("bad-entry", `"${other.slice(0, 40)}" is not a figure of a ${part.one}.`);
  const entry: Entry = { id: from.id, name: "" };
  for (const c of part.columns) {
    const value = readValue(c, from[c.key]);
    if (value !== undefined) entry[c.key] = value;
  }
  part.check(entry);
  return entry;
}

/** An id for a name, unlike all that are taken. */
export function freshId(name: string, taken: ReadonlySet<string>): string {
  const plain =
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 40)
      .replace(/-+$/, "") || "entry";
  if (!taken.has(plain)) return plain;
  for (let n = 2; ; n++) if (!taken.has(`${plain}-${n}`)) return `${plain}-${n}`;
}
