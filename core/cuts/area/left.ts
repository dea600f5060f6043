import { unreachedArea } from "../../geometry/clearance/unreached.ts";
import { ringCount, type Rings } from "../../geometry/rings.ts";
import type { CutInputs } from "../kind.ts";

/** What a cutter that goes up to a region's edge does not reach, mm²; kept: several sets of cutters ask for it. */
export const leftIn = ({ kept, clearance }: Pick<CutInputs, "kept" | "clearance">, region: Rings, radius: number) =>
  kept.of("left-area", [region, radius], (of, r) => (ringCount(of) > 0 ? unreachedArea(clearance(of), r) : 0), KEPT);
/** Numbers: many cost nothing. */
const KEPT = 200;
