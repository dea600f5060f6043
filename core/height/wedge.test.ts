import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { lambdaFrom } from "./wedge.ts";

describe("the light law of a wedge", () => {
  it("is the λ that its steps were made with, whatever the lamp, and steps without light are left out", () => {
    for (const lambda of [0.3, 1.2, 4])
      for (const lamp of [1, 0.6]) {
        const steps = [0.6, 1, 1.5, 2.2, 3].map((t) => ({ thickness: t, light: lamp * Math.exp(-t / lambda) }));
        const found = lambdaFrom([...steps, { thickness: 9, light: 0 }])!;
        expect(found.lambda).toBeCloseTo(lambda, 9);
        expect(found.strays).toBeLessThan(1e-9);
      }
  });

  it("is found through an eye's errors, and how far they stray is said", () => {
    const random = seeded(3);
    for (let k = 0; k < 50; k++) {
      const steps = Array.from({ length: 8 }, (_, i) => {
        const thickness = 0.5 + 0.4 * i;
        return { thickness, light: Math.exp(-thickness / 1.1) * (1 + 0.1 * (random() - 0.5)) };
      });
      const { lambda, strays } = lambdaFrom(steps)!;
      expect(Math.abs(lambda - 1.1)).toBeLessThan(0.08);
      expect(strays).toBeGreaterThan(0);
      expect(strays).toBeLessThan(0.15);
    }
  });

  it("is none where thicker steps are as light or lighter, or there is only one", () => {
    const flat = { thickness: 1, light: 0.5 };
    expect(lambdaFrom([flat])).toBeNull();
    expect(lambdaFrom([flat, { thickness: 2, light: 0.5 }])).toBeNull();
    expect(lambdaFrom([flat, { thickness: 2, light: 0.7 }])).toBeNull();
  });
});
