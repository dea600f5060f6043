import type { Row } from "./rows.ts";

/** A stretch of a row that is cut: from place i0 to i1, both included. */
export interface Run {
  row: Row;
  i0: number;
  i1: number;
}

/** Stretches of a row with nothing to cut that are shorter than this are followed and not lifted over, mm. */
const BRIDGED = 3;

/** The stretches of a row where something is to be cut; none goes on where the cutter may not pass. */
export function runsOf(row: Row, isCut: (i: number) => boolean, bridged = BRIDGED): Run[] {
  const out: Run[] = [];
  let last: Run | null = null;
  for (let i = 0; i < row.lowest.length; i++) {
    if (row.lowest[i] === Infinity) last = null;
    else if (isCut(i)) {
      if (last && (i - last.i1) * row.step <= bridged) last.i1 = i;
      else out.push((last = { row, i0: i, i1: i }));
    }
  }
  return out;
}

/** Runs in the order that they are cut, each with the way it is gone. */
export interface Gone extends Run {
  back: boolean;
  /** whether it follows the one before without lifting */
  joined: boolean;
}

/**
 * Runs of neighbouring rows one after another, to and fro, as long as each begins near where the last ended; then the
 * first row that is left.
 * @param far how far apart an end and the next beginning may lie along the rows not to be lifted over, mm
 * @param oneWay whether all rows are cut the same way: each is lifted to then
 */
export function inOrder(rows: readonly Run[][], far: number, oneWay: boolean): Gone[] {
  const waiting = rows.map((r) => r.slice());
  const out: Gone[] = [];
  const along = ({ row }: Run, i: number) => row.u + i * row.du;
  for (let first = 0; ;) {
    while (first < waiting.length && waiting[first].length === 0) first++;
    if (first === waiting.length) return out;
    let at = first;
    let run: Run | undefined = waiting[at].shift();
    let back = false;
    let joined = false;
    while (run) {
      out.push({ ...run, back, joined });
      const end = along(run, back ? run.i0 : run.i1);
      at++;
      if (oneWay || at >= waiting.length) break;
      // To and fro: the next begins at the side where this one ended.
      const goesBack: boolean = !back;
      const next = waiting[at].findIndex((r) => Math.abs(along(r, goesBack ? r.i1 : r.i0) - end) <= far);
      run = next < 0 ? undefined : waiting[at].splice(next, 1)[0];
      back = goesBack;
      joined = true;
    }
  }
}
