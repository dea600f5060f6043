import { schemaOfEntry } from "./column.ts";
import { cutterColumns } from "./cutters.ts";
import { dialectColumns } from "./dialects.ts";
import { machineColumns } from "./machines.ts";
import { materialColumns } from "./materials.ts";

/** What entries of the shop look like in documents that cross a boundary, from the columns that describe them. */
export const cutterSchema = schemaOfEntry(cutterColumns, true);
export const machineSchema = schemaOfEntry(machineColumns);
export const materialSchema = schemaOfEntry(materialColumns);
export const dialectSchema = schemaOfEntry(dialectColumns);
