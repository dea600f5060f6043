import { Kept } from "../kept.ts";
import type { Shop } from "../shop/shop.ts";
import { buildJob } from "./build.ts";
import { noFace } from "./tools.ts";
import { startJob, usualHelpers } from "./start.ts";
import { outcomeById } from "./outcomes.ts";

/** The picture that is carved to warm up, px, and its board, mm. */
const WIDE = 480;
const HIGH = 320;
const BOARD = { width: 120, height: 90, thickness: 18 };
const CELLS = 120_000;
/** Twice: what is compiled after the first time is compiled for what it met there. */
const TIMES = 2;

/**
 * Carves a small made-up picture, for nothing but to have the engine compile what carves: the first job that someone
 * waits for then takes about half as long. For an idle moment; it takes a second or two.
 * @param shop whose cutters and machine it is carved with; any will do
 * @param mayGoOn asked between steps: whether nobody waits yet
 */
export function warmUpCarving(shop: Shop, mayGoOn: () => boolean): void {
  const data = new Uint8Array(4 * WIDE * HIGH).fill(255);
  for (let k = 0; k < WIDE * HIGH; k++) {
    const [x, y] = [k % WIDE, Math.floor(k / WIDE)];
    // Leaves of many widths, with soft edges.
    const ink = Math.sin(x / 17 + Math.sin(y / 23)) * Math.cos(y / 29) + 0.4 * Math.sin((x + y) / 61) - 0.25;
    data.fill(Math.max(0, Math.min(255, 128 - 400 * ink)), 4 * k, 4 * k + 3);
  }
  const outcome = outcomeById("sign");
  for (let time = 0; time < TIMES && mayGoOn(); time++) {
    const asset = { sha: `warm-${time}`, name: "warm", width: WIDE, height: HIGH };
    const cutters = usualHelpers(outcome, shop);
    const job = startJob(shop, { outcome: outcome.id, asset, stock: BOARD, cutters });
    const none = () => {
      throw new Error("The picture that warms up is all there is.");
    };
    const files = { picture: () => ({ width: WIDE, height: HIGH, data }), drawing: none, solid: none, face: noFace };
    const progress = () => {
      if (!mayGoOn()) throw new Stopped();
    };
    try {
      buildJob(job, { files, cells: CELLS, progress }, new Kept());
    } catch (e) {
      if (!(e instanceof Stopped)) throw e;
    }
  }
}

/** Thrown out of the work once somebody waits. */
class Stopped extends Error {}
