import { onePicture } from "@oaken/core/job/tools";
import { Kept } from "@oaken/core/kept";
import { cutterFromRack } from "@oaken/core/cutters/rack";
import { materialById } from "@oaken/core/cutters/materials";
import { buildJob, piece } from "@oaken/core/job/build";
import type { JobDocument, StockSettings } from "@oaken/core/job/document";
import { startJob } from "@oaken/core/job/outcomes";
import { litView } from "@oaken/core/proof/light";
import { decodePicture } from "@oaken/files/decode";
import { encodePng } from "@oaken/files/encode";
import { keepPicture } from "../web/server/assets.ts";
import { createJob, keepThumb, listJobs } from "../web/server/jobs.ts";
import { beeWalk, type Drawing, type Faults, fox, ginkgo, moth, scan, seedDrawer } from "./art.ts";

interface Demo {
  name: string;
  file: string;
  drawing: () => Drawing;
  faults: Faults;
  outcome: string;
  stock: Partial<StockSettings>;
  adjust(job: JobDocument): void;
}

/** Jobs of the made-up workshop Quill & Thistle for the made-up Marrowdale Botanic Garden. */
const DEMOS: readonly Demo[] = [
  {
    name: "Moth visitor tag",
    file: "moth.png",
    drawing: moth,
    faults: { blur: 0.8, paper: "#ffffff", ink: "#1b1b1b" },
    outcome: "cutout",
    stock: { width: 110, height: 85, thickness: 6, material: "plywood", margin: 4 },
    adjust: (j) => {
      j.cuts[0].cutter = cutterFromRack("flat2");
      j.cuts[0].settings.tabs = 3;
    },
  },
  {
    name: "Fox in the meadow",
    file: "fox-gate.jpg",
    drawing: fox,
    faults: { blur: 1.1, jpeg: 80, paper: "#f6f3ea", ink: "#20242a" },
    outcome: "plasma",
    stock: { width: 640, height: 400, thickness: 3, material: "steel", margin: 15 },
    adjust: (j) => {
      j.nodes[2].settings.specks = 4;
    },
  },
  {
    name: "Seed drawer front",
    file: "seed-drawer.png",
    drawing: seedDrawer,
    faults: { blur: 1, paper: "#fbf7ee", ink: "#3a2418" },
    outcome: "raised",
    stock: { width: 240, height: 110, thickness: 15, material: "maple", margin: 9, paint: "#94402f" },
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
    drawing: beeWalk,
    faults: { blur: 0.9, paper: "#fbf9f2", ink: "#22201c" },
    outcome: "engrave",
    stock: { width: 150, height: 100, thickness: 3, material: "brass", margin: 6 },
    adjust: () => {},
  },
  {
    name: "Ginkgo bed marker",
    file: "ginkgo-scan.jpg",
    drawing: ginkgo,
    faults: { blur: 1.4, jpeg: 72, uneven: 0.18, stray: true },
    outcome: "sign",
    stock: { width: 180, height: 120, thickness: 18.2, material: "ash", margin: 5 },
    adjust: (j) => {
      j.nodes[2].settings.specks = 0.6;
    },
  },
];

/** Fills an empty data folder with the demo jobs; leaves one that has jobs alone. @returns how many were made */
export async function seed(say: (line: string) => void): Promise<number> {
  if ((await listJobs()).length > 0) return 0;
  for (const d of DEMOS) {
    say(`Making the demo job ${d.name} …`);
    const bytes = await scan(d.drawing(), d.faults);
    const asset = await keepPicture(bytes, d.file);
    const job = startJob(d.outcome, asset, d.stock, {
      clear: d.outcome === "raised" ? [cutterFromRack("flat3")] : d.outcome === "sign" ? [cutterFromRack("flat2")] : [],
    });
    job.name = d.name;
    d.adjust(job);
    const card = await createJob(job, "demo");
    const raster = await decodePicture(bytes, d.file);
    const build = buildJob(job, { files: onePicture(raster), cells: 260_000, quick: true }, new Kept());
    if (build.problem) throw new Error(build.problem.message);
    const { proof } = build;
    await keepThumb(
      card.id,
      await encodePng(
        litView(piece(build), materialById(job.stock.material), job.stock.thickness, job.stock.paint),
        proof.width,
        proof.height,
      ),
      build.seconds,
    );
  }
  return DEMOS.length;
}
