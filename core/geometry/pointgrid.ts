/**
 * Points in square cells, about two in each, to be taken out one after another: which of those left is cheapest to go
 * to?
 */
export class PointGrid {
  private cell: number;
  private columns: number;
  private rows: number;
  private minX = Infinity;
  private minY = Infinity;
  private first: Int32Array;
  private count: Int32Array;
  private member: Int32Array;
  private where: Int32Array;
  private left: number;

  constructor(
    private x: ArrayLike<number>,
    private y: ArrayLike<number>,
  ) {
    const n = x.length;
    let maxX = -Infinity;
    let maxY = -Infinity;
    for (let i = 0; i < n; i++) {
      if (x[i] < this.minX) this.minX = x[i];
      if (x[i] > maxX) maxX = x[i];
      if (y[i] < this.minY) this.minY = y[i];
      if (y[i] > maxY) maxY = y[i];
    }
    const w = Math.max(1e-6, maxX - this.minX);
    const h = Math.max(1e-6, maxY - this.minY);
    this.cell = Math.max(Math.sqrt((2 * w * h) / Math.max(1, n)), Math.max(w, h) / 2000);
    this.columns = Math.floor(w / this.cell) + 1;
    this.rows = Math.floor(h / this.cell) + 1;
    const cells = n > 0 ? this.columns * this.rows : 1;
    this.first = new Int32Array(cells + 1);
    this.count = new Int32Array(cells);
    this.member = new Int32Array(n);
    this.where = new Int32Array(n);
    this.left = n;
    for (let i = 0; i < n; i++) {
      this.where[i] = this.column(x[i]) + this.columns * this.row(y[i]);
      this.count[this.where[i]]++;
    }
    for (let c = 0; c < cells; c++) this.first[c + 1] = this.first[c] + this.count[c];
    this.count.fill(0);
    for (let i = 0; i < n; i++) this.member[this.first[this.where[i]] + this.count[this.where[i]]++] = i;
  }

  private column = (x: number): number =>
    Math.max(0, Math.min(this.columns - 1, Math.floor((x - this.minX) / this.cell)));
  private row = (y: number): number => Math.max(0, Math.min(this.rows - 1, Math.floor((y - this.minY) / this.cell)));

  remove(i: number): void {
    const c = this.where[i];
    const from = this.first[c];
    for (let k = from; k < from + this.count[c]; k++)
      if (this.member[k] === i) {
        this.member[k] = this.member[from + --this.count[c]];
        this.left--;
        return;
      }
  }

  /**
   * The point left that costs least to go to, or −1 when none is.
   * @param cost what going to point i over this distance costs: never less than the distance
   */
  cheapest(x: number, y: number, cost: (i: number, distance: number) => number): number {
    if (this.left === 0) return -1;
    const c = this.column(x);
    const r = this.row(y);
    let best = -1;
    let least = Infinity;
    const most = Math.max(this.columns, this.rows);
    const look = (u: number, v: number) => {
      const at = u + this.columns * v;
      for (let k = this.first[at], end = k + this.count[at]; k < end; k++) {
        const i = this.member[k];
        const dx = this.x[i] - x;
        const dy = this.y[i] - y;
        const way = Math.sqrt(dx * dx + dy * dy);
        if (way >= least) continue;
        const price = cost(i, way);
        if (price < least || best < 0) {
          least = price;
          best = i;
        }
      }
    };
    for (let ring = 0; ring <= most; ring++) {
      // Cells of this ring are at least so far from the place, which may lie outside the grid.
      if (best >= 0 && (ring - 1) * this.cell >= least) break;
      const v0 = Math.max(0, r - ring);
      const v1 = Math.min(this.rows - 1, r + ring);
      const u0 = Math.max(0, c - ring);
      const u1 = Math.min(this.columns - 1, c + ring);
      for (let v = v0; v <= v1; v++)
        if (v === r - ring || v === r + ring) for (let u = u0; u <= u1; u++) look(u, v);
        else {
          if (c - ring >= 0) look(c - ring, v);
          if (c + ring < this.columns && ring > 0) look(c + ring, v);
        }
    }
    return best;
  }
}
