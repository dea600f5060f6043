// The packages that the application ships with or runs on, with their licences, as docs/licences.md lists them.
// node scripts/licences.mjs writes the list; a test holds it to what package-lock.json says.
import { readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const ROOMS = ["core", "files", "cli", "demo", "web"];

/** Where Node finds a package for one that stands at `from` in package-lock.json. */
function find(packages, from, name) {
  for (let at = from; ; at = at.slice(0, Math.max(0, at.lastIndexOf("node_modules/") - 1))) {
    const path = `${at ? `${at}/` : ""}node_modules/${name}`;
    if (packages[path]) return path;
    if (at === "") return null;
  }
}

/**
 * Everything that a room's dependencies reach, without what only tests and tools use.
 * @returns lines "name | version | licence", in order
 */
export function shipped(lock) {
  const { packages } = lock;
  const seen = new Set();
  const waiting = ROOMS.flatMap((r) => Object.keys(packages[r].dependencies ?? {}).map((name) => [r, name]));
  while (waiting.length > 0) {
    const [from, name] = waiting.pop();
    const path = find(packages, from, name);
    // What another operating system or processor would get is listed with the rest of its package's optional parts.
    if (path === null || seen.has(path)) continue;
    seen.add(path);
    const p = packages[path];
    for (const n of Object.keys({ ...p.dependencies, ...p.optionalDependencies })) waiting.push([path, n]);
  }
  const lines = [...seen]
    .filter((path) => !packages[path].link)
    .map((path) => {
      const name = path.slice(path.lastIndexOf("node_modules/") + "node_modules/".length);
      return `| ${name} | ${packages[path].version} | ${packages[path].license ?? "see the package"} |`;
    });
  return [...new Set(lines)].sort();
}

export function page(lock) {
  return `# What is shipped, and under which licences

The code of Oaken Bit is under the [MIT licence](../LICENSE). The application runs on these packages from the registry,
each under its own licence; the three typefaces are under the SIL Open Font License 1.1. Written by
\`node scripts/licences.mjs\`; a test holds the list to \`package-lock.json\`.

| package | version | licence |
| --- | --- | --- |
${shipped(lock).join("\n")}
`;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const lock = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8"));
  writeFileSync(join(root, "docs", "licences.md"), page(lock));
}
