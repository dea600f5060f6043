import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { profileOf } from "../cutters/profile.ts";
import type { Peer } from "../cuts/kind.ts";
import { ringsFrom, type Rings } from "../geometry/rings.ts";
import type { BoardJob } from "../job/document.ts";
import { removeMaking } from "../job/edit.ts";
import { checkBoard } from "../job/schema.ts";
import { lostDetail } from "../proof/lost.ts";
import { nothingSwept, sweep } from "../proof/sweep.ts";
import { newSurface } from "../proof/surface.ts";
import type { Settings } from "../settings/fields.ts";
import { built } from "../testing/building.ts";
import { planOn } from "../testing/cutting.ts";
import { circle, seeded, star } from "../testing/random.ts";
import { PLUNGE, RAPID, type Toolpath } from "../toolpath/toolpath.ts";
import { inspect } from "./inspect.ts";
import { begun, cutterOf } from "../testing/shop.ts";

const disc = (r: number): Rings => ringsFrom([circle(50, 50, r, 180)]);
const box = (x0: number, y0: number, x1: number, y1: number): [number, number][] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const pocketed: Peer = { id: "p", kind: "pocket", cutter: cutterOf("flat:3"), settings: { depth: 2 } };
const carved: Peer = { id: "c", kind: "vcarve", cutter: cutterOf("v:60:12"), settings: {} };

interface Said {
  code: string;
  when: string;
  kind: string;
  art: Rings;
  cutter: string;
  own?: Settings;
  target?: Peer;
}
/** What cuts say while they are planned, each in the situation that it is about. */
const NOTES: readonly Said[] = [
  { code: "clear-without-carve", when: "its carve is gone", kind: "clear", art: disc(20), cutter: "flat:3" },
  {
    code: "nothing-to-clear",
    when: "no floor is wide enough",
    kind: "clear",
    art: disc(2),
    cutter: "flat:6",
    target: carved,
  },
  { code: "rest-without-pocket", when: "its pocket is gone", kind: "rest", art: disc(20), cutter: "flat:1" },
  {
    code: "rest-not-smaller",
    when: "its cutter is no smaller",
    kind: "rest",
    art: disc(20),
    cutter: "flat:3",
    target: pocketed,
  },
  {
    code: "no-stroke-width",
    when: "there is no centre line to follow",
    kind: "engrave",
    art: disc(20),
    cutter: "v:60:12",
    own: { by: "width" },
  },
  {
    code: "no-room-for-lead",
    when: "an opening is narrower than its lead",
    kind: "plasma",
    art: ringsFrom([box(20, 20, 80, 80), box(45, 49, 55, 51.2).reverse()]),
    cutter: "torch:1.5",
    own: { lead: 40, shape: "line" },
  },
  {
    code: "pierce-off-sheet",
    when: "the part fills the sheet",
    kind: "plasma",
    art: ringsFrom([box(0.2, 0.2, 99.8, 99.8)]),
    cutter: "torch:1.5",
    own: { lead: 0, shape: "none" },
  },
  {
    code: "strokes-lost-to-kerf",
    when: "a slit closes up",
    kind: "plasma",
    art: ringsFrom([box(20, 20, 80, 80), [...box(30, 30, 70, 40), ...box(30, 40, 31, 70)].reverse()]),
    cutter: "torch:4",
  },
  {
    code: "holes-too-small",
    when: "a hole is narrower than the sheet is thick",
    kind: "plasma",
    art: ringsFrom([box(20, 20, 80, 80), circle(50, 50, 4, 60, true)]),
    cutter: "torch:1.5",
  },
  {
    code: "too-many-moves",
    when: "no thinning keeps to the controller's limit",
    kind: "plasma",
    art: ringsFrom([star(seeded(4), 40, 20, 40)]),
    cutter: "torch:1.5",
    own: { linesMost: 20 },
  },
];

describe("what cuts say while they are planned", () => {
  for (const { code, when, kind, art, cutter, own, target } of NOTES)
    it(`${code}: ${when}`, () => {
      const { notes } = planOn(kind, art, cutter, own ?? {}, target ? { target } : {});
      const note = notes.find((n) => n.code === code);
      expect(note, `said ${notes.map((n) => n.code).join()}`).toBeDefined();
      expect(note!.message).toMatch(/^[A-Z0-9].*\.$/s);
    });
});

const [W, H] = [200, 150];
const data = new Uint8Array(4 * W * H).fill(255);
for (let y = 30; y < 120; y++) for (let x = 40; x < 160; x++) data.fill(10, 4 * (y * W + x), 4 * (y * W + x) + 3);
const picture = { width: W, height: H, data };

function job(outcome: string, edit: (j: BoardJob) => void = () => {}): BoardJob {
  const asset = { sha: "d".repeat(64), name: "box.png", width: W, height: H };
  const j = begun(outcome, asset, { width: 120, height: 90, thickness: 12 });
  edit(j);
  return checkBoard(j);
}
const codes = (j: BoardJob, raster = picture) =>
  inspect({ build: built(j, raster, { cells: 40_000 }) }).map((f) => f.code);

/** A path of one kind of move from place to place. */
function path(kind: number, places: [number, number, number][]): Toolpath {
  const column = (k: 0 | 1 | 2) => Float64Array.from(places, (p) => p[k]);
  const n = places.length;
  const none = () => new Float64Array(n);
  return {
    kind: new Uint8Array(n).fill(kind),
    x: column(0),
    y: column(1),
    z: column(2),
    cx: none(),
    cy: none(),
    feed: none(),
  };
}

describe("what the proof tells of moves, whatever planned them", () => {
  const swept = (kind: number, places: [number, number, number][]) => {
    const build = built(job("pocket"), picture, { cells: 40_000 });
    const report = nothingSwept();
    const toolpath = path(kind, places);
    sweep(newSurface(120, 90, 0.5, 12), toolpath, profileOf(cutterOf("flat:6")), 1, 0, places.length, report);
    build.cuts[0].toolpath = toolpath;
    build.cuts[0].cut.cutter.centreCutting = false;
    build.swept[0] = report;
    return inspect({ build });
  };
  it("rapid-through-stock: a way at rapid speed below the stock's top", () => {
    const found = swept(RAPID, [
      [20, 40, -2],
      [90, 40, -2],
    ]);
    expect(found.find((f) => f.code === "rapid-through-stock")).toMatchObject({ severity: "stop" });
  });
  it("plunge-without-centre: straight down with a cutter that does not cut there", () => {
    const found = swept(PLUNGE, [
      [40, 40, 1],
      [40, 40, -3],
    ]);
    const f = found.find((q) => q.code === "plunge-without-centre");
    expect(f).toMatchObject({ severity: "stop", cure: { field: "entry", value: "auto" } });
  });
  it("floor-uncut: a carve that is stopped half way leaves its floor too high", () => {
    const build = built(job("sign"), picture, { cells: 40_000 });
    const [carve] = build.cuts;
    const half = newSurface(120, 90, build.proof.cell, 12);
    sweep(half, carve.toolpath, profileOf(carve.cut.cutter), 1, 0, carve.toolpath.kind.length >> 1);
    build.lost!.cuts[0] = lostDetail(half, carve.asked!, new Uint8Array(half.z.length));
    expect(inspect({ build }).find((f) => f.code === "floor-uncut")).toMatchObject({ severity: "warning" });
    expect(codes(job("sign"))).not.toContain("floor-uncut");
  });
});

describe("what is missing is said on what misses it", () => {
  it("no-outline: a job with nothing to cut", () => {
    expect(codes(job("pocket", (j) => removeMaking(j, "outline")))[0]).toBe("no-outline");
  });
  it("shape-failed: a cut whose outline could not be traced, beside one that could", () => {
    const j = job("pocket", (d) => {
      d.makings.push({ ...structuredClone(d.makings[2]), id: "dark", settings: { ink: 0.004 } });
      d.cuts.push({ ...structuredClone(d.cuts[0]), id: "second", reads: { art: "dark" } });
    });
    expect(codes(j)).toContain("shape-failed");
  });
});

it("every finding and note is named by a test", () => {
  const root = join(import.meta.dirname, "../..");
  const walk = (dir: string): string[] =>
    readdirSync(join(root, dir)).flatMap((n) => {
      const path = `${dir}/${n}`;
      if (n === "node_modules" || n.startsWith(".")) return [];
      return statSync(join(root, path)).isDirectory() ? walk(path) : [path];
    });
  const read = (path: string) => readFileSync(join(root, path), "utf8");
  const sources = ["core/inspect/rules", "core/cuts", "core/job"].flatMap(walk).filter((f) => !f.endsWith(".test.ts"));
  const named = new Set(sources.flatMap((f) => [...read(f).matchAll(/code: "([a-z-]+)"/g)].map((m) => m[1])));
  const tests = ["core", "files", "cli", "demo", "e2e", "web"]
    .flatMap(walk)
    .filter((f) => f.endsWith(".test.ts"))
    .map(read);
  expect(named.size).toBeGreaterThan(40);
  expect([...named].filter((code) => !tests.some((t) => t.includes(`"${code}"`) || t.includes(`${code}:`)))).toEqual(
    [],
  );
});
