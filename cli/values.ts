import { Problem } from "@oaken/core/problem";
import { parseLength } from "@oaken/core/units";
import { type Clamp, MOST_COAT } from "@oaken/core/job/document";

/** `--grow -0.2` as people write it: a value that begins with a minus and a digit belongs to the option before it. */
export function joinNegative(args: string[]): string[] {
  const out: string[] = [];
  for (const a of args) {
    const last = out[out.length - 1];
    if (/^-\d|^-\.\d/.test(a) && last?.startsWith("--") && !last.includes("=")) out[out.length - 1] = `${last}=${a}`;
    else out.push(a);
  }
  return out;
}

const FRAMES = ["through", "stops"];

/** `--frame` by itself goes through: it takes a word after it, and need not. */
export const withUsualFrame = (args: readonly string[]): string[] =>
  args.flatMap((a, i) => (a === "--frame" && !FRAMES.includes(args[i + 1]) ? ["--frame=through"] : [a]));

/** A length above 0. @throws Problem `bad-length` */
export function positive(option: string, value: string, most: number): number {
  const mm = parseLength(value);
  if (!(mm > 0) || mm > most)
    throw new Problem("bad-length", `${option} ${value}: give a length above 0 and up to ${most} mm.`);
  return mm;
}

/** Paint from #rrggbb:MM. @throws Problem `bad-paint` */
export function parsePaint(value: string): { colour: string; coat: number } {
  const m = /^(#[0-9a-fA-F]{6}):(.+)$/.exec(value.trim());
  const coat = m ? parseLength(m[2]) : NaN;
  if (!m || !(coat > 0) || coat > MOST_COAT)
    throw new Problem(
      "bad-paint",
      `--paint ${value}: write its colour and how thick it is, up to ${MOST_COAT} mm, such as '#1d1b1a:0.1'.`,
    );
  return { colour: m[1], coat };
}

/** How the frame is traced. @throws Problem `bad-frame` */
export function parseFrame(value: string): "through" | "stops" {
  if (value === "through" || value === "stops") return value;
  throw new Problem("bad-frame", `--frame ${value}: write through, or stops to wait at each corner.`);
}

/** A clamp from X,Y,W,H,Z. @throws Problem `bad-clamp` */
export function parseClamp(value: string): Clamp {
  const parts = value.split(",").map((p) => parseLength(p));
  if (parts.length !== 5 || parts[2] <= 0 || parts[3] <= 0 || parts[4] < 0)
    throw new Problem("bad-clamp", `--clamp ${value}: write X,Y,W,H,Z in mm, such as 0,80,40,25,12.`);
  const [x, y, width, height, tall] = parts;
  return { x, y, width, height, tall };
}

/** Stock from WxHxT. @throws Problem `bad-stock` */
export function parseStock(value: string): { width: number; height: number; thickness: number } {
  const parts = value.split(/\s*[x×]\s*/i);
  if (parts.length !== 3)
    throw new Problem("bad-stock", `--stock ${value}: write width x height x thickness, such as 300x200x18.`);
  const [width, height, thickness] = parts.map((p, i) => positive("--stock", p, i === 2 ? 500 : 10000));
  return { width, height, thickness };
}
