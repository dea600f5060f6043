import { listJobs, openJob } from "@oaken/web/server/jobs";
import { raster } from "@oaken/web/server/assets";
import { boardJob } from "@oaken/core/job/boards";
import { Kept } from "@oaken/core/kept";
import { buildJob } from "@oaken/core/job/build";
import { inspect } from "@oaken/core/inspect/inspect";
import { packed } from "../web/compute/drawn.ts";
import { Sender } from "../web/compute/parcels.ts";
const id = (await listJobs()).find((j) => j.name.startsWith("Ginkgo"))!.id;
const { document } = await openJob(id);
const job = boardJob(document);
const rs = new Map();
for (const m of job.makings) if (m.asset) rs.set(m.asset.sha, await raster(m.asset.sha));
const files = { picture: (s: string) => rs.get(s)!, drawing: () => "", solid: () => new Uint8Array() };
const kept = new Kept(); const sender = new Sender();
function go(what: string) {
  for (const cells of [200_000, 1_500_000]) {
    const t0 = performance.now();
    const r = buildJob(job, { files: files as never, cells, quick: cells < 1e6, now: () => performance.now() }, kept);
    const t1 = performance.now();
    const f = inspect({ build: r, revision: 1, written: 1 });
    const t2 = performance.now();
    packed(r, { final: true, findings: f, took: 0 }, kept, sender, []);
    const t3 = performance.now();
    console.log(what, cells, "build", Math.round(t1 - t0), "inspect", Math.round(t2 - t1), "packed", Math.round(t3 - t2), JSON.stringify(Object.fromEntries(Object.entries(r.timings).map(([k, v]) => [k, Math.round(v)]))), "moves", r.cuts.map((c) => c.toolpath.kind.length).join());
  }
}
go("first"); go("again");
const carve = job.cuts.find((c) => c.kind === "vcarve")!;
for (let k = 0; k < Number(process.argv[2] ?? 8); k++) { carve.settings.floor = 3 + 0.037 * (k + 1); go("floor"); }
const ol = job.makings.find((m) => m.kind === "outline")!;
for (let k = 0; k < Number(process.argv[3] ?? 6); k++) { ol.settings.ink = 0.45 + 0.01 * k; go("ink"); }
process.exit(0);
