import Papa from "papaparse";
import { Problem } from "../problem.ts";
import { type Column, type Entry, sayFigure } from "./column.ts";
import { freshId, type Part, readEntry, readValue } from "./parts.ts";

/** A fault in a file of entries: where it is, and what is wrong there. */
export interface Fault {
  /** from 1, the head of a table not counted */
  row: number;
  /** the column's label, or none where the whole row is meant */
  column: string;
  message: string;
}

/** More entries than any workshop has. */
export const MOST_ENTRIES = 20_000;
/** Faults that are told at once: more say nothing new. */
const MOST_FAULTS = 50;

const FORMAT = "oaken-shop";

/** Entries as a JSON file, which holds them exactly. */
export const writeJson = (part: Part, entries: readonly Entry[]): string =>
  JSON.stringify({ format: FORMAT, version: 1, part: part.id, entries }, null, 2) + "\n";

/** Programs that open tables take text that begins so for a formula. */
const FORMULA = /^[=+\-@\t\r]/;
/** A text that is no formula wherever it is opened: an apostrophe stands before what would be one. */
const asText = (c: Column, text: string): string => (c.type === "text" && FORMULA.test(text) ? `'${text}` : text);
const fromText = (c: Column, text: string): string =>
  c.type === "text" && text.startsWith("'") && FORMULA.test(text.slice(1)) ? text.slice(1) : text;

/** Entries as a table: comma-separated values (RFC 4180), their columns' keys at its head. */
export function writeCsv(part: Part, entries: readonly Entry[]): string {
  const rows = entries.map((e) => [e.id, ...part.columns.map((c) => asText(c, sayFigure(c, e[c.key])))]);
  return Papa.unparse({ fields: ["id", ...part.columns.map((c) => c.key)], data: rows }, { newline: "\n" }) + "\n";
}

/**
 * Entries of a part from a file that somebody made, JSON or a table. Either all of them, or every fault with its place:
 * nothing is taken by halves.
 * @throws Problem `bad-shop-file` where it is neither, or too long
 */
export function readTable(part: Part, text: string): { entries: Entry[]; faults: Fault[] } {
  const isJson = /^\s*[{[]/.test(text);
  const rows = isJson ? jsonRows(part, text) : csvRows(part, text);
  if (rows.length > MOST_ENTRIES)
    throw new Problem("bad-shop-file", `The file holds ${rows.length} rows; at most ${MOST_ENTRIES} are taken.`);
  if (rows.length === 0) throw new Problem("bad-shop-file", `The file holds no ${part.one}.`);
  const entries: Entry[] = [];
  const faults: Fault[] = [];
  const taken = new Map<string, number>();
  rows.forEach((row, k) => {
    if (faults.length >= MOST_FAULTS) return;
    const fault = (message: string, column = "") => faults.push({ row: k + 1, column, message });
    const given = { ...row };
    if (given.id === undefined || given.id === "") given.id = freshId(String(given.name ?? ""), new Set(taken.keys()));
    const before = taken.get(String(given.id));
    if (before !== undefined) return void fault(`Its id "${String(given.id)}" is that of row ${before} too.`, "id");
    taken.set(String(given.id), k + 1);
    // Column by column first, so that every fault of a row is named and not only its first.
    const wrong = part.columns.flatMap((c) => faultOf(() => readValue(c, given[c.key])).map((m) => ({ c, m })));
    for (const { c, m } of wrong) fault(m, c.label);
    if (wrong.length > 0) return;
    const [whole] = faultOf(() => entries.push(readEntry(part, given)));
    if (whole !== undefined) fault(whole);
  });
  return { entries: faults.length > 0 ? [] : entries, faults };
}

function faultOf(work: () => unknown): string[] {
  try {
    work();
    return [];
  } catch (e) {
    if (e instanceof Problem) return [e.message];
    throw e;
  }
}

function jsonRows(part: Part, text: string): Record<string, unknown>[] {
  let doc: unknown;
  try {
    doc = JSON.parse(text);
  } catch {
    throw new Problem("bad-shop-file", "The file is damaged: it begins as JSON and does not go on so.");
  }
  // One entry by itself, as a person writes it into a file of its own.
  if (typeof doc === "object" && doc !== null && "name" in doc && !("format" in doc)) doc = [doc];
  const {
    format,
    version,
    part: of,
    entries,
  } = (Array.isArray(doc) ? { entries: doc } : doc) as Record<string, unknown>;
  if (!Array.isArray(doc)) {
    if (format !== FORMAT) throw new Problem("bad-shop-file", "This file is not one of Oaken Bit's shop.");
    if (typeof version === "number" && version > 1)
      throw new Problem("bad-shop-file", "This file was written by a newer version of Oaken Bit. Update this one.");
    if (of !== part.id)
      throw new Problem("bad-shop-file", `This file holds ${String(of).slice(0, 20)}, not ${part.id}. Choose another.`);
  }
  if (!Array.isArray(entries)) throw new Problem("bad-shop-file", "The file holds no entries.");
  return entries.map((e) => (typeof e === "object" && e !== null ? (e as Record<string, unknown>) : {}));
}

function csvRows(part: Part, text: string): Record<string, unknown>[] {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, "").trimEnd(), {
    preview: MOST_ENTRIES + 2,
    skipEmptyLines: "greedy",
  });
  const quotes = errors.find((e) => e.type === "Quotes");
  if (quotes)
    throw new Problem("bad-shop-file", `Row ${(quotes.row ?? 0) + 1}: a quotation mark is not closed. Close it.`);
  const [head, ...rows] = data;
  if (!head) throw new Problem("bad-shop-file", "The file is empty.");
  const columns = head.map((h) => columnNamed(part, h));
  return rows.map((row, k) => {
    if (row.length > head.length)
      throw new Problem(
        "bad-shop-file",
        `Row ${k + 1} has ${row.length} values under ${head.length} columns. Where commas are decimal signs, ` +
          "separate values by semicolons.",
      );
    return Object.fromEntries(
      columns.map((c, i) => [c === "id" ? "id" : c.key, c === "id" ? row[i]?.trim() : fromText(c, row[i] ?? "")]),
    );
  });
}

/** The column that a head names by its key or its label. */
function columnNamed(part: Part, head: string): Column | "id" {
  const plain = head.trim().toLowerCase();
  if (plain === "id") return "id";
  const found = part.columns.find((c) => c.key.toLowerCase() === plain || c.label.toLowerCase() === plain);
  if (!found)
    throw new Problem(
      "bad-shop-file",
      `The column "${head.slice(0, 40)}" is not one of a ${part.one}. Known: id, ` +
        `${part.columns.map((c) => c.key).join(", ")}.`,
    );
  return found;
}
