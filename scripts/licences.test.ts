import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { page, shipped } from "./licences.mjs";

const root = join(import.meta.dirname, "..");
const lock = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8"));

it("docs/licences.md lists what is shipped, as it is locked", () => {
  expect(readFileSync(join(root, "docs", "licences.md"), "utf8")).toBe(page(lock));
});

it("names every package a room declares, each with a licence, and no tool of the tests", () => {
  const lines = shipped(lock);
  for (const room of ["core", "files", "demo", "web"])
    for (const name of Object.keys(JSON.parse(readFileSync(join(root, room, "package.json"), "utf8")).dependencies))
      if (!name.startsWith("@oaken/"))
        expect(
          lines.some((l) => l.startsWith(`| ${name} |`)),
          name,
        ).toBe(true);
  expect(lines.filter((l) => /see the package|\| (vitest|eslint|prettier|playwright-core) \|/.test(l))).toEqual([]);
});
