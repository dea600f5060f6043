import { onePicture } from "@oaken/core/job/tools";
import { Kept } from "@oaken/core/kept";
import { cutterIn } from "@oaken/core/cutters/rack";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { materialIn } from "@oaken/core/shop/shop";
import { documentOf } from "@oaken/core/job/boards";
import { buildJob } from "@oaken/core/job/build";
import type { BoardJob, StockSettings } from "@oaken/core/job/document";
import { addMaking } from "@oaken/core/job/edit";
import { startJob } from "@oaken/core/job/start";
import type { Asset } from "@oaken/core/makings/kind";
import type { Raster } from "@oaken/core/picture/raster";
import { pieceSeen } from "@oaken/core/job/seen";
import { decodePicture } from "@oaken/files/decode";
import { encodePng } from "@oaken/files/encode";
import { keepPicture } from "@oaken/web/server/assets";
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
  also?: { file: string; picture(): Promise<Buffer> };
  adjust(job: BoardJob, also?: Asset): void;
}

const material = (id: string) => materialIn(FIRST_SHOP, id);
const cutter = (id: string) => cutterIn(FIRST_SHOP.cutters, id);

/** Jobs of the made-up workshop Quill & Thistle for the made-up Marrowdale Botanic Garden. */
const DEMOS: readonly Demo[] = [
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

/** Fills an empty data folder with the demo jobs; leaves one that has jobs alone. @returns how many were made */
export async function seed(say: (line: string) => void): Promise<number> {
  if ((await listJobs()).length > 0) return 0;
  for (const d of DEMOS) {
    say(`Making the demo job ${d.name} …`);
    const rasters = new Map<string, Raster>();
    const kept = async (file: string, bytes: Buffer): Promise<Asset> => {
      const asset = await keepPicture(bytes, file);
      rasters.set(asset.sha, await decodePicture(bytes, file));
      return asset;
    };
    const asset = await kept(d.file, await d.picture());
    const also = d.also && (await kept(d.also.file, await d.also.picture()));
    const { outcome, stock, clear, rough } = d;
    const cutters = { clear: clear ? [cutter(clear)] : [], rough: rough ? [cutter(rough)] : [] };
    const job = startJob(FIRST_SHOP, { outcome, asset, stock, cutters });
    job.name = d.name;
    d.adjust(job, also);
    const card = await createJob(documentOf(job), "demo");
    const files = { ...onePicture(rasters.get(asset.sha)!), picture: (sha: string) => rasters.get(sha)! };
    const build = buildJob(job, { files, cells: 260_000, quick: true }, new Kept());
    if (build.problem) throw new Error(build.problem.message);
    const { proof } = build;
    await keepThumb(card.id, await encodePng(pieceSeen(build), proof.width, proof.height), build.seconds);
  }
  return DEMOS.length;
}
