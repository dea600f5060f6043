import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import type { Dialect } from "@oaken/core/output/gcode/dialect";
import type { Shop } from "@oaken/core/shop/shop";
import type { MakeOptions } from "./options.ts";
import { entriesFrom } from "./entries.ts";

/** A dialect may be named by its id, or be a file of its own. */
const IS_FILE = /\.json$/i;

/**
 * The shop that a make chooses from: what a new workshop knows, unless files say otherwise. A dialect given as a file
 * is put into it, and then goes by its id in the options.
 * @throws Problem `no-file` or `bad-shop-file`
 */
export async function shopFor(o: MakeOptions): Promise<Shop> {
  const shop: Shop = { ...FIRST_SHOP };
  if (o.rack !== undefined) shop.cutters = await entriesFrom("cutters", o.rack);
  if (o.materials !== undefined) shop.materials = await entriesFrom("materials", o.materials);
  if (o.machines !== undefined) shop.machines = await entriesFrom("machines", o.machines);
  if (o.dialect !== undefined && IS_FILE.test(o.dialect)) {
    const own = await entriesFrom<Dialect>("dialects", o.dialect);
    shop.dialects = [...own, ...FIRST_SHOP.dialects.filter((d) => d.id !== own[0].id)];
    o.dialect = own[0].id;
  }
  return shop;
}
