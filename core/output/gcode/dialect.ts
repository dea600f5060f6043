import { Problem } from "../../problem.ts";
import { MM_PER_INCH } from "../../units.ts";
import { blocksOf } from "./words.ts";

/** How a machine wants its program written. */
export interface Dialect {
  id: string;
  name: string;
  unit: "mm" | "in";
  /** digits after the point for coordinates */
  decimals: number;
  /** one file for each cutter, or tool changes inside one file */
  files: "cutter" | "all";
  arcs: boolean;
  /** how an arc says its centre: by I and J from its beginning (when not given), or by its radius R */
  arcForm?: "centre" | "radius";
  extension: string;
  /** seconds to wait after the spindle starts, as G4 P */
  dwell: number;
  /** how a torch is lit and put out */
  torchOn: string;
  torchOff: string;
  /** how a cutter is changed inside a program: T and M6 (when not given), or a pause with a message */
  change?: "tool" | "pause";
  /** how comments are written: in round brackets (when not given), after a semicolon, or not at all */
  comments?: "round" | "semicolon" | "none";
  /** lines are numbered N10, N20 … by this step; not numbered when not given */
  numbers?: number;
  /** lines after the modes at the top, with named values; see {@link NAMED_VALUES} */
  begin?: string;
  /** the lines that end a program; M5 and M30 when not given */
  end?: string;
  /** most lines of one file: longer programs go on in another, from a lift; any number when not given */
  mostLines?: number;
}

export const unitScale = (d: Dialect): number => (d.unit === "mm" ? 1 : 1 / MM_PER_INCH);

/** What a dialect's blocks may name in curly brackets, and what stands there in a program. */
export const NAMED_VALUES = {
  safe: "height above everything, in the program's unit",
  spindle: "the first cutter's spindle speed",
  tool: "the first cutter's number",
} as const;
export type NamedValues = Record<keyof typeof NAMED_VALUES, string>;

/** Lines of a block with its named values filled in. @throws Problem `bad-dialect` for a name that is not known */
export function blockLines(block: string, values: NamedValues): string[] {
  return block
    .split("\n")
    .map((line) =>
      line.trim().replace(/\{([^}]*)\}/g, (_, name: string) => {
        if (!(name in values))
          throw new Problem(
            "bad-dialect",
            `The block names {${name.slice(0, 20)}}, which is not known. Known: ` +
              `${Object.keys(NAMED_VALUES)
                .map((n) => `{${n}}`)
                .join(", ")}.`,
          );
        return values[name as keyof NamedValues];
      }),
    )
    .filter((line) => line !== "");
}

/** Words of axes and of what moves them: a block that held them could drive the cutter through the stock. */
const MOVING = new Set("XYZABCIJKRUVW");

/**
 * Checks what no single figure of a dialect can tell.
 * @throws Problem `bad-dialect`
 */
export function checkDialect(d: Dialect): void {
  const bad = (what: string) => new Problem("bad-dialect", what);
  if (d.numbers !== undefined && d.comments === undefined && d.numbers < 1)
    throw bad("Line numbers: at least 1 apart.");
  const sample: NamedValues = { safe: "5", spindle: "18000", tool: "1" };
  for (const [what, block] of [
    ["Begin block", d.begin],
    ["End block", d.end],
    ["Torch on", d.torchOn],
    ["Torch off", d.torchOff],
  ] as const) {
    if (block === undefined) continue;
    let blocks;
    try {
      blocks = blocksOf(blockLines(block, sample).join("\n"));
    } catch (e) {
      if (e instanceof Problem && e.code === "bad-dialect") throw e;
      throw bad(`${what}: it cannot be read as a program's lines. Write words such as M8 or G4 P2.`);
    }
    const words = blocks.flatMap((b) => b.words);
    const moving = words.find((w) => MOVING.has(w.letter));
    if (moving)
      throw bad(
        `${what}: it moves the machine (${moving.letter}${moving.value}). Oaken Bit lifts the cutter by itself; keep ` +
          "moves out of blocks.",
      );
    const unsafe = words.find((w) => w.letter === "G" && [20, 21, 18, 19, 91, 92, 93, 95].includes(w.value));
    if (unsafe)
      throw bad(
        `${what}: G${unsafe.value} would change what every later line means. Leave units and modes to Oaken Bit.`,
      );
  }
  if (d.end === undefined) return;
  const words = blocksOf(blockLines(d.end, sample).join("\n")).flatMap((b) => b.words);
  const has = (...codes: number[]) => words.some((w) => w.letter === "M" && codes.includes(w.value));
  if (!has(5)) throw bad("End block: it would leave the spindle on. Put M5 into it.");
  if (!has(2, 30)) throw bad("End block: the program would not end. Put M30 or M2 into it.");
}
