import { GrowingI32 } from "../growing.ts";
import type { Grey } from "../picture/raster.ts";
import { type RowScan, rowScan } from "./rowscan.ts";

/**
 * Closed contours in pixel coordinates (x right, y down, pixel (0,0) covering 0…1), ink on the left as seen on
 * screen: outer contours run counter-clockwise, holes clockwise. `starts` has one entry more than there are contours.
 */
export interface Contours {
  /** x, y by turns */
  xy: Float64Array;
  /**
   * by how much the grey changes over the pixel that each point lies in, 0…1; 1 on the picture's border. Where it was
   * traced
   */
  steep?: Float32Array;
  starts: Int32Array;
  /** index of the contour directly around this one, or −1 */
  parent: Int32Array;
  /** 1 for the boundary of a hole in the ink */
  hole: Uint8Array;
}

const FAR = 0x7fffffff;

/**
 * The level set grey = level of the bilinearly interpolated picture, closed along the picture's border.
 *
 * Marching squares (Lorensen & Cline 1987 in two dimensions) on the grid of pixel centres, with saddles resolved by the
 * value of the bilinear saddle point, so that no two contours touch. Only the crossings of grid lines are stored, row
 * by row in sorted order; links between them come from merging three sorted lists, and nesting from the neighbour on
 * the left of each contour's first crossing. Cost: one pass over the pixels, four at a time, plus linear in contour
 * length.
 *
 * @param level ink level, 0…1; a sample is ink when it is below
 */
export function contoursAt(grey: Grey, level: number): Contours {
  const cut = awayFromSamples(level * grey.max);
  const { hx, hInkLeft, hRow, vx, vInkAbove, vRow } = crossings(grey, cut);
  const nH = hx.length;
  const next = link(grey, cut, hx, hInkLeft, hRow, vx, vInkAbove, vRow);
  return walk(grey, cut, next, nH, hx, hInkLeft, hRow, vx, vRow);
}

/** A level that equals a sample would put contours through pixel centres, where they could touch: step off it. */
function awayFromSamples(level: number): number {
  const nearest = Math.round(level);
  return Math.abs(level - nearest) < 1e-3 ? nearest + 1e-3 : level;
}

/** Horizontal and vertical crossings row by row, with the side the ink is on. */
function crossings(grey: Grey, cut: number) {
  const { width: W, height: H, data } = grey;
  // Samples are whole numbers: comparing with the next whole number up is the same, and stays in integers.
  const limit = Math.ceil(cut);
  let hx = new Int32Array(1 << 15);
  let hInk = new Uint8Array(1 << 15);
  let vx = new Int32Array(1 << 15);
  let vInk = new Uint8Array(1 << 15);
  let nH = 0;
  let nV = 0;
  const hRow = new Int32Array(H + 1);
  const vRow = new Int32Array(H + 2);
  const room = () => {
    if (nH + W + 2 > hx.length) {
      hx = grown(hx, nH, W);
      hInk = grown(hInk, nH, W);
    }
    if (nV + W + 2 > vx.length) {
      vx = grown(vx, nV, W);
      vInk = grown(vInk, nV, W);
    }
  };
  const edgeRow = (row: number, inkAbove: number) => {
    room();
    for (let x = 0; x < W; x++)
      if (data[row + x] < limit) {
        vx[nV] = x;
        vInk[nV++] = inkAbove;
      }
  };
  const scan = rowScan(grey, limit);
  edgeRow(0, 0);
  for (let y = 0; y < H; y++) {
    room();
    const row = y * W;
    if (y > 0) vRow[y] = nV;
    hRow[y] = nH;
    if (data[row] < limit) {
      hx[nH] = 0;
      hInk[nH++] = 0;
    }
    const count = scan.next(y);
    nH = rowCrossings(scan.across, scan, count, hx, hInk, nH);
    if (y > 0) nV = rowCrossings(scan.down, scan, count, vx, vInk, nV);
    if (data[row + W - 1] < limit) {
      hx[nH] = W;
      hInk[nH++] = 1;
    }
  }
  hRow[H] = nH;
  vRow[H] = nV;
  edgeRow((H - 1) * W, 1);
  vRow[H + 1] = nV;
  return {
    hx: hx.subarray(0, nH),
    hInkLeft: hInk.subarray(0, nH),
    hRow,
    vx: vx.subarray(0, nV),
    vInkAbove: vInk.subarray(0, nV),
    vRow,
  };
}

/**
 * Adds a row's crossings to a list, from left to right. A function of its own: the engine compiles it while the first
 * rows pass, where a loop within the loop over all rows would be interpreted through half of the first picture.
 * @param bits of each crossed word, the high bits of the bytes where it is crossed
 * @returns how many the list holds then
 */
function rowCrossings(
  bits: Int32Array,
  { at, ink }: RowScan,
  count: number,
  xs: Int32Array,
  inkBefore: Uint8Array,
  n: number,
): number {
  for (let k = 0; k < count; k++) {
    // From the lowest bit on, each the highest of its byte.
    for (let left = bits[k]; left !== 0; left &= left - 1) {
      const bit = left & -left;
      xs[n] = 4 * at[k] + ((31 - Math.clz32(bit)) >> 3);
      inkBefore[n++] = ink[k] & bit ? 0 : 1;
    }
  }
  return n;
}

/** A copy with room for at least another row. */
function grown<T extends Int32Array | Uint8Array>(a: T, used: number, row: number): T {
  const next = new (a.constructor as new (n: number) => T)(2 * a.length + 2 * row);
  next.set(a.subarray(0, used));
  return next;
}

/**
 * For each crossing the one that follows it along its contour. Vertical crossings are numbered after horizontal ones.
 */
function link(
  grey: Grey,
  cut: number,
  hx: Int32Array,
  hInkLeft: Uint8Array,
  hRow: Int32Array,
  vx: Int32Array,
  vInkAbove: Uint8Array,
  vRow: Int32Array,
): Int32Array {
  const { width: W, height: H, data } = grey;
  const nH = hx.length;
  const next = new Int32Array(nH + vx.length);
  for (let r = 0; r <= H; r++) {
    let a = r > 0 ? hRow[r - 1] : 0;
    const aEnd = r > 0 ? hRow[r] : 0;
    let b = r < H ? hRow[r] : 0;
    const bEnd = r < H ? hRow[r + 1] : 0;
    let v = vRow[r];
    const vEnd = vRow[r + 1];
    let left = -1;
    for (;;) {
      const x = Math.min(
        a < aEnd ? hx[a] : FAR,
        b < bEnd ? hx[b] : FAR,
        v < vEnd ? vx[v] : FAR,
        left >= 0 ? vx[left] + 1 : FAR,
      );
      if (x === FAR) break;
      const top = a < aEnd && hx[a] === x ? a++ : -1;
      const bottom = b < bEnd && hx[b] === x ? b++ : -1;
      const L = left >= 0 && vx[left] + 1 === x ? left : -1;
      const R = v < vEnd && vx[v] === x ? v++ : -1;
      left = R;
      if (top >= 0 && bottom >= 0 && L >= 0 && R >= 0) {
        // Saddle. With ink at top left and bottom right, contours come in at left and right; otherwise at top and
        // bottom.
        const joined = r > 0 && r < H && x > 0 && x < W && saddleIsInk(data, W, r, x, cut);
        if (hInkLeft[top]) {
          next[nH + L] = joined ? bottom : top;
          next[nH + R] = joined ? top : bottom;
        } else {
          next[top] = nH + (joined ? L : R);
          next[bottom] = nH + (joined ? R : L);
        }
        continue;
      }
      // A contour with ink on its left leaves upward where ink is left of the crossing, and so on round the cell.
      let from = -1;
      let to = -1;
      if (top >= 0) hInkLeft[top] ? (to = top) : (from = top);
      if (bottom >= 0) hInkLeft[bottom] ? (from = bottom) : (to = bottom);
      if (L >= 0) vInkAbove[L] ? (from = nH + L) : (to = nH + L);
      if (R >= 0) vInkAbove[R] ? (to = nH + R) : (from = nH + R);
      next[from] = to;
    }
  }
  return next;
}

function saddleIsInk(data: Uint8Array | Uint16Array, W: number, r: number, x: number, cut: number): boolean {
  const i = r * W + x;
  const tl = data[i - W - 1];
  const tr = data[i - W];
  const bl = data[i - 1];
  const br = data[i];
  return (tl * br - tr * bl) / (tl + br - tr - bl) < cut;
}

/** No contour passes nearer to a pixel's centre than this where another passes on its other side, px. */
const APART = 0.05;

/**
 * How far along the grid line from pixel (x, y) to the one dx, dy farther the level is crossed, 0…1. Where the grey
 * is within a whisker of the level, two contours would run past a pixel a millionth of a pixel apart and meet as soon
 * as anything is rounded: there they keep {@link APART} from its centre, so that no two contours are ever nearer to
 * each other than that.
 */
function crossedAt(grey: Grey, cut: number, x: number, y: number, dx: number, dy: number): number {
  const { width: W, data } = grey;
  const v0 = data[y * W + x];
  const t = (cut - v0) / (data[(y + dy) * W + x + dx] - v0);
  if (t < APART) return otherContourAt(grey, cut, x, y, dx, dy) ? APART : t;
  if (t > 1 - APART) return otherContourAt(grey, cut, x + dx, y + dy, -dx, -dy) ? 1 - APART : t;
  return t;
}

/** Whether a contour besides the one that crosses towards (dx, dy) may pass close by the centre of pixel (x, y). */
function otherContourAt(grey: Grey, cut: number, x: number, y: number, dx: number, dy: number): boolean {
  const { width: W, height: H, data } = grey;
  const inkAt = (px: number, py: number): boolean => px >= 0 && py >= 0 && px < W && py < H && data[py * W + px] < cut;
  const own = inkAt(x, y);
  if (inkAt(x - dx, y - dy) !== own) return true;
  // A neighbour on either side that differs joins this contour, unless the pixel between them is of our own kind: a
  // saddle.
  for (const side of [-1, 1]) {
    const [sx, sy] = [side * dy, side * dx];
    if (inkAt(x + sx, y + sy) !== own && inkAt(x + dx + sx, y + dy + sy) === own) return true;
  }
  return false;
}

function walk(
  grey: Grey,
  cut: number,
  next: Int32Array,
  nH: number,
  hx: Int32Array,
  hInkLeft: Uint8Array,
  hRow: Int32Array,
  vx: Int32Array,
  vRow: Int32Array,
): Contours {
  const { width: W, height: H, data } = grey;
  const n = next.length;
  const step = new Float32Array(n);
  const px = new Float64Array(n);
  const py = new Float64Array(n);
  for (let y = 0; y < H; y++)
    for (let c = hRow[y]; c < hRow[y + 1]; c++) {
      const x = hx[c];
      py[c] = y + 0.5;
      const onBorder = x === 0 || x === W;
      px[c] = onBorder ? x : x - 0.5 + crossedAt(grey, cut, x - 1, y, 1, 0);
      step[c] = onBorder ? 1 : Math.abs(data[y * W + x] - data[y * W + x - 1]) / grey.max;
    }
  for (let r = 0; r <= H; r++)
    for (let c = vRow[r]; c < vRow[r + 1]; c++) {
      const x = vx[c];
      px[nH + c] = x + 0.5;
      const onBorder = r === 0 || r === H;
      py[nH + c] = onBorder ? r : r - 0.5 + crossedAt(grey, cut, x, r - 1, 0, 1);
      step[nH + c] = onBorder ? 1 : Math.abs(data[r * W + x] - data[(r - 1) * W + x]) / grey.max;
    }

  const label = new Int32Array(n).fill(-1);
  const xy = new Float64Array(2 * n);
  const steep = new Float32Array(n);
  const starts = new GrowingI32();
  const parent = new GrowingI32();
  const hole = new GrowingI32();
  let at = 0;
  for (let y = 0; y < H; y++)
    for (let first = hRow[y]; first < hRow[y + 1]; first++) {
      if (label[first] >= 0) continue;
      const me = starts.length;
      const isHole = hInkLeft[first];
      // The crossing to our left bounds the same region as we do: it is our parent, or a sibling.
      const beside = first > hRow[y] ? label[first - 1] : -1;
      parent.push(beside < 0 ? -1 : hole.data[beside] !== isHole ? beside : parent.data[beside]);
      hole.push(isHole);
      starts.push(at >> 1);
      let c = first;
      do {
        label[c] = me;
        steep[at >> 1] = step[c];
        xy[at++] = px[c];
        xy[at++] = py[c];
        c = next[c];
      } while (c !== first);
    }
  starts.push(at >> 1);
  return {
    xy: at === xy.length ? xy : xy.slice(0, at),
    steep: steep.subarray(0, at >> 1),
    starts: starts.take(),
    parent: parent.take(),
    hole: Uint8Array.from(hole.take()),
  };
}

/** Area enclosed by contour k in square pixels, positive for outer contours and holes alike. */
export function contourArea(c: Contours, k: number): number {
  let sum = 0;
  const s = c.starts[k];
  const e = c.starts[k + 1];
  let x0 = c.xy[2 * e - 2];
  let y0 = c.xy[2 * e - 1];
  for (let i = s; i < e; i++) {
    const x1 = c.xy[2 * i];
    const y1 = c.xy[2 * i + 1];
    sum += x0 * y1 - x1 * y0;
    x0 = x1;
    y0 = y1;
  }
  return Math.abs(sum) / 2;
}
