import { Problem } from "../../problem.ts";

/** One word of a program: a letter and its number. */
export interface Word {
  letter: string;
  value: number;
}

/** A line of a program taken apart. */
export interface Block {
  /** from 1 */
  line: number;
  words: Word[];
  /** it began with a stroke: a controller leaves it out when its switch is on */
  optional: boolean;
}

export const badLine = (line: number, what: string): Problem =>
  new Problem("bad-program", `Line ${line} of the program: ${what}`);

/**
 * The lines of a program up to its second percent sign, comments left out.
 * @throws Problem `bad-program` with the line number
 */
export function blocksOf(text: string): Block[] {
  const out: Block[] = [];
  let begun = false;
  const lines = text.split(/\r\n|\n|\r/);
  for (let n = 0; n < lines.length; n++) {
    let line = lines[n]
      .replace(/\([^)]*\)/g, " ")
      .replace(/;.*/, "")
      .trim();
    if (line.startsWith("%")) {
      if (begun) break;
      line = "";
    }
    if (line === "") continue;
    begun = true;
    const optional = line.startsWith("/");
    out.push({ line: n + 1, words: wordsOf(optional ? line.slice(1) : line, n + 1), optional });
  }
  return out;
}

function wordsOf(line: string, n: number): Word[] {
  if (/[#[\]=]/.test(line)) throw badLine(n, "it uses parameters or expressions, which are not read here.");
  const words: Word[] = [];
  const pattern = /([A-Za-z])\s*([-+]?(?:\d+\.?\d*|\.\d+))|(\S)/g;
  for (let m = pattern.exec(line); m; m = pattern.exec(line)) {
    // The line itself is not said: the file may be a stranger's letter.
    if (m[3]) throw badLine(n, `it cannot be read from its character ${m.index + 1} on. Is this file a program?`);
    words.push({ letter: m[1].toUpperCase(), value: Number(m[2]) });
  }
  return words;
}
