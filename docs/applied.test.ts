import { execFileSync, spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";

const root = join(import.meta.dirname, "..");
let copy: string;

/** What a page asks for: files to write whole, and changes to files that are there. */
function changesOf(page: string): { path: string; kind: string; text: string }[] {
  const text = readFileSync(join(import.meta.dirname, page), "utf8");
  return [...text.matchAll(/^`([\w./-]+)`[^\n]*:\n\n```(ts|diff)\n([\s\S]*?)```/gm)].map(([, path, kind, body]) => ({
    path,
    kind,
    text: body,
  }));
}

/** A file with the lines of a diff taken out and put in; the others must stand there, in that order. */
function changed(before: string, diff: string): string {
  const lines = before.split("\n");
  let at = 0;
  for (const line of diff.trimEnd().split("\n")) {
    const [sign, rest] = [line[0], line.slice(1)];
    if (sign === "+") {
      lines.splice(at++, 0, rest);
      continue;
    }
    const found = lines.indexOf(rest, at);
    expect(found, `"${rest}" stands in the file`).toBeGreaterThanOrEqual(0);
    at = found + 1;
    if (sign === "-") lines.splice(--at, 1);
  }
  return lines.join("\n");
}

function apply(page: string): string[] {
  const changes = changesOf(page);
  for (const { path, kind, text } of changes) {
    const file = join(copy, path);
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, kind === "ts" ? text : changed(readFileSync(file, "utf8"), text));
  }
  return changes.map((c) => c.path);
}

describe("the pages' own code, put into a copy of the tree", () => {
  beforeAll(() => {
    copy = mkdtempSync(join(tmpdir(), "oaken-pages-"));
    for (const part of ["core", "package.json"])
      cpSync(join(root, part), join(copy, part), { recursive: true, filter: (f) => !f.includes("node_modules") });
    symlinkSync(join(root, "node_modules"), join(copy, "node_modules"));
    writeFileSync(
      join(copy, "vitest.config.ts"),
      'export default { test: { include: ["core/**/*.test.ts"], testTimeout: 120000, pool: "forks" } };\n',
    );
  });
  afterAll(() => rmSync(copy, { recursive: true, force: true }));

  it("changes one folder and the register, no more", () => {
    expect(apply("adding-a-cut.md")).toEqual([
      "core/cuts/trace/trace.ts",
      "core/cuts/trace/plan.ts",
      "core/cuts/register.ts",
    ]);
    expect(apply("adding-a-making.md")).toEqual(["core/makings/mirror/mirror.ts", "core/makings/register.ts"]);
  });

  it("has no error of type", () => {
    const bin = join(root, "node_modules", ".bin", "tsc");
    expect(() => execFileSync(bin, ["-p", "core"], { cwd: copy, encoding: "utf8" })).not.toThrow();
  });

  it("passes every test that is run on all kinds", () => {
    const bin = join(root, "node_modules", ".bin", "vitest");
    const files = [
      "core/cuts/robust.test.ts",
      "core/job/keys.test.ts",
      "core/job/outcomes.test.ts",
      "core/walls.test.ts",
    ];
    const only = "trace: |mirror: |makes everything|inside core|most of them";
    const run = spawnSync(bin, ["run", ...files, "-t", only, "--reporter=verbose"], { cwd: copy, encoding: "utf8" });
    expect(run.status, run.stdout + run.stderr).toBe(0);
    for (const what of ["trace: plans something", "trace: each of its", "mirror: each of its", "makes everything"])
      expect(run.stdout, what).toContain(what);
  });
});
