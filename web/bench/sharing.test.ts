import { describe, expect, it } from "vitest";
import { seeded } from "@oaken/core/testing/random";
import { sharing } from "./sharing.ts";

/** A random document. */
function grown(random: () => number, depth: number): unknown {
  const kind = Math.floor(6 * random());
  if (depth === 0 || kind < 2) return [Math.floor(3 * random()), "ab"[Math.floor(2 * random())], null, true][kind * 2];
  const n = Math.floor(4 * random());
  if (kind < 4) return Array.from({ length: n }, () => grown(random, depth - 1));
  return Object.fromEntries(Array.from({ length: n }, (_, k) => ["pqrs"[k], grown(random, depth - 1)]));
}

/** Whether every part of b that equals the part of a in the same place is that part. */
function isShared(a: unknown, b: unknown): boolean {
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return true;
  if (JSON.stringify(a) === JSON.stringify(b) && Array.isArray(a) === Array.isArray(b)) return a === b;
  return Object.keys(b).every((k) => isShared((a as never)[k], (b as never)[k]));
}

describe("sharing", () => {
  it("gives what it was given, with every unchanged part the old one, for random documents and changes", () => {
    for (let seed = 1; seed <= 2000; seed++) {
      const random = seeded(seed);
      const before = { x: grown(random, 4), y: grown(random, 4) };
      const after = random() < 0.5 ? structuredClone(before) : { x: structuredClone(before.x), y: grown(random, 4) };
      const text = JSON.stringify(after);
      const shared = sharing(before, after);
      expect(JSON.stringify(shared), `seed ${seed}`).toBe(text);
      expect(isShared(before, shared), `seed ${seed}`).toBe(true);
    }
  });
});
