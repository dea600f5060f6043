// start · dev · test · make · bench · shots: installs what is missing, builds what is stale, then runs.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { createHash } from "node:crypto";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { bundle, bundleDecoder, decoderBundle } from "./bundle.mjs";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const from = process.cwd();

const [said = "help", ...args] = process.argv.slice(2);
const command = ["--help", "-h"].includes(said) ? "help" : said;
const run = (cmd, argv, options = {}) => spawnSync(cmd, argv, { stdio: "inherit", cwd: root, ...options });
/** Runs a command, its errors straight to ours. @returns how it ended and what it printed */
const captured = (cmd, argv) =>
  new Promise((done, failed) => {
    const child = spawn(cmd, argv, { cwd: root, stdio: ["ignore", "pipe", "inherit"] });
    const parts = [];
    child.stdout.on("data", (part) => parts.push(part));
    child.on("error", failed).on("close", (status) => done({ status, text: Buffer.concat(parts).toString() }));
  });
const need = (result, what) => {
  if (result.status !== 0) {
    console.error(`${what} failed.`);
    process.exit(result.status ?? 1);
  }
};

/** Runs work while no other command of this checkout does the same kind: one waits for the other. */
function alone(what, work) {
  const place = join(tmpdir(), `oaken-${what}-${createHash("sha256").update(root).digest("hex").slice(0, 16)}`);
  for (;;) {
    try {
      writeFileSync(place, String(process.pid), { flag: "wx" });
      break;
    } catch (e) {
      if (e.code !== "EEXIST") throw e;
      if (!isRunning(place)) rmSync(place, { force: true });
      else Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 300);
    }
  }
  try {
    work();
  } finally {
    rmSync(place, { force: true });
  }
}

/** Whether the command that wrote its number into a file still runs. */
function isRunning(place) {
  try {
    process.kill(Number(readFileSync(place, "utf8")), 0);
    return true;
  } catch (e) {
    return e.code === "EPERM";
  }
}

/** node_modules as package-lock.json says; a stamp tells whether they are. */
function install() {
  const lock = createHash("sha256")
    .update(readFileSync(join(root, "package-lock.json")))
    .digest("hex");
  const stamp = join(root, "node_modules", ".oaken-installed");
  const isThere = () => existsSync(stamp) && readFileSync(stamp, "utf8") === lock;
  if (!isThere()) alone("install", () => isThere() || installPackages(stamp, lock));
}

function installPackages(stamp, lock) {
  console.error("Installing packages (sqlite3 is compiled; this takes a few minutes once) …");
  need(
    run("npm", ["ci", "--no-fund", "--no-audit", "--loglevel=error"], { stdio: ["ignore", 2, 2] }),
    "Installing packages",
  );
  writeFileSync(stamp, lock);
}

/** The web application built from the sources as they are; a stamp over their times tells whether it is. */
function buildWeb() {
  const h = createHash("sha256");
  const walk = (dir) => {
    for (const e of readdirSync(join(root, dir), { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (e.name === "node_modules" || e.name.startsWith(".next") || e.name === "tsconfig.tsbuildinfo") continue;
      const path = `${dir}/${e.name}`;
      if (e.isDirectory()) walk(path);
      else if (!path.endsWith(".test.ts")) h.update(path).update(readFileSync(join(root, path)));
    }
  };
  ["core", "files", "web"].forEach(walk);
  h.update(readFileSync(join(root, "package-lock.json")));
  const stamp = join(root, "web", ".next", "oaken-built");
  const want = h.digest("hex");
  const isThere = () => existsSync(stamp) && readFileSync(stamp, "utf8") === want;
  if (!isThere()) alone("build", () => isThere() || buildNext(stamp, want));
}

function buildNext(stamp, want) {
  console.log("Building the application …");
  need(
    run("npx", ["--no-install", "next", "build"], {
      cwd: join(root, "web"),
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
      stdio: ["ignore", "ignore", "inherit"],
    }),
    "Building",
  );
  writeFileSync(stamp, want);
}

/** Debian's Chromium, for the tests through the interface; installed while other work goes on. */
async function chromium() {
  if (process.env.CHROMIUM || existsSync("/usr/bin/chromium")) return;
  console.error("Installing Chromium for the tests …");
  await ended("apt-get", ["update", "-q"], "ignore");
  const installed = await ended("apt-get", ["install", "-y", "-q", "--no-install-recommends", "chromium"], "inherit");
  need(installed, "Installing Chromium");
}

/** Runs a command beside this one. @returns how it ended */
const ended = (cmd, argv, errors) =>
  new Promise((done) =>
    spawn(cmd, argv, {
      stdio: ["ignore", "ignore", errors],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    })
      .on("error", () => done({ status: 1 }))
      .on("exit", (status) => done({ status })),
  );

const port = process.env.OAKEN_PORT ?? "4610";
const host = process.env.OAKEN_HOST ?? "127.0.0.1";
const data = process.env.OAKEN_DATA ? resolve(from, process.env.OAKEN_DATA) : join(root, "data");
const environment = {
  ...process.env,
  OAKEN_DATA: data,
  OAKEN_DECODER: decoderBundle,
  NEXT_TELEMETRY_DISABLED: "1",
};

const address = `http://${host}:${port}`;

/** Whether somebody listens on the port already. */
const isTaken = () =>
  new Promise((done) => {
    const trial = createServer();
    trial.once("error", (e) => done(e.code === "EADDRINUSE"));
    trial.listen(Number(port), host, () => trial.close(() => done(false)));
  });

async function checkPort() {
  if (!(await isTaken())) return;
  console.error(
    `Port ${port} is in use on ${host}. If another Oaken Bit runs there, open ${address}; otherwise choose another ` +
      "port: OAKEN_PORT=4711 ./oaken start.",
  );
  process.exit(1);
}

/** Runs the server, which says when it serves, until it ends; passes on the signals that end it. */
function serve(kind) {
  const child = spawn(process.execPath, [join(root, "scripts", "serve.mjs"), kind, host, port], {
    env: environment,
    stdio: "inherit",
  });
  for (const s of ["SIGINT", "SIGTERM"]) process.on(s, () => child.kill(s));
  child.on("exit", (code) => process.exit(code ?? 0));
}

async function seed(...argv) {
  await bundleDecoder();
  const made = run(process.execPath, [await bundle("demo/seed.ts", "seed"), ...argv], { env: environment });
  // It has said what is wrong with the data folder.
  if (made.status !== 0) process.exit(made.status ?? 1);
}

/** A command of the command line, run where the user stands. */
async function cli(command) {
  install();
  const [main] = await Promise.all([bundle("cli/main.ts", "cli"), bundleDecoder()]);
  process.exit(run(process.execPath, [main, command, ...args], { cwd: from, env: environment }).status ?? 1);
}

/** A command about the shop in the data folder: only these load the database. */
async function shop(command) {
  install();
  const main = await bundle("web/server/command-main.ts", "shop");
  process.exit(run(process.execPath, [main, command, ...args], { cwd: from, env: environment }).status ?? 1);
}

const HELP = `oaken start [--empty]      the application at ${address}, with the demo jobs but for --empty
oaken dev                  the same from the sources, read again as they change
oaken make PICTURE …       a picture into programs, drawings, proof and report; or a job file
oaken outline PICTURE …    its outline alone, as SVG and DXF
oaken check PROGRAM …      sweeps any G-code program through the stock and says what it would do
oaken feeds …              feed, plunge, spindle speed and depth of a cutter in a material, with reasons
oaken rack|materials|machines|dialects export|import FILE     the shop's tables
oaken test                 all tests; ends with how many passed and failed
oaken bench [NAME …]       what it takes, against libraries and physical limits
oaken shots                takes docs/screenshots anew
Options of each of make, outline, check and feeds: oaken make --help. More in README.md.`;

const tasks = {
  async start() {
    install();
    buildWeb();
    await checkPort();
    await seed(...args);
    serve("start");
  },
  async dev() {
    install();
    await checkPort();
    await seed();
    serve("dev");
  },
  make: () => cli("make"),
  outline: () => cli("outline"),
  check: () => cli("check"),
  feeds: () => cli("feeds"),
  rack: () => shop("rack"),
  materials: () => shop("materials"),
  machines: () => shop("machines"),
  dialects: () => shop("dialects"),
  async test() {
    const browser = chromium();
    install();
    const counts = { passed: 0, failed: 0 };
    const step = async (name, cmd, argv) => {
      const began = performance.now();
      const { status, text } = await captured(join(root, "node_modules", ".bin", cmd), argv);
      const seconds = Math.round((performance.now() - began) / 1000);
      process.stdout.write(`\n== ${name}, ${seconds} s\n${text}`);
      const line = /^\s*Tests\s+(.*)$/m.exec(text.replace(/\x1b\[[0-9;]*m/g, ""));
      const count = (what) => Number(new RegExp(`(\\d+) ${what}`).exec(line?.[1] ?? "")?.[1] ?? 0);
      if (line) {
        counts.passed += count("passed");
        counts.failed += count("failed");
        if (status !== 0 && count("failed") === 0) counts.failed++;
      } else counts[status === 0 ? "passed" : "failed"]++;
    };
    const written = async () => {
      await step("format", "prettier", ["--check", "--log-level=warn", "."]);
      await step("lint", "eslint", ["."]);
    };
    const typed = async () => {
      await step("types: core, without DOM or Node", "tsc", ["-p", "core"]);
      await step("types: files, command line, demo, tests", "tsc", ["-p", "tsconfig.json"]);
      await step("types: web", "tsc", ["--noEmit", "-p", "web"]);
    };
    await Promise.all([written(), typed()]);
    const unit = (name, ...argv) => step(`unit and property tests: ${name}`, "vitest", ["run", ...argv]);
    // Nothing there outlives a test: in one process a core its modules are read once, and stay compiled.
    await unit("core, demo", "core/", "demo/", "--poolOptions.forks.isolate=false");
    await unit("files, command line, web, documents", "files/", "cli/", "web/", "docs/", "scripts/");
    buildWeb();
    await browser;
    await step("through the interface", "vitest", ["run", "-c", "vitest.e2e.config.ts"]);
    console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
    process.exit(counts.failed === 0 ? 0 : 1);
  },
  async bench() {
    install();
    if (args.length === 0 || args.includes("page")) {
      await chromium();
      buildWeb();
      environment.OAKEN_DATA = mkdtempSync(join(tmpdir(), "oaken-bench-"));
      await seed();
    }
    if (args.includes("server") || args.includes("kills")) buildWeb();
    await bundleDecoder();
    process.exit(
      run(process.execPath, [await bundle("bench/main.ts", "bench"), ...args], { env: environment }).status ?? 1,
    );
  },
  async shots() {
    install();
    await chromium();
    buildWeb();
    const folder = mkdtempSync(join(tmpdir(), "oaken-shots-"));
    environment.OAKEN_DATA = folder;
    await seed();
    const out = join(root, "docs", "screenshots");
    mkdirSync(out, { recursive: true });
    need(
      run(process.execPath, [await bundle("e2e/shots.ts", "shots"), out, folder], { env: environment }),
      "Taking the screenshots",
    );
    rmSync(folder, { recursive: true });
  },
  help: () => console.log(HELP),
};

if (!Object.hasOwn(tasks, command)) {
  console.error(`oaken: there is no "${command}". Known: ${Object.keys(tasks).join(", ")}.`);
  process.exit(2);
}
await tasks[command]();
