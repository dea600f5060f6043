import { describe, expect, it } from "vitest";
import { Problem } from "../problem.ts";
import type { JobDocument } from "./document.ts";
import { startJob } from "./outcomes.ts";
import { checkJob } from "./schema.ts";

const asset = { sha: "a".repeat(64), name: "art.png", width: 60, height: 40 };
const job = (): JobDocument => structuredClone(startJob("sign", asset, {}));
const [picture, tone, outline] = [0, 1, 2];

/** Name, what is done to a good job, and what is said. */
const BAD: readonly [string, (j: JobDocument) => void, RegExp][] = [
  ["a tone that reads itself", (j) => (j.nodes[tone].reads = [j.nodes[tone].id]), /can only read a picture/],
  ["a circle of tone and outline", (j) => (j.nodes[tone].reads = [j.nodes[outline].id]), /can only read a picture/],
  [
    "a picture that reads",
    (j) => (j.nodes[picture].reads = [j.nodes[tone].id]),
    /reads 1 other steps where it needs 0/,
  ],
  ["an outline that reads nothing", (j) => (j.nodes[outline].reads = []), /reads 0 other steps where it needs 1/],
  ["an outline of a picture", (j) => (j.nodes[outline].reads = [j.nodes[picture].id]), /can only read greys/],
  ["a cut that reads a tone", (j) => (j.cuts[0].reads = [j.nodes[tone].id]), /can only read shapes/],
  ["a cut that reads what is not there", (j) => (j.cuts[0].reads = ["nowhere"]), /not in this job/],
  ["a cut that helps itself", (j) => (j.cuts[0].target = j.cuts[0].id), /helps itself/],
  ["an unknown dialect", (j) => (j.dialect = "dreams"), /No dialect "dreams"/],
  ["an unknown material", (j) => (j.stock.material = "moonstone"), /No material "moonstone"/],
  ["two steps of one name", (j) => (j.nodes[tone].id = j.nodes[picture].id), /twice/],
  ["nodes that are no list", (j) => ((j as { nodes: unknown }).nodes = null), /nodes/],
  ["a name that is a number", (j) => ((j as { name: unknown }).name = 5), /name/],
];

describe("a job's document", () => {
  it("that was begun from an outcome is good", () => {
    expect(checkJob(job())).toEqual(job());
  });
  for (const [name, spoil, says] of BAD)
    it(`${name} is refused in a sentence`, () => {
      const j = job();
      spoil(j);
      let said: unknown;
      try {
        checkJob(j);
      } catch (e) {
        said = e;
      }
      expect(said).toBeInstanceOf(Problem);
      expect((said as Problem).message).toMatch(says);
    });
  it("cuts that help one another in a circle are refused", () => {
    const j = startJob("raised", asset, {}, { clear: [j0cutter()] });
    expect(j.cuts.length).toBeGreaterThan(1);
    j.cuts[0].target = j.cuts[1].id;
    j.cuts[1].target = j.cuts[0].id;
    expect(() => checkJob(j)).toThrow(/helps itself/);
  });
});

const j0cutter = () => ({ ...job().cuts[0].cutter });
