import sharp from "sharp";
import { lettering } from "./lettering.ts";

/** Drawings of the demo workshop, made here from numbers: path data of the ink on a page of so many pixels. */
export interface Drawing {
  width: number;
  height: number;
  /** SVG elements in black */
  ink: string;
  /** SVG elements in white, over the ink */
  paper: string;
}

const f = (v: number) => v.toFixed(1);
const TURN = Math.PI / 180;

/** A ginkgo leaf: a fan with a wavy rim, a notch and slits between its ribs, on a bent stalk. */
function ginkgoLeaf(x: number, y: number, size: number, lean: number): { ink: string; paper: string } {
  const at = (a: number, r: number): [number, number] => {
    const t = (a + lean) * TURN;
    return [x + size * r * Math.cos(t), y - size * r * Math.sin(t)];
  };
  const rim: string[] = [];
  for (let a = 158; a >= 22; a -= 0.5) {
    const notch = 0.3 * Math.exp(-(((a - 91) / 4.5) ** 2));
    const r =
      1 + 0.035 * Math.sin(a * 0.42) + 0.016 * Math.sin(a * 0.97 + 1) - 0.1 * (Math.abs(a - 90) / 68) ** 3 - notch;
    rim.push(at(a, r).map(f).join(" "));
  }
  const [bx, by] = at(90, 0);
  const [lx, ly] = at(152, 0.5);
  const [rx, ry] = at(28, 0.5);
  const blade =
    `M${f(bx)} ${f(by)}Q${f(lx)} ${f(ly)} ${rim[0]}L${rim.slice(1).join("L")}Q${f(rx)} ${f(ry)} ${f(bx)} ` +
    `${f(by)}Z`;
  const [s1x, s1y] = at(-84, 0.34);
  const [s2x, s2y] = at(-70, 0.78);
  const stalk =
    `<path d="M${f(bx)} ${f(by)}Q${f(s1x)} ${f(s1y)} ${f(s2x)} ${f(s2y)}" fill="none" stroke="#000" ` +
    `stroke-width="${f(size * 0.04)}" stroke-linecap="round"/>`;
  let slits = "";
  for (const a of [136, 122, 109, 73, 60, 46]) {
    const [p, q] = at(a, 0.42);
    const [u, v] = at(a - 1.4, 0.86);
    const [w, z] = at(a + 1.4, 0.86);
    const [m, o] = at(a, 0.9);
    slits += `<path d="M${f(p)} ${f(q)}L${f(u)} ${f(v)}L${f(m)} ${f(o)}L${f(w)} ${f(z)}Z"/>`;
  }
  return { ink: `<path d="${blade}"/>${stalk}`, paper: slits };
}

/** Bed marker: two leaves above the plant's name. */
export function ginkgo(): Drawing {
  const a = ginkgoLeaf(640, 640, 500, 10);
  const b = ginkgoLeaf(1370, 480, 360, -14);
  return {
    width: 1860,
    height: 1240,
    ink:
      `${a.ink}${b.ink}<path ` +
      `d="${lettering("GINKGO", 1330, 960, 210, 16)}${lettering("BILOBA", 1330, 1110, 96, 26)}"/>`,
    paper: a.paper + b.paper,
  };
}

/** Seed drawer front: poppy heads on either side of the words; the frame is the carve's own. */
export function seedDrawer(): Drawing {
  const poppy = (x: number, flip: number): string => {
    const head =
      `M${f(x - 72)} 330Q${f(x - 80)} 250 ${f(x)} 236Q${f(x + 80)} 250 ${f(x + 72)} 330Q${f(x + 46)} 412 ${f(x)} ` +
      `420Q${f(x - 46)} 412 ${f(x - 72)} 330Z`;
    let crown = "";
    for (let i = -3; i <= 3; i++) crown += `L${f(x + i * 26)} ${i % 2 === 0 ? 176 : 212}`;
    const cap = `M${f(x - 92)} 214${crown}L${f(x + 92)} 214Q${f(x)} 250 ${f(x - 92)} 214Z`;
    const stalk =
      `<path d="M${f(x)} 412C${f(x + 8 * flip)} 500 ${f(x - 26 * flip)} 560 ${f(x + 6 * flip)} 660" fill="none" ` +
      `stroke="#000" stroke-width="24"/>`;
    const leaf =
      `<path d="M${f(x - 6 * flip)} 600Q${f(x + 96 * flip)} 500 ${f(x + 158 * flip)} 560Q${f(x + 90 * flip)} 600 ` +
      `${f(x - 2 * flip)} 640Z"/>`;
    return `<path d="${head}"/><path d="${cap}"/>${stalk}${leaf}`;
  };
  return {
    width: 2000,
    height: 840,
    ink:
      `${poppy(250, 1)}${poppy(1750, -1)}<path ` +
      `d="${lettering("SEEDS", 1000, 480, 330, 30)}${lettering("meadow mix", 1000, 640, 120, 14)}"/>`,
    paper: "",
  };
}

/** Visitor tag: a moth with open wings, eyespots cut through. */
export function moth(): Drawing {
  const wing = (s: number): string =>
    `<path d="M600 420C${600 + s * 120} 250 ${600 + s * 380} 150 ${600 + s * 520} 210C${600 + s * 560} 330 ` +
    `${600 + s * 440} 480 ${600 + s * 300} 520C${600 + s * 420} 560 ${600 + s * 400} 740 ${600 + s * 260} ` +
    `760C${600 + s * 150} 740 ${600 + s * 60} 620 600 560Z"/>`;
  const feeler = (s: number): string =>
    `<path d="M${600 + s * 18} 330C${600 + s * 40} 250 ${600 + s * 90} 190 ${600 + s * 150} 150" fill="none" ` +
    `stroke="#000" stroke-width="26" stroke-linecap="round"/>`;
  const eye = (s: number): string =>
    `<circle cx="${600 + s * 350}" cy="330" r="62"/><circle cx="${600 + s * 250}" cy="640" r="44"/>`;
  return {
    width: 1200,
    height: 900,
    ink:
      `${wing(1)}${wing(-1)}${feeler(1)}${feeler(-1)}<ellipse cx="600" cy="500" rx="58" ry="220"/><circle ` +
      `cx="600" cy="310" r="52"/>`,
    paper: eye(1) + eye(-1),
  };
}

/** Plate at the start of the bee walk: line drawings of bees along a dotted flight, and the words. */
export function beeWalk(): Drawing {
  const line = (d: string, w = 9) =>
    `<path d="${d}" fill="none" stroke="#000" stroke-width="${w}" stroke-linecap="round" stroke-linejoin="round"/>`;
  const bee = (x: number, y: number, k: number, flip: number): string => {
    const p = (u: number, v: number) => `${f(x + flip * k * u)} ${f(y + k * v)}`;
    return (
      line(`M${p(-95, 0)}C${p(-90, -60)} ${p(60, -66)} ${p(95, -4)}C${p(70, 58)} ${p(-88, 60)} ${p(-95, 0)}Z`) +
      line(`M${p(-40, -47)}Q${p(-18, 0)} ${p(-40, 46)}`, 8) +
      line(`M${p(8, -50)}Q${p(30, 0)} ${p(8, 49)}`, 8) +
      line(`M${p(-20, -52)}C${p(-100, -170)} ${p(20, -190)} ${p(6, -56)}`, 7) +
      line(`M${p(6, -56)}C${p(40, -180)} ${p(150, -130)} ${p(40, -46)}`, 7) +
      line(`M${p(-92, -14)}Q${p(-132, -40)} ${p(-140, -70)}`, 6) +
      line(`M${p(-94, 4)}Q${p(-140, -2)} ${p(-156, -26)}`, 6)
    );
  };
  let flight = "";
  for (let i = 0; i < 15; i++) {
    const [a, b] = [i / 15, (i + 0.5) / 15];
    const at = (t: number) => `${f(330 + 820 * t)} ${f(300 + 130 * Math.sin(6.3 * t + 0.6))}`;
    flight += line(`M${at(a)}L${at(b)}`, 6);
  }
  return {
    width: 1500,
    height: 1000,
    ink:
      `${bee(250, 360, 1.05, 1)}${bee(1240, 330, 0.85, 1)}${flight}<path ` +
      `d="${lettering("BEE WALK", 750, 740, 190, 22)}${lettering("please keep to the path", 750, 870, 78, 6)}"/>`,
    paper: "",
  };
}

/** Gate panel: a fox in tall grass under a low sun, all of one piece with the frame round it. */
export function fox(): Drawing {
  const blade = (x: number, h: number, lean: number, w: number): string => {
    const y = 1010 + 0.00009 * (x - 1000) ** 2;
    return (
      `<path d="M${f(x - w)} ${f(y)}Q${f(x - 0.3 * w + 0.4 * lean)} ${f(y - 0.6 * h)} ${f(x + lean)} ` +
      `${f(y - h)}Q${f(x + w + 0.5 * lean)} ${f(y - 0.5 * h)} ${f(x + w)} ${f(y)}Z"/>`
    );
  };
  let grass = "";
  for (let i = 0; i < 34; i++) {
    const x = 90 + i * 55 + 14 * Math.sin(i * 2.3);
    // Lower before the fox, so that it stands free.
    const open = Math.min(1, Math.abs(x - 960) / 620);
    grass += blade(x, (130 + 300 * open) * (0.75 + 0.25 * Math.sin(i * 1.7)), 60 * Math.sin(i * 1.3 + 0.4), 15);
  }
  const hill = `<path d="M30 1170V1060Q1000 960 1970 1060V1170Z"/>`;
  const frame = `<path d="M20 20H1980V1180H20Z M78 78V1122H1922V78Z" fill-rule="evenodd"/>`;
  const sun = `<path d="M1500 78A210 210 0 0 0 1920 78Z"/>`;
  const body =
    `<path d="M560 1010Q585 850 640 770Q560 800 470 770Q360 740 300 620Q420 690 520 660Q640 620 760 640Q960 ` +
    "660 1090 610Q1130 560 1150 500L1120 390L1190 440Q1230 430 1275 440L1340 385L1318 500Q1330 540 1420 " +
    "590Q1430 620 1400 632Q1330 650 1290 650Q1260 720 1245 790Q1240 900 1268 1010H1200Q1180 900 1165 830Q1000 " +
    `850 850 820Q760 820 700 850Q650 930 640 1010Z"/>` +
    `<path d="M780 810Q800 910 770 1010H835Q860 920 880 820Z"/><path d="M1090 820Q1110 920 1085 1010H1150Q1165 ` +
    `920 1170 820Z"/>`;
  const eye = `<circle cx="1268" cy="545" r="22"/>`;
  return { width: 2000, height: 1200, ink: `${frame}${hill}${grass}${sun}${body}`, paper: eye };
}

/** The ink as a drawing that bench and tests take as the truth. */
export const svgOf = (d: Drawing, background = "#fff", ink = "#000"): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${d.width}" height="${d.height}" viewBox="0 0 ${d.width} ` +
  `${d.height}"><rect width="100%" height="100%" fill="${background}"/><g fill="${ink}">` +
  `${d.ink.replaceAll('stroke="#000"', `stroke="${ink}"`)}</g><g fill="${background}">${d.paper}</g></svg>`;

/** What happens to a picture between the drawing and the workshop. */
export interface Faults {
  /** soft focus, px */
  blur?: number;
  /** JPEG quality */
  jpeg?: number;
  /** one corner darker by this share */
  uneven?: number;
  /** a stray mark of the pencil */
  stray?: boolean;
  paper?: string;
  ink?: string;
}

/** A raster file of a drawing, with real faults. */
export async function scan(d: Drawing, faults: Faults): Promise<Buffer> {
  let image = sharp(Buffer.from(svgOf(d, faults.paper ?? "#f3ecdd", faults.ink ?? "#26332b")));
  const over = [];
  if (faults.stray)
    over.push({
      input: Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${d.width}" height="${d.height}"><path ` +
          `d="M${d.width * 0.055} ${d.height * 0.9}l14 -9M${d.width * 0.93} ${d.height * 0.12}l5 3" ` +
          `stroke="#444" stroke-width="4"/></svg>`,
      ),
    });
  if (faults.uneven)
    over.push({
      input: Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${d.width}" height="${d.height}"><defs><linearGradient ` +
          `id="g" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#000" stop-opacity="0"/><stop ` +
          `offset="1" stop-color="#000" stop-opacity="${faults.uneven}"/></linearGradient></defs><rect ` +
          `width="100%" height="100%" fill="url(#g)"/></svg>`,
      ),
    });
  if (over.length > 0) image = sharp(await image.composite(over).removeAlpha().png().toBuffer());
  if (faults.blur) image = image.blur(faults.blur);
  return faults.jpeg ? image.jpeg({ quality: faults.jpeg }).toBuffer() : image.png().toBuffer();
}
