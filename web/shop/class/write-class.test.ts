import { afterEach, describe, expect, it, vi } from "vitest";
import { documentOf } from "@oaken/core/job/boards";
import { begun } from "@oaken/core/testing/shop";
import type { Desk } from "../../compute/desk.ts";
import type { WrittenBoard } from "../../compute/messages.ts";
import type { JobCard } from "../../server/card.ts";
import { type State, stateOf } from "./state.ts";
import { writeClass } from "./write-class.ts";

const asset = { sha: "a".repeat(64), name: "art.png", width: 60, height: 40 };
const document = documentOf(begun("sign", asset));
const card = (more: Partial<JobCard>): JobCard => ({
  id: "1",
  name: "Label, Ada",
  revision: 3,
  archived: false,
  seconds: 60,
  written: null,
  summary: "",
  isStart: false,
  isKept: false,
  begunFrom: "s",
  person: "Ada",
  class: "4b",
  hasPicture: true,
  stops: 0,
  updatedAt: "2026-01-01",
  ...more,
});

/** A desk that writes one program and one drawing for each board; what stops is told by the job's name. */
const desk = (stops: (job: string) => string | null = () => null) =>
  ({
    outputs: (job: { name: string }, { prefix = "" }: { prefix?: string }): Promise<WrittenBoard> => {
      const message = stops(job.name);
      const program = { lines: 3, cuts: ["carve"], seconds: 1, box: { minX: 0, maxX: 1, minY: 0, maxY: 1, minZ: -1 } };
      return Promise.resolve({
        files: [
          { name: `${prefix}01-carve.nc`, kind: "program", bytes: new Uint8Array([1]), program },
          { name: `${prefix}outline.svg`, kind: "drawing", bytes: new Uint8Array([2]) },
        ],
        findings: message ? [{ code: "x", severity: "stop", message }] : [],
        bounds: null,
        rings: null,
      });
    },
    sheet: () => Promise.resolve(new Uint8Array([3])),
  }) as unknown as Desk;

/** The server answers with the document under the name of who asks for it, and notes what is marked as written. */
function serve(fails: readonly string[] = []): string[] {
  const written: string[] = [];
  vi.stubGlobal("fetch", (path: string, init: RequestInit = {}) => {
    const id = path.split("/").pop()!;
    if (fails.includes(id))
      return Promise.resolve(Response.json({ code: "no-job", message: "Gone." }, { status: 404 }));
    if (init.method === "PATCH") written.push(`${id} ${String(init.body)}`);
    return Promise.resolve(Response.json({ document: { ...document, name: id } }));
  });
  return written;
}
afterEach(() => vi.unstubAllGlobals());

describe("everybody's programs", () => {
  it("come all in one folder where that is wanted, the person's name before each, never two alike", async () => {
    serve();
    const people = [
      card({ id: "1", person: "Ada" }),
      card({ id: "2", person: "Áda" }),
      card({ id: "3", person: "x/y" }),
    ];
    const { files } = await writeClass(people, desk(), () => {}, "together");
    const of = (who: string) => [`${who}-01-carve.nc`, `${who}-sheet.pdf`];
    expect(Object.keys(files)).toEqual([...of("ada"), ...of("ada-2"), ...of("x-y")]);
  });

  it("come in a folder a person, programs and sheet and nothing else, and are marked as written", async () => {
    const written = serve();
    const said: number[] = [];
    const people = [card({ id: "1", person: "Ada" }), card({ id: "2", person: "Bo" })];
    const { files, left } = await writeClass(people, desk(), (done) => said.push(done));
    expect(Object.keys(files)).toEqual(["ada/01-carve.nc", "ada/sheet.pdf", "bo/01-carve.nc", "bo/sheet.pdf"]);
    expect([left, said]).toEqual([[], [0, 1, 2]]);
    expect(written).toEqual(['1 {"written":3}', '2 {"written":3}']);
  });
  it("names that make one folder's name make two, and none leaves the archive", async () => {
    serve();
    const names = ["Ada!", "ada?", "../../Ada", "", "שרה"];
    const people = names.map((person, i) => card({ id: String(i), person }));
    const folders = new Set(
      Object.keys((await writeClass(people, desk(), () => {})).files).map((f) => f.split("/")[0]),
    );
    expect(folders.size).toBe(names.length);
    for (const f of folders) expect(f).toMatch(/^[a-z0-9][a-z0-9.-]*$/);
  });
  it("who has no picture, what stops, and who is gone get nothing, and are named; the others get theirs", async () => {
    const written = serve(["3"]);
    const people = [
      card({ id: "1", person: "Ada", hasPicture: false }),
      card({ id: "2", person: "Bo" }),
      card({ id: "3", person: "Chi" }),
      card({ id: "4", person: "Dan" }),
    ];
    const stops = (job: string) => (job === "2" ? "The art is too large." : null);
    const { files, left } = await writeClass(people, desk(stops), () => {});
    expect(left).toEqual([
      { person: "Ada", why: "no picture yet" },
      { person: "Bo", why: "The art is too large." },
      { person: "Chi", why: "Gone." },
    ]);
    expect(Object.keys(files)).toEqual(["dan/01-carve.nc", "dan/sheet.pdf"]);
    expect(written.length).toBe(1);
  });
});

describe("how far a person's piece is", () => {
  for (const [what, more, state] of [
    ["nothing of their own in it", { hasPicture: false, stops: 2 }, "no picture"],
    ["never proved", { seconds: 0 }, "not looked at"],
    ["something stops it", { stops: 1, written: 3 }, "to mend"],
    ["proved", {}, "ready"],
    ["written as it is", { written: 3 }, "written"],
    ["changed since it was written", { written: 2 }, "ready"],
  ] as [string, Partial<JobCard>, State][])
    it(`${what}: ${state}`, () => expect(stateOf(card(more))).toBe(state));
});
