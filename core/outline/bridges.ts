import Flatbush from "flatbush";
import { soundOf } from "../geometry/mend.ts";
import { ringsOf } from "../geometry/morph.ts";
import { ringArea, ringCount, ringIndices, type Rings } from "../geometry/rings.ts";
import { hypot } from "../hypot.ts";

/** A strip of stock left standing across the ink, from one edge of it to the other; mm. */
export interface Bridge {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** Two places on rings: ring, point index before the place, and the place. */
interface Place {
  ring: number;
  i: number;
  x: number;
  y: number;
}

/**
 * Ties every island (a hole in the ink, whose stock would fall out when the ink is cut through) to what is around it,
 * by a strip `width` wide across the ink at the narrowest place; `at` names places where a person wants one.
 * @returns the ink with its bridges cut out, and where they are
 */
export function bridged(
  ink: Rings,
  width: number,
  at: readonly (readonly [number, number])[] = [],
): { ink: Rings; bridges: Bridge[] } {
  let loops: number[][] = Array.from({ length: ringCount(ink) }, (_, k) => [
    ...ink.xy.subarray(2 * ink.starts[k], 2 * ink.starts[k + 1]),
  ]);
  const bridges: Bridge[] = [];
  const cut = (a: Place, b: Place): void => {
    const next = splice(loops, a, b, width);
    if (!next) return;
    loops = next;
    bridges.push({ x0: a.x, y0: a.y, x1: b.x, y1: b.y });
  };
  for (const [x, y] of at) {
    const r = ringsOf(loops);
    const a = nearestOn(r, x, y, () => true);
    const b = a && nearestOn(r, a.x, a.y, (k) => k !== a.ring);
    if (a && b) cut(a, b);
  }
  // An island is free once its ring is no longer a hole; each cut makes one hole part of what is around it.
  for (let guard = ringCount(ink); guard > 0; guard--) {
    const r = ringsOf(loops);
    const hole = ringIndices(r).find((k) => ringArea(r, k) < 0);
    if (hole === undefined) break;
    const link = shortest(r, hole);
    if (!link) break;
    const before = loops.length;
    cut(link[0], link[1]);
    if (loops.length === before) break;
  }
  return { ink: soundOf(ringsOf(loops)), bridges };
}

/** The shortest link from a hole to another ring of the same piece of ink. */
function shortest(r: Rings, hole: number): [Place, Place] | null {
  const outer = r.parent[hole];
  const others: number[] = [];
  for (let k = 0; k < ringCount(r); k++)
    if (k !== hole && (k === outer || (ringArea(r, k) < 0 && r.parent[k] === outer))) others.push(k);
  const edges: { k: number; i: number }[] = [];
  for (const k of others) for (let i = r.starts[k]; i < r.starts[k + 1]; i++) edges.push({ k, i });
  if (edges.length === 0) return null;
  const index = new Flatbush(edges.length);
  const end = (k: number, i: number) => (i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k]);
  for (const { k, i } of edges) {
    const j = end(k, i);
    index.add(
      Math.min(r.xy[2 * i], r.xy[2 * j]),
      Math.min(r.xy[2 * i + 1], r.xy[2 * j + 1]),
      Math.max(r.xy[2 * i], r.xy[2 * j]),
      Math.max(r.xy[2 * i + 1], r.xy[2 * j + 1]),
    );
  }
  index.finish();
  let best: [Place, Place] | null = null;
  let least = Infinity;
  for (let i = r.starts[hole]; i < r.starts[hole + 1]; i++) {
    const [x, y] = [r.xy[2 * i], r.xy[2 * i + 1]];
    for (const e of index.neighbors(x, y, 4, Math.min(least, 1e6))) {
      const { k, i: s } = edges[e];
      const p = footOn(r, k, s, x, y);
      const d = hypot(p.x - x, p.y - y);
      if (d < least) {
        least = d;
        best = [{ ring: hole, i, x, y }, p];
      }
    }
  }
  return best;
}

function footOn(r: Rings, k: number, i: number, x: number, y: number): Place {
  const j = i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k];
  const dx = r.xy[2 * j] - r.xy[2 * i];
  const dy = r.xy[2 * j + 1] - r.xy[2 * i + 1];
  const t = Math.max(0, Math.min(1, ((x - r.xy[2 * i]) * dx + (y - r.xy[2 * i + 1]) * dy) / (dx * dx + dy * dy || 1)));
  return { ring: k, i, x: r.xy[2 * i] + t * dx, y: r.xy[2 * i + 1] + t * dy };
}

function nearestOn(r: Rings, x: number, y: number, which: (k: number) => boolean): Place | null {
  let best: Place | null = null;
  let least = Infinity;
  for (let k = 0; k < ringCount(r); k++) {
    if (!which(k)) continue;
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const p = footOn(r, k, i, x, y);
      const d = (p.x - x) ** 2 + (p.y - y) ** 2;
      if (d < least) {
        least = d;
        best = p;
      }
    }
  }
  return best;
}

/**
 * Opens two rings half a width on either side of a link and joins their ends across it; null where a ring is too short.
 */
function splice(loops: readonly number[][], a: Place, b: Place, width: number): number[][] | null {
  const r = ringsOf(loops);
  const open = (p: Place): number[] | null => {
    const loop = loops[p.ring];
    const n = loop.length / 2;
    const first = p.i - r.starts[p.ring];
    // Once round from the place, back to it.
    const round: number[] = [p.x, p.y];
    for (let q = 1; q <= n; q++) {
      const i = (first + q) % n;
      round.push(loop[2 * i], loop[2 * i + 1]);
    }
    round.push(p.x, p.y);
    return trimmed(round, width / 2);
  };
  const pa = open(a);
  const pb = a.ring === b.ring ? null : open(b);
  if (!pa || !pb) return null;
  const joined = [...pa, ...pb];
  const out: number[][] = loops.filter((_, k) => k !== a.ring && k !== b.ring);
  return [...out, joined];
}

/** A polyline with `by` mm taken off either end; null when nothing would stay. */
function trimmed(p: number[], by: number): number[] | null {
  const cutStart = (q: number[]): number[] | null => {
    let left = by;
    for (let i = 0; i + 3 < q.length; i += 2) {
      const len = hypot(q[i + 2] - q[i], q[i + 3] - q[i + 1]);
      if (len > left) {
        const t = left / len;
        return [q[i] + t * (q[i + 2] - q[i]), q[i + 1] + t * (q[i + 3] - q[i + 1]), ...q.slice(i + 2)];
      }
      left -= len;
    }
    return null;
  };
  const back = (q: number[]): number[] => {
    const out: number[] = [];
    for (let i = q.length - 2; i >= 0; i -= 2) out.push(q[i], q[i + 1]);
    return out;
  };
  const once = cutStart(p);
  const twice = once && cutStart(back(once));
  return twice && back(twice);
}
