import { mkdtempSync } from "node:fs";
import { rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { documentOf } from "@oaken/core/job/boards";
import type { JobDocument } from "@oaken/core/job/document";
import { setPicture } from "@oaken/core/job/lock";
import { begun } from "@oaken/core/testing/shop";

const data = mkdtempSync(join(tmpdir(), "oaken-class-"));
process.env.OAKEN_DATA = data;
const { addPeople, openClass, setStart } = await import("./class.ts");
const { keepPicture } = await import("./assets.ts");
const { createJob, keepThumb, listJobs, openJob, patchJob } = await import("./jobs.ts");
const { saveJob } = await import("./save.ts");
afterAll(() => rm(data, { recursive: true, force: true }));

const png = (grey: number) =>
  sharp({ create: { width: 64, height: 48, channels: 3, background: { r: grey, g: grey, b: grey } } })
    .png()
    .toBuffer();
let start: string;
beforeAll(async () => {
  const doc = documentOf(begun("sign", await keepPicture(await png(20), "label.png")));
  doc.name = "Label";
  start = (await createJob(doc)).id;
});
/** A person's job as it is now, changed and saved. */
async function change(id: string, edit: (d: JobDocument) => void) {
  const { card, document } = await openJob(id);
  edit(document);
  return saveJob(id, card.revision, document, "change");
}

describe("a starting job", () => {
  it("is one only when it was made one, keeps its revisions, and can be undone", async () => {
    await expect(openClass(start)).rejects.toThrow(/not a starting job/);
    await expect(addPeople(start, "Ada", "4b")).rejects.toThrow(/not a starting job/);
    const made = await setStart(start, { open: ["picture"] });
    expect([made.revision, made.isStart]).toEqual([2, true]);
    expect((await openClass(start)).rules).toEqual({ open: ["picture"] });
    await setStart(start, null);
    await expect(openClass(start)).rejects.toThrow(/not a starting job/);
    await setStart(start, { open: ["picture", "size"], least: 20, most: 60 });
  });
  it("makes a job a person; who has one already keeps it", async () => {
    expect((await addPeople(start, "Bo\nAda\n", "4b")).map((c) => c.person)).toEqual(["Bo", "Ada"]);
    expect((await addPeople(start, "ada\nChi", "4b")).map((c) => c.person)).toEqual(["Chi"]);
    // Another class has its own Ada.
    expect((await addPeople(start, "Ada", "5c")).map((c) => c.class)).toEqual(["5c"]);
    const { people } = await openClass(start);
    expect(people.map((c) => `${c.person} ${c.class}`).sort()).toEqual(["Ada 4b", "Ada 5c", "Bo 4b", "Chi 4b"]);
    for (const c of people) expect([c.hasPicture, c.begunFrom, c.isStart]).toEqual([false, start, false]);
  });
  it("twins in a list make nobody a job", async () => {
    const before = (await listJobs()).length;
    await expect(addPeople(start, "Dan\nEve\ndan", "4b")).rejects.toThrow(/line 1 and in line 3/);
    expect((await listJobs()).length).toBe(before);
  });
  it("makes a job a piece, each with the stock that was measured for it; one that cannot be makes none", async () => {
    const doc = documentOf(begun("sign", await keepPicture(await png(21), "door.png")));
    const door = (await createJob({ ...doc, name: "Door" })).id;
    await setStart(door, { open: [] });
    await expect(addPeople(door, "Gil 90x60x5\nHal 90 x 60 x 0", "")).rejects.toThrow(/Line 2/);
    expect((await openClass(door)).people).toEqual([]);
    const [left] = await addPeople(door, "Left 401 x 300 x 17.9\nRight", "");
    const { boards } = (await openJob(left.id)).document;
    expect(boards[0].stock).toMatchObject({ width: 401, height: 300, thickness: 17.9 });
    expect((await openClass(door)).people.map((c) => [c.person, c.hasPicture])).toEqual([
      ["Left", true],
      ["Right", true],
    ]);
  });
  it("cannot be made of a job that was begun from one", async () => {
    const { people } = await openClass(start);
    await expect(setStart(people[0].id, { open: [] })).rejects.toThrow(/cannot be one itself/);
  });
});

describe("a person's job", () => {
  const own = async (name: string) => (await openClass(start)).people.find((c) => c.person === name)!;
  it("takes a picture of their own and a size within the limits; the wall knows", async () => {
    const asset = await keepPicture(await png(90), "own.png");
    const { id } = await own("Bo");
    expect((await change(id, (d) => setPicture(d, asset))).hasPicture).toBe(true);
    await change(id, (d) => void (d.makings[0].settings.width = 50));
    expect((await own("Bo")).revision).toBe(3);
  });
  for (const [what, edit, says] of [
    ["the stock", (d) => void (d.boards[0].stock.width = 10), /locks the stock/],
    ["a cutter", (d) => void (d.boards[0].cuts[0].cutter.diameter = 1), /locks the cuts/],
    ["the lock", (d) => void delete d.begun, /locks its starting job/],
    ["a width beyond the limits", (d) => void (d.makings[0].settings.width = 61), /20 to 60 mm/],
    ["another board", (d) => void d.boards.push({ ...structuredClone(d.boards[0]), id: "b2" }), /locks the stock/],
  ] as [string, (d: JobDocument) => void, RegExp][])
    it(`keeps what is locked, whatever a request says: ${what}`, async () => {
      const { id, revision } = await own("Bo");
      await expect(change(id, edit)).rejects.toThrow(says);
      expect((await own("Bo")).revision).toBe(revision);
    });
  it("two windows never overwrite each other there either", async () => {
    const { id } = await own("Chi");
    const { card, document } = await openJob(id);
    await saveJob(id, card.revision, { ...document, name: "one" }, "rename");
    const other = saveJob(id, card.revision, { ...document, name: "two" }, "rename");
    await expect(other).rejects.toThrow(/another window/);
  });
  it("tells on the wall what stops it, how long it takes and from what it was written", async () => {
    const { id, revision } = await own("Bo");
    await keepThumb(id, await png(5), 77, 3);
    await patchJob(id, { written: revision });
    expect(await own("Bo")).toMatchObject({ seconds: 77, stops: 3, written: revision });
  });
  it("in the archive it is off the wall, and comes back", async () => {
    const { id } = await own("Chi");
    await patchJob(id, { archived: true });
    expect(await own("Chi")).toBeUndefined();
    await patchJob(id, { archived: false });
    expect(await own("Chi")).toBeDefined();
  });
  it("changes of the starting job afterwards leave what was begun as it was", async () => {
    const { card, document } = await openJob(start);
    document.boards[0].stock.thickness = 5;
    await saveJob(start, card.revision, document, "thickness");
    const { document: mine } = await openJob((await own("Bo")).id);
    expect(mine.boards[0].stock.thickness).not.toBe(5);
  });
});
