import { readFile } from "node:fs/promises";
import { partNamed } from "@oaken/core/shop/parts";
import { readTable } from "@oaken/core/shop/table";
import { Problem } from "@oaken/core/problem";

/**
 * Entries of a part from a file that the command line names.
 * @throws Problem `no-file`, `bad-shop-file`, naming the first fault
 */
export async function entriesFrom<T>(part: string, file: string): Promise<T[]> {
  const text = () =>
    readFile(file, "utf8").catch(() => {
      throw new Problem("no-file", `${file} cannot be opened. Check the name and that you may read it.`);
    });
  const { entries, faults } = readTable(partNamed(part), await text());
  const [first] = faults;
  if (first) throw new Problem("bad-shop-file", `${file}, row ${first.row}: ${first.message}`);
  return entries as unknown as T[];
}
