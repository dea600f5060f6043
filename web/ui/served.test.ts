import { expect, it } from "vitest";
import { takeServed } from "./served.ts";

it("what came with a page is taken once: going back to the page brings it again, and it is old then", () => {
  const first = { token: "a", value: [1] };
  expect(takeServed(first)).toEqual([1]);
  expect(takeServed({ ...first })).toBeNull();
  expect(takeServed({ token: "b", value: [2] })).toEqual([2]);
  expect(takeServed(null)).toBeNull();
});
