import { statSync } from "node:fs";
import { join } from "node:path";
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  Sequelize,
  Transaction,
} from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { Problem } from "@oaken/core/problem";
import { clearPassing, dataFolder } from "./data.ts";
import { storageProblem } from "./files.ts";
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
  /** others begin from it */
  declare isStart: CreationOptional<boolean>;
  /** holds a height for other jobs to take */
  declare isKept: CreationOptional<boolean>;
  /** the starting job that it was begun from */
  declare begunFrom: CreationOptional<string | null>;
  declare person: CreationOptional<string | null>;
  declare class: CreationOptional<string | null>;
  /** its person has put a picture of their own into it */
  declare hasPicture: CreationOptional<boolean>;
  /** findings of the newest proof that stop */
  declare stops: CreationOptional<number>;
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

/** An entry of the shop: a cutter, a material, a machine or a dialect, by its part and id. */
export class EntryRow extends Model<InferAttributes<EntryRow>, InferCreationAttributes<EntryRow>> {
  declare part: string;
  declare id: string;
  /** in the order of its table */
  declare position: number;
  declare entry: string;
  declare retired: boolean;
  declare version: number;
  declare updatedAt: CreationOptional<Date>;
}

interface Store {
  sequelize: Sequelize;
  path: string;
  /** the file that was opened; another one under the same name is not ours */
  inode: number;
  /** ends when the last of the writes asked for so far has */
  lastWrite: Promise<unknown>;
}

const global = globalThis as unknown as { oakenStore?: Promise<Store> };
/** the database that this bundle's classes of rows belong to */
let tied: Sequelize | null = null;
/** How long a connection waits for another program's write to end, ms. */
const BUSY_MS = 5000;

/**
 * The database, opened once a process: write-ahead mode, migrations applied.
 * @throws Problem `newer-data`, `damaged-data`, `lost-data` or one of `storageProblem`
 */
export async function store(): Promise<Store> {
  global.oakenStore ??= open().catch((e) => {
    global.oakenStore = undefined;
    throw storageProblem(e);
  });
  const opened = await global.oakenStore;
  if (tied !== opened.sequelize) initRows((tied = opened.sequelize));
  if (inodeOf(opened.path) !== opened.inode)
    throw new Problem(
      "lost-data",
      "The database was deleted, moved or replaced while Oaken Bit was running, so nothing can be read or saved. " +
        "Put the file back and start Oaken Bit again; started without it, it begins with an empty list.",
    );
  return opened;
}

const inodeOf = (path: string): number => statSync(path, { throwIfNoEntry: false })?.ino ?? -1;

/**
 * Runs work in a transaction that takes the write lock at once: a transaction that reads first and then finds
 * somebody else writing cannot go on. In this process one write waits for the other.
 */
export async function write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
  const s = await store();
  const turn = s.lastWrite.then(async () => {
    await store();
    return s.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, work);
  });
  s.lastWrite = turn.catch(() => {});
  return turn.catch((e) => {
    throw storageProblem(e);
  });
}

async function open(): Promise<Store> {
  const path = join(dataFolder(), "oaken.sqlite");
  const options = { dialect: "sqlite", storage: path, logging: false, foreignKeys: false } as const;
  const sequelize = new Sequelize(options);
  prepareConnections(sequelize);
  await sequelize.query("PRAGMA journal_mode = WAL");
  await migrate(sequelize);
  await clearPassing();
  return { sequelize, path, inode: inodeOf(path), lastWrite: Promise.resolve() };
}

/**
 * Ties the rows' classes to the database. Pages and routes are bundled apart, each with classes of its own: they share
 * the database that the first of them opened.
 */
function initRows(sequelize: Sequelize): void {
  JobRow.init(
    {
      id: { type: DataTypes.STRING, primaryKey: true },
      name: DataTypes.STRING,
      revision: DataTypes.INTEGER,
      archived: { type: DataTypes.BOOLEAN, defaultValue: false },
      seconds: { type: DataTypes.FLOAT, defaultValue: 0 },
      written: DataTypes.INTEGER,
      summary: { type: DataTypes.STRING, defaultValue: "" },
      isStart: { type: DataTypes.BOOLEAN, defaultValue: false },
      isKept: { type: DataTypes.BOOLEAN, defaultValue: false },
      begunFrom: DataTypes.STRING,
      person: DataTypes.STRING,
      class: DataTypes.STRING,
      hasPicture: { type: DataTypes.BOOLEAN, defaultValue: true },
      stops: { type: DataTypes.INTEGER, defaultValue: 0 },
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
  AssetRow.init(
    {
      sha: { type: DataTypes.STRING, primaryKey: true },
      name: DataTypes.STRING,
      width: DataTypes.INTEGER,
      height: DataTypes.INTEGER,
      bytes: DataTypes.INTEGER,
    },
    { sequelize, tableName: "assets", timestamps: false },
  );
  EntryRow.init(
    {
      part: { type: DataTypes.STRING, primaryKey: true },
      id: { type: DataTypes.STRING, primaryKey: true },
      position: DataTypes.INTEGER,
      entry: DataTypes.TEXT,
      retired: DataTypes.BOOLEAN,
      version: DataTypes.INTEGER,
      updatedAt: DataTypes.DATE,
    },
    { sequelize, tableName: "shop", createdAt: false },
  );
}

/**
 * Two connections, one for reads and one for transactions, both with what must hold for all. Left to itself Sequelize
 * opens and closes a connection for each transaction, which costs ten times what the save itself does.
 */
function prepareConnections(sequelize: Sequelize): void {
  interface Connection {
    configure(what: "busyTimeout", ms: number): void;
    run(sql: string, done: () => void): void;
  }
  interface Manager {
    getConnection(options?: { uuid?: string }): Promise<Connection>;
    releaseConnection(connection: Connection, force?: boolean): void;
  }
  const manager = sequelize.connectionManager as unknown as Manager;
  const plain = manager.getConnection.bind(manager);
  const prepared = new WeakSet<Connection>();
  manager.getConnection = async (options) => {
    const connection = await plain({ ...options, uuid: options?.uuid && "writer" });
    if (!prepared.has(connection)) {
      prepared.add(connection);
      connection.configure("busyTimeout", BUSY_MS);
      // Where it fails the next statement does too, and tells; without a callback the process would end.
      connection.run("PRAGMA synchronous = FULL", () => {});
    }
    return connection;
  };
  // Both stay open as long as the process does.
  manager.releaseConnection = () => {};
}

/** Brings the database to what this version writes, all of it or nothing: a kill in between leaves no half. */
async function migrate(sequelize: Sequelize): Promise<void> {
  const storage = new SequelizeStorage({ sequelize });
  const umzug = new Umzug({ migrations, context: sequelize.getQueryInterface(), storage, logger: undefined });
  await sequelize.query("BEGIN IMMEDIATE");
  try {
    const known = new Set(migrations.map((m) => m.name));
    const newer = (await storage.executed()).some((name) => !known.has(name));
    if (newer)
      throw new Problem(
        "newer-data",
        "This data folder was written by a newer version of Oaken Bit. Start that one, or give another folder in " +
          "OAKEN_DATA. Nothing in the folder was changed.",
      );
    await umzug.up();
    await sequelize.query("COMMIT");
  } catch (e) {
    await sequelize.query("ROLLBACK").catch(() => {});
    throw e;
  }
}
