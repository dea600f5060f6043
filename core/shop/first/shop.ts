import type { Shop } from "../shop.ts";
import { CUTTERS } from "./cutters.ts";
import { DIALECTS } from "./dialects.ts";
import { MACHINES } from "./machines.ts";
import { MATERIALS } from "./materials.ts";

/** What a new workshop starts with. Only what stands at the edge reads it (application, command line, demo, tests). */
export const FIRST_SHOP: Shop = { cutters: CUTTERS, materials: MATERIALS, machines: MACHINES, dialects: DIALECTS };
