import { inflateSync } from "node:zlib";
import sharp from "sharp";
import { expect, it } from "vitest";
import { decodePicture } from "./decode.ts";

/** A patch of one colour, sRGB. */
const patch = (r: number, g: number, b: number) =>
  sharp({ create: { width: 40, height: 30, channels: 3, background: { r, g, b } } });

/** Red, green and blue of a PNG's first pixel as they are in the file. */
function firstPixel(png: Buffer): number[] {
  const parts: Buffer[] = [];
  for (let at = 8; at < png.length; at += 12 + png.readUInt32BE(at))
    if (png.toString("latin1", at + 4, at + 8) === "IDAT")
      parts.push(png.subarray(at + 8, at + 8 + png.readUInt32BE(at)));
  return [...inflateSync(Buffer.concat(parts)).subarray(1, 4)];
}

it("colour profiles are converted: a wider space decodes to the colours it was made from", async () => {
  for (const [r, g, b] of [
    [200, 60, 30],
    [30, 160, 90],
    [120, 120, 120],
  ]) {
    const wide = await patch(r, g, b).withIccProfile("p3").png().toBuffer();
    // The file itself holds other numbers, or this would prove nothing: its first pixel, which no filter of PNG
    // changes.
    if (r !== g) expect(firstPixel(wide)).not.toEqual([r, g, b]);
    const d = await decodePicture(wide, "p3.png");
    const at = 4 * (15 * d.width + 20);
    [r, g, b].forEach((v, k) => expect(Math.abs(d.data[at + k] - v), `${r} ${g} ${b}`).toBeLessThanOrEqual(2));
  }
});

it("16 bits stay 16 bits", async () => {
  const deep = await sharp(
    Uint16Array.from({ length: 40 * 30 * 3 }, (_, i) => 1000 + i * 13),
    { raw: { width: 40, height: 30, channels: 3 } },
  )
    .toColourspace("rgb16")
    .png()
    .toBuffer();
  const d = await decodePicture(deep, "deep.png");
  expect(d.data).toBeInstanceOf(Uint16Array);
  expect(new Set([...d.data].filter((_, i) => i % 4 === 0)).size).toBeGreaterThan(300);
});

it("a picture turned by its EXIF stands upright", async () => {
  // Black on the left half as the sensor saw it; turned a quarter clockwise it is on top.
  const side = await sharp(
    Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><rect width="60" height="40" ' +
        'fill="#fff"/><rect width="30" height="40"/></svg>',
    ),
  )
    .jpeg({ quality: 95 })
    .withMetadata({ orientation: 6 })
    .toBuffer();
  const d = await decodePicture(side, "phone.jpg");
  expect([d.width, d.height]).toEqual([40, 60]);
  expect(d.data[4 * (10 * d.width + 20)]).toBeLessThan(40);
  expect(d.data[4 * (50 * d.width + 20)]).toBeGreaterThan(215);
});

for (const [name, bytes, says] of [
  ["empty.png", Buffer.alloc(0), /empty/],
  ["letter.png", Buffer.from("Dear Sir or Madam"), /not a picture/],
  ["cut.png", null, /cut short|damaged|incomplete|cannot be read/i],
] as const)
  it(`refuses ${name} with one sentence`, async () => {
    const whole = await patch(10, 20, 30).png({ compressionLevel: 0 }).toBuffer();
    const e = await decodePicture(bytes ?? whole.subarray(0, whole.length >> 1), name).then(
      () => null,
      (q: Error) => q,
    );
    expect(e?.message).toMatch(says);
    expect(e?.message).toContain(name);
  });

it("a drawing has enough pixels to trace, in whatever unit its size is given", async () => {
  for (const size of ['width="120" height="60"', 'width="120mm" height="60mm"', 'width="6in" height="3in"', ""]) {
    const half = '<rect width="60" height="60"/>';
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 120 60">${half}</svg>`;
    const r = await decodePicture(Buffer.from(svg), "drawing.svg");
    expect(Math.abs(r.width - 3000), size).toBeLessThan(60);
    expect(Math.abs(r.height - 1500), size).toBeLessThan(60);
    // Its left half is black, to the pixel.
    const alpha = (x: number) => r.data[3 + 4 * (Math.floor(r.height / 2) * r.width + Math.floor(x * r.width))];
    expect([alpha(0.495), alpha(0.505)], size).toEqual([255, 0]);
  }
});

it("a drawing may name its own words in its document type, as older drawing programs do", async () => {
  const own = 'xmlns="http://www.w3.org/2000/svg"';
  const drawn = (head: string, inside: string) =>
    Buffer.from(
      `<?xml version="1.0"?>\n<!-- drawn long ago -->\n${head}\n` +
        `<svg ${inside} width="30" height="20"><rect width="9" height="9"/></svg>`,
    );
  const heads: [head: string, inside: string][] = [
    [
      '<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "svg11.dtd" [\n<!ENTITY here "http://www.w3.org/2000/svg">\n]>',
      'xmlns="&here;"',
    ],
    ['<!DOCTYPE svg [ <!ATTLIST svg xmlns:xlink CDATA #FIXED "http://www.w3.org/1999/xlink"> ]>', own],
    ["<!DOCTYPE svg>", own],
  ];
  for (const [head, inside] of heads)
    expect((await decodePicture(drawn(head, inside), "old.svg")).width, head).toBe(3000);
  const other = decodePicture(Buffer.from("<!DOCTYPE html [ <!ENTITY a 'b'> ]><html><svg/></html>"), "page.svg");
  await expect(other).rejects.toThrow(/not a picture/);
});
