import { describe, expect, it } from "vitest";
import { copyOf } from "../copy.ts";
import { begun, SHOP } from "../testing/shop.ts";
import { boardJob, documentOf } from "./boards.ts";
import { addMaking } from "./edit.ts";
import { keptHeight, takeHeight } from "./reuse.ts";
import { checkJob } from "./schema.ts";

const asset = { sha: "e".repeat(64), name: "stones.png", width: 60, height: 40 };
const another = { ...asset, sha: "f".repeat(64), name: "fern.png" };
/** A relief, with an outline of the same picture that its height does not hang on. */
function relief() {
  const job = begun("relief", asset);
  job.naming = { person: "Ada" };
  addMaking(job, "outline", "tone");
  job.makings.find((m) => m.kind === "picture")!.settings = { width: 70, x: 3, y: 4, turn: 5 };
  return job;
}
const kinds = (makings: readonly { kind: string }[]) => makings.map((m) => m.kind);

describe("a height kept for other jobs", () => {
  it("is a job of its own, of what it is made from and nothing else", () => {
    const kept = keptHeight(relief(), "height", "Stones");
    expect(checkJob(copyOf(kept), SHOP)).toEqual(kept);
    expect(kinds(kept.makings)).toEqual(["picture", "tone", "height"]);
    expect([kept.kept, kept.name, kept.naming, kept.boards[0].cuts]).toEqual([true, "Stones", undefined, []]);
    expect(documentOf(boardJob(kept)).kept).toBe(true);
  });
  it("is taken beside what a job has, under names of its own, its size and place left to the new board", () => {
    const job = begun("relief", another);
    const before = copyOf(job.makings);
    const id = takeHeight(job, keptHeight(relief(), "height", "Stones"));
    expect(job.makings.slice(0, before.length)).toEqual(before);
    const taken = job.makings.slice(before.length);
    expect(kinds(taken)).toEqual(["picture", "tone", "height"]);
    expect(new Set(job.makings.map((m) => m.id)).size).toBe(job.makings.length);
    const [picture, tone, height] = taken;
    expect([height.id, height.name]).toEqual([id, "Stones"]);
    expect([tone.reads, height.reads]).toEqual([{ from: picture.id }, { from: tone.id }]);
    expect([picture.settings, picture.asset]).toEqual([{ turn: 5 }, asset]);
    expect(() => checkJob(documentOf(job), SHOP)).not.toThrow();
  });
  it("is taken twice, and changed once, without the other", () => {
    const kept = keptHeight(relief(), "height", "Stones");
    const job = begun("relief", another);
    const [first, second] = [takeHeight(job, kept), takeHeight(job, kept)];
    job.makings.find((m) => m.id === first)!.settings.depth = 2;
    expect(job.makings.find((m) => m.id === second)!.settings.depth).toBeUndefined();
    expect(kept.makings.at(-1)!.settings.depth).toBeUndefined();
  });
});
