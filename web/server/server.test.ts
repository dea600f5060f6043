import { spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { mkdir, readdir, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { build } from "esbuild";
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import type { JobDocument } from "@oaken/core/job/document";
import { begun } from "@oaken/core/testing/shop";
import { documentOf } from "@oaken/core/job/boards";

const data = mkdtempSync(join(tmpdir(), "oaken-data-"));
process.env.OAKEN_DATA = data;
const { keepPicture, assetBytes } = await import("./assets.ts");
const jobs = { ...(await import("./jobs.ts")), ...(await import("./save.ts")) };
const { storageProblem, writeWhole } = await import("./files.ts");
const { proxy } = await import("../proxy.ts");
const { NextRequest } = await import("next/server");

/** A request that brings a file. */
const posted = (body: BodyInit) => new Request("http://127.0.0.1/", { method: "POST", body });
let doc: JobDocument;
beforeAll(async () => {
  const png = await sharp({ create: { width: 64, height: 48, channels: 3, background: "#123" } })
    .png()
    .toBuffer();
  doc = documentOf(begun("sign", await keepPicture(png, "../../etc/dark.png")));
});

describe("jobs and their revisions", () => {
  it("keep every save, and refuse one from a stale state, keeping both", async () => {
    const made = await jobs.createJob(doc);
    const mine = structuredClone(doc);
    mine.boards[0].stock.thickness = 12;
    const theirs = structuredClone(doc);
    theirs.boards[0].stock.thickness = 9;
    expect((await jobs.saveJob(made.id, 1, mine, "thickness")).revision).toBe(2);
    await expect(jobs.saveJob(made.id, 1, theirs, "thickness")).rejects.toThrow(/another window.*revision 2/);
    expect((await jobs.openJob(made.id)).document.boards[0].stock.thickness).toBe(12);
    const history = await jobs.listRevisions(made.id);
    expect(history.map((r) => [r.number, r.refused])).toEqual([
      [1, true],
      [2, false],
      [1, false],
    ]);
    const rescued = await jobs.copyJob(made.id, history[0].key);
    expect((await jobs.openJob(rescued.id)).document.boards[0].stock.thickness).toBe(9);
  });

  it("a save whose answer was lost may come again, and is not taken for another window's", async () => {
    const made = await jobs.createJob(doc);
    const mine = structuredClone(doc);
    mine.boards[0].stock.margin = 7;
    await jobs.saveJob(made.id, 1, mine, "margin");
    expect((await jobs.saveJob(made.id, 1, mine, "margin")).revision).toBe(2);
    expect((await jobs.listRevisions(made.id)).length).toBe(2);
    await jobs.saveJob(made.id, 2, { ...mine, name: "newer" }, "rename");
    await expect(jobs.saveJob(made.id, 1, mine, "margin")).rejects.toThrow(/revision 3/);
  });

  it("two saves at once: one wins, the other is told", async () => {
    const made = await jobs.createJob(doc);
    const results = await Promise.allSettled(
      [1, 2, 3].map((k) => jobs.saveJob(made.id, 1, { ...doc, name: `from ${k}` }, "rename")),
    );
    expect(results.filter((r) => r.status === "fulfilled").length).toBe(1);
    expect((await jobs.openJob(made.id)).card.revision).toBe(2);
  });

  it("go to another machine as a file and come back the same", async () => {
    const made = await jobs.createJob(doc);
    const { text } = await jobs.exportJob(made.id);
    const back = await jobs.importJob(posted(text));
    expect((await jobs.openJob(back.id)).document).toEqual(doc);
    await expect(jobs.importJob(posted("{}"))).rejects.toThrow(/not an Oaken Bit job/);
  });

  it("keep unknown jobs and revisions apart from faults", async () => {
    await expect(jobs.openJob("nonesuch")).rejects.toThrow(/no such job/);
    await expect(jobs.openJob((await jobs.createJob(doc)).id, 9)).rejects.toThrow(/no such revision/);
  });
});

describe("files", () => {
  it("pictures are stored under their content only, whatever they are called", async () => {
    expect(doc.makings[0].asset!.name).toBe(".. .. etc dark.png");
    expect(await readdir(join(data, "assets"))).toEqual([doc.makings[0].asset!.sha]);
    for (const path of ["../oaken.sqlite", "a/b", "..%2f", ""])
      await expect(assetBytes(path)).rejects.toThrow(/no such picture/);
  });

  it("are written whole or not at all", async () => {
    await expect(writeWhole(join(data, "nowhere", "x"), Buffer.from("x"))).rejects.toThrow();
    await mkdir(join(data, "taken"));
    await expect(writeWhole(join(data, "taken"), Buffer.from("x"))).rejects.toThrow();
    expect((await readdir(data)).filter((n) => n.endsWith(".part"))).toEqual([]);
    await rm(join(data, "taken"), { recursive: true });
  });

  it("a full disk is named as one", () => {
    for (const e of [
      Object.assign(new Error("write"), { code: "ENOSPC" }),
      new Error("SQLITE_FULL: database or disk is full"),
    ])
      expect((storageProblem(e) as Error).message).toMatch(/full/);
    const other = new Error("else");
    expect(storageProblem(other)).toBe(other);
  });
});

it("killed in the middle of saving, the last saved state is there and whole", async () => {
  const made = await jobs.createJob(doc);
  const root = resolve(import.meta.dirname, "../..");
  await build({
    stdin: {
      contents:
        `import { saveJob } from "./web/server/save.ts"; const doc = JSON.parse(process.argv[3]); for (let k = ` +
        `1; ; k++) { await saveJob(process.argv[2], k, { ...doc, name: "save " + (k + 1) }, "s"); console.log(k ` +
        "+ 1); }",
      resolveDir: root,
      loader: "ts",
    },
    outfile: join(root, "node_modules", ".saver.mjs"),
    bundle: true,
    platform: "node",
    format: "esm",
    packages: "external",
    logLevel: "error",
    plugins: [
      {
        name: "own",
        setup: (b) =>
          void b.onResolve({ filter: /^@oaken\// }, (a) => ({
            path: join(root, `${a.path.slice("@oaken/".length)}.ts`),
          })),
      },
    ],
  });
  const child = spawn(process.execPath, [join(root, "node_modules", ".saver.mjs"), made.id, JSON.stringify(doc)], {
    env: { ...process.env, OAKEN_DATA: data },
  });
  let said = 0;
  let errors = "";
  child.stderr.on("data", (d) => (errors += d));
  await new Promise<void>((done) => {
    child.stdout.on("data", (d: Buffer) => {
      said = Number(d.toString().trim().split("\n").pop());
      if (said > 20) child.kill("SIGKILL");
    });
    child.on("exit", () => done());
  });
  expect(errors).toBe("");
  const { card, document } = await jobs.openJob(made.id);
  expect(card.revision).toBeGreaterThanOrEqual(said);
  expect(document.name).toBe(`save ${card.revision}`);
});

describe("the gate", () => {
  const ask = (headers: Record<string, string>, method = "POST") =>
    proxy(new NextRequest("http://127.0.0.1:4610/api/jobs", { method, headers })).status;
  it("lets its own pages in and keeps others out", () => {
    expect(ask({ host: "127.0.0.1:4610", origin: "http://127.0.0.1:4610" })).toBe(200);
    expect(ask({ host: "localhost:4610" }, "GET")).toBe(200);
    expect(ask({ host: "evil.example:4610" }, "GET")).toBe(403);
    expect(ask({ host: "127.0.0.1:4610", origin: "http://evil.example" })).toBe(403);
    expect(ask({ host: "127.0.0.1:4610", origin: "null" })).toBe(403);
    expect(ask({ host: "127.0.0.1:4610", "sec-fetch-site": "cross-site" })).toBe(403);
  });
});
