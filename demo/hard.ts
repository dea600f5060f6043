import { seeded } from "@oaken/core/testing/random";
import sharp from "sharp";
import { lettering } from "./lettering.ts";

/**
 * A picture with the faults that people's pictures have, drawn here from numbers: hard on an outline in its own way.
 */
export interface HardPicture {
  name: string;
  /** how wide it is made, mm */
  width: number;
  picture(): Promise<Buffer>;
}

const svg = (width: number, height: number, body: string): Buffer => {
  const size = `width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"`;
  return Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" ${size}>${body}</svg>`);
};

/** A gradient to fill with: colours at shares of the way. */
const gradient = (id: string, way: string, stops: readonly [number, string][]): string => {
  const all = stops.map(([at, colour]) => `<stop offset="${at}" stop-color="${colour}"/>`).join("");
  return `<linearGradient id="${id}" ${way}>${all}</linearGradient>`;
};

const ellipse = (
  x: number | string,
  y: number | string,
  rx: number | string,
  ry: number | string,
  rest: string,
): string => `<ellipse cx="${x}" cy="${y}" rx="${rx}" ry="${ry}" ${rest}/>`;

/** Adds grain, the same in all channels, to an 8-bit picture. */
async function grained(picture: Buffer, sigma: number, jpeg: number): Promise<Buffer> {
  const { data, info } = await sharp(picture).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const random = seeded(1884);
  for (let i = 0; i < data.length; i += info.channels) {
    const by = 2 * sigma * (random() + random() + random() - 1.5);
    for (let k = 0; k < info.channels; k++) data[i + k] = Math.max(0, Math.min(255, data[i + k] + by));
  }
  return sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } })
    .jpeg({ quality: jpeg })
    .toBuffer();
}

const SKY: [number, string][] = [
  [0, "#e8ecea"],
  [1, "#5d6a62"],
];
const CLAY: [number, string][] = [
  [0, "#c9a58c"],
  [0.6, "#8d6650"],
  [1, "#4b352a"],
];
const LAMPLIGHT: [number, string][] = [
  [0, "#b9b5ac"],
  [1, "#f4f2ec"],
];

/** Pots and a glasshouse in soft light, with the grain of a small camera: greys that pass every level somewhere. */
async function scene(): Promise<Buffer> {
  const [w, h] = [600, 420];
  const random = seeded(7);
  let leaves = "";
  for (let i = 0; i < 260; i++) {
    const [x, y, r] = [600 * random(), 60 + 300 * random(), 6 + 22 * random()];
    const grey = Math.round(40 + 150 * random());
    const [cx, cy] = [x.toFixed(1), y.toFixed(1)];
    const turned = `transform="rotate(${Math.round(360 * random())} ${cx} ${cy})"`;
    const fill = `fill="rgb(${grey},${grey + 12},${grey})" fill-opacity="0.7"`;
    leaves += ellipse(cx, cy, r.toFixed(1), (0.35 * r).toFixed(1), `${turned} ${fill}`);
  }
  const pot = (x: number, k: number): string =>
    `<path d="M${x - 50 * k} 250L${x - 34 * k} 390H${x + 34 * k}L${x + 50 * k} 250Z" fill="url(#clay)"/>` +
    ellipse(x, 250, 50 * k, 11 * k, 'fill="#4a3c34"');
  const body =
    `<defs>${gradient("sky", 'x1="0" y1="0" x2="0.3" y2="1"', SKY)}${gradient("clay", 'x1="0" x2="1"', CLAY)}</defs>` +
    `<rect width="600" height="420" fill="url(#sky)"/>${leaves}${pot(150, 1)}${pot(330, 1.25)}${pot(500, 0.9)}`;
  return grained(
    await sharp(svg(w, h, body))
      .blur(1.3)
      .png()
      .toBuffer(),
    7,
    82,
  );
}

/** Pixels a millimetre of a page scanned for reading, not for carving. */
const PAGE_PER_MM = 2.6;

/** A page of a plant list, small letters a few pixels high with dots of one or two, under uneven light. */
async function page(): Promise<Buffer> {
  const [w, h] = [Math.round(150 * PAGE_PER_MM), Math.round(95 * PAGE_PER_MM)];
  const lines = [
    "Irises in the limed bed; lilies in willow chip.",
    "Mint, dill, thistle: divide in April (rain).",
    "Fine grit at his point, silt in hers. Hi!",
  ];
  const text = [
    lettering("Bilimbi list", 195, 44, 34, 1),
    ...lines.map((t, i) => lettering(t, 195, 92 + 34 * i, 16, 0.6)),
  ].join("");
  const dots = Array.from({ length: 22 }, (_, i) => `<circle cx="${60 + 12 * i}" cy="205" r="1.5"/>`).join("");
  const body =
    `<defs>${gradient("l", 'x1="0" y1="0" x2="1" y2="0.4"', LAMPLIGHT)}</defs>` +
    '<rect width="100%" height="100%" fill="url(#l)"/>' +
    `<g fill="#2a2825"><path d="${text}"/>${dots}</g>`;
  return grained(
    await sharp(svg(w, h, body))
      .blur(0.5)
      .png()
      .toBuffer(),
    3,
    75,
  );
}

/** A posy in outlined flat colours on a coloured ground: its black edge is blended with each of them. */
export async function posy(blended: boolean): Promise<Buffer> {
  const petals = (x: number, y: number, r: number, fill: string): string =>
    Array.from({ length: 6 }, (_, i) => {
      const turned = `transform="rotate(${60 * i} ${x} ${y})"`;
      return ellipse(x, y - r, (0.52 * r).toFixed(1), (0.8 * r).toFixed(1), `${turned} fill="${fill}"`);
    }).join("") + `<circle cx="${x}" cy="${y}" r="${(0.5 * r).toFixed(1)}" fill="#f2c84b"/>`;
  const line = (d: string, colour: string, width: number): string =>
    `<path d="${d}" fill="none" stroke="${colour}" stroke-width="${width}"/>`;
  const stalk = (d: string): string => line(d, "#111", 19) + line(d, "#6a9a4e", 8);
  const body =
    `<rect width="640" height="520" fill="#f5e3c8"/><circle cx="320" cy="240" r="228" fill="#cfe3ea"/>` +
    `${stalk("M250 470Q300 330 200 190")}${stalk("M330 480Q330 330 345 150")}${stalk("M400 470Q370 350 470 220")}` +
    '<g stroke="#111" stroke-width="9" stroke-linejoin="round">' +
    `${petals(200, 180, 62, "#d9679a")}${petals(345, 140, 70, "#e98b4a")}${petals(470, 215, 58, "#b48ad0")}` +
    '<path d="M210 400L440 400L408 505L242 505Z" fill="#c96f4c"/></g>';
  if (!blended)
    return sharp(
      svg(
        640,
        520,
        body.replaceAll(/fill="#(?!111)[0-9a-f]{6}"/g, 'fill="#fff"').replaceAll('stroke="#6a9a4e"', 'stroke="#fff"'),
      ),
    )
      .greyscale()
      .threshold(128)
      .png()
      .toBuffer();
  // Through a palette, as clip-art comes: the blends are few steps of a few colours.
  return sharp(svg(640, 520, body))
    .png({ palette: true, colours: 28, dither: 0 })
    .toBuffer();
}

export const HARD_PICTURES: readonly HardPicture[] = [
  { name: "glasshouse-bench.jpg", width: 150, picture: scene },
  { name: "plant-list.jpg", width: 150, picture: page },
  { name: "posy.png", width: 120, picture: () => posy(true) },
];
