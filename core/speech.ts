import { formatLength, MM_PER_INCH, type Unit } from "./units.ts";

/** Parts of an inch that a tape shows. */
const SIXTEENTHS = 16;
/** Feet in a metre (international foot, 1959). */
const FEET_PER_M = 1 / 0.3048;

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));

/**
 * A length as a field shows it: 139.7 mm in inches is "5 1/2", as every exact sixteenth is a fraction; others are
 * decimals.
 */
export function fieldLength(mm: number, unit: Unit): string {
  if (unit === "mm") return formatLength(mm);
  const parts = (Math.abs(mm) / MM_PER_INCH) * SIXTEENTHS;
  const whole = Math.round(parts);
  if (Math.abs(parts - whole) > 1e-6 || whole % SIXTEENTHS === 0) return formatLength(mm, "in");
  const common = divisor(whole % SIXTEENTHS, SIXTEENTHS);
  const fraction = `${(whole % SIXTEENTHS) / common}/${SIXTEENTHS / common}`;
  const inches = Math.floor(whole / SIXTEENTHS);
  return `${mm < 0 ? "-" : ""}${inches > 0 ? `${inches} ` : ""}${fraction}`;
}

/** Inches with as many decimals as tell them apart: a hold of 0.02 mm is 0.0008 in. */
function inches(mm: number): string {
  const fraction = fieldLength(mm, "in");
  if (fraction.includes("/")) return fraction;
  return formatLength(mm, "in", Math.abs(mm) < 0.254 ? 4 : 3);
}

const round = (v: number, figures = 3): string => String(Number(v.toPrecision(figures)));
const NUMBER = String.raw`-?\d+(?:,\d{3})*(?:\.\d+)?`;
/** What may stand between numbers that share one unit: 12 of 18 mm; x 3, y 4 mm; 180 × 120 × 18 mm. */
const BETWEEN = String.raw`(?: of | × | to | and |, y )`;
const number = (text: string): number => Number(text.replaceAll(",", ""));
const each = (list: string, convert: (v: number) => string): string =>
  list.replace(new RegExp(NUMBER, "g"), (n) => convert(number(n)));

/** What is said in mm, by what it is in inches; longer units first, so that "mm/min" is not taken for "mm". */
const SAYINGS: readonly [pattern: RegExp, said: (...found: string[]) => string][] = [
  [new RegExp(`(${NUMBER}) mm/min`, "g"), (_, v) => `${round(number(v) / MM_PER_INCH)} in/min`],
  [new RegExp(`(${NUMBER}) m/min`, "g"), (_, v) => `${round(number(v) * FEET_PER_M)} ft/min`],
  [new RegExp(`(${NUMBER}) mm²`, "g"), (_, v) => `${round(number(v) / MM_PER_INCH ** 2)} in²`],
  [new RegExp(`(${NUMBER}) px/mm`, "g"), (_, v) => `${round(number(v) * MM_PER_INCH)} px/in`],
  [
    new RegExp(`(${NUMBER}) pixels in a millimetre; under (${NUMBER})`, "g"),
    (_, v, least) => `${round(number(v) * MM_PER_INCH)} pixels in an inch; under ${round(number(least) * MM_PER_INCH)}`,
  ],
  [
    new RegExp(`(${NUMBER}) pixels in a millimetre`, "g"),
    (_, v) => `${round(number(v) * MM_PER_INCH)} pixels in an inch`,
  ],
  [new RegExp(`((?:${NUMBER}${BETWEEN})*${NUMBER}) mm(?![\\w²/])`, "g"), (_, list) => `${each(list, inches)} in`],
  [new RegExp(`(${NUMBER}) m (?=of )`, "g"), (_, v) => `${round(number(v) * FEET_PER_M)} ft `],
];

/**
 * A sentence in the person's unit. Sentences are made where lengths are mm; this is the edge at which they turn into
 * inches.
 */
export function spoken(text: string, unit: Unit): string {
  if (unit === "mm") return text;
  return SAYINGS.reduce((said, [pattern, say]) => said.replace(pattern, say), text);
}
