import { onePicture } from "@oaken/core/job/tools";
import { loaded } from "@oaken/core/later";
import { Kept } from "@oaken/core/kept";
import { cardOf } from "@oaken/core/height/lit";
import { cutterIn } from "@oaken/core/cutters/rack";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { materialIn } from "@oaken/core/shop/shop";
import { inspect } from "@oaken/core/inspect/inspect";
import { boardJob, documentOf } from "@oaken/core/job/boards";
import { buildJob } from "@oaken/core/job/build";
import type { BoardJob, JobDocument, StockSettings } from "@oaken/core/job/document";
import { addLettering, addMaking } from "@oaken/core/job/edit";
import { begunFrom, setPicture, usuallyOpen } from "@oaken/core/job/lock";
import { keptHeight } from "@oaken/core/job/reuse";
import { startJob } from "@oaken/core/job/start";
import type { Asset } from "@oaken/core/makings/kind";
import type { Raster } from "@oaken/core/picture/raster";
import { pieceSeen } from "@oaken/core/job/seen";
import { decodePicture } from "@oaken/files/decode";
import { faceOf } from "@oaken/files/faces";
import { encodePng } from "@oaken/files/encode";
import { keepPicture } from "@oaken/web/server/assets";
import type { JobCard } from "@oaken/web/server/card";
import { createJob, keepThumb, listJobs } from "@oaken/web/server/jobs";
import { beeWalk, fox, ginkgo, moth, scan, seedDrawer } from "./art.ts";
import { fern, glasshouse, mothAtNight, photographed, stones } from "./shades.ts";

interface Demo {
  name: string;
  file: string;
  /** its picture, as a raster file */
  picture(): Promise<Buffer>;
  outcome: string;
  stock: Partial<StockSettings>;
  /** the clearing cutter, or the roughing one, by its id */
  clear?: string;
  rough?: string;
  /** one more picture */
  also?: Art;
  /** its height that the shop keeps for other jobs, by name */
  keeps?: string;
  /** others begin from it: who, and those who have a picture of their own already */
  people?: { class: string; names: Record<string, Art | null> };
  adjust(job: BoardJob, also?: Asset): void;
}

interface Art {
  file: string;
  picture(): Promise<Buffer>;
}

/** A child's drawing of something, scanned. */
const drawn = (file: string, art: Parameters<typeof scan>[0]): Art => ({
  file,
  picture: () => scan(art, { blur: 1.2, paper: "#fdfcf6", ink: "#2b2b2b" }),
});

const material = (id: string) => materialIn(FIRST_SHOP, id);
const cutter = (id: string) => cutterIn(FIRST_SHOP.cutters, id);

/** Jobs of the made-up workshop Quill & Thistle for the made-up Marrowdale Botanic Garden. */
const DEMOS: readonly Demo[] = [
  {
    name: "Seedling label",
    ...drawn("label.png", moth()),
    outcome: "sign",
    stock: { width: 100, height: 70, thickness: 8, material: material("lime"), margin: 5 },
    adjust: (j) => {
      j.cuts.find((c) => c.kind === "vcarve")!.settings.floor = 1.5;
      // Below the picture stands everybody's own name.
      addLettering(j, "outline", { face: "rounded" });
    },
    people: {
      class: "Seedlings",
      names: {
        Ada: drawn("ada-fox.png", fox()),
        Bo: drawn("bo-ginkgo.png", ginkgo()),
        Chiara: null,
        Dmitri: drawn("dmitri-bees.png", beeWalk()),
        Emre: null,
        Fay: drawn("fay-drawer.png", seedDrawer()),
        Gwen: null,
        Hugo: null,
      },
    },
  },
  {
    name: "Moth card",
    file: "moth-at-night.jpg",
    picture: () => photographed(mothAtNight()),
    outcome: "lines",
    stock: { width: 148, height: 105, thickness: 6, margin: 6, paint: "#181a1b", coat: 0.12 },
    adjust: () => {},
  },
  {
    name: "Fern tile",
    file: "fern.png",
    picture: () => photographed(fern()),
    outcome: "relief",
    rough: "flat6",
    stock: { width: 100, height: 100, thickness: 16, material: material("lime"), margin: 0 },
    also: { file: "stones.png", picture: () => photographed(stones()) },
    keeps: "Stones",
    adjust: (j, asset) => {
      Object.assign(j.makings[2].settings, { depth: 4, border: "bevel", borderWidth: 3 });
      j.makings[2].name = "Fern";
      // A ground of stones round it: a few of them, laid over the tile and mirrored at their seams.
      j.makings.push({ id: "stones", kind: "picture", name: asset!.name, reads: {}, settings: { width: 24 }, asset });
      const few = addMaking(j, "height", addMaking(j, "tone", "stones"));
      const ground = addMaking(j, "texture", few);
      const whole = addMaking(j, "blend", "height", ground);
      const named = (id: string) => j.makings.find((n) => n.id === id)!;
      Object.assign(named(few), { name: "Stones", settings: { depth: 0.7, top: 3.2 } });
      Object.assign(named(ground), { name: "Ground", settings: { tile: 24 } });
      Object.assign(named(whole), { name: "Fern on stones", settings: { how: "higher" } });
      for (const c of j.cuts) c.reads.art = whole;
    },
  },
  {
    name: "Glasshouse at dusk",
    file: "glasshouse-at-dusk.jpg",
    picture: () => photographed(glasshouse()),
    outcome: "lithophane",
    rough: "flat3",
    stock: { width: 120, height: 80, thickness: 4, margin: 0 },
    adjust: () => {},
  },
  {
    name: "Moth visitor tag",
    file: "moth.png",
    picture: () => scan(moth(), { blur: 0.8, paper: "#ffffff", ink: "#1b1b1b" }),
    outcome: "cutout",
    stock: { width: 110, height: 85, thickness: 6, material: material("plywood"), margin: 4 },
    adjust: (j) => {
      j.cuts[0].cutter = cutter("flat2");
      j.cuts[0].settings.tabs = 3;
    },
  },
  {
    name: "Fox in the meadow",
    file: "fox-gate.jpg",
    picture: () => scan(fox(), { blur: 1.1, jpeg: 80, paper: "#f6f3ea", ink: "#20242a" }),
    outcome: "plasma",
    stock: { width: 640, height: 400, thickness: 3, material: material("steel"), margin: 15 },
    adjust: (j) => {
      j.makings[2].settings.specks = 4;
    },
  },
  {
    name: "Seed drawer front",
    file: "seed-drawer.png",
    picture: () => scan(seedDrawer(), { blur: 1, paper: "#fbf7ee", ink: "#3a2418" }),
    outcome: "raised",
    clear: "flat3",
    stock: { width: 240, height: 110, thickness: 15, material: material("maple"), margin: 9, paint: "#94402f" },
    adjust: (j) => {
      const carve = j.cuts.find((c) => c.kind === "vcarve")!;
      carve.settings = { side: "stands", border: "frame", borderWidth: 5, floor: 2 };
      // Painted before anything is cut; the ground is stained once the wide floor is out, and the carve sharpens the
      // edge.
      j.cuts[0].stop = { what: "paint", note: "two thin coats of barn red, a night to dry" };
      carve.stop = { what: "stain", note: "dark stain on the cleared ground" };
    },
  },
  {
    name: "Bee walk plate",
    file: "bee-walk.png",
    picture: () => scan(beeWalk(), { blur: 0.9, paper: "#fbf9f2", ink: "#22201c" }),
    outcome: "engrave",
    stock: { width: 150, height: 100, thickness: 3, material: material("brass"), margin: 6 },
    adjust: () => {},
  },
  {
    name: "Ginkgo bed marker",
    file: "ginkgo-scan.jpg",
    picture: () => scan(ginkgo(), { blur: 1.4, jpeg: 72, uneven: 0.18, stray: true }),
    outcome: "sign",
    clear: "flat2",
    stock: { width: 180, height: 120, thickness: 18.2, material: material("ash"), margin: 5 },
    adjust: (j) => {
      j.makings[2].settings.specks = 0.6;
    },
  },
];

/** Pictures that were put into the data folder, as jobs name them and as they are. */
class Pictures {
  private readonly rasters = new Map<string, Raster>();
  async keep({ file, picture }: Art): Promise<Asset> {
    const bytes = await picture();
    const asset = await keepPicture(bytes, file);
    this.rasters.set(asset.sha, await decodePicture(bytes, file));
    return asset;
  }
  raster(sha: string): Raster {
    return this.rasters.get(sha)!;
  }
}

/** Cells of a demo job's proof, for its card. */
const CELLS = 260_000;

/** Puts a job into the data folder, with the picture of its proof for its card. */
async function put(document: JobDocument, pictures: Pictures): Promise<JobCard> {
  const card = await createJob(document, "demo");
  const first = document.makings.find((m) => m.asset)!.asset!.sha;
  const files = { ...onePicture(pictures.raster(first)), picture: (sha: string) => pictures.raster(sha), face: faceOf };
  const build = buildJob(boardJob(document), { files, cells: CELLS, quick: true }, new Kept());
  if (build.problem) throw new Error(build.problem.message);
  const stops = inspect({ build }).filter((f) => f.severity === "stop").length;
  // A height that is kept goes by a picture of itself.
  const kept = document.kept && build.makings.get(document.makings[document.makings.length - 1].id)!.product;
  const seen = kept && kept.is === "heights" ? cardOf(kept.field) : pieceSeen(build);
  const png = await encodePng(seen.data, seen.width, seen.height);
  await keepThumb(card.id, png, build.seconds, stops);
  return card;
}

/** A job for each person, begun from a starting job. */
async function putPeople(start: JobCard, document: JobDocument, demo: Demo, pictures: Pictures): Promise<void> {
  for (const [person, art] of Object.entries(demo.people!.names)) {
    const own = begunFrom(start.id, document, { person, class: demo.people!.class });
    if (art) {
      setPicture(own, await pictures.keep(art));
      await put(own, pictures);
    } else await createJob(own, "demo");
  }
}

/** Fills an empty data folder with the demo jobs; leaves one that has jobs alone. @returns how many were made */
export async function seed(say: (line: string) => void): Promise<number> {
  if ((await listJobs()).length > 0) return 0;
  await loaded();
  for (const d of DEMOS) {
    say(`Making the demo job ${d.name} …`);
    const pictures = new Pictures();
    const asset = await pictures.keep(d);
    const also = d.also && (await pictures.keep(d.also));
    const { outcome, stock, clear, rough } = d;
    const cutters = { clear: clear ? [cutter(clear)] : [], rough: rough ? [cutter(rough)] : [] };
    const job = startJob(FIRST_SHOP, { outcome, asset, stock, cutters });
    job.name = d.name;
    d.adjust(job, also);
    const document = documentOf(job);
    if (d.people) document.start = { open: usuallyOpen(document) };
    const card = await put(document, pictures);
    if (d.people) await putPeople(card, document, d, pictures);
    const kept = job.makings.find((m) => m.name === d.keeps);
    if (kept) await put(keptHeight(job, kept.id, kept.name), pictures);
  }
  return DEMOS.length;
}
