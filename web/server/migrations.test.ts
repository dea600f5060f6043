import { mkdtempSync } from "node:fs";
import { rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Sequelize } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { afterAll, expect, it, vi } from "vitest";
import { documentOf } from "@oaken/core/job/boards";
import { begun } from "@oaken/core/testing/shop";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { migrations } from "./migrations.ts";

const data = mkdtempSync(join(tmpdir(), "oaken-migrations-"));
process.env.OAKEN_DATA = data;
afterAll(() => rm(data, { recursive: true, force: true }));

const asset = { sha: "a".repeat(64), name: "art.png", width: 60, height: 40 };
const ID = "11111111-2222-4333-8444-555555555555";

/** A database as the version before the shop left it, with one job in it. */
async function olderFolder(upTo: number): Promise<void> {
  const sequelize = new Sequelize({ dialect: "sqlite", storage: join(data, "oaken.sqlite"), logging: false });
  const umzug = new Umzug({
    migrations: migrations.slice(0, upTo),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
  const now = new Date();
  const document = JSON.stringify(documentOf(begun("sign", asset)));
  const q = sequelize.getQueryInterface();
  const job = { id: ID, name: "Old", revision: 1, createdAt: now, updatedAt: now };
  await q.bulkInsert("jobs", [job]);
  await q.bulkInsert("revisions", [{ jobId: ID, number: 1, document, summary: "created", createdAt: now }]);
  await q.bulkInsert("assets", [{ ...asset, bytes: 10 }]);
  await sequelize.close();
}

it("a folder of the version before the shop keeps its jobs, and gains what came since", async () => {
  await olderFolder(1);
  vi.resetModules();
  (globalThis as { oakenStore?: unknown }).oakenStore = undefined;
  const { listJobs, openJob } = await import("./jobs.ts");
  const { shopNow } = await import("./shop.ts");
  const [card] = await listJobs();
  expect(card).toMatchObject({ id: ID, name: "Old", isStart: false, begunFrom: null, hasPicture: true, stops: 0 });
  expect((await openJob(ID)).document.boards[0].stock.width).toBe(300);
  expect(await shopNow()).toEqual(FIRST_SHOP);
  const { saveJob } = await import("./save.ts");
  const { document } = await openJob(ID);
  expect((await saveJob(ID, 1, { ...document, name: "New" }, "rename")).revision).toBe(2);
});

it("each step can be taken again: what it makes is there once", async () => {
  const sequelize = new Sequelize({ dialect: "sqlite", storage: join(data, "oaken.sqlite"), logging: false });
  const context = sequelize.getQueryInterface();
  for (const m of migrations.slice(1)) await m.up!({ name: m.name, context, path: undefined });
  const [rows] = await sequelize.query("SELECT part, COUNT(*) AS n FROM shop GROUP BY part");
  const counts = Object.fromEntries((rows as { part: string; n: number }[]).map((r) => [r.part, r.n]));
  for (const [part, entries] of Object.entries(FIRST_SHOP)) expect(counts[part]).toBe(entries.length);
  await sequelize.close();
});
