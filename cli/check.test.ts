import { writeFile } from "node:fs/promises";
import { describe, expect, it } from "vitest";
import { check } from "./check.ts";
import { folderWithArt } from "./testing/folder.ts";

const { file } = await folderWithArt();

describe("oaken check", () => {
  const program = async (name: string, lines: string) => {
    await writeFile(file(name), lines);
    return file(name);
  };
  const say = async (...args: string[]) => {
    const said: string[] = [];
    const code = await check([...args, "--json"], (l) => said.push(l));
    return { code, ...JSON.parse(said[0]) };
  };
  it("finds a rapid through stock, a cut too deep and a plunge, with their places", async () => {
    const p = await program("rapid.nc", "G21 G90\nG0 Z5\nG0 X10 Y10\nG1 Z-2 F300\nG0 X40 Y10\nG0 Z5\nM30\n");
    const r = await say(p, "--stock", "60x40x10", "--cutter", "flat10");
    expect(r).toMatchObject({ code: 3, rapidsThroughStock: 1, plungesWithoutCentre: 1, depth: 2, throughStock: false });
    expect(r.places[0]).toMatchObject({ what: "rapid through stock", x: 40, y: 10 });
    const deep = await program("deep.nc", "G21 G90\nG0 Z5\nG0 X10 Y10\nG1 Z-15 F300\nG1 X20 F500\nG0 Z5\nM30\n");
    expect(await say(deep, "--stock", "60x40x10", "--cutter", "flat3")).toMatchObject({
      code: 3,
      movesDeeperThanFlutes: 2,
      throughStock: true,
    });
  });
  it("changes cutters with the program, takes its zero from where it is said to be, and reads inches", async () => {
    const p = await program(
      "two.nc",
      "G20 G90\nT1 M6\nM3 S9000\nG0 Z0.5\nG0 X-1 Y-0.5\nG1 Z-0.1 F10\nG1 X1 F20\nG0 Z0.5\nT2 M6\nG0 X0 " +
        "Y0.5\nG1 Z-0.2\nG0 Z0.5\nM30\n",
    );
    const r = await say(
      p,
      "--stock",
      "100x60x10",
      "--cutter",
      "flat:6",
      "--cutter",
      "v:60:12",
      "--zero",
      "centre-centre-top",
    );
    expect(r).toMatchObject({ code: 0, unit: "in", depth: 5.08 });
    expect(r.bounds.minX).toBeCloseTo(50 - 25.4, 3);
    await expect(check([p, "--stock", "100x60x10", "--cutter", "flat:6"], () => {})).rejects.toThrow(
      /changes to tool 2, but only 1 cutter was named/,
    );
  });
  it("finds what lies between the ends of moves, and what does nothing or turns nothing", async () => {
    const stock = ["--stock", "100x60x10", "--cutter", "flat:6"];
    const run = async (text: string): Promise<{ code: number; said: string }> => {
      await writeFile(file("odd.nc"), text);
      const lines: string[] = [];
      const code = await check([file("odd.nc"), ...stock], (l) => lines.push(l));
      return { code, said: lines.join("\n") };
    };
    const head = "G21 G90 M3 S9000 F600\nG0 Z5\nG0 X10 Y50\nG1 Z-1\n";
    // Both ends of the half round lie on the stock, its middle 10 mm beyond the far edge.
    expect((await run(`${head}G2 X50 Y50 I20 J0\nG0 Z5\nM30`)).said).toMatch(/1 moves? cut beyond the stock's edge/);
    expect((await run(`${head}G1 X50\nG0 Z5\nM30`)).said).toMatch(/Nothing wrong/);
    expect(await run("G21 G90\nG0 Z5\nM30")).toMatchObject({ code: 3, said: expect.stringMatching(/cuts nothing/) });
    expect(await run("")).toMatchObject({ code: 3 });
    expect(await run(head.replace("M3 S9000", "") + "G1 X50\nG0 Z5\nM30")).toMatchObject({
      code: 3,
      said: expect.stringMatching(/spindle stands still/),
    });
    expect((await run(`${head}G55\nG1 X50\nG0 Z5\nM30`)).said).toMatch(/offset G55/);
  });

  it("answers what cannot be read with the line", async () => {
    const p = await program("odd.nc", "G21\nG0 Z5\nHELLO\n");
    await expect(check([p, "--stock", "60x40x10", "--cutter", "flat3"], () => {})).rejects.toThrow(
      /Line 3 of the program/,
    );
    await expect(check([file("nowhere.nc"), "--stock", "60x40x10", "--cutter", "flat3"], () => {})).rejects.toThrow(
      /cannot be opened/,
    );
    await expect(check([p, "--cutter", "flat3"], () => {})).rejects.toThrow(/Name one program, with --stock/);
  });
});
