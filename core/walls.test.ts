import { readdirSync, readFileSync, statSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { expect, it } from "vitest";

const root = resolve(import.meta.dirname, "..");

function sources(dir: string): string[] {
  return readdirSync(dir).flatMap((n) => {
    const path = join(dir, n);
    if (n === "node_modules" || n.startsWith(".")) return [];
    if (statSync(path).isDirectory()) return sources(path);
    return /\.tsx?$/.test(n) && !n.includes(".test.") ? [path] : [];
  });
}

/** Room and path of everything a file imports from this repository. */
function imports(file: string): string[] {
  return [...readFileSync(file, "utf8").matchAll(/from "([^"]+)"/g)]
    .map((m) => m[1])
    .filter((p) => p.startsWith(".") || p.startsWith("@oaken/") || p.startsWith("@/"))
    .map((p) =>
      p.startsWith("@oaken/")
        ? p.slice(7)
        : p.startsWith("@/")
          ? `web/${p.slice(2)}`
          : relative(root, resolve(dirname(file), p)),
    );
}

it("rooms read only what they may", () => {
  const may: Record<string, string[]> = {
    core: ["core"],
    files: ["files", "core"],
    cli: ["cli", "files", "core"],
    web: ["web", "files", "core"],
  };
  const wrong = Object.entries(may).flatMap(([room, rooms]) =>
    sources(join(root, room)).flatMap((f) =>
      imports(f)
        .filter((p) => !rooms.includes(p.split("/")[0]))
        .map((p) => `${relative(root, f)} → ${p}`),
    ),
  );
  expect(wrong).toEqual([]);
});

it("inside core, rooms read only earlier ones", () => {
  const order = [
    "problem.ts",
    "hypot.ts",
    "later.ts",
    "growing.ts",
    "ascending.ts",
    "units.ts",
    "speech.ts",
    "kept.ts",
    "copy.ts",
    "colour.ts",
    "reasoned.ts",
    "cutters",
    "picture",
    "geometry",
    "lettering",
    "height",
    "outline",
    "settings",
    "makings",
    "toolpath",
    "proof",
    "cuts",
    "output",
    "shop",
    "job",
    "inspect",
  ];
  const rank = (p: string) => order.indexOf(p.split("/")[1]);
  const wrong = sources(join(root, "core"))
    .filter((f) => !relative(root, f).startsWith("core/testing"))
    .flatMap((f) => {
      const me = relative(root, f);
      expect(rank(me), me).toBeGreaterThanOrEqual(0);
      return imports(f)
        .filter((p) => rank(p) > rank(me))
        .map((p) => `${me} → ${p}`);
    });
  // A cut kind knows the fields its settings are described by, and nothing of jobs.
  expect(wrong).toEqual([]);
});

it("nothing in core reads what a new workshop starts with: the shop is handed in", () => {
  const readers = sources(join(root, "core"))
    .filter((f) => !/core\/(testing|shop\/first)\//.test(f))
    .filter((f) => imports(f).some((p) => p.startsWith("core/shop/first")));
  expect(readers).toEqual([]);
});
