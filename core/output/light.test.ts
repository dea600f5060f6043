import { describe, expect, it } from "vitest";
import { encoded, hexOf, lightOf, parseHex } from "../colour.ts";
import { newSurface } from "../proof/surface.ts";
import { materialNamed } from "../testing/shop.ts";
import { atArmsLength } from "./armslength.ts";
import { backlit } from "./backlit.ts";

const mdf = materialNamed("mdf");

describe("a painted piece at arm's length", () => {
  /** Grooves of a width every so many cells, along the board. */
  function grooved(width: number, every: number) {
    const s = newSurface(40, 30, 0.05, 10);
    for (let k = 0; k < s.z.length; k++) if (Math.floor(k / s.width) % every < width) s.z[k] = -0.5;
    return s;
  }
  const lightAt = ({ data, width, height }: ReturnType<typeof atArmsLength>, c: number): number => {
    const at = 4 * (Math.floor(height / 2) * width + Math.floor(width / 2));
    return lightOf(data[at + c] / 255);
  };

  it("lines that no eye can tell apart become the mean of paint and bare stock, by light", () => {
    for (const bare of [0, 1, 2, 3, 4]) {
      // Every 0.2 mm: a fifth of what is seen as one place, at most.
      const seen = atArmsLength(grooved(bare, 4), mdf, { paint: "#204060", coat: 0.1 });
      for (const c of [0, 1, 2]) {
        const [paint, stock] = [lightOf([0x20, 0x40, 0x60][c] / 255), lightOf(mdf.cut[c] / 255)];
        expect(lightAt(seen, c)).toBeCloseTo(paint + ((stock - paint) * bare) / 4, 1.7);
      }
    }
  });

  it("a scratch that stays in the paint bares nothing; without paint the stock's own face shows", () => {
    const s = newSurface(20, 20, 0.1, 10);
    s.z.fill(-0.05);
    const scratched = atArmsLength(s, mdf, { paint: "#ff0000", coat: 0.1 });
    expect([...scratched.data.slice(0, 4)]).toEqual([255, 0, 0, 255]);
    const whole = atArmsLength(newSurface(20, 20, 0.1, 10), mdf, {});
    for (const c of [0, 1, 2]) expect(Math.abs(whole.data[c] - mdf.face[c])).toBeLessThanOrEqual(1);
  });
});

describe("a sheet with a lamp behind it", () => {
  const law = { law: "light", lambda: 0.8, thin: 0.6, thick: 3, mirrored: false } as const;

  it("passes light as exp(−t/λ), white at its thinnest", () => {
    const s = newSurface(5, 1, 1, 4);
    const thicknesses = [0.6, 1, 1.6, 2.4, 4];
    thicknesses.forEach((t, i) => (s.z[i] = t - 4));
    const data = backlit(s, 4, law);
    thicknesses.forEach((t, i) => {
      const red = lightOf(data[4 * i] / 255);
      expect(red).toBeCloseTo(Math.exp((0.6 - t) / 0.8), 2);
    });
  });

  it("is seen mirrored from its back", () => {
    const s = newSurface(4, 1, 1, 4);
    s.z[0] = -3.4;
    const lit = (mirrored: boolean) => [...backlit(s, 4, { ...law, mirrored })].filter((_, k) => k % 4 === 0);
    expect(lit(true)).toEqual(lit(false).reverse());
  });
});

describe("colours", () => {
  it("light and its encoded value are each other's inverses, from black to white (IEC 61966-2-1)", () => {
    for (let v = 0; v <= 255; v++) expect(255 * encoded(lightOf(v / 255))).toBeCloseTo(v, 6);
    expect([lightOf(0), lightOf(1)]).toEqual([0, 1]);
    // Middle grey as the standard gives it.
    expect(lightOf(0.5)).toBeCloseTo(0.21404, 5);
  });

  it("hex is read with three or six digits, and nothing else", () => {
    expect(parseHex("#1d1b1a")).toEqual([29, 27, 26]);
    expect(parseHex("fa0")).toEqual([255, 170, 0]);
    for (const bad of ["", "#12", "#12345", "#1234567", "#ggg", "red"]) expect(parseHex(bad)).toBeNull();
    for (const hex of ["#000000", "#ffffff", "#0a0b0c"]) expect(hexOf(parseHex(hex)!)).toBe(hex);
  });
});
