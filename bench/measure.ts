import { execFileSync } from "node:child_process";
import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";

/** What one has thrown away is not cleared up in the time of the next, nor counted as in use. */
export function collectGarbage(): void {
  setFlagsFromString("--expose-gc");
  (runInNewContext("gc") as () => void)();
}

/** Median of several timings, ms; the first run warms up and does not count. */
export function median(times: number, work: (k: number) => void): number {
  const all: number[] = [];
  for (let k = -1; k < times; k++) {
    const t0 = performance.now();
    work(k);
    if (k >= 0) all.push(performance.now() - t0);
  }
  return middle(all);
}

export const middle = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[times.length >> 1];

/** The last line that this bench prints in a process of its own, where nothing is compiled yet. */
export const inOwnProcess = (...asked: string[]): string =>
  execFileSync(process.execPath, [process.argv[1], "--once", ...asked], { encoding: "utf8" })
    .trim()
    .split("\n")
    .pop()!;

export const ms = (v: number): string => `${v < 10 ? v.toFixed(2) : v.toFixed(0)} ms`;

/** One line of the table: what, figure, and the ratio that the issue or the docs ask for. */
export function row(what: string, figure: string, asked = ""): void {
  console.log(`  ${what.padEnd(58)} ${figure.padStart(16)}${asked ? `   ${asked}` : ""}`);
}
