import { describe, expect, it } from "vitest";
import { copyOf } from "../copy.ts";
import { begun, cutterNamed, cutterOf, dialectNamed, materialNamed, SHOP } from "../testing/shop.ts";
import { documentOf } from "./boards.ts";
import type { JobDocument, StartRules } from "./document.ts";
import { addLettering } from "./edit.ts";
import { begunFrom, hasOwnPicture, isOpen, lockFault, setPicture, usuallyOpen } from "./lock.ts";
import { peopleFrom } from "./people.ts";
import { checkJob } from "./schema.ts";

const asset = { sha: "e".repeat(64), name: "fox.png", width: 60, height: 40 };
const other = { ...asset, sha: "f".repeat(64), name: "own.png" };
function beginning(rules: StartRules): JobDocument {
  const start = documentOf(begun("sign", asset, {}, { clear: [cutterNamed("flat3")] }));
  start.name = "Label";
  start.start = rules;
  return begunFrom("start-1", checkJob(start, SHOP), { person: "Ada", class: "4b" });
}
const fault = (rules: StartRules, edit: (d: JobDocument) => void): string | null => {
  const before = beginning(rules);
  const after = copyOf(before);
  edit(after);
  return lockFault(before, after);
};
const set = (kind: string, key: string, value: number | string) => (d: JobDocument) =>
  void (d.makings.find((m) => m.kind === kind)!.settings[key] = value);
const ALL: StartRules = { open: ["picture", "size"], least: 30, most: 90 };

describe("a job begun from a starting job", () => {
  it("is a job like any other, bears its person, and begins without a picture of its own", () => {
    const job = beginning(ALL);
    expect(checkJob(copyOf(job), SHOP)).toEqual(job);
    expect([job.name, job.naming?.person, job.naming?.class, job.start]).toEqual([
      "Label, Ada",
      "Ada",
      "4b",
      undefined,
    ]);
    expect(hasOwnPicture(job)).toBe(false);
    setPicture(job, other);
    expect(hasOwnPicture(job)).toBe(true);
  });
  for (const [what, edit] of [
    ["another picture", (d) => setPicture(d, other)],
    ["its ink level", set("outline", "ink", 0.3)],
    ["its tone", set("tone", "smooth", 0.5)],
    ["a crop", set("picture", "crop", "1,1,20,20")],
    ["a width within the limits", set("picture", "width", 60)],
    ["its name", (d) => void (d.name = "Mine")],
    ["its person", (d) => void (d.naming!.person = "Ada L.")],
  ] as [string, (d: JobDocument) => void][])
    it(`may have ${what}`, () => expect(fault(ALL, edit)).toBeNull());
  it("may have its words, where those are open, and nothing else of its lettering", () => {
    const words = (key: string, value: string | number) => (d: JobDocument) =>
      void (d.makings.find((m) => m.kind === "lettering")!.settings[key] = value);
    const withWords = (open: StartRules["open"], edit: (d: JobDocument) => void) => {
      const job = begun("sign", asset);
      addLettering(job, "outline", { face: "slab" });
      const start = documentOf(job);
      expect(usuallyOpen(start)).toEqual(["picture", "text"]);
      const before = begunFrom("start-1", checkJob({ ...start, start: { open } }, SHOP), { person: "Ada" });
      const after = copyOf(before);
      edit(after);
      return lockFault(before, after);
    };
    expect(withWords(["text"], words("text", "Ada L."))).toBeNull();
    expect(withWords(["text"], words("height", 30))).toMatch(/locks what the piece is made from/);
    expect(withWords(["picture"], words("text", "Ada L."))).toMatch(/locks what the piece is made from/);
    const lettering = { id: "l", kind: "lettering", name: "L", reads: {}, settings: {} };
    const locks = ["text", "face"].map((key) => isOpen({ open: ["text"] }, lettering, key));
    expect([isOpen({ open: ["text"] }, lettering), ...locks]).toEqual([false, true, false]);
  });
  for (const [what, edit, says] of [
    ["the stock", (d) => void (d.boards[0].stock.thickness = 9), /locks the stock/],
    ["the zero", (d) => void (d.boards[0].stock.zero = "centre-centre-top"), /locks the stock, its zero/],
    ["the material", (d) => void (d.boards[0].stock.material = materialNamed("oak")), /locks the stock/],
    ["a cutter", (d) => void (d.boards[0].cuts[0].cutter = cutterOf("flat:6")), /locks the cuts/],
    ["a depth", (d) => void (d.boards[0].cuts[1].settings.floor = 9), /locks the cuts/],
    ["a feed", (d) => void (d.boards[0].cuts[1].settings.feed = 99), /locks the cuts/],
    ["the dialect", (d) => void (d.dialect = dialectNamed("inch-toolchange")), /locks the machine/],
    ["the pattern of names", (d) => void (d.naming!.pattern = "{job}"), /locks the machine/],
    ["its makings", (d) => void d.makings.pop(), /locks what the piece is made from/],
    ["the lock itself", (d) => void delete d.begun, /locks its starting job/],
    ["the rules", (d) => void (d.begun!.rules = { open: [] }), /locks its starting job/],
    ["a width beyond the limits", set("picture", "width", 120), /120 mm wide.*allows 30 to 90 mm/],
  ] as [string, (d: JobDocument) => void, RegExp][])
    it(`may not change ${what}, and says so`, () => expect(fault(ALL, edit)).toMatch(says));
  it("keeps what is not open: a size, or a picture", () => {
    expect(fault({ open: ["picture"] }, set("picture", "width", 60))).toMatch(/locks what the piece is made from/);
    expect(fault({ open: ["size"] }, (d) => setPicture(d, other))).toMatch(/Open is the size/);
    expect(fault({ open: [] }, set("tone", "smooth", 1))).toMatch(/Open is nothing/);
  });
  it("a job that was begun from nothing is free", () => {
    const free = documentOf(begun("sign", asset));
    const changed = copyOf(free);
    changed.boards[0].stock.thickness = 3;
    expect(lockFault(free, changed)).toBeNull();
  });
});

describe("a class list", () => {
  it("is a name a line, or the first column of a table, without its head", () => {
    const names = (text: string) => peopleFrom(text).map((p) => p.name);
    expect(names("Ada\n\n  Bo \r\nChi")).toEqual(["Ada", "Bo", "Chi"]);
    expect(names('Name;Age\n"Lovelace, Ada";9\nBo;10')).toEqual(["Lovelace, Ada", "Bo"]);
    const odd = ["../../etc", "=SUM(A1)", "שרה"];
    expect(names(`\u202Eevil\u202C\n${odd.join("\n")}`)).toEqual(["evil", ...odd]);
  });
  it("may end each line with the size that was measured: several pieces have several names", () => {
    const text = 'Left door 400 x 300.5 x 17,9 mm\nRight door; 401×300×18.2\n"Shelf, upper",90x80x12\n3 x 4';
    expect(peopleFrom(text)).toEqual([
      { name: "Left door", stock: { width: 400, height: 300.5, thickness: 17.9 } },
      { name: "Right door", stock: { width: 401, height: 300, thickness: 18.2 } },
      { name: "Shelf, upper", stock: { width: 90, height: 80, thickness: 12 } },
      { name: "3 x 4" },
    ]);
    const start = documentOf(begun("sign", asset));
    const [left] = peopleFrom(text);
    const own = begunFrom("s", { ...start, start: { open: [] } }, { person: left.name, stock: left.stock });
    expect(own.boards[0].stock).toMatchObject(left.stock!);
    // Nothing is open, so that each has the picture that it is to have.
    expect(hasOwnPicture(own)).toBe(true);
  });
  for (const [what, text, says] of [
    ["twins", "Ada\nBo\nada", /"ada" is in line 1 and in line 3/],
    ["nobody", "\n \n", /no names/],
    ["a name of 300 letters", "x".repeat(300), /Line 1: a name has at most/],
    [
      "stock that cannot be",
      "Ada 20x30x4\nBo 200 x 300 x 900",
      /Line 2: stock measures .* up to 10000 × 10000 × 500 mm/,
    ],
    ["a whole town", Array.from({ length: 500 }, (_, i) => `P${i}`).join("\n"), /500 names/],
  ] as [string, string, RegExp][])
    it(`${what} is refused with a sentence`, () => expect(() => peopleFrom(text)).toThrow(says));
});
