import { DataTypes, type QueryInterface } from "sequelize";
import type { RunnableMigration } from "umzug";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";

/**
 * What the database has been through; append, never change what one leaves behind. Each step can be taken again:
 * folders exist that an early version left half-way.
 */
export const migrations: (RunnableMigration<QueryInterface> & { name: string })[] = [
  {
    name: "01-jobs-revisions-assets",
    up: async ({ context: q }) => {
      await q.createTable("jobs", {
        id: { type: DataTypes.STRING, primaryKey: true },
        name: { type: DataTypes.STRING, allowNull: false },
        revision: { type: DataTypes.INTEGER, allowNull: false },
        archived: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
        seconds: { type: DataTypes.FLOAT, allowNull: false, defaultValue: 0 },
        written: { type: DataTypes.INTEGER },
        summary: { type: DataTypes.STRING, allowNull: false, defaultValue: "" },
        createdAt: DataTypes.DATE,
        updatedAt: DataTypes.DATE,
      });
      await q.createTable("revisions", {
        id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
        jobId: { type: DataTypes.STRING, allowNull: false },
        number: { type: DataTypes.INTEGER, allowNull: false },
        document: { type: DataTypes.TEXT, allowNull: false },
        summary: { type: DataTypes.STRING, allowNull: false },
        refused: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
        createdAt: DataTypes.DATE,
      });
      await q.sequelize.query(
        "CREATE INDEX IF NOT EXISTS `revisions_job_id_number` ON `revisions` (`jobId`, `number`)",
      );
      await q.createTable("assets", {
        sha: { type: DataTypes.STRING, primaryKey: true },
        name: { type: DataTypes.STRING, allowNull: false },
        width: { type: DataTypes.INTEGER, allowNull: false },
        height: { type: DataTypes.INTEGER, allowNull: false },
        bytes: { type: DataTypes.INTEGER, allowNull: false },
      });
    },
  },
  {
    name: "02-shop",
    up: async ({ context: q }) => {
      await q.createTable("shop", {
        part: { type: DataTypes.STRING, primaryKey: true },
        id: { type: DataTypes.STRING, primaryKey: true },
        position: { type: DataTypes.INTEGER, allowNull: false },
        entry: { type: DataTypes.TEXT, allowNull: false },
        retired: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
        version: { type: DataTypes.INTEGER, allowNull: false },
        updatedAt: DataTypes.DATE,
      });
      // What a new workshop knows: rows that people change from then on.
      const rows = Object.entries(FIRST_SHOP).flatMap(([part, entries]) =>
        (entries as readonly { id: string }[]).map((entry, position) => ({
          part,
          id: entry.id,
          position,
          entry: JSON.stringify(entry),
          retired: false,
          version: 1,
          updatedAt: new Date(),
        })),
      );
      await q.bulkInsert("shop", rows, { ignoreDuplicates: true } as object);
    },
  },
  {
    name: "03-starting-jobs",
    up: async ({ context: q }) => {
      const has = await q.describeTable("jobs");
      const columns = {
        isStart: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
        begunFrom: { type: DataTypes.STRING },
        person: { type: DataTypes.STRING },
        class: { type: DataTypes.STRING },
        hasPicture: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: true },
        stops: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      };
      for (const [name, column] of Object.entries(columns)) if (!(name in has)) await q.addColumn("jobs", name, column);
    },
  },
  {
    name: "04-kept-heights",
    up: async ({ context: q }) => {
      if ("isKept" in (await q.describeTable("jobs"))) return;
      await q.addColumn("jobs", "isKept", { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
    },
  },
];
