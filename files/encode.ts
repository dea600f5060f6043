import sharp from "sharp";

/** RGBA samples as a PNG. */
export const encodePng = (data: Uint8ClampedArray | Uint8Array, width: number, height: number): Promise<Buffer> =>
  sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();

/** 16-bit grey samples as a PNG that keeps all 16 bits. */
export const encodeGrey16 = (data: Uint16Array, width: number, height: number): Promise<Buffer> =>
  sharp(data, { raw: { width, height, channels: 1 } })
    .toColourspace("grey16")
    .png()
    .toBuffer();
