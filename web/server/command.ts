import { readFile, writeFile } from "node:fs/promises";
import type { Entry } from "@oaken/core/shop/column";
import type { Part } from "@oaken/core/shop/parts";
import { partNamed } from "@oaken/core/shop/parts";
import { type Fault, writeCsv, writeJson } from "@oaken/core/shop/table";
import { Problem } from "@oaken/core/problem";

/** The commands that are about the shop, and the part that each is about. */
const COMMANDS: Record<string, string> = {
  rack: "cutters",
  materials: "materials",
  machines: "machines",
  dialects: "dialects",
};

/** Where the shop is kept. */
export interface Keeping {
  listEntries(part: Part): Promise<{ entry: Entry; retired: boolean }[]>;
  importEntries(part: string, text: string): Promise<{ taken: number; faults: Fault[] }>;
}

/**
 * Runs `oaken rack|materials|machines|dialects export|import FILE` on the data folder.
 * @returns the exit code: 0 done, 3 where the file has faults and nothing was taken; bad input throws a Problem
 */
export async function shop(args: readonly string[], keeping: Keeping, print: (line: string) => void): Promise<number> {
  const [command, what, file, ...more] = args;
  const part = partNamed(COMMANDS[command] ?? command);
  if ((what !== "export" && what !== "import") || file === undefined || more.length > 0)
    throw new Problem("usage", `oaken ${command} export|import FILE\n  FILE.csv is a table, FILE.json holds the same`);
  if (what === "export") {
    const entries = (await keeping.listEntries(part)).filter((k) => !k.retired).map((k) => k.entry);
    await writeFile(file, /\.csv$/i.test(file) ? writeCsv(part, entries) : writeJson(part, entries)).catch((e) => {
      throw new Problem("cannot-write", `${file} could not be written (${(e as NodeJS.ErrnoException).code}).`);
    });
    print(`${entries.length} ${part.id} are in ${file}.`);
    return 0;
  }
  const { taken, faults } = await keeping.importEntries(part.id, await textOf(file));
  for (const f of faults) print(`row ${f.row}: ${f.message}`);
  print(faults.length > 0 ? "Nothing was taken. Mend these and try again." : `${taken} ${part.id} were taken.`);
  return faults.length > 0 ? 3 : 0;
}

/** @throws Problem `no-file` */
const textOf = (file: string): Promise<string> =>
  readFile(file, "utf8").catch(() => {
    throw new Problem("no-file", `${file} cannot be opened. Check the name and that you may read it.`);
  });
