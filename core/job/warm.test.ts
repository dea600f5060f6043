import "../testing/ready.ts";
import { describe, expect, it } from "vitest";
import { SHOP } from "../testing/shop.ts";
import { warmUpCarving } from "./warm.ts";

describe("warming up", () => {
  it("carves its made-up picture through, and leaves off as soon as somebody waits", () => {
    let asked = 0;
    warmUpCarving(SHOP, () => ++asked > 0);
    const all = asked;
    expect(all).toBeGreaterThan(20);
    asked = 0;
    warmUpCarving(SHOP, () => ++asked < 5);
    expect(asked).toBeLessThan(12);
  });
});
