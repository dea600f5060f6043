import { type Transaction } from "sequelize";
import type { Entry } from "@oaken/core/shop/column";
import { type Part, partNamed, PARTS, readEntry } from "@oaken/core/shop/parts";
import type { Shop } from "@oaken/core/shop/shop";
import { type Fault, MOST_ENTRIES, readTable } from "@oaken/core/shop/table";
import { Problem } from "@oaken/core/problem";
import { EntryRow, store, write } from "./db.ts";

/** An entry as the tables show it. */
export interface Kept {
  entry: Entry;
  /** put aside: no longer offered, and kept for the jobs that know it */
  retired: boolean;
  /** counts its changes: a change names the one that it was made from */
  version: number;
}

const kept = (r: EntryRow): Kept => ({
  entry: JSON.parse(r.entry) as Entry,
  retired: r.retired,
  version: r.version,
});

const rowsOf = (part: Part, transaction?: Transaction) =>
  EntryRow.findAll({ where: { part: part.id }, order: [["position", "ASC"]], transaction });

/** Every entry of a part, in its order. */
export async function listEntries(part: Part): Promise<Kept[]> {
  await store();
  return (await rowsOf(part)).map(kept);
}

/** The workshop's cutters, materials, machines and dialects as they are offered now. */
export async function shopNow(): Promise<Shop> {
  await store();
  const rows = await EntryRow.findAll({ where: { retired: false }, order: [["position", "ASC"]] });
  const of = (part: string) => rows.filter((r) => r.part === part).map((r) => JSON.parse(r.entry) as never);
  return Object.fromEntries(PARTS.map((p) => [p.id, of(p.id)])) as unknown as Shop;
}

/** What a change of an entry says. */
export interface EntryChange {
  entry: unknown;
  retired?: boolean;
  /** the version that it was made from; 0 for a new entry */
  base: number;
}

/**
 * Keeps an entry, a new one at the end.
 * @throws Problem `bad-entry`, or `stale` where another window changed it meanwhile
 */
export async function saveEntry(partId: string, change: EntryChange): Promise<Kept> {
  const part = partNamed(partId);
  const entry = readEntry(part, change.entry);
  return write(async (transaction) => {
    const key = { part: part.id, id: entry.id };
    const row = await EntryRow.findOne({ where: key, transaction });
    const version = row?.version ?? 0;
    if (version !== change.base)
      throw new Problem(
        "stale",
        row
          ? `${(JSON.parse(row.entry) as Entry).name} was changed in another window. Load the page anew to see it so.`
          : `This ${part.one} is not there any more. Load the page anew.`,
      );
    if (change.retired) await checkLast(part, entry.id, transaction);
    const values = {
      ...key,
      entry: JSON.stringify(entry),
      retired: change.retired ?? false,
      version: version + 1,
      position: row?.position ?? (await endOf(part, transaction)),
    };
    if (row) await row.update(values, { transaction });
    else await EntryRow.create(values, { transaction });
    return { entry, retired: values.retired, version: values.version };
  });
}

/**
 * Puts an entry at the head of its part: the machine that stands there is the one that jobs begin with.
 * @throws Problem `no-entry`
 */
export async function makeFirst(partId: string, id: string): Promise<Kept[]> {
  const part = partNamed(partId);
  await write(async (transaction) => {
    const rows = await rowsOf(part, transaction);
    const row = rows.find((r) => r.id === id && !r.retired);
    if (!row) throw new Problem("no-entry", `This ${part.one} is not there any more. Load the page anew.`);
    await row.update({ position: Math.min(...rows.map((r) => r.position)) - 1 }, { transaction });
  });
  return listEntries(part);
}

/** Jobs begin with a material, a machine and a dialect: the last one stays. */
async function checkLast(part: Part, id: string, transaction: Transaction): Promise<void> {
  const others = (await rowsOf(part, transaction)).filter((r) => !r.retired && r.id !== id);
  if (others.length === 0)
    throw new Problem("last-entry", `This is the last ${part.one}: jobs begin with one. Add another first.`);
}

async function endOf(part: Part, transaction: Transaction): Promise<number> {
  const rows = await rowsOf(part, transaction);
  if (rows.length >= MOST_ENTRIES)
    throw new Problem("too-many", `There are ${rows.length} already; at most ${MOST_ENTRIES} are kept.`);
  return rows.length > 0 ? rows[rows.length - 1].position + 1 : 0;
}

/**
 * Takes in entries from a file: those with a known id are replaced, the others added; all of them or, where there is
 * any fault, none.
 * @throws Problem `bad-shop-file`
 */
export async function importEntries(partId: string, text: string): Promise<{ taken: number; faults: Fault[] }> {
  const part = partNamed(partId);
  const { entries, faults } = readTable(part, text);
  if (faults.length > 0) return { taken: 0, faults };
  await write(async (transaction) => {
    const known = new Map((await rowsOf(part, transaction)).map((r) => [r.id, r]));
    let position = Math.max(-1, ...[...known.values()].map((r) => r.position));
    const rows = entries.map((entry) => {
      const before = known.get(entry.id);
      return {
        part: part.id,
        id: entry.id,
        entry: JSON.stringify(entry),
        retired: false,
        version: (before?.version ?? 0) + 1,
        position: before?.position ?? ++position,
      };
    });
    if (position >= MOST_ENTRIES)
      throw new Problem("too-many", `That would make more than ${MOST_ENTRIES} entries; nothing was taken.`);
    const updateOnDuplicate = ["entry", "retired", "version", "updatedAt"] as const;
    await EntryRow.bulkCreate(rows, { updateOnDuplicate: [...updateOnDuplicate], transaction });
  });
  return { taken: entries.length, faults: [] };
}
