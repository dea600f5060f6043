import { describe, expect, it } from "vitest";
import { planOn } from "../../testing/cutting.ts";
import { circle, seeded, star } from "../../testing/random.ts";
import { ringsFrom } from "../../geometry/rings.ts";
import { cutterOf, dialectNamed, SHOP } from "../../testing/shop.ts";
import { profileOf } from "../../cutters/profile.ts";
import { newSurface } from "../../proof/surface.ts";
import { sweep } from "../../proof/sweep.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { blockLines, checkDialect, type Dialect } from "./dialect.ts";
import { type Piece, ProgramLines } from "./lines.ts";
import { programNames } from "./names.ts";
import { readBack } from "./readback.ts";
import { readProgram } from "./reader.ts";
import { writePrograms } from "./writer.ts";

const plain = dialectNamed("mm-per-cutter");
const zero = { x: 10, y: 20, z: 0 };
const head = { job: "Gate", zero: "front left corner", from: "revision 1" };
const region = ringsFrom([star(seeded(5), 9, 14, 40, 50, 50), circle(50, 50, 6, 40, true)]);
const cut = {
  name: "Pocket",
  cutter: cutterOf("flat:3"),
  spindle: 18000,
  toolpath: planOn("pocket", region, "flat:3", { depth: 1 }).toolpath,
};
const written = (more: Partial<Dialect>): string[] =>
  writePrograms([cut], { ...plain, ...more }, zero, head)[0]
    .text.trim()
    .split("\n");

describe("a dialect's blocks", () => {
  it("stand at the top and at the end, with their named values filled in", () => {
    const lines = written({ begin: "M8\nG4 P{tool}\nS{spindle}", end: "M9\nM5\nM2" });
    const at = lines.indexOf("G17 G90 G94 G54");
    expect(lines.slice(at + 1, at + 4)).toEqual(["M8", "G4 P1", "S18000"]);
    expect(lines.slice(-3)).toEqual(["M9", "M5", "M2"]);
  });
  for (const [what, more, says] of [
    ["an end that leaves the spindle on", { end: "M30" }, /leave the spindle on/],
    ["an end that does not end", { end: "M5" }, /would not end/],
    ["a block that moves the machine", { begin: "G0 X0 Y0" }, /moves the machine/],
    ["a block that plunges", { end: "G1 Z-5 F100\nM5\nM30" }, /moves the machine/],
    ["a block that changes the unit", { begin: "G20" }, /change what every later line means/],
    ["a block that counts distances", { begin: "G91" }, /change what every later line means/],
    ["an unknown named value", { begin: "(hello)\nM8 P{colour}" }, /\{colour\}, which is not known\. Known: \{safe\}/],
    ["a line that is none", { torchOn: "LIGHT UP #1" }, /cannot be read/],
  ] as [string, Partial<Dialect>, RegExp][])
    it(`${what} is refused with a sentence`, () => expect(() => checkDialect({ ...plain, ...more })).toThrow(says));
  it("a named value is filled in wherever it stands", () =>
    expect(blockLines("A{safe}B{safe}", { safe: "5", spindle: "1", tool: "2" })).toEqual(["A5B5"]));
});

describe("how lines are written", () => {
  it("comments after a semicolon, or none at all; lines numbered by a step", () => {
    expect(written({ comments: "semicolon" })[0]).toBe("; job: Gate");
    expect(written({ comments: "none" })[0]).toBe("G21");
    expect(written({ comments: "none", numbers: 5 }).slice(0, 2)).toEqual(["N5 G21", "N10 G17 G90 G94 G54"]);
  });
  it("a change of cutter as T and M6, or as a pause", () => {
    const cuts = [cut, { ...cut, name: "Fine", cutter: cutterOf("flat:2") }];
    const all = { ...plain, files: "all" as const };
    const text = (d: Dialect) => writePrograms(cuts, d, zero, head)[0].text;
    expect(text(all)).toMatch(/T2 M6/);
    expect(text({ ...all, change: "pause" })).not.toMatch(/M6/);
    expect(text({ ...all, change: "pause" })).toMatch(/M5\n\(cutter: 2, flat 2\)\nM0\n/);
  });
});

describe("reading a program back", () => {
  const pieces: Piece[] = [{ ...cut, tool: 1, from: 0, to: cut.toolpath.kind.length }];
  const text = (): string => {
    const out = new ProgramLines(plain, zero);
    out.begin([], pieces[0]);
    out.cut(pieces[0]);
    out.end(pieces[0]);
    return out.content;
  };
  it("finds nothing in what was written, and every change of a number in it", () => {
    const whole = text();
    expect(() => readBack(whole, pieces, plain, zero)).not.toThrow();
    const lines = whole.split("\n");
    const random = seeded(9);
    let tried = 0;
    for (let k = 0; k < 250; k++) {
      const i = Math.floor(random() * lines.length);
      const m = /([XYZIJ])(-?[\d.]+)/.exec(lines[i]);
      if (!m) continue;
      const by = 0.05 + random();
      const spoiled = [...lines];
      spoiled[i] = lines[i].replace(m[0], `${m[1]}${(Number(m[2]) + by).toFixed(3)}`);
      // A lift that goes higher than it must is none of its business.
      if (/^G0 Z/.test(lines[i])) continue;
      tried++;
      expect(() => readBack(spoiled.join("\n"), pieces, plain, zero), lines[i]).toThrow();
    }
    expect(tried).toBeGreaterThan(80);
  });
  it("finds a line left out, a line too many, and a rapid where a cut should be", () => {
    const lines = text().split("\n");
    const cutting = lines.findIndex((l, i) => i > 14 && /^G1 /.test(l) && /X/.test(l));
    const without = lines.filter((_, i) => i !== cutting);
    expect(() => readBack(without.join("\n"), pieces, plain, zero)).toThrow(/read back/);
    const more = [...lines.slice(0, cutting), "G1 X999 Y999", ...lines.slice(cutting)];
    expect(() => readBack(more.join("\n"), pieces, plain, zero)).toThrow(/does not give the toolpath/);
    const rapid = [...lines];
    rapid[cutting] = rapid[cutting].replace("G1", "G0");
    expect(() => readBack(rapid.join("\n"), pieces, plain, zero)).toThrow(/read back/);
  });
});

describe("a whole circle", () => {
  const w = new ToolpathWriter(1000, 300, 5000);
  w.above(60, 50);
  w.plunge(-1);
  w.arc(true, 50, 50, 60, 50, -1);
  w.arc(false, 50, 50, 60, 50, -1.5);
  const round = { name: "Round", cutter: cutterOf("flat:4"), spindle: 18000, toolpath: w.take() };
  for (const dialect of SHOP.dialects)
    it(`is written and read as one, level and sinking: ${dialect.id}`, () => {
      const [p] = writePrograms([round], dialect, zero, head);
      const [a, b] = [newSurface(100, 100, 0.25), newSurface(100, 100, 0.25)];
      sweep(a, round.toolpath, profileOf(round.cutter), 1);
      const t = readProgram(p.text).toolpath;
      const moved = (v: Float64Array, by: number) => v.map((c) => c + by);
      const [x, y] = [moved(t.x, zero.x), moved(t.y, zero.y)];
      sweep(b, { ...t, x, y, cx: moved(t.cx, zero.x), cy: moved(t.cy, zero.y) }, profileOf(round.cutter), 1);
      let [deep, off] = [0, 0];
      for (let i = 0; i < a.z.length; i++) {
        if (a.z[i] < -0.5) deep++;
        if (Math.abs(a.z[i] - b.z[i]) > 0.02) off++;
      }
      expect(deep).toBeGreaterThan(3500);
      expect(off).toBeLessThan(60);
    });
});

describe("moves too short for the last decimal", () => {
  it("are left out where they add up to nothing, wherever a lift follows", () => {
    const random = seeded(41);
    for (let k = 0; k < 60; k++) {
      const w = new ToolpathWriter(1000, 300, 5000);
      for (let n = 0; n < 6; n++) {
        w.above(10 + 80 * random(), 10 + 80 * random());
        w.plunge(-1);
        for (let m = 0; m < 8; m++) {
          const step = 10 ** (-7 * random());
          w.to(w.x + step * (random() - 0.5), w.y + step * (random() - 0.5), -1);
        }
      }
      const tiny = { ...cut, toolpath: w.take() };
      for (const dialect of SHOP.dialects) expect(() => writePrograms([tiny], dialect, zero, head)).not.toThrow();
    }
  });
});

describe("file names", () => {
  const part = { number: "01", job: "Näme/../x", cut: "Cut out", cutter: "flat 6" };
  it("follow the pattern, cleaned, and are never two alike", () => {
    const parts = [part, { ...part, number: "02" }, part];
    expect(programNames("{job}", parts, "nc")).toEqual(["name-..-x.nc", "name-..-x-2.nc", "name-..-x-3.nc"]);
    expect(programNames("{person} {number}", [{ ...part, person: "../../etc" }], "nc")).toEqual(["etc-01.nc"]);
  });
  it("keep to the letters that a controller shows", () => {
    for (const most of [8, 12, 24]) {
      const names = programNames("{job} {cut} {cutter} {number}", [part, part, part], "nc", most);
      expect(new Set(names).size).toBe(3);
      for (const n of names) expect(n.length).toBeLessThanOrEqual(most);
    }
  });
  it("a person's name of any letters makes a name that any system takes", () => {
    for (const person of ["a".repeat(300), "שלום", "=SUM(A1)", "con", "..", "/etc/passwd", "\u202Eevil"]) {
      const [name] = programNames("{person}-{number}", [{ ...part, person }], "nc");
      expect(name).toMatch(/^[a-z0-9][a-z0-9.-]{0,62}\.nc$/);
      expect(name).not.toMatch(/\.\.\//);
    }
  });
  it("a pattern with an unknown name is refused with those that are known", () =>
    expect(() => writePrograms([cut], plain, zero, { ...head, pattern: "{colour}" })).toThrow(
      /\{colour\} is not known.*\{number\}/,
    ));
});
