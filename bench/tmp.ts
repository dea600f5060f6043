import { traceArcs } from "@oaken/core/outline/colours/arcs";
import { joinCorners, labelPixels, mergeSpecks } from "@oaken/core/outline/colours/labels";
import { findColours } from "@oaken/core/outline/colours/palette";
import { colourShape, fitArcs } from "@oaken/core/outline/colours/shapes";
import { decodePicture } from "@oaken/files/decode";
import { logoSvg } from "../demo/truth.ts"; import sharp from "sharp";
const r = await decodePicture(await sharp(logoSvg(2448)).png().toBuffer(), "l");
for (let k=0;k<5;k++){ const T=[performance.now()]; const t=()=>T.push(performance.now());
 const { swatches, table } = findColours(r, 5); t(); const l = labelPixels(r, swatches, table); t(); mergeSpecks(l, 10); t(); joinCorners(l); t(); const a=traceArcs(l, r, swatches); t(); const f=fitArcs(a,{scale:1,x0:0,y1:r.height},0.23,0.7); t(); swatches.map((_, q) => colourShape(f, swatches.map((_, w) => q === w))); t();
 console.log(T.slice(1).map((x,i)=>(x-T[i]).toFixed(0)).join(" "), a.closed.length, a.xy.length/2, swatches.map(s=>s.hex).join(" ")); }
