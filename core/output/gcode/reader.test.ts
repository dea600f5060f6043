import { describe, expect, it } from "vitest";
import { FEED, RAPID } from "../../toolpath/toolpath.ts";
import { readProgram } from "./reader.ts";

const HEAD = "G21 G90 G17 G94 M3 S1000 F100\n";
const moves = (text: string) => {
  const { toolpath: t } = readProgram(text);
  return Array.from(t.kind, (k, i) => [k === RAPID ? "rapid" : k === FEED ? "feed" : "arc", t.x[i], t.y[i], t.z[i]]);
};

describe("words act in the standard's order, wherever they stand in their line", () => {
  it("a tool named after its change is the one that comes", () => {
    const r = readProgram(`${HEAD}M6 T2\nG0 X1\nT3\nG0 X2\nM6\nG0 X3`);
    expect([...r.tool]).toEqual([2, 2, 3]);
  });
  it("units and distance mode before the move of their line, the feed too", () => {
    expect(moves("M3 F10\nG1 X1 Y2 G20 G91\nX1")).toEqual([
      ["feed", 25.4, 50.8, 0],
      ["feed", 50.8, 50.8, 0],
    ]);
    expect(moves("G21 G1 X1 F10")).toEqual([["feed", 1, 0, 0]]);
  });
  it("the spindle is on for the move of its line, and off from M5 on", () => {
    expect([...readProgram("G21 F100\nG1 X1\nG1 X2 M3\nX3\nM5\nX4").spinning]).toEqual([0, 1, 1, 0]);
  });
});

describe("drilling cycles", () => {
  const at = (x: number, y: number, heights: [string, number][]) => heights.map(([k, z]) => [k, x, y, z]);
  it("G81 goes down and back at every place, to where it began or to its plane", () => {
    expect(moves(`${HEAD}G0 Z10\nG98 G81 X5 Y6 Z-3 R2\nX9\nG99 X11\nG80\nG0 X0`)).toEqual([
      ["rapid", 0, 0, 10],
      ...at(5, 6, [
        ["rapid", 10],
        ["rapid", 2],
        ["feed", -3],
        ["rapid", 2],
        ["rapid", 10],
      ]),
      ...at(9, 6, [
        ["rapid", 10],
        ["rapid", 2],
        ["feed", -3],
        ["rapid", 2],
        ["rapid", 10],
      ]),
      ...at(11, 6, [
        ["rapid", 10],
        ["rapid", 2],
        ["feed", -3],
        ["rapid", 2],
      ]),
      ["rapid", 0, 6, 2],
    ]);
  });
  it("G83 in pecks, each from the plane, and never deeper than asked", () => {
    const z = moves(`${HEAD}G0 Z5\nG99 G83 X0 Y0 Z-2.5 R1 Q1`)
      .filter(([k]) => k === "feed")
      .map((m) => m[3]);
    expect(z).toEqual([0, -1, -2, -2.5]);
    // A peck breaks chips by going up a little only.
    const broken = moves(`${HEAD}G0 Z5\nG99 G73 X0 Y0 Z-2 R0 Q1`)
      .filter(([k], i) => k === "rapid" && i > 3)
      .map((m) => m[3] as number);
    expect(Math.max(...broken.slice(0, -1))).toBeLessThan(-0.5);
  });
  it("G91 counts from where it is, as often as it says; G82 waits at every bottom", () => {
    const r = readProgram(`${HEAD}G0 X0 Y0 Z5\nG91 G99 G82 X10 Z-3 R-4 P0.5 L3`);
    const bottoms = Array.from(r.toolpath.kind, (k, i) =>
      k === FEED ? [r.toolpath.x[i], r.toolpath.z[i]] : null,
    ).filter(Boolean);
    expect(bottoms).toEqual([
      [10, -2],
      [20, -2],
      [30, -2],
    ]);
    expect(r.dwell).toBeCloseTo(1.5, 9);
  });
  it("without a depth or a plane is no cycle", () => {
    expect(() => readProgram(`${HEAD}G81 X1 Y1 Z-2`)).toThrow(/Line 2.*needs a depth/);
    expect(() => readProgram(`${HEAD}G80 X1`)).toThrow(/no motion is in force/);
  });
});

describe("zeros and the machine's own places", () => {
  it("G92 shifts what follows and G92.1 takes it back", () => {
    expect(moves(`${HEAD}G0 X10\nG92 X0\nG0 X5\nG92.1\nG0 X5`).map((m) => m[1])).toEqual([10, 15, 5]);
  });
  it("G28 goes by way of a place and is above everything then", () => {
    const m = moves(`${HEAD}G0 X10 Z-2\nG91 G28 Z0\nG90 G0 X40`);
    expect(m.map((q) => q[1])).toEqual([10, 10, 10, 40]);
    expect(m[3][3]).toBeGreaterThan(50);
    expect(readProgram(`${HEAD}G28`).remarks.join()).toMatch(/G28.*not judged/);
    expect(readProgram(`${HEAD}G53 G0 Z0`).remarks.join()).toMatch(/G53.*not judged/);
  });
  it("what cannot be judged is said, once", () => {
    const said = (code: string): string => readProgram(`${HEAD}${code}\n${code}\nG0 X1`).remarks.join("|");
    expect(said("G55")).toMatch(/^The program works from the offset G55[^|]*$/);
    expect(said("G43 H2")).toMatch(/tool lengths/);
    expect(said("M98 P100")).toMatch(/calls another program/);
    expect(said("/G0 X2")).toMatch(/leaves out/);
    expect(said("G0 A90")).toMatch(/axes that turn/);
    expect(readProgram(HEAD).remarks).toEqual([]);
    for (const [code, what] of [
      ["G18", /another plane/],
      ["G41", /cutter table/],
      ["G93", /inverse/],
      ["#1=2", /parameters/],
      ["G1 X[1+2]", /expressions/],
    ] as const)
      expect(() => readProgram(HEAD + code)).toThrow(what);
  });
  it("optional lines are run; nothing after the end is", () => {
    expect(moves(`O1234\n${HEAD}/G0 X2\nG0 X3\nM30\nG0 X99`).map((m) => m[1])).toEqual([2, 3]);
    expect(readProgram("G21\nM30\nG0 X9\nG0 X8").remarks.join()).toMatch(/2 lines after its end/);
    expect(moves("%\nG21 G0 X1\n%\nG0 X5").map((m) => m[1])).toEqual([1]);
  });
  it("a stranger's line is shown in part and in plain letters", () => {
    const secret = `G1 X1 ${"\u001b[2J"}${"z".repeat(400)}`;
    let said = "";
    try {
      readProgram(secret);
    } catch (e) {
      said = (e as Error).message;
    }
    expect(said.length).toBeLessThan(140);
    expect(said).toMatch(/^[\x20-\x7e…]+$/);
  });
});
