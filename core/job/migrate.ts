import { CUTS } from "../cuts/register.ts";
import { MAKINGS } from "../makings/register.ts";
import { dialectIn, materialIn, type Shop } from "../shop/shop.ts";
import { JOB_VERSION } from "./document.ts";

/** A document of which nothing is known yet but that it is an object. */
type Loose = Record<string, unknown>;

/**
 * Brings a document of an older version up to this one. What is not as it should be stays as it is: the check that
 * follows says so.
 * @param shop what older documents name without holding it
 * @throws Problem `unknown-material` or `unknown-dialect`
 */
export function migrated(doc: object, shop: Shop): object {
  const { version } = doc as { version?: unknown };
  return version === 1 ? fromVersion1(doc as Loose, shop) : doc;
}

/**
 * Version 1 had one board, whose stock and cuts stood in the document itself, makings called `nodes`, inputs by their
 * order, and only the names of the material and the dialect.
 */
function fromVersion1({ nodes, stock, cuts, cell, machine, dialect, ...rest }: Loose, shop: Shop): object {
  const board = {
    id: "board",
    name: "Board",
    stock: isObject(stock) && typeof stock.material === "string" ? withMaterial(stock, shop) : stock,
    cuts: withNamedReads(cuts, CUTS),
    cell,
  };
  return {
    ...rest,
    version: JOB_VERSION,
    makings: withNamedReads(nodes, MAKINGS),
    boards: [board],
    machine: isObject(machine) ? { id: idOfMachine(machine, shop), ...machine } : machine,
    dialect: typeof dialect === "string" ? dialectIn(shop, dialect) : dialect,
  };
}

const isObject = (v: unknown): v is Loose => typeof v === "object" && v !== null && !Array.isArray(v);

const withMaterial = (stock: Loose, shop: Shop): Loose => ({
  ...stock,
  material: materialIn(shop, stock.material as string),
});

/** The id of the shop's machine of the same name: version 1 kept only names. */
const idOfMachine = ({ name }: Loose, shop: Shop): string =>
  shop.machines.find((m) => m.name === name)?.id ?? "own-machine";

/** Parts whose inputs go by name instead of by order. */
function withNamedReads(parts: unknown, kinds: readonly { kind: string; reads: object }[]): unknown {
  if (!Array.isArray(parts)) return parts;
  return parts.map((part: unknown) => {
    if (!isObject(part) || !Array.isArray(part.reads)) return part;
    const names = Object.keys(kinds.find((k) => k.kind === part.kind)?.reads ?? {});
    // More inputs than there are names for keep a number: the check then says that it is not known.
    const reads = Object.fromEntries(part.reads.map((id: unknown, at) => [names[at] ?? String(at + 1), id]));
    return { ...part, reads };
  });
}
