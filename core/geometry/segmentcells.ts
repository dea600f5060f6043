import { ringCount, type Rings } from "./rings.ts";
import { hypot } from "../hypot.ts";

/** Cells at most, and how wide they are at least in lengths of a usual edge. */
const MOST_CELLS = 250_000;
const EDGES_WIDE = 2;

/**
 * The edges of closed rings in square cells, for distances: cells are looked at from the nearest outwards, so that a
 * place near to an edge meets few of them.
 */
export class SegmentCells {
  private readonly minX: number;
  private readonly minY: number;
  private readonly side: number;
  private readonly columns: number;
  private readonly rows: number;
  /** first edge of each cell in `edges`; one more than there are cells */
  private readonly first: Int32Array;
  private readonly edges: Int32Array;
  /** the point that edge i leads to */
  private readonly next: Int32Array;
  /** the edge that was nearest last: who asks place by place mostly meets it again */
  private last = -1;

  constructor(private readonly rings: Rings) {
    const { xy, starts } = rings;
    const n = xy.length / 2;
    this.next = new Int32Array(n);
    for (let k = 0; k < ringCount(rings); k++)
      for (let i = starts[k]; i < starts[k + 1]; i++) this.next[i] = i + 1 < starts[k + 1] ? i + 1 : starts[k];
    let [minX, minY, maxX, maxY, length] = [Infinity, Infinity, -Infinity, -Infinity, 0];
    for (let i = 0; i < n; i++) {
      minX = Math.min(minX, xy[2 * i]);
      maxX = Math.max(maxX, xy[2 * i]);
      minY = Math.min(minY, xy[2 * i + 1]);
      maxY = Math.max(maxY, xy[2 * i + 1]);
      length += hypot(xy[2 * this.next[i]] - xy[2 * i], xy[2 * this.next[i] + 1] - xy[2 * i + 1]);
    }
    const [w, h] = [maxX - minX, maxY - minY];
    [this.minX, this.minY] = [minX, minY];
    this.side = Math.max(1e-6, (EDGES_WIDE * length) / n, Math.sqrt((w * h) / MOST_CELLS), Math.max(w, h) / MOST_CELLS);
    this.columns = n > 0 ? Math.floor(w / this.side) + 1 : 0;
    this.rows = n > 0 ? Math.floor(h / this.side) + 1 : 0;
    const count = new Int32Array(this.columns * this.rows + 1);
    for (let i = 0; i < n; i++) this.cellsOf(i, (c) => count[c + 1]++);
    for (let c = 0; c < count.length - 1; c++) count[c + 1] += count[c];
    this.first = count;
    this.edges = new Int32Array(count[count.length - 1]);
    const fill = count.slice();
    for (let i = 0; i < n; i++) this.cellsOf(i, (c) => (this.edges[fill[c]++] = i));
  }

  /** Every cell that an edge may pass, row by row. */
  private cellsOf(i: number, take: (cell: number) => void): void {
    const { xy } = this.rings;
    const j = this.next[i];
    const [x0, y0, x1, y1] = [xy[2 * i], xy[2 * i + 1], xy[2 * j], xy[2 * j + 1]];
    const low = this.row(Math.min(y0, y1));
    const high = this.row(Math.max(y0, y1));
    for (let r = low; r <= high; r++) {
      // Where the edge enters and leaves this row.
      const at = (y: number) => (y1 === y0 ? x0 : x0 + Math.max(0, Math.min(1, (y - y0) / (y1 - y0))) * (x1 - x0));
      const [a, b] = low === high ? [x0, x1] : [at(this.minY + r * this.side), at(this.minY + (r + 1) * this.side)];
      const to = this.column(Math.max(a, b) + ROUNDING);
      for (let c = this.column(Math.min(a, b) - ROUNDING); c <= to; c++) take(r * this.columns + c);
    }
  }
  private column(x: number): number {
    return Math.max(0, Math.min(this.columns - 1, Math.floor((x - this.minX) / this.side)));
  }
  private row(y: number): number {
    return Math.max(0, Math.min(this.rows - 1, Math.floor((y - this.minY) / this.side)));
  }

  /**
   * Distance to the nearest edge, or `most` when none is that near.
   * @param enough any distance below this will do: the search ends with the first that it meets
   */
  distance(x: number, y: number, most: number, enough = 0): number {
    const { columns, rows, side } = this;
    const [u, v] = [Math.floor((x - this.minX) / side), Math.floor((y - this.minY) / side)];
    const stop = enough * enough;
    let best = most * most;
    if (this.last >= 0) best = Math.min(best, this.squareTo(this.last, x, y));
    // From a place outside, the first rings of cells are outside too.
    let ring = Math.max(0, -u, -v, u - columns + 1, v - rows + 1);
    const last = Math.max(u, v, columns - 1 - u, rows - 1 - v);
    for (; ring <= last && best >= stop; ring++) {
      const beyond = (ring - 1) * side;
      if (beyond > 0 && beyond * beyond >= best) break;
      const [top, bottom] = [Math.max(0, v - ring), Math.min(rows - 1, v + ring)];
      for (let r = top; r <= bottom; r++) {
        // Whole rows at both ends, the two outermost cells between them.
        const isEnd = r === v - ring || r === v + ring;
        const [left, right] = [u - ring, u + ring];
        if (isEnd)
          for (let c = Math.max(0, left); c <= Math.min(columns - 1, right); c++)
            best = this.nearest(r * columns + c, x, y, best);
        else {
          if (left >= 0 && left < columns) best = this.nearest(r * columns + left, x, y, best);
          if (right >= 0 && right < columns) best = this.nearest(r * columns + right, x, y, best);
        }
      }
    }
    return Math.sqrt(best);
  }

  /** The least squared distance of a cell's edges, or `best` where that is less. */
  private nearest(cell: number, x: number, y: number, best: number): number {
    for (let k = this.first[cell]; k < this.first[cell + 1]; k++) {
      const d = this.squareTo(this.edges[k], x, y);
      if (d >= best) continue;
      best = d;
      this.last = this.edges[k];
    }
    return best;
  }

  private squareTo(edge: number, x: number, y: number): number {
    const { xy } = this.rings;
    const [i, j] = [2 * edge, 2 * this.next[edge]];
    return squaredDistance(x, y, xy[i], xy[i + 1], xy[j], xy[j + 1]);
  }
}

/** Edges along a border between cells lie in both, mm. */
const ROUNDING = 1e-9;

/** Squared distance of (x, y) from the line between a and b, mm². */
export function squaredDistance(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const dx = bx - ax;
  const dy = by - ay;
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  return (x - ax - t * dx) ** 2 + (y - ay - t * dy) ** 2;
}
