/** Field types of a TIFF directory and their bytes: 16-bit and 32-bit whole numbers, and fractions of two of those. */
const SHORT = 3;
const LONG = 4;
const RATIONAL = 5;
const HEADER_BYTES = 8;
const ENTRY_BYTES = 12;
const RATIONAL_BYTES = 8;

/** Samples in a centimetre are kept as a fraction of this denominator. */
const FINE = 1000;

/**
 * A 16-bit grey picture as an uncompressed TIFF (Aldus, "TIFF Revision 6.0", 1992, section 3: grey-scale images), one
 * strip, little-endian, with how large it really is.
 * @param data samples row by row from the top, 0 black
 * @param cell side of a sample, mm
 */
export function greyTiff(
  { width, height, data }: { width: number; height: number; data: Uint16Array },
  cell: number,
): Uint8Array {
  const fields: [tag: number, type: number, value: number][] = [
    [256, LONG, width],
    [257, LONG, height],
    [258, SHORT, 16], // bits a sample
    [259, SHORT, 1], // not compressed
    [262, SHORT, 1], // 0 is black
    [273, LONG, 0], // where the strip begins: filled in below
    [277, SHORT, 1], // samples a pixel
    [278, LONG, height], // rows in the strip
    [279, LONG, 2 * width * height], // its bytes
    [282, RATIONAL, 0], // samples in a unit, across
    [283, RATIONAL, 1], // … and along
    [296, SHORT, 3], // the unit: a centimetre
  ];
  const fractions = HEADER_BYTES + 2 + ENTRY_BYTES * fields.length + 4;
  const strip = fractions + 2 * RATIONAL_BYTES;
  const out = new Uint8Array(strip + 2 * data.length);
  const view = new DataView(out.buffer);
  view.setUint16(0, 0x4949, true);
  view.setUint16(2, 42, true);
  view.setUint32(4, HEADER_BYTES, true);
  view.setUint16(HEADER_BYTES, fields.length, true);
  fields.forEach(([tag, type, value], i) => {
    const at = HEADER_BYTES + 2 + ENTRY_BYTES * i;
    view.setUint16(at, tag, true);
    view.setUint16(at + 2, type, true);
    view.setUint32(at + 4, 1, true);
    if (tag === 273) view.setUint32(at + 8, strip, true);
    else if (type === RATIONAL) view.setUint32(at + 8, fractions + RATIONAL_BYTES * value, true);
    else if (type === SHORT) view.setUint16(at + 8, value, true);
    else view.setUint32(at + 8, value, true);
  });
  for (const axis of [0, 1]) {
    view.setUint32(fractions + RATIONAL_BYTES * axis, Math.round((10 / cell) * FINE), true);
    view.setUint32(fractions + RATIONAL_BYTES * axis + 4, FINE, true);
  }
  for (let i = 0; i < data.length; i++) view.setUint16(strip + 2 * i, data[i], true);
  return out;
}
