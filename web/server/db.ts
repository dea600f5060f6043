import { join } from "node:path";
import { DataTypes, type InferAttributes, type InferCreationAttributes, Model, type CreationOptional, Sequelize } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { dataFolder } from "./data.ts";
import { migrations } from "./migrations.ts";

/** A job as the list shows it; its documents are revisions. */
export class JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  declare id: string;
  declare name: string;
  /** number of the newest saved revision */
  declare revision: number;
  declare archived: CreationOptional<boolean>;
  /** machining time of the newest proof, s */
  declare seconds: CreationOptional<number>;
  /** newest revision that programs were written from */
  declare written: CreationOptional<number | null>;
  declare summary: CreationOptional<string>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** One saved state of a job. `refused` marks a save that came from a stale state: kept, but not on the line. */
export class RevisionRow extends Model<InferAttributes<RevisionRow>, InferCreationAttributes<RevisionRow>> {
  declare id: CreationOptional<number>;
  declare jobId: string;
  declare number: number;
  declare document: string;
  declare summary: string;
  declare refused: CreationOptional<boolean>;
  declare createdAt: CreationOptional<Date>;
}

/** A picture stored once under its content. */
export class AssetRow extends Model<InferAttributes<AssetRow>, InferCreationAttributes<AssetRow>> {
  declare sha: string;
  declare name: string;
  declare width: number;
  declare height: number;
  declare bytes: number;
}

interface Store {
  sequelize: Sequelize;
}

const global = globalThis as unknown as { oakenStore?: Promise<Store> };

/** Opens the database once a process: write-ahead mode, migrations applied. */
export function store(): Promise<Store> {
  return (global.oakenStore ??= open().catch((e) => {
    global.oakenStore = undefined;
    throw e;
  }));
}

async function open(): Promise<Store> {
  const sequelize = new Sequelize({ dialect: "sqlite", storage: join(dataFolder(), "oaken.sqlite"), logging: false, pool: { max: 1 } });
  await sequelize.query("PRAGMA journal_mode = WAL");
  await sequelize.query("PRAGMA synchronous = FULL");
  await sequelize.query("PRAGMA busy_timeout = 5000");
  const umzug = new Umzug({ migrations, context: sequelize.getQueryInterface(), storage: new SequelizeStorage({ sequelize }), logger: undefined });
  await umzug.up();
  JobRow.init(
    {
      id: { type: DataTypes.STRING, primaryKey: true },
      name: DataTypes.STRING,
      revision: DataTypes.INTEGER,
      archived: { type: DataTypes.BOOLEAN, defaultValue: false },
      seconds: { type: DataTypes.FLOAT, defaultValue: 0 },
      written: DataTypes.INTEGER,
      summary: { type: DataTypes.STRING, defaultValue: "" },
      createdAt: DataTypes.DATE,
      updatedAt: DataTypes.DATE,
    },
    { sequelize, tableName: "jobs" },
  );
  RevisionRow.init(
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      jobId: DataTypes.STRING,
      number: DataTypes.INTEGER,
      document: DataTypes.TEXT,
      summary: DataTypes.STRING,
      refused: { type: DataTypes.BOOLEAN, defaultValue: false },
      createdAt: DataTypes.DATE,
    },
    { sequelize, tableName: "revisions", updatedAt: false },
  );
  AssetRow.init({ sha: { type: DataTypes.STRING, primaryKey: true }, name: DataTypes.STRING, width: DataTypes.INTEGER, height: DataTypes.INTEGER, bytes: DataTypes.INTEGER }, { sequelize, tableName: "assets", timestamps: false });
  return { sequelize };
}
