import type { Machine } from "../cutters/machine.ts";
import { hypot } from "../hypot.ts";
import { moveSeconds } from "./time.ts";
import { PLUNGE, RAPID, type Toolpath } from "./toolpath.ts";

/** Points of a path in turn, mm; without z it is level. */
interface Path {
  x: ArrayLike<number>;
  y: ArrayLike<number>;
  z?: ArrayLike<number>;
}

/** Part of a path, from one of its points to another. */
export interface Stretch {
  path: number;
  from: number;
  to: number;
  /** mm */
  length: number;
  /** how much of all paths it stands for, mm */
  stands: number;
}

/** Stretches that paths are looked at in: how many, and how long each is, mm. */
const LOOKED_AT = { count: 10, length: 80 };

/**
 * Stretches spread evenly over the length of paths (systematic sampling: W. G. Cochran, "Sampling Techniques", 1977,
 * chapter 8); paths that are hardly longer than those are looked at whole.
 */
export function stretchesOf(paths: readonly Path[], { count, length } = LOOKED_AT): Stretch[] {
  const lengths = paths.map(lengthOf);
  const total = lengths.reduce((sum, l) => sum + l, 0);
  const apart = total / count;
  if (apart < 1.5 * length)
    return paths.map(({ x }, path) => ({
      path,
      from: 0,
      to: x.length - 1,
      length: lengths[path],
      stands: lengths[path],
    }));
  const out: Stretch[] = [];
  let before = 0;
  lengths.forEach((own, path) => {
    for (; out.length < count && (out.length + 0.5) * apart < before + own;) {
      const middle = (out.length + 0.5) * apart - before;
      out.push({ path, ...within(paths[path], middle - length / 2, middle + length / 2), stands: apart });
    }
    before += own;
  });
  return out;
}

/**
 * How long cutting along paths takes once the cutter is at their beginnings, found from stretches of them.
 * @param cut the moves along a path from one of its points to another
 * @param feed mm/min
 * @returns s
 */
export function sampledSeconds(
  paths: readonly Path[],
  cut: (path: number, from: number, to: number) => Toolpath,
  machine: Machine,
  feed: number,
  looked = LOOKED_AT,
): number {
  // To go on there instead of coming to rest takes so much less.
  const rest = feed / 60 / (2 * machine.acceleration);
  let seconds = 0;
  for (const { path, from, to, length, stands } of stretchesOf(paths, looked)) {
    if (length === 0) continue;
    const cuts = Number(from > 0) + Number(to < paths[path].x.length - 1);
    seconds += ((cuttingSeconds(cut(path, from, to), machine) - cuts * rest) * stands) / length;
  }
  return seconds;
}

/** How long all moves take but rapids and plunges: those are the way to a path, not along it; s. */
export const cuttingSeconds = (moves: Toolpath, machine: Machine): number =>
  moveSeconds(moves, machine).reduce((sum, t, i) => {
    const isOnWay = moves.kind[i] !== RAPID && moves.kind[i] !== PLUNGE;
    return isOnWay ? sum + t : sum;
  }, 0);

const lengthOf = (p: Path): number => {
  let sum = 0;
  for (let i = 1; i < p.x.length; i++) sum += stepTo(p, i);
  return sum;
};

/** From the point before to this one, mm. */
const stepTo = ({ x, y, z }: Path, i: number): number =>
  hypot(x[i] - x[i - 1], y[i] - y[i - 1], z ? z[i] - z[i - 1] : 0);

/** The points of a path between two distances along it, and as much round them as belongs to the lines there. */
function within(p: Path, begin: number, end: number): Pick<Stretch, "from" | "to" | "length"> {
  const last = p.x.length - 1;
  let [from, to, length] = [0, last, 0];
  let at = 0;
  for (let i = 1; i <= last; i++) {
    const step = stepTo(p, i);
    if (at + step <= begin) from = i;
    else length += step;
    at += step;
    if (at < end) continue;
    to = i;
    break;
  }
  return { from, to, length };
}
