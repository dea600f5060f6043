import { describe, expect, it } from "vitest";
import { emptyJob } from "@oaken/core/job/document";
import { SHOP } from "@oaken/core/testing/shop";
import { LastBuilds, lastBuildsHere, type Shelf } from "./last-builds.ts";
import type { Packed } from "./messages.ts";

const jobOf = (width: number) => emptyJob(SHOP, "A job", { width, height: 50, thickness: 6 });
const keep = (last: LastBuilds, width: number) => last.keep(jobOf(width), () => builtOf(width));
const builtOf = (width: number) => ({ job: jobOf(width), seconds: width, findings: [] }) as unknown as Packed;

class Memory implements Shelf {
  readonly things = new Map<string, unknown>();
  get<T>(name: string): Promise<T | undefined> {
    return Promise.resolve(this.things.get(name) as T | undefined);
  }
  names(): Promise<string[]> {
    return Promise.resolve([...this.things.keys()]);
  }
  set(things: [string, unknown][]): Promise<void> {
    // As a database does: what is kept is a copy.
    for (const [name, thing] of things) this.things.set(name, structuredClone(thing));
    return Promise.resolve();
  }
  remove(names: string[]): Promise<void> {
    for (const n of names) this.things.delete(n);
    return Promise.resolve();
  }
}

describe("what was built last", () => {
  it("is there for the very same job, and for no other", async () => {
    const last = new LastBuilds(new Memory(), "first");
    await keep(last, 80);
    expect((await last.of(structuredClone(jobOf(80))))?.seconds).toBe(80);
    expect(await last.of(jobOf(81))).toBeNull();
    const renamed = jobOf(80);
    renamed.stock.thickness = 7;
    expect(await last.of(renamed)).toBeNull();
  });

  it("is none that another application built, and those are let go of", async () => {
    const shelf = new Memory();
    await keep(new LastBuilds(shelf, "first"), 80);
    const second = new LastBuilds(shelf, "second");
    expect(await second.of(jobOf(80))).toBeNull();
    await keep(second, 90);
    expect([...shelf.things.keys()].filter((n) => n.startsWith("first"))).toEqual([]);
    expect((await second.of(jobOf(90)))?.seconds).toBe(90);
  });

  it("is kept of eight jobs, the newest", async () => {
    const shelf = new Memory();
    const last = new LastBuilds(shelf, "first");
    for (let width = 1; width <= 12; width++) await keep(last, width);
    await keep(last, 6);
    const there = [];
    for (let width = 1; width <= 12; width++) if (await last.of(jobOf(width))) there.push(width);
    expect(there).toEqual([5, 6, 7, 8, 9, 10, 11, 12]);
    expect(shelf.things.size).toBe(9);
  });

  it("is not made anew where it is kept already, but counts as the newest", async () => {
    const shelf = new Memory();
    const last = new LastBuilds(shelf, "first");
    for (const width of [1, 2, 3]) await keep(last, width);
    let asked = 0;
    await last.keep(jobOf(1), () => builtOf(asked++));
    expect(asked).toBe(0);
    for (let width = 4; width <= 10; width++) await keep(last, width);
    expect((await last.of(jobOf(1)))?.seconds).toBe(1);
    expect(await last.of(jobOf(2))).toBeNull();
  });

  it("lets go of what was left there without being in order", async () => {
    const shelf = new Memory();
    shelf.things.set("first stray", builtOf(1));
    await keep(new LastBuilds(shelf, "first"), 80);
    expect([...shelf.things.keys()]).not.toContain("first stray");
  });

  it("is none where the browser keeps nothing, and that harms nobody", async () => {
    const refuse = () => Promise.reject(new DOMException("The quota has been exceeded.", "QuotaExceededError"));
    const last = new LastBuilds({ get: refuse, names: refuse, set: refuse, remove: refuse }, "first");
    await keep(last, 80);
    expect(await last.of(jobOf(80))).toBeNull();
    expect(lastBuildsHere("")).toBeNull();
  });
});
