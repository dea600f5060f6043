import { Problem } from "./problem.ts";

/** Millimetres in one inch, exactly (international inch, 1959). */
export const MM_PER_INCH = 25.4;
export type Unit = "mm" | "in";

/**
 * A length as people type it: numbers, vulgar fractions ("5 1/2"), units (mm, cm, in, ", ft), and + - * / ( ).
 * A bare number takes `unit`; a mixed sum converts term by term ("5 1/2in - 3mm").
 * @returns millimetres
 * @throws Problem `bad-length` naming what could not be read
 */
export function parseLength(text: string, unit: Unit = "mm"): number {
  const say = () =>
    new Problem(
      "bad-length",
      `"${text}" is not a length. Type a number with mm or in, such as 120, 6in or 5 1/2in - 3mm.`,
    );
  const tokens = tokenise(text, say);
  let at = 0;
  const peek = () => tokens[at];

  // Each value carries its dimension: 0 a bare number, 1 a length in mm.
  type Value = { v: number; dim: 0 | 1 };
  const asLength = (x: Value): Value => (x.dim === 1 ? x : { v: x.v * (unit === "in" ? MM_PER_INCH : 1), dim: 1 });

  function primary(): Value {
    const t = tokens[at++];
    if (t === undefined) throw say();
    if (t === "(") {
      const v = sum();
      if (tokens[at++] !== ")") throw say();
      return v;
    }
    if (t === "-") {
      const v = primary();
      return { v: -v.v, dim: v.dim };
    }
    if (typeof t !== "number") throw say();
    let v = t;
    const next = peek();
    if (typeof next === "number") {
      // "5 1/2": a whole number followed by a fraction
      if (tokens[at + 1] !== "/" || typeof tokens[at + 2] !== "number") throw say();
      v += next / (tokens[at + 2] as number);
      at += 3;
    } else if (next === "/" && typeof tokens[at + 1] === "number" && tokens[at + 2] in UNIT_MM) {
      v /= tokens[at + 1] as number;
      at += 2;
    }
    const u = peek();
    if (typeof u === "string" && u in UNIT_MM) {
      at++;
      return { v: v * UNIT_MM[u], dim: 1 };
    }
    return { v, dim: 0 };
  }
  function product(): Value {
    let a = primary();
    while (peek() === "*" || peek() === "/") {
      const op = tokens[at++];
      const b = primary();
      if (op === "*") {
        if (a.dim + b.dim > 1) throw say();
        a = { v: a.v * b.v, dim: (a.dim + b.dim) as 0 | 1 };
      } else {
        if (b.dim === 1) throw say();
        a = { v: a.v / b.v, dim: a.dim };
      }
    }
    return a;
  }
  function sum(): Value {
    let a = product();
    while (peek() === "+" || peek() === "-") {
      const op = tokens[at++];
      const b = asLength(product());
      a = asLength(a);
      a = { v: op === "+" ? a.v + b.v : a.v - b.v, dim: 1 };
    }
    return a;
  }
  const v = asLength(sum()).v;
  if (at !== tokens.length || !Number.isFinite(v)) throw say();
  // Inches are exact in mm to a tenth: drop what binary fractions add.
  return Math.round(v * 1e9) / 1e9;
}

const UNIT_MM: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  '"': MM_PER_INCH,
  ft: 12 * MM_PER_INCH,
  "'": 12 * MM_PER_INCH,
};

function tokenise(text: string, say: () => Problem): (number | string)[] {
  const out: (number | string)[] = [];
  const pattern = /\s*(?:(\d+(?:[.,]\d+)?|[.,]\d+)|([a-z]+|["'])|([-+*/()]))/giy;
  const end = text.trimEnd().length;
  while (pattern.lastIndex < end) {
    const m = pattern.exec(text);
    if (!m) throw say();
    if (m[1] !== undefined) out.push(Number(m[1].replace(",", ".")));
    else if (m[2] !== undefined) {
      const u = m[2].toLowerCase();
      if (!(u in UNIT_MM)) throw say();
      out.push(u);
    } else out.push(m[3]);
  }
  if (out.length === 0) throw say();
  return out;
}

/** A length with the precision that matters on a machine: 0.01 mm or 0.001 in, without trailing noise. */
export function formatLength(mm: number, unit: Unit = "mm", decimals = unit === "mm" ? 2 : 3): string {
  const v = unit === "mm" ? mm : mm / MM_PER_INCH;
  const text = v
    .toFixed(decimals)
    .replace(/(\.\d*?)0+$/, "$1")
    .replace(/\.$/, "");
  return text === "-0" ? "0" : text;
}

/** Machining time as people say it: 42 s, 5 min 12 s, 1 h 12 min. */
export function formatTime(seconds: number): string {
  const s = Math.round(seconds);
  if (s < 60) return `${s} s`;
  if (s < 3600) return s % 60 === 0 ? `${Math.floor(s / 60)} min` : `${Math.floor(s / 60)} min ${s % 60} s`;
  const minutes = Math.round(s / 60);
  return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** Numbers of a setting. @throws Problem `bad-setting` naming it */
export function numbersOf(text: string, what: string): number[] {
  const parts = text
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number);
  if (parts.some((v) => !Number.isFinite(v)))
    throw new Problem("bad-setting", `${what}: "${text}" holds something that is not a number.`);
  return parts;
}

/** The finest detail that an eye can tell apart, radians: one minute of arc (as in the definition of 20/20 vision). */
export const FINEST_SEEN = Math.PI / 180 / 60;
