import { Problem } from "../problem.ts";

/** More people than sit in any class. */
export const MOST_PEOPLE = 200;
const MOST_LETTERS = 100;
/** What stock may measure, mm, as the schema of a job has it. */
const MOST_SIDE = 10_000;
const MOST_THICK = 500;
/** What a list's first line says when it is a head and nobody's name. */
const HEAD = /^(name|names|person|pupil|student)$/i;

/** Somebody who begins from a starting job; or one of several pieces, with the stock measured for it. */
export interface Person {
  name: string;
  /** width, height and thickness as measured, mm */
  stock?: { width: number; height: number; thickness: number };
}

const LENGTH = "(\\d+(?:[.,]\\d+)?)";
/** A size at the end of a line, such as 400 x 300.5 x 17,9 mm. */
const SIZE = new RegExp(`(?:^|[\\s;,])${[LENGTH, LENGTH, LENGTH].join("\\s*[x×]\\s*")}\\s*(?:mm)?[\\s"]*$`, "i");

/**
 * The people of a class from a pasted list or a table: a line each, the first column where there are several, quotes
 * taken off. A line may end with the size of the stock that was measured for it.
 * @throws Problem `bad-class` for twins, too many, or a name that is too long
 */
export function peopleFrom(text: string): Person[] {
  const people: Person[] = [];
  const lines = new Map<string, number>();
  text.split(/\r\n|\n|\r/).forEach((whole, i) => {
    const size = SIZE.exec(whole);
    const line = size ? whole.slice(0, size.index) : whole;
    const [first] = /^\s*"/.test(line) ? [/^\s*"([^"]*)"/.exec(line)?.[1] ?? line] : line.split(/[\t;,]/);
    // Letters that turn the direction of writing, and what cannot be seen, are no part of a name.
    const name = first.replace(/[\u0000-\u001f\u200b-\u200f\u202a-\u202e\u2066-\u2069]/g, "").trim();
    if (name === "" || (people.length === 0 && HEAD.test(name))) return;
    if (name.length > MOST_LETTERS)
      throw new Problem("bad-class", `Line ${i + 1}: a name has at most ${MOST_LETTERS} letters.`);
    const key = name.toLocaleLowerCase();
    const before = lines.get(key);
    if (before !== undefined)
      throw new Problem(
        "bad-class",
        `"${name}" is in line ${before} and in line ${i + 1}. Tell them apart, for example by a second letter.`,
      );
    lines.set(key, i + 1);
    const [width, height, thickness] = (size?.slice(1) ?? []).map((v) => Number(v.replace(",", ".")));
    const isStock = Math.min(width, height, thickness) > 0 && Math.max(width, height) <= MOST_SIDE;
    if (size && !(isStock && thickness <= MOST_THICK))
      throw new Problem(
        "bad-class",
        `Line ${i + 1}: stock measures more than 0 and up to ${MOST_SIDE} × ${MOST_SIDE} × ${MOST_THICK} mm.`,
      );
    people.push({ name, ...(size && { stock: { width, height, thickness } }) });
  });
  if (people.length === 0) throw new Problem("bad-class", "The list holds no names. Write one a line.");
  if (people.length > MOST_PEOPLE)
    throw new Problem("bad-class", `The list holds ${people.length} names; at most ${MOST_PEOPLE} are taken at once.`);
  return people;
}
