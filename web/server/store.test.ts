import { mkdtempSync } from "node:fs";
import { mkdir, readdir, rename, rm, truncate, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { afterAll, beforeEach, describe, expect, it, vi } from "vitest";
import type { JobDocument } from "@oaken/core/job/document";
import { begun } from "@oaken/core/testing/shop";
import { documentOf } from "@oaken/core/job/boards";

/** The server's modules on a data folder of their own, as after a start. */
async function start(data: string) {
  process.env.OAKEN_DATA = data;
  (globalThis as { oakenStore?: unknown }).oakenStore = undefined;
  vi.resetModules();
  const [db, assets, jobs, save] = await Promise.all([
    import("./db.ts"),
    import("./assets.ts"),
    import("./jobs.ts"),
    import("./save.ts"),
  ]);
  return { ...db, ...assets, ...jobs, ...save };
}

const folders: string[] = [];
function newFolder(): string {
  folders.push(mkdtempSync(join(tmpdir(), "oaken-store-")));
  return folders[folders.length - 1];
}
afterAll(() => Promise.all(folders.map((f) => rm(f, { recursive: true, force: true }))));

const png = (grey: number) =>
  sharp({ create: { width: 64, height: 48, channels: 3, background: { r: grey, g: grey, b: grey } } })
    .png()
    .toBuffer();

let data: string;
let server: Awaited<ReturnType<typeof start>>;
let doc: JobDocument;
beforeEach(async () => {
  data = newFolder();
  server = await start(data);
  doc = documentOf(begun("sign", await server.keepPicture(await png(20), "dark.png")));
});

describe("many windows", () => {
  it("fifty that save jobs of their own are all answered, and every state is there", async () => {
    const made = await Promise.all(Array.from({ length: 50 }, () => server.createJob(doc)));
    for (let base = 1; base <= 3; base++) {
      const saved = await Promise.all(made.map((m) => server.saveJob(m.id, base, { ...doc, name: `${base}` }, "s")));
      expect(saved.map((c) => c.revision)).toEqual(made.map(() => base + 1));
    }
    for (const m of made) expect((await server.listRevisions(m.id)).length).toBe(4);
  });

  it("eight that save one job at once: one wins, the others are refused, all eight are in its history", async () => {
    const { id } = await server.createJob(doc);
    const saves = Array.from({ length: 8 }, (_, k) => server.saveJob(id, 1, { ...doc, name: `window ${k}` }, "s"));
    const results = await Promise.allSettled(saves);
    expect(results.filter((r) => r.status === "fulfilled").length).toBe(1);
    for (const r of results) if (r.status === "rejected") expect(String(r.reason)).toMatch(/another window/);
    expect((await server.listRevisions(id)).filter((r) => r.refused).length).toBe(7);
  });

  it("one that is in the middle of a transaction elsewhere is waited for", async () => {
    const { id } = await server.createJob(doc);
    const { Sequelize } = await import("sequelize");
    const other = new Sequelize({ dialect: "sqlite", storage: join(data, "oaken.sqlite"), logging: false });
    await other.query("BEGIN IMMEDIATE");
    const saved = server.saveJob(id, 1, { ...doc, name: "later" }, "s");
    await new Promise((r) => setTimeout(r, 300));
    await other.query("COMMIT");
    expect((await saved).revision).toBe(2);
    await other.close();
  });
});

describe("a data folder", () => {
  it("whose first start was ended half-way opens", async () => {
    const half = newFolder();
    const { Sequelize } = await import("sequelize");
    const early = new Sequelize({ dialect: "sqlite", storage: join(half, "oaken.sqlite"), logging: false });
    // What the first steps of an early version's first start left behind.
    await early.query(
      "CREATE TABLE `jobs` (`id` VARCHAR(255) PRIMARY KEY, `name` VARCHAR(255) NOT NULL, `revision` INTEGER " +
        "NOT NULL, `archived` TINYINT(1) NOT NULL DEFAULT 0, `seconds` FLOAT NOT NULL DEFAULT 0, `written` " +
        "INTEGER, `summary` VARCHAR(255) NOT NULL DEFAULT '', `createdAt` DATETIME, `updatedAt` DATETIME)",
    );
    await early.query(
      "CREATE TABLE `revisions` (`id` INTEGER PRIMARY KEY AUTOINCREMENT, `jobId` VARCHAR(255) NOT NULL, " +
        "`number` INTEGER NOT NULL, `document` TEXT NOT NULL, `summary` VARCHAR(255) NOT NULL, `refused` " +
        "TINYINT(1) NOT NULL DEFAULT 0, `createdAt` DATETIME)",
    );
    await early.query("CREATE INDEX `revisions_job_id_number` ON `revisions` (`jobId`, `number`)");
    await early.close();
    const opened = await start(half);
    const asset = await opened.keepPicture(await png(30), "x.png");
    const { id } = await opened.createJob(documentOf(begun("sign", asset)));
    expect((await opened.openJob(id)).card.revision).toBe(1);
  });

  it("of a newer version, damaged, or not to be used: each says so, and is left as it is", async () => {
    const { sequelize } = await server.store();
    await sequelize.query("INSERT INTO SequelizeMeta (name) VALUES ('99-from-the-future')");
    await expect((await start(data)).listJobs()).rejects.toThrow(/newer version/);

    const damaged = newFolder();
    await writeFile(
      join(damaged, "oaken.sqlite"),
      "this is no database at all, but long enough to be looked at".repeat(40),
    );
    await expect((await start(damaged)).listJobs()).rejects.toThrow(/damaged/);

    const file = join(newFolder(), "a-file");
    await writeFile(file, "");
    await expect((await start(file)).listJobs()).rejects.toThrow(/cannot be made or used/);
  });

  it("whose database was deleted while the server ran is not written to in secret", async () => {
    const { id } = await server.createJob(doc);
    await rename(join(data, "oaken.sqlite"), join(data, "gone.sqlite"));
    await expect(server.saveJob(id, 1, { ...doc, name: "x" }, "s")).rejects.toThrow(/deleted, moved or replaced/);
    await rename(join(data, "gone.sqlite"), join(data, "oaken.sqlite"));
    expect((await server.saveJob(id, 1, { ...doc, name: "x" }, "s")).revision).toBe(2);
  });

  it("keeps nothing of files that were being written when a process ended, and those of a running one", async () => {
    const dead = "0".repeat(64) + ".999999999.abcdef.part";
    const alive = "0".repeat(64) + `.${process.pid}.abcdef.part`;
    for (const name of [dead, alive]) await writeFile(join(data, "assets", name), "half");
    await mkdir(join(data, "incoming", "job.999999999.abc123.part"));
    await (await start(data)).store();
    expect((await readdir(join(data, "assets"))).filter((n) => n.endsWith(".part"))).toEqual([alive]);
    expect(await readdir(join(data, "incoming"))).toEqual([]);
  });
});

describe("what comes in", () => {
  it("a stored picture that was cut short is whole again when it is uploaded again", async () => {
    const bytes = await png(90);
    const { sha } = await server.keepPicture(bytes, "grey.png");
    await truncate(join(data, "assets", sha), 40);
    await server.keepPicture(bytes, "grey.png");
    expect(Buffer.from(await server.assetBytes(sha)).equals(bytes)).toBe(true);
  });

  it("a job with a picture that is not here is refused; one that lost its picture can still be saved", async () => {
    const foreign = structuredClone(doc);
    foreign.makings[0].asset!.sha = "f".repeat(64);
    await expect(server.createJob(foreign)).rejects.toThrow(/picture dark.png is not here/);
    const { id } = await server.createJob(doc);
    await expect(server.saveJob(id, 1, foreign, "s")).rejects.toThrow(/not here/);
    await (await server.store()).sequelize.query("DELETE FROM assets");
    const later = await start(data);
    expect((await later.saveJob(id, 1, { ...doc, name: "still mine" }, "s")).revision).toBe(2);
  });

  it("written revisions that were never saved, negative times and things that are no PNG are refused", async () => {
    const { id } = await server.createJob(doc);
    for (const written of [-5, 0, 2]) await expect(server.patchJob(id, { written })).rejects.toThrow(/no revision/);
    expect((await server.patchJob(id, { written: 1 })).written).toBe(1);
    const good = await png(50);
    await expect(server.keepThumb(id, good, -1)).rejects.toThrow(/seconds/);
    await expect(server.keepThumb(id, good, NaN)).rejects.toThrow(/seconds/);
    const like = Buffer.concat([good.subarray(0, 8), Buffer.from("anything at all")]);
    for (const bad of [Buffer.from("any bytes"), like, good.subarray(0, 60)])
      await expect(server.keepThumb(id, bad, 5)).rejects.toThrow(/must be a PNG/);
    await server.keepThumb(id, good, 5);
    expect(Buffer.from((await server.thumb(id))!).equals(good)).toBe(true);
  });

  it("names of jobs that are no names of jobs are not looked for", async () => {
    for (const id of ["\0", "%00", "../x", "", "a".repeat(5000)])
      await expect(server.openJob(id)).rejects.toThrow(/no such job/);
  });
});
