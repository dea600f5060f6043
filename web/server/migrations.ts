import { DataTypes, type QueryInterface } from "sequelize";
import type { RunnableMigration } from "umzug";

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
];
