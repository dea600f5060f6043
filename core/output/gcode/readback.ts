import { Problem } from "../../problem.ts";
import { ARC_CCW, ARC_CW, RAPID, TORCH_OFF, TORCH_ON, type Toolpath } from "../../toolpath/toolpath.ts";
import { type Dialect, unitScale } from "./dialect.ts";
import { CHORD, type Piece } from "./lines.ts";
import { readProgram } from "./reader.ts";
import { hypot } from "../../hypot.ts";

interface Zero {
  x: number;
  y: number;
  z: number;
}

/**
 * Reads a written program again, by a reader that shares nothing with the writer, and holds it against the moves that
 * it was written from: every one must come back, in order, as what it was, within the dialect's last decimal, and
 * nothing else.
 * @throws Problem `unfaithful-program` naming the line's place, where it does not
 */
export function readBack(text: string, pieces: readonly Piece[], dialect: Dialect, zero: Zero): void {
  const back = new Walk(readAgain(text), zero, unitScale(dialect), 10 ** dialect.decimals);
  for (const { toolpath: t, from, to, name } of pieces) {
    for (let i = from; i < to; i++) {
      if (t.kind[i] === TORCH_ON || t.kind[i] === TORCH_OFF) continue;
      if (!back.take(t, i, i > from)) throw unfaithful(name, t, i);
    }
  }
  if (!back.isAtEnd) throw unfaithful(pieces[pieces.length - 1].name, null, 0);
}

function readAgain(text: string): Toolpath {
  try {
    return readProgram(text).toolpath;
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    throw new Problem("unfaithful-program", `A program cannot be read back and is not written. ${e.message}`);
  }
}

const unfaithful = (name: string, t: Toolpath | null, i: number): Problem =>
  new Problem(
    "unfaithful-program",
    `The program of ${name}, read back, does not give the toolpath` +
      (t
        ? ` (at X ${t.x[i].toFixed(2)} Y ${t.y[i].toFixed(2)} Z ${t.z[i].toFixed(2)} mm from the stock's corner)`
        : "") +
      ", and is not written. Check the dialect's blocks and decimals; if they are as they should be, this is a fault " +
      "of Oaken Bit.",
  );

/** Centres and places along an arc follow from several rounded numbers, in last decimals. */
const LOOSE = 4;

/** Whether an arc goes all the way round. */
function isCircle(t: Toolpath, i: number, unit: number): boolean {
  if (t.kind[i] !== ARC_CW && t.kind[i] !== ARC_CCW) return false;
  const way = hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1]);
  return way < 1e-9 && hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]) > LOOSE * unit;
}

/** Goes through what was read as the moves that it was written from come by. */
class Walk {
  private g = 0;
  /** what the last decimal stands for, mm */
  private readonly unit: number;
  constructor(
    private readonly got: Toolpath,
    private readonly zero: Zero,
    private readonly scale: number,
    private readonly decimals: number,
  ) {
    this.unit = 1 / decimals / scale;
  }

  /** Whether what was read is a place as it is written: the same to the last decimal. */
  private isAt(k: number, t: Toolpath, i: number): boolean {
    const { got, zero } = this;
    return (
      this.steps(got.x[k]) === this.steps(t.x[i] - zero.x) &&
      this.steps(got.y[k]) === this.steps(t.y[i] - zero.y) &&
      this.steps(got.z[k]) === this.steps(t.z[i] - zero.z)
    );
  }

  /** A coordinate in last decimals. */
  private steps(mm: number): number {
    return Math.round(mm * this.scale * this.decimals);
  }

  /** What was read stays where it was, or only goes up: a program lifts by itself before a stop and at its ends. */
  private isLift(k: number): boolean {
    const { got } = this;
    if (got.kind[k] !== RAPID) return false;
    if (k === 0) return true;
    return got.x[k] === got.x[k - 1] && got.y[k] === got.y[k - 1] && got.z[k] >= got.z[k - 1];
  }

  /** Takes what stands for one move. @returns whether it does */
  take(t: Toolpath, i: number, hasBefore: boolean): boolean {
    const { got } = this;
    const from = this.g;
    // A move shorter than the last decimal is not written; a whole circle comes back to where it began, and is.
    const stays = from > 0 && this.isAt(from - 1, t, i) && !(hasBefore && isCircle(t, i, this.unit));
    for (; this.g < got.kind.length; this.g++) {
      const k = this.g;
      if (this.isAt(k, t, i) && this.isSameKind(k, t, i)) {
        this.g++;
        return true;
      }
      if (this.isLift(k)) continue;
      if (!(hasBefore && this.isOnArc(k, t, i))) break;
    }
    this.g = from;
    return stays;
  }

  /** A rapid is a rapid and a cut a cut, and an arc turns the same way about the same centre. */
  private isSameKind(k: number, t: Toolpath, i: number): boolean {
    const { got, zero } = this;
    if ((got.kind[k] === RAPID) !== (t.kind[i] === RAPID)) return false;
    if (got.kind[k] !== ARC_CW && got.kind[k] !== ARC_CCW) return true;
    if (got.kind[k] !== t.kind[i]) return false;
    // By its radius a flat arc's centre is loose, but the arc is not: what counts is how far it bulges.
    const radius = hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]);
    const read = hypot(got.x[k] - got.cx[k], got.y[k] - got.cy[k]);
    const off = hypot(got.cx[k] + zero.x - t.cx[i], got.cy[k] + zero.y - t.cy[i]);
    const half = k > 0 ? hypot(got.x[k] - got.x[k - 1], got.y[k] - got.y[k - 1]) / 2 : 0;
    const bulge = (r: number) => (half < r ? r - Math.sqrt(r * r - half * half) : r);
    return off <= LOOSE * this.unit || Math.abs(bulge(radius) - bulge(read)) <= LOOSE * this.unit;
  }

  /** Whether what was read lies on the arc that the move is: as lines or in parts it is written so. */
  private isOnArc(k: number, t: Toolpath, i: number): boolean {
    if (t.kind[i] !== ARC_CW && t.kind[i] !== ARC_CCW) return false;
    if (this.got.kind[k] === RAPID) return false;
    const [x, y] = [this.got.x[k] + this.zero.x, this.got.y[k] + this.zero.y];
    const radius = hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]);
    return Math.abs(hypot(x - t.cx[i], y - t.cy[i]) - radius) <= LOOSE * this.unit + CHORD;
  }

  /** Nothing is left but a lift. */
  get isAtEnd(): boolean {
    while (this.g < this.got.kind.length && this.isLift(this.g)) this.g++;
    return this.g === this.got.kind.length;
  }
}
