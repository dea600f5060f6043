import { mkdtempSync } from "node:fs";
import { rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import type { Entry } from "@oaken/core/shop/column";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { emptyJob } from "@oaken/core/job/document";
import { partNamed } from "@oaken/core/shop/parts";
import { writeCsv } from "@oaken/core/shop/table";

const data = mkdtempSync(join(tmpdir(), "oaken-shop-"));
process.env.OAKEN_DATA = data;
const { importEntries, listEntries, makeFirst, saveEntry, shopNow } = await import("./shop.ts");
afterAll(() => rm(data, { recursive: true, force: true }));

const rack = partNamed("cutters");
const mine: Entry = {
  id: "mine",
  name: "My long flat",
  kind: "flat",
  diameter: 3,
  flutes: 2,
  fluteLength: 20,
  centreCutting: true,
};

describe("the shop in the database", () => {
  it("begins with what a new workshop knows, in its order", async () => {
    expect(await shopNow()).toEqual(FIRST_SHOP);
  });
  it("keeps an entry that is added, and a change of it; jobs are offered it then", async () => {
    const added = await saveEntry("cutters", { entry: mine, base: 0 });
    expect(added.version).toBe(1);
    const changed = await saveEntry("cutters", { entry: { ...mine, flutes: 1 }, base: 1 });
    expect(changed.version).toBe(2);
    const { cutters } = await shopNow();
    expect(cutters[cutters.length - 1]).toEqual({ ...mine, flutes: 1 });
  });
  it("a change made from an older state is refused, and what the other window made stays", async () => {
    await expect(saveEntry("cutters", { entry: { ...mine, flutes: 3 }, base: 1 })).rejects.toThrow(/another window/);
    await expect(saveEntry("cutters", { entry: { ...mine, id: "other" }, base: 4 })).rejects.toThrow(/not there any/);
    expect((await shopNow()).cutters.find((c) => c.id === "mine")!.flutes).toBe(1);
  });
  it("two windows at once: one is kept, the other told", async () => {
    const both = await Promise.allSettled(
      [4, 5].map((flutes) => saveEntry("cutters", { entry: { ...mine, flutes }, base: 2 })),
    );
    expect(both.map((b) => b.status).sort()).toEqual(["fulfilled", "rejected"]);
  });
  it("what is put aside is not offered any more and can be brought back; the last one stays", async () => {
    await saveEntry("cutters", { entry: mine, base: 3, retired: true });
    expect((await shopNow()).cutters.some((c) => c.id === "mine")).toBe(false);
    expect((await listEntries(rack)).find((k) => k.entry.id === "mine")!.retired).toBe(true);
    await saveEntry("cutters", { entry: mine, base: 4, retired: false });
    expect((await shopNow()).cutters.some((c) => c.id === "mine")).toBe(true);
    const dialects = (await listEntries(partNamed("dialects"))).map((k) => k.entry);
    for (const entry of dialects.slice(1)) await saveEntry("dialects", { entry, base: 1, retired: true });
    await expect(saveEntry("dialects", { entry: dialects[0], base: 1, retired: true })).rejects.toThrow(/last dialect/);
  });
  it("the machine at the head is the one that jobs begin with", async () => {
    const machines = await makeFirst("machines", "sheet-router");
    expect(machines[0].entry.id).toBe("sheet-router");
    const { machine, dialect } = emptyJob({ ...FIRST_SHOP, machines: (await shopNow()).machines }, "x");
    expect([machine.id, dialect.id]).toEqual(["sheet-router", "mm-changer"]);
    await expect(makeFirst("machines", "loom")).rejects.toThrow(/not there any more/);
  });
  it("a table is taken as a whole: known ids replaced, others added, five thousand at once", async () => {
    const before = (await listEntries(rack)).length;
    const many = Array.from({ length: 5000 }, (_, i) => ({ ...mine, id: `many-${i}`, name: `Many ${i}` }));
    const said = await importEntries("cutters", writeCsv(rack, [{ ...mine, note: "again" }, ...many]));
    expect(said).toEqual({ taken: 5001, faults: [] });
    const after = await listEntries(rack);
    expect(after.length).toBe(before + 5000);
    expect(after.find((k) => k.entry.id === "mine")!.entry.note).toBe("again");
  });
  it("or not at all", async () => {
    const before = JSON.stringify(await listEntries(rack));
    const csv = "name,kind,diameter,flutes,fluteLength,centreCutting\nGood,flat,3,2,9,yes\nBad,flat,-3,2,9,yes\n";
    const { taken, faults } = await importEntries("cutters", csv);
    expect([taken, faults.map((f) => [f.row, f.column])]).toEqual([0, [[2, "Diameter"]]]);
    expect(JSON.stringify(await listEntries(rack))).toBe(before);
  });
  it("entries that cannot be are refused with a sentence", async () => {
    await expect(saveEntry("cutters", { entry: { ...mine, diameter: 1e9 }, base: 0 })).rejects.toThrow(/out of range/);
    await expect(saveEntry("dialects", { entry: { ...FIRST_SHOP.dialects[0], end: "M30" }, base: 1 })).rejects.toThrow(
      /leave the spindle on/,
    );
    await expect(saveEntry("brooms", { entry: mine, base: 0 })).rejects.toThrow(/no "brooms"/);
  });
});
