// start · dev · test · make · bench · shots: installs what is missing, builds what is stale, then runs.
import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { createHash } from "node:crypto";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const from = process.cwd();

const [command = "help", ...args] = process.argv.slice(2);
const run = (cmd, argv, options = {}) => spawnSync(cmd, argv, { stdio: "inherit", cwd: root, ...options });
const need = (result, what) => {
  if (result.status !== 0) {
    console.error(`${what} failed.`);
    process.exit(result.status ?? 1);
  }
};

/** node_modules as package-lock.json says; a stamp tells whether they are. */
function install() {
  const lock = createHash("sha256").update(readFileSync(join(root, "package-lock.json"))).digest("hex");
  const stamp = join(root, "node_modules", ".oaken-installed");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  console.error("Installing packages (sqlite3 is compiled; this takes a few minutes once) …");
  need(run("npm", ["ci", "--no-fund", "--no-audit", "--loglevel=error"], { stdio: ["ignore", 2, 2] }), "Installing packages");
  writeFileSync(stamp, lock);
}

/** Bundles a TypeScript entry for Node; a few hundredths of a second, so it is done every time. */
async function bundle(entry, name) {
  const { build } = await import("esbuild");
  const outfile = join(root, "dist", `${name}.mjs`);
  mkdirSync(dirname(outfile), { recursive: true });
  await build({ entryPoints: [join(root, entry)], outfile, bundle: true, platform: "node", format: "esm", target: "node20", packages: "external", external: [], plugins: [ourOwn], logLevel: "error" });
  return outfile;
}
/** Our own workspaces are bundled, everything from the registry stays outside. */
const ourOwn = {
  name: "our-own",
  setup(b) {
    b.onResolve({ filter: /^@oaken\// }, (a) => {
      const [, room, ...path] = a.path.split("/");
      return { path: join(root, room, `${path.join("/")}.ts`) };
    });
  },
};

const tasks = {
  async make() {
    install();
    process.exit(run(process.execPath, [await bundle("cli/main.ts", "cli"), "make", ...args], { cwd: from }).status ?? 1);
  },
  help() {
    console.log("oaken start · dev · test · make · bench · shots — see README.md");
  },
};

if (!Object.hasOwn(tasks, command)) {
  console.error(`oaken: there is no "${command}". Known: ${Object.keys(tasks).join(", ")}.`);
  process.exit(2);
}
await tasks[command]();
