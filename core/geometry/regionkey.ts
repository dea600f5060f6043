import type { Rings } from "./rings.ts";

const names = new WeakMap<Rings, string>();
let next = 0;

/** A name for a region as an object: the same arrays give the same name within one run. */
export function regionKey(r: Rings): string {
  let name = names.get(r);
  if (!name) names.set(r, (name = `r${next++}`));
  return name;
}
