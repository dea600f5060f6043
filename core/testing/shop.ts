import type { Machine } from "../cutters/machine.ts";
import type { Material } from "../cutters/materials.ts";
import type { Cutter } from "../cutters/profile.ts";
import { cutterIn, parseCutter } from "../cutters/rack.ts";
import type { BoardJob, JobMaking, StockSettings } from "../job/document.ts";
import type { Chosen } from "../job/outcomes.ts";
import { startJob } from "../job/start.ts";
import type { Dialect } from "../output/gcode/dialect.ts";
import { FIRST_SHOP } from "../shop/first/shop.ts";
import { dialectIn, machineIn, materialIn } from "../shop/shop.ts";

/** The shop that tests choose from. */
export const SHOP = FIRST_SHOP;
export const ROUTER: Machine = machineIn(SHOP, "desk-router");
export const materialNamed = (id: string): Material => materialIn(SHOP, id);
export const dialectNamed = (id: string): Dialect => dialectIn(SHOP, id);
export const cutterNamed = (id: string): Cutter => cutterIn(SHOP.cutters, id);
/** A cutter from its numbers or its id. */
export const cutterOf = (spec: string): Cutter => parseCutter(spec, SHOP.cutters);

/** A job begun from a picture in that shop. */
export const begun = (
  outcome: string,
  asset: NonNullable<JobMaking["asset"]>,
  stock: Partial<StockSettings> = {},
  cutters: Partial<Chosen> = {},
): BoardJob => startJob(SHOP, { outcome, asset, stock, cutters });
