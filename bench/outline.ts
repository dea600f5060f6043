import potrace from "potrace";
import { contoursAt } from "@oaken/core/outline/contours";
import { fitOutline } from "@oaken/core/outline/outline";
import { toGrey } from "@oaken/core/picture/tone";
import { tileRange } from "@oaken/core/picture/tiles";
import { decodePicture } from "@oaken/files/decode";
import sharp from "sharp";
import { ginkgo, svgOf } from "../demo/art.ts";
import { median, ms, row } from "./measure.ts";

/** Ink-level drag and the fitted outline on a 4-megapixel drawing, against a plain pass and against potrace. */
export async function benchOutline(): Promise<void> {
  console.log("\nOutline of a 4-megapixel drawing (hatched leaves and lettering)");
  const width = 2450;
  const png = await sharp(Buffer.from(svgOf(hatched()))).resize(width).blur(0.7).png().toBuffer();
  const raster = await decodePicture(png, "bench.png");
  const grey = toGrey(raster, { invert: false });
  const tiles = tileRange(grey);
  const data = grey.data as Uint8Array;
  let sink = 0;
  const plain = median(9, (k) => {
    const cut = 120 + k;
    let n = 0;
    for (let i = 0; i < data.length; i++) if (data[i] < cut) n++;
    sink += n;
  });
  const drag = median(15, (k) => (sink += contoursAt(grey, 0.35 + 0.02 * k, tiles).xy.length));
  const c = contoursAt(grey, 0.5, tiles);
  row("pixels", `${(data.length / 1e6).toFixed(2)} M`);
  row("contours, points on them", `${c.parent.length}, ${c.xy.length / 2}`);
  row("one plain pass over the pixels", ms(plain));
  row("contours at another ink level", ms(drag), `${(drag / plain).toFixed(1)} × the plain pass (at most 25)`);

  const place = { scale: 0.1, x0: 0, y1: raster.height / 10 };
  let nodes = 0;
  const fit = median(5, () => {
    const t = tileRange(grey);
    nodes = fitOutline(contoursAt(grey, 0.5, t), place, { hold: 0.05, specks: 0.1, pinholes: 0.1, cornerAngle: 0.7 }).nodes;
  });
  const theirs = await potraceTime(png);
  row("grey to fitted outline, ours", ms(fit), `${nodes} nodes`);
  row("bitmap to fitted outline, registry's potrace", ms(theirs.time), `${theirs.nodes} nodes`);
  row("how many times faster", `${(theirs.time / fit).toFixed(1)} ×`, "(at least 1)");
  if (sink === 0) throw new Error("nothing was measured");
}

/** The ginkgo drawing with the page hatched behind it: thousands of edge lengths of edge. */
function hatched() {
  const d = ginkgo();
  let lines = "";
  for (let y = 30; y < d.height; y += 14) lines += `<path d="M20 ${y}q${d.width / 4} ${12 * Math.sin(y)} ${d.width / 2} 0t${d.width / 2 - 40} 0" stroke="#000" stroke-width="4" fill="none"/>`;
  return { ...d, ink: lines + d.ink };
}

async function potraceTime(png: Buffer): Promise<{ time: number; nodes: number }> {
  const times: number[] = [];
  let nodes = 0;
  for (let k = 0; k < 3; k++) {
    const p = new potrace.Potrace({ threshold: 128, turdSize: 10 });
    await new Promise<void>((done, failed) => p.loadImage(png, (e: Error | null) => (e ? failed(e) : done())));
    const t0 = performance.now();
    const tag = p.getPathTag();
    times.push(performance.now() - t0);
    nodes = (tag.match(/[CL]/g) ?? []).length;
  }
  return { time: times.sort((a, b) => a - b)[1], nodes };
}
