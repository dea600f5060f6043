import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import { ringsFrom } from "../../geometry/rings.ts";
import { circle, seeded, star } from "../../testing/random.ts";
import { planOn } from "../../testing/cutting.ts";
import { newSurface } from "../../proof/surface.ts";
import { sweep } from "../../proof/sweep.ts";
import { RAPID, TORCH_OFF, TORCH_ON, type Toolpath } from "../../toolpath/toolpath.ts";
import { readProgram } from "./reader.ts";
import { writePrograms } from "./writer.ts";
import { SHOP, cutterOf, dialectNamed } from "../../testing/shop.ts";

const zero = { x: 100, y: 0, z: -20 };
const head = { job: "Näme (odd)", zero: "somewhere", from: "revision 3" };

function cutsOf(seed: number) {
  const region = ringsFrom([star(seeded(seed), 10, 15, 40, 50, 50), circle(50, 50, 6, 40, true)]);
  return [
    {
      name: "Carve",
      cutter: cutterOf("v:60:12"),
      spindle: 18000,
      toolpath: planOn("vcarve", region, "v:60:12", { floor: 2 }).toolpath,
    },
    {
      name: "Cut out",
      cutter: cutterOf("flat:4"),
      spindle: 16000,
      toolpath: planOn("profile", region, "flat:4", { tabs: 3 }).toolpath,
    },
  ];
}

/** Every written end point, in order, without moves that the rounding made nothing of. */
const ends = (t: Toolpath, from = 0) =>
  Array.from(
    { length: t.kind.length - from },
    (_, i) => [t.kind[i + from] === RAPID, t.x[i + from], t.y[i + from], t.z[i + from]] as const,
  );

/** A program's moves in stock coordinates. */
const shifted = (t: Toolpath): Toolpath => ({
  ...t,
  x: t.x.map((v) => v + zero.x),
  y: t.y.map((v) => v + zero.y),
  z: t.z.map((v) => v + zero.z),
  cx: t.cx.map((v) => v + zero.x),
  cy: t.cy.map((v) => v + zero.y),
});

describe("programs re-read by a parser of their own", () => {
  for (const dialect of SHOP.dialects)
    it(`give back the moves: ${dialect.id}`, () => {
      for (let seed = 1; seed <= 4; seed++) {
        const cuts = cutsOf(seed);
        const programs = writePrograms(cuts, dialect, zero, head);
        if (!dialect.mostLines) expect(programs.length).toBe(dialect.files === "cutter" ? 2 : 1);
        const step = (dialect.unit === "mm" ? 1 : 25.4) * 10 ** -dialect.decimals;
        for (const p of programs) {
          const read = readProgram(p.text);
          expect(read.unit).toBe(dialect.unit);
          if (dialect.mostLines || !dialect.arcs || dialect.arcForm === "radius") continue;
          const want = p.cuts.flatMap((i) => ends(cuts[i].toolpath));
          const got = ends(read.toolpath);
          // Walk both: a written point may be missing only where it equals the one before it.
          let g = 0;
          for (const w of want) {
            const same = (q: (typeof got)[number]) =>
              Math.abs(q[1] + zero.x - w[1]) <= step &&
              Math.abs(q[2] + zero.y - w[2]) <= step &&
              Math.abs(q[3] + zero.z - w[3]) <= step;
            if (g < got.length && same(got[g])) g++;
            else if (g < got.length && got[g][0] && !same(got[g]) && g + 1 < got.length && same(got[g + 1])) g += 2;
            else expect(g > 0 && same(got[g - 1]), `point ${w}`).toBe(true);
          }
          expect(got.length - g).toBeLessThanOrEqual(1);
        }
      }
    });

  it("have no comment that begins with a name: what a controller does at MSG or LOG is nobody's to choose", () => {
    const names = ["MSG, hello", "LOGOPEN,/tmp/x", "(print, y)", "DEBUG, z", "PROBEOPEN a.txt", ") M30 (", "probe\nM3"];
    for (const name of names) {
      const cuts = cutsOf(1).map((c) => ({ ...c, name, stop: name }));
      for (const { text } of writePrograms(cuts, SHOP.dialects[0], zero, { ...head, job: name })) {
        const comments = text.match(/\([^\n]*\)/g)!;
        for (const c of comments) expect(c).toMatch(/^\((job|from|code|stock|for|bounds|cut|cutter|stop): [^()\n]*\)$/);
        // With its comments taken away nothing of the name is left.
        expect(text.replace(/\([^()\n]*\)/g, "")).not.toMatch(/hello|LOG|print|DEBUG|PROBE|M30 \(/);
      }
    }
  });

  it("hold no number that a machine cannot read: the writer refuses", () => {
    const [cut] = cutsOf(1);
    const spoil = (change: (c: typeof cut) => void): (() => unknown) => {
      const c = {
        ...cut,
        toolpath: {
          ...cut.toolpath,
          x: cut.toolpath.x.slice(),
          feed: cut.toolpath.feed.slice(),
          kind: cut.toolpath.kind.slice(),
        },
      };
      change(c);
      return () => writePrograms([c], SHOP.dialects[0], zero, head);
    };
    const last = cut.toolpath.kind.findIndex((k) => k === 1);
    for (const value of [NaN, Infinity, -Infinity, 1e300]) {
      expect(spoil((c) => (c.toolpath.x[last] = value))).toThrow(/no machine can read/);
      expect(spoil((c) => (c.toolpath.feed[last] = value))).toThrow(/no machine can read/);
      expect(spoil((c) => (c.spindle = value))).toThrow(/no machine can read/);
    }
    // A feed that rounds to none would stop the machine in the cut.
    expect(spoil((c) => (c.toolpath.feed[last] = 0.0000004))).toThrow(/no machine can read/);
    // Large and small numbers are written out, without an exponent.
    const { text } = (
      spoil((c) => ((c.spindle = 123456.7), (c.toolpath.x[last] = 100.0000004)))() as ReturnType<typeof writePrograms>
    )[0];
    expect(text).toContain("S123457");
    expect(text).not.toMatch(/\d[eE][-+]?\d/);
  });

  for (const dialect of SHOP.dialects)
    it(`sweep the same surface as the moves they came from: ${dialect.id}`, () => {
      for (const cut of cutsOf(2)) {
        const a = newSurface(100, 100, 0.2);
        const b = newSurface(100, 100, 0.2);
        sweep(a, cut.toolpath, profileOf(cut.cutter), 1);
        const programs = writePrograms([cut], dialect, zero, head);
        for (const p of programs) {
          sweep(b, shifted(readProgram(p.text).toolpath), profileOf(cut.cutter), 1);
        }
        let off = 0;
        for (let i = 0; i < a.z.length; i++) if (Math.abs(a.z[i] - b.z[i]) > 0.01) off++;
        // A flat cutter's edge may fall on either side of a cell for a hundredth of a millimetre.
        expect(off / a.z.length).toBeLessThan(0.0005 * (dialect.decimals < 3 ? 4 : 1));
      }
    });

  it("lift before any sideways rapid, state units and modes first, never write an exponent or minus zero", () => {
    for (const d of SHOP.dialects)
      for (const p of writePrograms(cutsOf(3), d, zero, head)) {
        const lines = p.text
          .split("\n")
          .filter((l) => l && !/^[(;]/.test(l))
          .map((l) => l.replace(/^N\d+ /, ""));
        expect(lines[0]).toBe(d.unit === "mm" ? "G21" : "G20");
        expect(lines[1]).toBe("G17 G90 G94 G54");
        expect(p.text).not.toMatch(/-0(?![.\d])|\de[-+]?\d|NaN|Infinity|undefined/);
        expect(p.text).toMatch(/^[\x20-\x7e\n]+$/);
        const t = readProgram(p.text).toolpath;
        for (let i = 1; i < t.kind.length; i++)
          if (t.kind[i] === RAPID && Math.hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1]) > 1e-9)
            expect(Math.min(t.z[i], t.z[i - 1]) + zero.z).toBeGreaterThan(0.4);
      }
  });

  it("go on in another file from a lift where a dialect takes so many lines only, and no file is longer", () => {
    const dialect = { ...SHOP.dialects[0], mostLines: 120 };
    // Pieces apart from each other: the cutter lifts between them.
    const pieces = [20, 40, 60, 80].flatMap((x) => [30, 70].map((y) => star(seeded(x + y), 8, 4, 8, x, y)));
    const carve = planOn("vcarve", ringsFrom(pieces), "v:60:12", { floor: 2 });
    const cut = { name: "Carve", cutter: cutterOf("v:60:12"), spindle: 18000, toolpath: carve.toolpath };
    const whole = writePrograms([cut], SHOP.dialects[0], zero, head);
    const parts = writePrograms([cut], dialect, zero, head);
    expect(parts.length).toBeGreaterThan(2);
    expect(new Set(parts.map((p) => p.name)).size).toBe(parts.length);
    const cutting = (t: string) => t.split("\n").filter((l) => /[XYZ]/.test(l) && !/^G0 Z/.test(l)).length;
    for (const p of parts) {
      // Longer only where one stroke is.
      if (p.lines > 120) expect(p.text.match(/^G0 X/gm)!.length).toBeLessThanOrEqual(2);
      expect(p.text).toMatch(/M3 S18000/);
    }
    const written = parts.reduce((sum, p) => sum + cutting(p.text), 0);
    expect(Math.abs(written - cutting(whole[0].text))).toBeLessThanOrEqual(2 * parts.length);
  });

  it("names programs so that nobody confuses them", () => {
    expect(writePrograms(cutsOf(1), SHOP.dialects[0], zero, head).map((p) => p.name)).toEqual([
      "01-name-odd-carve-v-60-12.nc",
      "02-name-odd-cut-out-flat-4.nc",
    ]);
    expect(() => dialectNamed("nonesuch")).toThrow(/No dialect/);
  });
});

describe("the reader", () => {
  it("reads incremental moves, radius arcs, comments and inches", () => {
    const { toolpath: t } = readProgram(
      "%\nN10 G20 G91 (to the right) G1 X1 F10\nG90 G2 X2 Y0 R0.5 ; half round\nG0 Z1\n",
    );
    expect([...t.x]).toEqual([25.4, 50.8, 50.8]);
    expect(t.cx[1]).toBeCloseTo(38.1, 6);
  });
  for (const [text, what] of [
    ["G1 X1", /without a feed/],
    ["G21\nG2 X1 Y1 I9 J0 F5", /Line 2.*centre/],
    ["G1 X@", /cannot be read/],
    ["G77 X1", /not known/],
  ] as const)
    it(`refuses ${JSON.stringify(text)}`, () => expect(() => readProgram(text)).toThrow(what));
});

describe("a torch's program", () => {
  const region = ringsFrom([star(seeded(2), 10, 20, 38, 50, 50), circle(50, 50, 8, 60, true)]);
  const plan = planOn("plasma", region, "torch:1.5", {});
  const cut = { name: "Plasma", cutter: cutterOf("torch:1.5"), spindle: 0, toolpath: plan.toolpath };
  for (const dialect of SHOP.dialects)
    it(`lights, waits, cuts and goes out where the moves say, and gives them back: ${dialect.id}`, () => {
      const [p] = writePrograms([cut], dialect, zero, head);
      expect(p.text).not.toMatch(/M3 S/);
      const { toolpath: t } = readProgram(p.text, true);
      const events = (q: Toolpath) =>
        [...q.kind].flatMap((k, i) =>
          k === TORCH_ON || k === TORCH_OFF ? [{ k, x: q.x[i], y: q.y[i], wait: q.feed[i] }] : [],
        );
      const [want, got] = [events(plan.toolpath), events(t)];
      // One more at the very end: the program puts everything out before it stops.
      expect(got.length).toBe(want.length + 1);
      want.forEach((w, i) => {
        expect(got[i].k).toBe(w.k);
        expect(Math.hypot(got[i].x + zero.x - w.x, got[i].y + zero.y - w.y)).toBeLessThan(
          dialect.decimals < 3 ? 0.01 : 0.005,
        );
        if (w.k === TORCH_ON) expect(got[i].wait).toBeCloseTo(w.wait, 3);
      });
      // Swept again it opens the same cells.
      const [a, b] = [newSurface(100, 100, 0.5, 3), newSurface(100, 100, 0.5, 3)];
      const profile = profileOf(cut.cutter);
      sweep(a, plan.toolpath, profile, 1);
      sweep(b, { ...shifted(t), z: t.z }, profile, 1);
      let differ = 0;
      for (let k = 0; k < a.z.length; k++) if (a.z[k] !== b.z[k]) differ++;
      expect(differ).toBeLessThan(dialect.decimals < 3 ? 40 : 8);
    });
});
