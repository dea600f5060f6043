import { createRequire } from "node:module";
import { ringCount, type Rings } from "@oaken/core/geometry/rings";

/** The little of the registry's polygon library that the bench uses. */
interface Clipper {
  MakePathD(points: number[]): { delete(): void };
  PathsD: new () => { push_back(p: unknown): void; size(): number; delete(): void };
  JoinType: { Round: unknown };
  EndType: { Polygon: unknown };
  InflatePathsD(
    paths: unknown,
    delta: number,
    join: unknown,
    end: unknown,
    miter: number,
    precision: number,
    arcTolerance: number,
  ): { size(): number; delete(): void };
}

let made: Clipper | null = null;

/**
 * Insets by `clipper2-wasm`: round joins, arcs within 2 µm.
 * @returns a function that makes one inset and tells how many rings it has
 */
export async function clipperInset(region: Rings): Promise<{ inset(by: number): number; done(): void }> {
  made ??= (await (createRequire(import.meta.url)("clipper2-wasm") as () => Promise<Clipper>)()) as Clipper;
  const c = made;
  const paths = new c.PathsD();
  for (let k = 0; k < ringCount(region); k++) {
    const p = c.MakePathD([...region.xy.subarray(2 * region.starts[k], 2 * region.starts[k + 1])]);
    paths.push_back(p);
    p.delete();
  }
  return {
    inset(by) {
      const out = c.InflatePathsD(paths, -by, c.JoinType.Round, c.EndType.Polygon, 2, 6, 0.002);
      const n = out.size();
      out.delete();
      return n;
    },
    done: () => paths.delete(),
  };
}
