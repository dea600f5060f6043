import "../testing/ready.ts";
import { createHash } from "node:crypto";
import { describe, expect, it } from "vitest";
import { plainFace } from "../testing/face.ts";
import { cutKind, CUTS } from "../cuts/register.ts";
import { ringCount } from "../geometry/rings.ts";
import { writeStl } from "../height/stl.ts";
import { Kept, keyOf } from "../kept.ts";
import { makingKind, MAKINGS } from "../makings/register.ts";
import type { Raster } from "../picture/raster.ts";
import type { Field, Setting } from "../settings/fields.ts";
import { buildJob, type BuildResult } from "./build.ts";
import { emptyJob, type BoardJob } from "./document.ts";
import { addOutline } from "./edit.ts";
import { upstreamOf } from "./graph.ts";
import { checkBoard } from "./schema.ts";
import type { Files } from "./tools.ts";
import { SHOP, cutterOf, materialNamed } from "../testing/shop.ts";

/** Pixels of the picture: few, since every setting of every kind is tried on it twice. */
const [WIDE, HIGH] = [105, 77];

/** A coloured picture with some noise: rings, a bar, a speck, a pinhole; so that every setting has something to do. */
function picture(shift = 0): Raster {
  const data = new Uint8Array(4 * WIDE * HIGH);
  for (let y = 0; y < HIGH; y++)
    for (let x = 0; x < WIDE; x++) {
      const r = Math.hypot(x - 35 - shift, y - 38.5);
      const isRing = (r < 28 && r > 17) || r < 5.5;
      const isBar = x > 73 && x < 95 && y > 10 && y < 67 && Math.abs(y - 38.5) > 1.5;
      const isSpeck = Math.hypot(x - 68, y - 69) < 1.3;
      const noise = (x * 7919 + y * 104729) % 23;
      let rgb = [235 - noise, 228 - noise, 210 - noise];
      if (isRing || isSpeck) rgb = [30 + noise, 30 + noise, 40];
      if (isBar) rgb = [150 + noise, 30, 30];
      data.set([...rgb, 255], 4 * (y * WIDE + x));
    }
  return { width: WIDE, height: HIGH, data };
}

const shas = { first: "a".repeat(64), other: "b".repeat(64), drawing: "c".repeat(64), solid: "d".repeat(64) };
const files: Files = {
  picture: (sha) => (sha === shas.first ? first : other),
  drawing: () =>
    '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30">' +
    '<rect x="2" y="2" width="30" height="20"/><circle cx="30" cy="20" r="8"/></svg>',
  solid: roof,
  face: plainFace,
};
/** A roof, 30 × 20 and 8 high, as an STL. */
function roof(): Uint8Array {
  const ridge = (j: number) => 8 - Math.abs(j - 10) * 0.7;
  const z = Float32Array.from({ length: 30 * 20 }, (_, k) => ridge(Math.floor(k / 30)));
  return writeStl({ x0: 0, y0: 0, cell: 1, width: 30, height: 20, z }, 0);
}
const [first, other] = [picture(), picture(3)];
const FILES = {
  picture: { sha: shas.first, name: "p.png", width: WIDE, height: HIGH },
  solid: { sha: shas.solid, name: "s.stl", width: 1, height: 1 },
  drawing: { sha: shas.drawing, name: "d.svg", width: 40, height: 30 },
};

/** Cuts that read each of the shapes: enough to tell whether a making's change reaches the paths. */
const READERS = ["pocket", "hatch"];
/** … and those that read a height. */
const HEIGHT_READERS = ["finish"];

/** What a kind of cut is tried on: a height, a tone, or one of the two outlines. */
const artFor = (kind: string, colours: string): string => {
  const { gives } = cutKind(kind).reads.art;
  if (gives === "heights") return "height";
  if (gives === "grey") return "tone";
  return kind === "hatch" ? colours : "outline";
};

/** Cuts that the changes beside settings are about. */
const CHANGED = ["pocket", "rest", "engrave"];

/**
 * A job with a making of every kind, and a cut of these kinds on the shapes, each helper with the cut that it helps.
 */
function everything(kinds: readonly string[] = CUTS.map((c) => c.kind)): BoardJob {
  const job = emptyJob(SHOP, "everything", { width: 42, height: 32, thickness: 6 });
  for (const m of MAKINGS) {
    const reads = Object.entries(m.reads).map(([name, { gives }], at) => {
      // A second input is not the same as the first, where there are two.
      const givers = job.makings.filter((n) => makingKind(n.kind).gives === gives);
      return [name, givers[Math.min(at, givers.length - 1)].id];
    });
    const file = m.file && FILES[m.file];
    job.makings.push({
      id: m.kind,
      kind: m.kind,
      name: m.title,
      reads: Object.fromEntries(reads),
      settings: {},
      ...(file && { asset: { ...file } }),
    });
  }
  job.makings[0].settings = { measured: "art", width: 30 };
  const colours = addOutline(job, "outline", { trace: "colours", colours: 3 });
  job.cuts = [];
  for (const kind of CUTS.filter((c) => kinds.includes(c.kind))) {
    const { cutter, settings, helps } = kind.sample;
    const about = helps ? `${kind.kind}-helped` : undefined;
    if (helps)
      job.cuts.push({
        id: about!,
        kind: helps.kind,
        name: about!,
        on: true,
        reads: { art: artFor(helps.kind, colours) },
        cutter: cutterOf(helps.cutter),
        settings: {},
      });
    job.cuts.push({
      id: kind.kind,
      kind: kind.kind,
      name: kind.title,
      on: true,
      reads: { art: artFor(kind.kind, colours) },
      ...(about && { target: about }),
      cutter: cutterOf(cutter),
      settings: { ...settings },
    });
  }
  return job;
}

/** A job with the makings alone that a part is made from, that read it, or that a cut reads: enough for its key. */
function relatedTo(part: string, job: BoardJob): BoardJob {
  const isFrom = (id: string, from: string) => upstreamOf(job, id, (n) => n.id === from) !== undefined;
  const read = job.cuts.flatMap((c) => Object.values(c.reads));
  const readers = job.makings.filter((n) => Object.values(n.reads).includes(part));
  const about = [...read, part, ...readers.map((n) => n.id)];
  job.makings = job.makings.filter((n) => about.some((id) => isFrom(id, n.id)));
  return job;
}

const build = (job: BoardJob, kept: Kept) =>
  buildJob(checkBoard(structuredClone(job)), { files, cells: 3000, quick: true }, kept);

/** Numbers by their content: a surface has millions of them. */
const contentOf = (z: Float32Array): string => createHash("sha1").update(z).digest("hex");

/** Everything that leaves a build, as numbers and texts. */
const said = (b: BuildResult) => ({
  problem: b.problem,
  makings: [...b.makings].map(([id, { product, values }]) => {
    if (product.is === "shapes") return [id, [...product.ink.xy].join()];
    if (product.is === "heights") return [id, contentOf(product.field.z), product.field.x0, product.litho];
    return [id, values];
  }),
  cuts: b.cuts.map(({ id, toolpath: t, notes, values }) => [
    id,
    [...t.x].join(),
    [...t.y].join(),
    [...t.z].join(),
    notes,
    values,
  ]),
  proof: contentOf(b.proof.z),
});

/** A value of a field that is not the one it has. */
function another(f: Field, now: Setting): Setting {
  if (typeof now === "boolean") return !now;
  if (f.type === "choice") return f.options!.find((o) => o.value !== now)!.value;
  if (typeof now === "string") {
    expect(f.example, `an example of ${f.key}`).toBeDefined();
    return f.example!;
  }
  const [least, most] = [f.min ?? -Infinity, f.max ?? Infinity];
  const wanted = now === 0 ? (f.step ?? 1) : now * 1.25;
  const value = wanted > most ? now * 0.8 : wanted;
  return f.type === "number"
    ? Math.max(least, Math.round(value + (Math.round(value) === now ? 1 : 0)))
    : Math.max(least, value);
}

/** Builds a changed job from what builds of others have kept, and from nothing: both must say the same. */
function sameAsFresh(kept: Kept, job: BoardJob, change: (job: BoardJob) => void): void {
  build(job, kept);
  change(job);
  expect(said(build(job, kept))).toEqual(said(build(job, new Kept())));
}

describe("what is kept is known by all that it was made from", () => {
  const base = build(everything(), new Kept());
  it("the job that this is tried on makes everything", () => {
    expect(base.problem).toBeNull();
    for (const m of MAKINGS)
      expect(
        [...base.makings.values()].some((b) => b.kind === m),
        m.kind,
      ).toBe(true);
    for (const c of base.cuts) expect(c.toolpath.kind.length, c.id).toBeGreaterThan(0);
    for (const m of base.makings.values())
      if (m.product.is === "shapes") expect(ringCount(m.product.ink)).toBeGreaterThan(0);
  });

  for (const part of [...everything().makings, ...everything().cuts]) {
    const fields = (CUTS.find((c) => c.kind === part.kind) ?? makingKind(part.kind)).fields;
    const values = base.makings.get(part.id)?.values ?? base.cuts.find((c) => c.id === part.id)!.values;
    const isCut = CUTS.some((c) => c.kind === part.kind);
    const readers = isCut || makingKind(part.kind).gives !== "heights" ? READERS : HEIGHT_READERS;
    const kinds = isCut ? [part.id.replace("-helped", "")] : readers;
    it(`${part.id}: each of its ${fields.length} settings`, () => {
      const kept = new Kept();
      for (const f of fields)
        sameAsFresh(kept, relatedTo(part.id, everything(kinds)), (job) => {
          const own = [...job.makings, ...job.cuts].find((p) => p.id === part.id)!;
          own.settings[f.key] = another(f as Field, values[f.key]);
        });
    });
  }

  const others: [string, (job: BoardJob) => void][] = [
    ["another picture", (j) => (j.makings[0].asset!.sha = shas.other)],
    ["what a making reads", (j) => (j.makings.find((n) => n.kind === "combine")!.reads.first = "import")],
    ["what a cut reads", (j) => (j.cuts.find((c) => c.kind === "engrave")!.reads = { art: "combine" })],
    ["a cutter", (j) => (j.cuts.find((c) => c.kind === "pocket")!.cutter = cutterOf("flat:2"))],
    ["the cutter of a helped cut", (j) => (j.cuts.find((c) => c.id === "rest-helped")!.cutter = cutterOf("flat:4"))],
    ["the width of the stock", (j) => (j.stock.width = 46)],
    ["its thickness", (j) => (j.stock.thickness = 9)],
    ["its material", (j) => (j.stock.material = materialNamed("mdf"))],
    ["what is known of its material", (j) => (j.stock.material.chipMost /= 2)],
    ["the machine's rates", (j) => (j.machine.feedMost /= 3)],
    ["the order of cuts", (j) => j.cuts.reverse()],
    ["a cut switched off", (j) => (j.cuts[1].on = false)],
  ];
  for (const [what, change] of others)
    it(what, () => sameAsFresh(new Kept(), relatedTo("combine", everything(CHANGED)), change));

  it("settings back to what they were cost nothing: the very same plans come back", () => {
    const kept = new Kept();
    const job = relatedTo("outline-2", everything(READERS));
    const before = build(job, kept);
    job.makings[0].settings.width = 26;
    build(job, kept);
    job.makings[0].settings.width = 30;
    const after = build(job, kept);
    after.cuts.forEach((c, i) => expect(c.timed).toBe(before.cuts[i].timed));
  });

  it("a picture moved on the stock is not traced for its greys again", () => {
    const kept = new Kept();
    const job = relatedTo("outline-2", everything(READERS));
    const before = build(job, kept);
    job.makings[0].settings.x = 3;
    const after = build(job, kept);
    const grey = (b: BuildResult) => b.makings.get("tone")!.product;
    expect(keyOf(grey(after))).not.toBe(keyOf(grey(before)));
    expect((grey(after) as { grey: unknown }).grey).toBe((grey(before) as { grey: unknown }).grey);
  });
});
