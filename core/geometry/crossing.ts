import Flatbush from "flatbush";
import { orient2d } from "robust-predicates";

/**
 * Edges of closed or open runs of points: edge i leads from point i to point next[i], −1 where a run ends.
 */
export interface Edges {
  /** x, y by turns, mm */
  xy: Float64Array;
  next: Int32Array;
  /** which run each point belongs to */
  run: Int32Array;
  /**
   * 1 for points at which runs begin or end: there, and only there, they may share a place. Not given where all are
   * closed.
   */
  ends?: Uint8Array;
}

/** So many edges in a row share a box of the index. */
const TOGETHER = 8;
/** Cosine of the widest angle at which an edge surely goes forward. */
const CLEAR = 0.05;

/**
 * Every two edges that share a point though they are not neighbours, and neighbours that turn back onto each other.
 * Exact.
 * @param changed where given, only pairs are looked for of which at least one edge's run is marked
 * @returns the edges' first points, two by two
 */
export function crossingEdges({ xy, next, run, ends }: Edges, changed?: Uint8Array): Int32Array {
  const { groups, first, edges, box, index } = grouped(xy, next, run);
  const crossed: number[] = [];
  if (groups === 0) return new Int32Array(0);
  // Whether a group and the one behind it on the same run only ever go forward: then they cannot meet but where they
  // join.
  const forward = new Uint8Array(groups);
  for (let g = 0; g < groups; g++) {
    const behind = g + 1 < groups && next[edges[first[g + 1] - 1]] === edges[first[g + 1]] ? 1 : 0;
    forward[g] = goesForward(xy, next, edges, first[g], first[g + 1], first[g + 1 + behind]) ? 1 + behind : 0;
  }
  const check = (i: number, o: number): void => {
    const j = next[i];
    const p = next[o];
    if (j === o || p === i) {
      const [a, b, c] = j === o ? [i, o, p] : [o, i, j];
      if (turnsBack(xy, a, b, c)) crossed.push(i, o);
      if (j !== o || p !== i) return;
    }
    if (apart(xy, i, j, o, p)) return;
    if (ends) {
      const joint = sharedEnd(xy, ends, i, j, o, p);
      if (joint) {
        if (turnsBack(xy, joint[0], joint[1], joint[2])) crossed.push(i, o);
        return;
      }
    }
    if (meet(xy, i, j, o, p)) crossed.push(i, o);
  };
  for (let g = 0; g < groups; g++) {
    const mine = !changed || changed[run[edges[first[g]]]] === 1;
    if (!mine) continue;
    index.search(box[4 * g], box[4 * g + 1], box[4 * g + 2], box[4 * g + 3], (h) => {
      if (h < g && (!changed || changed[run[edges[first[h]]]] === 1)) return false;
      if (h >= g && h - g < forward[g]) return false;
      for (let k = first[g]; k < first[g + 1]; k++)
        for (let q = h === g ? k + 1 : first[h]; q < first[h + 1]; q++) check(edges[k], edges[q]);
      return false;
    });
  }
  return Int32Array.from(crossed);
}

/** Edges that follow one another are looked up together, by the box around them. */
function grouped(xy: Float64Array, next: Int32Array, run: Int32Array) {
  const total = next.length;
  const edges = new Int32Array(total);
  const first = new Int32Array(total + 1);
  let count = 0;
  let groups = 0;
  for (let i = 0; i < total; i++) {
    if (next[i] < 0) continue;
    const begins = count === 0 || count - first[groups - 1] === TOGETHER || run[edges[count - 1]] !== run[i];
    if (begins) first[groups++] = count;
    edges[count++] = i;
  }
  first[groups] = count;
  const box = new Float64Array(4 * groups);
  const index = new Flatbush(Math.max(1, groups));
  if (groups === 0) index.add(0, 0, 0, 0);
  for (let g = 0; g < groups; g++) {
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let k = first[g]; k < first[g + 1]; k++)
      for (let e = 0; e < 2; e++) {
        const i = 2 * (e === 0 ? edges[k] : next[edges[k]]);
        if (xy[i] < x0) x0 = xy[i];
        if (xy[i] > x1) x1 = xy[i];
        if (xy[i + 1] < y0) y0 = xy[i + 1];
        if (xy[i + 1] > y1) y1 = xy[i + 1];
      }
    box[4 * g] = x0;
    box[4 * g + 1] = y0;
    box[4 * g + 2] = x1;
    box[4 * g + 3] = y1;
    index.add(x0, y0, x1, y1);
  }
  index.finish();
  return { groups, first, edges, box, index };
}

/** Whether edges k0…end all go the way that edges k0…k1 go together, well clear of a right angle to it. */
function goesForward(
  xy: Float64Array,
  next: Int32Array,
  edges: Int32Array,
  k0: number,
  k1: number,
  end: number,
): boolean {
  const a = 2 * edges[k0];
  const b = 2 * next[edges[k1 - 1]];
  const ux = xy[b] - xy[a];
  const uy = xy[b + 1] - xy[a + 1];
  const least = CLEAR * CLEAR * (ux * ux + uy * uy);
  for (let k = k0; k < end; k++) {
    const p = 2 * edges[k];
    const q = 2 * next[edges[k]];
    const ex = xy[q] - xy[p];
    const ey = xy[q + 1] - xy[p + 1];
    const dot = ex * ux + ey * uy;
    if (!(dot > 0 && dot * dot > least * (ex * ex + ey * ey))) return false;
  }
  return true;
}

const samePlace = (xy: Float64Array, p: number, q: number): boolean =>
  xy[2 * p] === xy[2 * q] && xy[2 * p + 1] === xy[2 * q + 1];

/**
 * Where edges i–j and o–p share a place at which both their runs end: one's far point, that place, the other's far
 * point.
 */
function sharedEnd(
  xy: Float64Array,
  ends: Uint8Array,
  i: number,
  j: number,
  o: number,
  p: number,
): [number, number, number] | null {
  for (const [a, far] of [
    [i, j],
    [j, i],
  ])
    for (const [b, away] of [
      [o, p],
      [p, o],
    ])
      if (ends[a] && ends[b] && samePlace(xy, a, b)) return [far, a, away];
  return null;
}

/** Whether a way a → b → c turns back at b onto itself. */
function turnsBack(xy: Float64Array, a: number, b: number, c: number): boolean {
  const [ax, ay, bx, by, cx, cy] = [xy[2 * a], xy[2 * a + 1], xy[2 * b], xy[2 * b + 1], xy[2 * c], xy[2 * c + 1]];
  return (bx - ax) * (cx - bx) + (by - ay) * (cy - by) < 0 && orient2d(ax, ay, bx, by, cx, cy) === 0;
}

/** Whether the boxes of segments a–b and c–d have nothing in common. */
function apart(xy: Float64Array, a: number, b: number, c: number, d: number): boolean {
  for (let k = 0; k < 2; k++) {
    const [p, q, r, s] = [xy[2 * a + k], xy[2 * b + k], xy[2 * c + k], xy[2 * d + k]];
    if (Math.max(p, q) < Math.min(r, s) || Math.max(r, s) < Math.min(p, q)) return true;
  }
  return false;
}

/** Whether closed segments a–b and c–d share a point; exact signs by Shewchuk's predicates. */
function meet(xy: Float64Array, a: number, b: number, c: number, d: number): boolean {
  const side = (p: number, q: number, s: number): number =>
    Math.sign(orient2d(xy[2 * p], xy[2 * p + 1], xy[2 * q], xy[2 * q + 1], xy[2 * s], xy[2 * s + 1]));
  if (side(a, b, c) * side(a, b, d) > 0) return false;
  if (side(c, d, a) * side(c, d, b) > 0) return false;
  // All four on one line: the boxes overlap, or the pair would not have come here.
  return true;
}
