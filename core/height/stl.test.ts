import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import type { HeightField } from "./field.ts";
import { projected, SIDES, turned } from "./projected.ts";
import { type Mesh, readStl, writeStl } from "./stl.ts";

const BOTTOM = -9;

/** Hills on a board that begins away from the origin. */
function hills(width: number, height: number, cell: number): HeightField {
  const random = seeded(width);
  const z = Float32Array.from({ length: width * height }, () => -5 * random());
  return { x0: 3, y0: -2, cell, width, height, z };
}

/** Each directed edge of a mesh with how often it is there, by the corners' own numbers. */
function edges({ xyz }: Mesh): Map<string, number> {
  const out = new Map<string, number>();
  const name = (k: number) => `${xyz[k]},${xyz[k + 1]},${xyz[k + 2]}`;
  for (let k = 0; k < xyz.length; k += 9)
    for (const [a, b] of [
      [0, 3],
      [3, 6],
      [6, 0],
    ]) {
      const edge = `${name(k + a)} ${name(k + b)}`;
      out.set(edge, (out.get(edge) ?? 0) + 1);
    }
  return out;
}

/** What a closed mesh encloses: a sixth of the sum of its triangles' determinants; more than 0 facing outward. */
function volume({ xyz }: Mesh): number {
  let sum = 0;
  for (let k = 0; k < xyz.length; k += 9) {
    const [ax, ay, az, bx, by, bz, cx, cy, cz] = xyz.subarray(k, k + 9);
    sum += ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
  }
  return sum / 6;
}

describe("a surface written as a solid", () => {
  for (const [width, height] of [
    [2, 2],
    [7, 5],
    [61, 40],
  ])
    it(`${width} × ${height} samples: closed, facing outward, as much as stands above the underside`, () => {
      const f = hills(width, height, 0.5);
      const mesh = readStl(writeStl(f, BOTTOM));
      const found = edges(mesh);
      for (const [edge, times] of found) {
        const [from, to] = edge.split(" ");
        expect(found.get(`${to} ${from}`), edge).toBe(times);
      }
      const mean = f.z.reduce((a, b) => a + b) / f.z.length - BOTTOM;
      const area = width * height * f.cell * f.cell;
      // Outermost samples stand for half a cell more: with few samples that is much of the board.
      expect(volume(mesh) / (mean * area)).toBeGreaterThan(0.75);
      expect(volume(mesh) / (mean * area)).toBeLessThan(1.25);
    });

  it("a level board's volume is exact, and where it is cut through it stays closed", () => {
    const f = hills(20, 10, 1);
    f.z.fill(-4);
    expect(volume(readStl(writeStl(f, BOTTOM)))).toBeCloseTo(20 * 10 * 5, 2);
    f.z.fill(BOTTOM - 3, 50, 90);
    const mesh = readStl(writeStl(f, BOTTOM));
    for (const [edge, times] of edges(mesh)) expect(edges(mesh).get(edge.split(" ").reverse().join(" "))).toBe(times);
  });

  it("keeps to the number of triangles given", () => {
    const f = hills(300, 200, 0.1);
    const all = readStl(writeStl(f, BOTTOM)).xyz.length / 9;
    const few = readStl(writeStl(f, BOTTOM, 5000)).xyz.length / 9;
    expect(all).toBeGreaterThan(100_000);
    expect(few).toBeLessThanOrEqual(5000);
    expect(few).toBeGreaterThan(2000);
  });
});

describe("reading an STL", () => {
  const bytes = writeStl(hills(4, 3, 1), BOTTOM);
  const corners = readStl(bytes).xyz;
  const asText = (of: Float32Array): string => {
    let out = "solid of a test\n";
    for (let k = 0; k < of.length; k += 9) {
      out += "facet normal 0 0 1\nouter loop\n";
      for (let q = 0; q < 9; q += 3) out += `vertex ${of[k + q]} ${of[k + q + 1]} ${of[k + q + 2]}\n`;
      out += "endloop\nendfacet\n";
    }
    return `${out}endsolid\n`;
  };
  const utf8 = (t: string) => new TextEncoder().encode(t);

  it("binary and text give the same; a binary whose head begins with solid is still one", () => {
    expect([...readStl(utf8(asText(corners))).xyz]).toEqual([...corners]);
    // Some programs write capitals, and more blanks.
    expect([...readStl(utf8(asText(corners).toUpperCase().replaceAll(" ", "   "))).xyz]).toEqual([...corners]);
    const named = bytes.slice();
    named.set(utf8("solid made elsewhere"));
    expect([...readStl(named).xyz]).toEqual([...corners]);
  });

  it("says in a sentence what is wrong with a file", () => {
    const count = (n: number) => {
      const b = bytes.slice();
      new DataView(b.buffer).setUint32(80, n, true);
      return b;
    };
    const nan = bytes.slice();
    new DataView(nan.buffer).setFloat32(84 + 12, NaN, true);
    for (const [file, wrong] of [
      [new Uint8Array(0), /not an STL/],
      [utf8("a picture of a cat"), /not an STL/],
      [bytes.subarray(0, bytes.length - 7), /cut short/],
      [count(0xffffffff), /cut short/],
      [new Uint8Array(84), /no triangle/],
      [utf8("solid x\nfacet normal 0 0 1\nendsolid"), /no triangle/],
      [utf8(asText(corners).replace(/vertex [^\n]*\n/, "")), /within a triangle/],
      [nan, /no numbers/],
      [utf8(asText(corners).replace(/vertex \S+/, "vertex here")), /no numbers/],
    ] as const)
      expect(() => readStl(file)).toThrow(wrong);
  });
});

describe("a solid seen from a side", () => {
  /** A box from the origin, with a pyramid's point above its middle. */
  function house(wide: number, deep: number, high: number, point: number): Mesh {
    const p = [
      [0, 0],
      [wide, 0],
      [wide, deep],
      [0, deep],
    ];
    const top: number[] = [wide / 2, deep / 2, point];
    const out: number[] = [];
    for (let k = 0; k < 4; k++) {
      const [a, b] = [p[k], p[(k + 1) % 4]];
      out.push(...a, 0, ...b, 0, ...b, high, ...a, 0, ...b, high, ...a, high);
      out.push(...a, high, ...b, high, ...top);
    }
    out.push(0, 0, 0, ...p[2], 0, ...p[1], 0, 0, 0, 0, ...p[3], 0, ...p[2], 0);
    return { xyz: Float32Array.from(out) };
  }

  it("is as wide, deep and high as from there, and nothing of it is mirrored", () => {
    // Three different sizes, and a point that lies off the middle of none.
    const mesh = house(30, 20, 6, 10);
    const sizes = Object.fromEntries(
      SIDES.map((side) => {
        const { low, high } = turned(mesh, side);
        return [side, high.map((v, q) => v - low[q])];
      }),
    );
    expect(sizes).toEqual({
      top: [30, 20, 10],
      bottom: [30, 20, 10],
      front: [30, 10, 20],
      back: [30, 10, 20],
      left: [20, 10, 30],
      right: [20, 10, 30],
    });
    // Turned and not mirrored: it encloses as much as before, with the same sign.
    for (const side of SIDES) expect(volume(turned(mesh, side))).toBeCloseTo(volume(mesh), 1);
  });

  it("has its own heights: a roof rises evenly to its point", () => {
    const { width, height, z, open, hidden } = projected(turned(house(30, 20, 6, 10), "top"), 300);
    expect([width, height, open, hidden]).toEqual([300, 200, 0, 0]);
    for (const [i, j] of [
      [150, 100],
      [30, 100],
      [150, 180],
      [5, 5],
      [250, 40],
    ]) {
      const [x, y] = [(i + 0.5) / 10, (j + 0.5) / 10];
      const inside = Math.min(x / 15, (30 - x) / 15, y / 10, (20 - y) / 10);
      expect(z[j * width + i]).toBeCloseTo(6 + 4 * inside, 3);
    }
  });

  it("says how much has nothing above, and what is hidden under something else", () => {
    const plate = house(20, 20, 1, 1);
    // A smaller plate that hovers over a corner of it, twice as high.
    const above = house(10, 10, 1, 1).xyz.map((v, k) => (k % 3 === 2 ? v + 4 : v));
    const mesh = { xyz: Float32Array.from([...plate.xyz, ...above]) };
    const { hidden, open } = projected(turned(mesh, "top"), 100);
    expect(open).toBe(0);
    expect(hidden).toBeCloseTo(100 / 500, 2);
    const ring = { xyz: plate.xyz.slice(0, 9 * 2) };
    expect(projected(turned({ xyz: Float32Array.from([...ring.xyz, ...above]) }, "top"), 100).open).toBeCloseTo(0.5, 2);
  });
});
