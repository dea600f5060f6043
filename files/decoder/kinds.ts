import { Problem } from "@oaken/core/problem";

/** Largest picture file taken in, bytes. */
export const MAX_BYTES = 80 * 1024 * 1024;

/** How much of a file's beginning tells its kind, bytes. */
export const KIND_BYTES = 4096;

/** Kinds of picture files by their first bytes, so that a wrong ending fools nobody. */
const KINDS: [string, (b: Uint8Array) => boolean][] = [
  ["png", (b) => starts(b, [0x89, 0x50, 0x4e, 0x47])],
  ["jpeg", (b) => starts(b, [0xff, 0xd8, 0xff])],
  ["gif", (b) => ascii(b, 0, "GIF8")],
  ["webp", (b) => ascii(b, 0, "RIFF") && ascii(b, 8, "WEBP")],
  ["avif", (b) => ascii(b, 4, "ftypavi") || ascii(b, 4, "ftypmif1") || ascii(b, 4, "ftypmsf1")],
  ["bmp", (b) => ascii(b, 0, "BM")],
  ["svg", (b) => isSvg(b)],
  ["tiff", (b) => starts(b, [0x49, 0x49, 0x2a, 0]) || starts(b, [0x4d, 0x4d, 0, 0x2a])],
];
const starts = (b: Uint8Array, head: number[]) => head.every((v, i) => b[i] === v);
const ascii = (b: Uint8Array, at: number, text: string) => [...text].every((c, i) => b[at + i] === c.charCodeAt(0));

/** An SVG drawing begins with its element, after an XML head, comments or a document type with its entities. */
const isSvg = (b: Uint8Array) =>
  /^\ufeff?\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*|<!DOCTYPE[^>[]*(\[[\s\S]*?\]\s*)?>\s*)*<svg[\s>]/i.test(
    new TextDecoder().decode(b.subarray(0, KIND_BYTES)),
  );

/**
 * What kind of picture a file is.
 * @param head its first {@link KIND_BYTES} or more
 * @param size of the whole file, bytes
 * @throws Problem `empty-file`, `file-too-large` or `not-a-picture`
 */
export function pictureKind(head: Uint8Array, name: string, size: number): string {
  if (size === 0)
    throw new Problem("empty-file", `${name} is empty. Choose the picture again, or save it anew where it came from.`);
  if (size > MAX_BYTES)
    throw new Problem(
      "file-too-large",
      `${name} has ${Math.round(size / 2 ** 20)} MB; Oaken Bit takes up to ${MAX_BYTES / 2 ** 20} MB. Save it smaller.`,
    );
  const kind = KINDS.find(([, is]) => is(head))?.[0];
  if (!kind)
    throw new Problem(
      "not-a-picture",
      `${name} is not a picture that can be read. Use PNG, JPEG, WebP, AVIF, GIF, BMP, TIFF or SVG.`,
    );
  return kind;
}
