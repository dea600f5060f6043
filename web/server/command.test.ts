import { mkdtempSync } from "node:fs";
import { readFile, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { partNamed } from "@oaken/core/shop/parts";
import { writeCsv, writeJson } from "@oaken/core/shop/table";
import { shop } from "./command.ts";

const dir = mkdtempSync(join(tmpdir(), "oaken-command-"));
const file = (name: string) => join(dir, name);
afterAll(() => rm(dir, { recursive: true, force: true }));

describe("oaken rack export and import", () => {
  const kept = FIRST_SHOP.cutters.map((entry) => ({ entry: entry as never, retired: entry.owned === 0 }));
  const keeping = {
    listEntries: () => Promise.resolve(kept),
    importEntries: (_: string, given: string) =>
      Promise.resolve(given.includes("bad") ? { taken: 0, faults: [{ row: 2, column: "Name", message: "Name: no." }] }
        : { taken: 1, faults: [] }), // prettier-ignore
  };
  const say = async (...args: string[]) => {
    const said: string[] = [];
    return { code: await shop(args, keeping, (l) => said.push(l)), said };
  };
  it("writes what is in use, as a table or as JSON", async () => {
    const own = kept.filter((k) => !k.retired).map((k) => k.entry);
    await say("rack", "export", file("r.csv"));
    expect(await readFile(file("r.csv"), "utf8")).toBe(writeCsv(partNamed("cutters"), own));
    await say("rack", "export", file("r.json"));
    expect(await readFile(file("r.json"), "utf8")).toBe(writeJson(partNamed("cutters"), own));
  });
  it("names each fault of what it takes in, and ends with another code", async () => {
    await writeFile(file("bad.csv"), "bad");
    await writeFile(file("good.csv"), "good");
    expect(await say("rack", "import", file("bad.csv"))).toEqual({
      code: 3,
      said: ["row 2: Name: no.", "Nothing was taken. Mend these and try again."],
    });
    expect((await say("materials", "import", file("good.csv"))).code).toBe(0);
    await expect(say("rack", "import", "/nowhere.csv")).rejects.toThrow(/cannot be opened/);
    await expect(say("rack", "burn", "x")).rejects.toThrow(/export\|import FILE/);
  });
});
