import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import type { Shop } from "@oaken/core/shop/shop";

/** The workshop's cutters, materials, machines and dialects, as the pages choose from them. */
export const SHOP: Shop = FIRST_SHOP;
