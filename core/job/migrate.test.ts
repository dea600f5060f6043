import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { cutKind } from "../cuts/register.ts";
import { makingKind } from "../makings/register.ts";
import { materialNamed, SHOP } from "../testing/shop.ts";
import { JOB_VERSION } from "./document.ts";
import { checkJob } from "./schema.ts";

/** Documents as version 1 wrote them: those of the demo jobs, and one that uses what they do not. */
const FOLDER = join(import.meta.dirname, "../testing/version-1");
const OLD = readdirSync(FOLDER).map((name) => ({ name, text: readFileSync(join(FOLDER, name), "utf8") }));

/** A document of version 1, as far as these tests look into it. */
interface Old {
  version: number;
  name: string;
  stock: Record<string, unknown> & { material: string };
  nodes: { id: string; kind: string; reads: string[]; settings: object; asset?: object }[];
  cuts: { id: string; kind: string; reads: string[]; settings: object }[];
  machine: object;
  dialect: string;
  cell: number;
  drawing?: string;
}
const old = (text: string): Old => JSON.parse(text) as Old;

describe("a document of version 1", () => {
  for (const { name, text } of OLD) {
    it(`${name} opens as one of this version, and nothing of it is lost`, () => {
      const was = old(text);
      const job = checkJob(JSON.parse(text), SHOP);
      expect(job.version).toBe(JOB_VERSION);
      expect(job.boards).toHaveLength(1);
      const [board] = job.boards;
      expect(board.stock).toEqual({ ...was.stock, material: materialNamed(was.stock.material) });
      expect(board.cell).toBe(was.cell);
      expect(job.machine).toMatchObject(was.machine);
      expect(job.dialect.id).toBe(was.dialect);
      expect([job.name, job.drawing]).toEqual([was.name, was.drawing]);
      const without = <T extends { reads: unknown }>(parts: T[]) => parts.map(({ reads: _, ...rest }) => rest);
      expect(without(job.makings)).toEqual(without(was.nodes));
      expect(without(board.cuts)).toEqual(without(was.cuts));
    });
    it(`${name}: what was read in an order is read by the names in that order`, () => {
      const was = old(text);
      const job = checkJob(JSON.parse(text), SHOP);
      const ordered = (reads: Record<string, string>, names: string[]) =>
        names.map((n) => reads[n]).filter((id) => id !== undefined);
      was.nodes.forEach((n, i) =>
        expect(ordered(job.makings[i].reads, Object.keys(makingKind(n.kind).reads))).toEqual(n.reads),
      );
      was.cuts.forEach((c, i) =>
        expect(ordered(job.boards[0].cuts[i].reads, Object.keys(cutKind(c.kind).reads))).toEqual(c.reads),
      );
    });
    it(`${name}: saved and opened again it is the same`, () => {
      const job = checkJob(JSON.parse(text), SHOP);
      expect(checkJob(JSON.parse(JSON.stringify(job)), SHOP)).toEqual(job);
    });
  }
  it("knows its machine again by its name, and keeps one that is nobody's", () => {
    const machines = OLD.map(({ text }) => checkJob(JSON.parse(text), SHOP).machine);
    expect(new Set(machines.map((m) => m.id))).toEqual(new Set(["desk-router", "plasma-table", "own-machine"]));
    expect(machines.find((m) => m.id === "own-machine")).toMatchObject({ name: "My own", feedMost: 1234 });
  });

  const BAD: [string, (j: Old) => void, RegExp][] = [
    ["a material that the shop does not know", (j) => (j.stock.material = "moonstone"), /No material "moonstone"/],
    ["a dialect that the shop does not know", (j) => (j.dialect = "dreams"), /No dialect "dreams"/],
    ["a tone without a picture", (j) => (j.nodes[1].reads = []), /reads nothing as its picture/],
    ["a cut with more inputs than it has", (j) => (j.cuts[0].reads = ["outline", "outline", "outline"]), /as "3"/],
    ["no stock", (j) => delete (j as Partial<Old>).stock, /stock/],
    ["nodes that are no list", (j) => ((j as { nodes: unknown }).nodes = 5), /makings must be array/],
    ["a machine that is a word", (j) => ((j as { machine: unknown }).machine = "mine"), /machine must be object/],
  ];
  const sound = OLD.find((o) => o.name === "ginkgo.json")!.text;
  for (const [name, spoil, says] of BAD)
    it(`with ${name} is refused in a sentence`, () => {
      const j = old(sound);
      spoil(j);
      expect(() => checkJob(j, SHOP)).toThrow(says);
    });
});
