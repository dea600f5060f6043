import { describe, expect, it } from "vitest";
import { Problem } from "../problem.ts";
import type { JobDocument } from "./document.ts";
import { documentOf } from "./boards.ts";
import { checkBoard, checkJob } from "./schema.ts";
import { begun, cutterNamed, SHOP } from "../testing/shop.ts";

const asset = { sha: "a".repeat(64), name: "art.png", width: 60, height: 40 };
const job = (): JobDocument => structuredClone(documentOf(begun("sign", asset)));
const [picture, tone, outline] = [0, 1, 2];
const first = (j: JobDocument) => j.boards[0].cuts[0];

/** Name, what is done to a good job, and what is said. */
const BAD: readonly [string, (j: JobDocument) => void, RegExp][] = [
  ["a tone that reads itself", (j) => (j.makings[tone].reads.from = "tone"), /can only read a picture/],
  ["a circle of tone and outline", (j) => (j.makings[tone].reads.from = "outline"), /can only read a picture/],
  ["a picture that reads", (j) => (j.makings[picture].reads.from = "tone"), /reads something as "from"/],
  ["an outline that reads nothing", (j) => (j.makings[outline].reads = {}), /reads nothing as its tone/],
  [
    "reads that are a list",
    (j) => ((j.makings[tone] as { reads: unknown }).reads = ["picture"]),
    /reads must be object/,
  ],
  ["an outline of a picture", (j) => (j.makings[outline].reads.from = "picture"), /can only read greys/],
  ["a cut that reads a tone", (j) => (first(j).reads.art = "tone"), /can only read shapes/],
  ["a cut that reads what is not there", (j) => (first(j).reads.art = "nowhere"), /not in this job/],
  ["a cut that helps itself", (j) => (first(j).target = first(j).id), /helps itself/],
  ["a dialect by its name", (j) => ((j as { dialect: unknown }).dialect = "dreams"), /dialect must be object/],
  ["a dialect that writes line ends", (j) => (j.dialect.torchOn = "M3\nM30"), /torchOn must match/],
  ["a dialect that leaves the spindle on", (j) => (j.dialect.end = "M30"), /leave the spindle on/],
  ["a dialect whose files go elsewhere", (j) => (j.dialect.extension = "../../sh"), /extension must match/],
  ["a material of no family", (j) => ((j.boards[0].stock.material as { family: string }).family = "stone"), /family/],
  ["a machine of no speed", (j) => (j.machine.feedMost = 0), /feedMost must be > 0/],
  ["two steps of one name", (j) => (j.makings[tone].id = j.makings[picture].id), /twice/],
  ["two boards of one name", (j) => j.boards.push(structuredClone(j.boards[0])), /"board" twice/],
  ["no board", (j) => (j.boards = []), /boards must NOT have fewer than 1/],
  ["makings that are no list", (j) => ((j as { makings: unknown }).makings = null), /makings/],
  ["a name that is a number", (j) => ((j as { name: unknown }).name = 5), /name/],
];

describe("a job's document", () => {
  it("that was begun from an outcome is good", () => {
    expect(checkJob(job(), SHOP)).toEqual(job());
  });
  for (const [name, spoil, says] of BAD)
    it(`${name} is refused in a sentence`, () => {
      const j = job();
      spoil(j);
      let said: unknown;
      try {
        checkJob(j, SHOP);
      } catch (e) {
        said = e;
      }
      expect(said).toBeInstanceOf(Problem);
      expect((said as Problem).message).toMatch(says);
    });
  it("cuts that help one another in a circle are refused", () => {
    const j = begun("raised", asset, {}, { clear: [cutterNamed("flat3")] });
    expect(j.cuts.length).toBeGreaterThan(1);
    j.cuts[0].target = j.cuts[1].id;
    j.cuts[1].target = j.cuts[0].id;
    expect(() => checkBoard(j)).toThrow(/helps itself/);
  });
});
