import { Problem } from "../problem.ts";

/**
 * One figure of an entry of the shop, described once: the table edits it, the schema checks it, CSV files carry it.
 * Lengths in mm, angles in degrees, as the entry itself holds them.
 */
export interface Column {
  key: string;
  label: string;
  type: "text" | "code" | "number" | "whole" | "choice" | "switch" | "colour" | "numbers" | "rows";
  /** what the number counts: mm, °, mm/min */
  unit?: string;
  /** what the term means, for those who do not know it */
  help?: string;
  least?: number;
  /** the least itself is not allowed */
  above?: true;
  most?: number;
  options?: readonly { value: string; label: string }[];
  /** of rows: the numbers that each holds, the first rising from row to row */
  parts?: readonly Column[];
  /** what a text must look like, and that in words */
  pattern?: { regex: string; says: string };
  /** of code: it may have several lines */
  lines?: true;
  /** may be left empty */
  optional?: true;
  /** folded away from the table: shown beside it */
  more?: true;
  /** means nothing for other entries */
  when?(entry: Entry): boolean;
}

/** An entry of the shop, whatever it is. */
export type Entry = { id: string; name: string } & Record<string, unknown>;

/** Longest text an entry holds, letters. */
const MOST_NAME = 200;
/** Longest block of a dialect, letters. */
const MOST_CODE = 2000;
const MOST_NUMBERS = 40;
const MOST_ROWS = 40;

/** Ids in documents, programs and addresses. */
export const ID = "^[a-z0-9][a-z0-9-]{0,59}$";

/** JSON Schema of one figure. */
function schemaOfColumn(c: Column): object {
  const range = {
    ...(c.least !== undefined && (c.above ? { exclusiveMinimum: c.least } : { minimum: c.least })),
    ...(c.most !== undefined && { maximum: c.most }),
  };
  switch (c.type) {
    case "text":
      return { type: "string", maxLength: MOST_NAME, ...(c.pattern && { pattern: c.pattern.regex }) };
    case "code":
      // What a program may hold: printable ASCII, since controllers know nothing else.
      return { type: "string", maxLength: MOST_CODE, pattern: c.lines ? "^[ -~\\n]*$" : "^[ -~]*$" };
    case "number":
      return { type: "number", ...range };
    case "whole":
      return { type: "integer", ...range };
    case "numbers":
      return { type: "array", minItems: 1, maxItems: MOST_NUMBERS, items: { type: "number", ...range } };
    case "rows":
      return {
        type: "array",
        minItems: 1,
        maxItems: MOST_ROWS,
        items: {
          type: "array",
          minItems: c.parts!.length,
          maxItems: c.parts!.length,
          items: c.parts!.map(schemaOfColumn),
        },
      };
    case "choice":
      return { enum: c.options!.map((o) => o.value) };
    case "switch":
      return { type: "boolean" };
    case "colour":
      return { type: "array", minItems: 3, maxItems: 3, items: { type: "number", minimum: 0, maximum: 255 } };
  }
}

/** JSON Schema of an entry: what its columns say, nothing else. */
export const schemaOfEntry = (columns: readonly Column[], idIsOptional = false): object => ({
  type: "object",
  required: [
    ...(idIsOptional ? [] : ["id", "name"]),
    ...columns.filter((c) => !c.optional && c.key !== "name").map((c) => c.key),
  ],
  additionalProperties: false,
  properties: {
    id: { type: "string", minLength: 1, maxLength: 60 },
    name: { type: "string", maxLength: MOST_NAME },
    ...Object.fromEntries(columns.map((c) => [c.key, schemaOfColumn(c)])),
  },
});

const bad = (c: Column, what: string): Problem => new Problem("bad-entry", `${c.label}: ${what}`);

/** A figure in words that {@link readFigure} takes. */
export function sayFigure(c: Column, value: unknown): string {
  if (value === undefined || value === null) return "";
  if (typeof value === "string") return value;
  if (c.type === "switch") return value ? "yes" : "no";
  if (c.type === "rows" && Array.isArray(value))
    return value.map((row) => (Array.isArray(row) ? row.map(plainNumber).join(" ") : String(row))).join("; ");
  if (Array.isArray(value)) return c.type === "colour" ? hex(value as number[]) : value.join(" ");
  return plainNumber(value);
}

const plainNumber = (v: unknown): string => String(typeof v === "number" ? Math.round(v * 1e6) / 1e6 : v);

const hex = (rgb: readonly number[]): string =>
  `#${rgb.map((v) => Math.round(v).toString(16).padStart(2, "0")).join("")}`;

/** What a number may be, in words. */
function rangeWords({ least, most, above, unit = "" }: Column): string {
  const u = unit === "" ? "" : ` ${unit}`;
  if (least !== undefined && most !== undefined)
    return `${above ? `more than ${least} and up to` : `from ${least} to`} ${most}${u}`;
  return most !== undefined ? `up to ${most}${u}` : `${above ? "more than" : "at least"} ${least ?? 0}${u}`;
}

const bare = (text: string): string => text.replace(/\s+/g, "");

/**
 * A number as people write it: with a point or a comma, the column's own unit behind it or none. Another unit is
 * refused: 0.25in is no quarter of a millimetre.
 */
function readNumber(c: Column, text: string): number {
  const m = /^([-+]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[-+]?\d+)?)\s*(.*)$/i.exec(text);
  const v = m ? Number(m[1].replace(",", ".")) : NaN;
  if (!m || !Number.isFinite(v) || /^[\d.,]/.test(m[2])) throw bad(c, `"${text.slice(0, 40)}" is not a number.`);
  if (m[2] !== "" && bare(m[2]) !== bare(c.unit ?? ""))
    throw bad(c, `"${text.slice(0, 40)}": write a number${c.unit ? `, in ${c.unit}` : ""} and nothing behind it.`);
  const isLow = c.least !== undefined && (c.above ? v <= c.least : v < c.least);
  if (isLow || (c.most !== undefined && v > c.most)) throw bad(c, `${text} is out of range: ${rangeWords(c)}.`);
  if (c.type === "whole" && !Number.isInteger(v)) throw bad(c, `${text} is not a whole number.`);
  return v;
}

/** Rows of numbers, such as 3 3300 1.4; 6 1450 1.6: as many in each as there are parts. */
function readRows(c: Column, text: string): number[][] {
  const parts = c.parts!;
  const names = parts.map((p) => p.label.toLowerCase()).join(", ");
  const lines = text.split(/[;\n]+/).filter((line) => line.trim() !== "");
  if (lines.length > MOST_ROWS) throw bad(c, `at most ${MOST_ROWS} rows.`);
  const rows = lines.map((line, k) => {
    const numbers = line.trim().split(/\s+/);
    if (numbers.length !== parts.length)
      throw bad(c, `row ${k + 1} holds ${numbers.length} numbers; write ${parts.length}: ${names}.`);
    return numbers.map((n, i) => readNumber({ ...parts[i], label: `${c.label}, row ${k + 1}, ${parts[i].label}` }, n));
  });
  const falls = rows.findIndex((row, k) => k > 0 && row[0] <= rows[k - 1][0]);
  if (falls > 0) throw bad(c, `row ${falls + 1}: ${parts[0].label.toLowerCase()} does not rise from the row before.`);
  return rows;
}

/**
 * A figure from text, as tables and files hold it; undefined where it is left empty and may be.
 * @throws Problem `bad-entry` naming the column
 */
export function readFigure(c: Column, given: string): unknown {
  const text = given.trim();
  if (text === "") {
    if (c.optional) return undefined;
    throw bad(c, "it is empty.");
  }
  switch (c.type) {
    case "text":
      if (text.length > MOST_NAME) throw bad(c, `it is longer than ${MOST_NAME} letters.`);
      if (c.pattern && !new RegExp(c.pattern.regex).test(text)) throw bad(c, c.pattern.says);
      return text;
    case "code":
      if (text.length > MOST_CODE) throw bad(c, `it is longer than ${MOST_CODE} letters.`);
      if (!c.lines && text.includes("\n")) throw bad(c, "it is one line.");
      if (!/^[ -~\n]*$/.test(text)) throw bad(c, "controllers read plain letters, digits and signs only (ASCII).");
      return text;
    case "number":
    case "whole":
      return readNumber(c, text);
    case "numbers": {
      const parts = text.split(/[\s;]+/);
      if (parts.length > MOST_NUMBERS) throw bad(c, `at most ${MOST_NUMBERS} numbers.`);
      return parts.map((p) => readNumber(c, p));
    }
    case "rows":
      return readRows(c, text);
    case "choice": {
      const found = c.options!.find(
        (o) => o.value === text.toLowerCase() || o.label.toLowerCase() === text.toLowerCase(),
      );
      if (!found) throw bad(c, `"${text.slice(0, 40)}" is not one of ${c.options!.map((o) => o.label).join(", ")}.`);
      return found.value;
    }
    case "switch":
      if (/^(yes|true|on|1|x)$/i.test(text)) return true;
      if (/^(no|false|off|0)$/i.test(text)) return false;
      throw bad(c, `"${text.slice(0, 40)}" is neither yes nor no.`);
    case "colour": {
      const m = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(text);
      if (!m) throw bad(c, `"${text.slice(0, 40)}" is not a colour; write #rrggbb.`);
      return m.slice(1).map((h) => parseInt(h, 16));
    }
  }
}
