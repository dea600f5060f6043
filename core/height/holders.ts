import type { HeightField } from "./field.ts";
import type { Hanging } from "./hanging.ts";
import { type Peaks, peaksOf, SMALLEST, highestRound } from "./peaks.ts";

/** Steps of the table of how high samples may hold the tip. */
const REACHES = 2048;

/** The largest squares of samples are so many samples wide for each that the cutter is from axis to rim. */
const LARGEST = 0.6;

/**
 * The samples that hold a cutter up over a place. What held it last tells how low the tip cannot lie there; squares of
 * samples that hang too low to hold it higher are left out, then smaller ones within the others, then single samples.
 */
export class Holders {
  /** the highest of each sample and those round it, mm */
  private readonly tops: Float32Array;
  private readonly peaks: readonly Peaks[];
  /** how high above itself what lies so far away or farther may hold the tip, by the square of that, mm */
  private readonly inner = new Float64Array(REACHES);
  private readonly rim = new Float64Array(REACHES);
  /** steps of that for each cell squared */
  private readonly scale: number;
  /** squares that are looked into, by their first samples, and the smaller ones in them */
  private columns: Int32Array;
  private rows: Int32Array;
  private finerColumns: Int32Array;
  private finerRows: Int32Array;
  private squares = 0;
  /** whether something near the rim may hold the cutter over the place that is asked for */
  private isNearRim = false;
  /** samples beside which the surface may hold the cutter higher, and how high at most, mm */
  readonly near: number[] = [];
  readonly held: number[] = [];
  private count = 0;
  /** the highest tip known of the place that is asked for, mm */
  best = 0;
  private readonly last = new Last();

  /** @param unknown how much between the samples need not be known, mm */
  constructor(
    private readonly t: HeightField,
    private readonly hanging: Hanging,
    private readonly unknown: number,
  ) {
    this.tops = highestRound(t);
    this.peaks = peaksOf(t, this.tops, LARGEST * hanging.end);
    this.scale = REACHES / hanging.end ** 2;
    const most = (Math.ceil(hanging.end / SMALLEST) * 2 + 3) ** 2;
    this.columns = new Int32Array(most);
    this.rows = new Int32Array(most);
    this.finerColumns = new Int32Array(most);
    this.finerRows = new Int32Array(most);
    let [inner, rim] = [-Infinity, -Infinity];
    for (let k = REACHES - 1; k >= 0; k--) {
      const [nearest, farthest] = [Math.sqrt(k / this.scale), Math.sqrt((k + 1) / this.scale)];
      this.inner[k] = inner = Math.max(inner, hanging.inner(nearest, farthest));
      this.rim[k] = rim = Math.max(rim, hanging.near(nearest, farthest));
    }
  }

  /**
   * Finds how high samples hold the cutter over (u, v), in samples: `best`, no less than `least`; and lists those
   * beside which the surface may hold it higher.
   */
  find(u: number, v: number, least: number): void {
    const { last } = this;
    this.best = Math.max(least, this.heldBy(last.i, last.j, u, v), this.heldBy(last.i0, last.j0, u, v));
    this.count = 0;
    this.search(u, v);
  }

  /** Which of the samples listed may hold the cutter highest; −1 where there is none. */
  likeliest(): number {
    const { held, count } = this;
    let most = -1;
    for (let n = 0; n < count; n++) if (most < 0 || held[n] > held[most]) most = n;
    return most;
  }

  /** The tip over (u, v), in samples, by one sample alone, mm; −∞ beyond the cutter's rim. */
  heldBy(i: number, j: number, u: number, v: number): number {
    return this.t.z[j * this.t.width + i] - this.hanging.height(Math.sqrt((i - u) ** 2 + (j - v) ** 2));
  }

  /** Raises `best` to where samples hold the cutter over (u, v), and lists those beside which it may be held higher. */
  private search(u: number, v: number): void {
    const { peaks } = this;
    this.largest(u, v);
    for (let level = peaks.length - 2; level >= 0; level--) this.smaller(peaks[level], u, v);
    this.samples(u, v);
  }

  /** Looks at the single samples in the smallest squares that are listed. */
  private samples(u: number, v: number): void {
    const { t, columns, rows, inner, scale, squares, isNearRim } = this;
    const { z, width, height } = t;
    for (let n = 0; n < squares; n++) {
      const [i0, j0] = [columns[n], rows[n]];
      const i1 = Math.min(width, i0 + SMALLEST);
      const j1 = Math.min(height, j0 + SMALLEST);
      for (let j = j0; j < j1; j++) {
        const dy2 = (j - v) * (j - v);
        for (let i = i0; i < i1; i++) {
          const apart = (i - u) * (i - u) + dy2;
          const step = (apart * scale) | 0;
          // Most samples hang too low: that is told here, by as little as it takes.
          if (step < REACHES && (isNearRim || z[j * width + i] + inner[step] > this.best))
            this.lookAt(i, j, apart, step);
        }
      }
    }
  }

  /** Lists the largest squares that may hold the cutter over (u, v) above `best`. */
  private largest(u: number, v: number): void {
    const { peaks, columns, rows, inner, rim, scale, best } = this;
    const { size, width, height, own, round } = peaks[peaks.length - 1];
    const { end } = this.hanging;
    const a0 = Math.max(0, Math.floor((u - end) / size));
    const a1 = Math.min(width - 1, Math.floor((u + end) / size));
    const b1 = Math.min(height - 1, Math.floor((v + end) / size));
    let n = 0;
    let isNearRim = false;
    for (let b = Math.max(0, Math.floor((v - end) / size)); b <= b1; b++) {
      const dy2 = gap2(b * size, size, v) * scale;
      for (let a = a0; a <= a1; a++) {
        const step = (gap2(a * size, size, u) * scale + dy2) | 0;
        if (step >= REACHES) continue;
        const k = b * width + a;
        if (round[k] + rim[step] > best) isNearRim = true;
        else if (own[k] + inner[step] <= best) continue;
        columns[n] = a * size;
        rows[n++] = b * size;
      }
    }
    this.isNearRim = isNearRim;
    this.squares = n;
  }

  /** The same for the squares half as large in those that are listed. */
  private smaller(finer: Peaks, u: number, v: number): void {
    const { columns, rows, finerColumns, finerRows, scale } = this;
    const { size, width, height } = finer;
    let n = 0;
    for (let m = 0; m < this.squares; m++) {
      const x = columns[m];
      const y = rows[m];
      const k = (y / size) * width + x / size;
      const isMore = x + size < width * size;
      const near = gap2(x, size, u) * scale;
      const far = isMore ? gap2(x + size, size, u) * scale : REACHES;
      for (let row = y, at = k; row < y + 2 * size && row < height * size; row += size, at += width) {
        const dy2 = gap2(row, size, v) * scale;
        if (this.mayHold(finer, at, (near + dy2) | 0)) {
          finerColumns[n] = x;
          finerRows[n++] = row;
        }
        if (this.mayHold(finer, at + 1, (far + dy2) | 0)) {
          finerColumns[n] = x + size;
          finerRows[n++] = row;
        }
      }
    }
    this.squares = n;
    [this.columns, this.finerColumns] = [finerColumns, columns];
    [this.rows, this.finerRows] = [finerRows, rows];
  }

  /** Whether a square so many steps away may hold the cutter above `best`. */
  private mayHold({ own, round }: Peaks, k: number, step: number): boolean {
    if (step >= REACHES) return false;
    return own[k] + this.inner[step] > this.best || (this.isNearRim && round[k] + this.rim[step] > this.best);
  }

  /** The same for one sample, whose distance from the axis has this square, in samples and in steps. */
  private lookAt(i: number, j: number, apart: number, step: number): void {
    const { t, tops, hanging, unknown } = this;
    const at = j * t.width + i;
    const isNearRim = this.isNearRim && tops[at] + this.rim[step] > this.best;
    if (!isNearRim && t.z[at] + this.inner[step] <= this.best) return;
    const r = Math.sqrt(apart);
    const own = t.z[at] - hanging.height(r);
    if (own > this.best) {
      this.best = own;
      this.last.take(i, j);
    }
    const beside = hanging.beside(r);
    if (beside <= unknown) return;
    const upTo = beside < Infinity ? own + beside : tops[at] + hanging.near(r, r);
    if (upTo <= this.best + unknown) return;
    this.near[this.count] = at;
    this.held[this.count++] = upTo;
  }
}

/** The square of how far a place lies beside some samples in a row, in cells; 0 among them. */
function gap2(first: number, count: number, place: number): number {
  const before = first - place;
  if (before > 0) return before * before;
  const after = 1 - count - before;
  return after > 0 ? after * after : 0;
}

/** The sample that held a cutter last, and the one before it. */
class Last {
  i = 0;
  j = 0;
  i0 = 0;
  j0 = 0;
  take(i: number, j: number): void {
    this.i0 = this.i;
    this.j0 = this.j;
    this.i = i;
    this.j = j;
  }
}
