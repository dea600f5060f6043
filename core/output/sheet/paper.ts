import fontkit from "@pdf-lib/fontkit";
import { PDFDocument, type PDFFont, type PDFPage, rgb, type RGB } from "pdf-lib";

/** Font files (TTF or WOFF) by weight; each letter is set in the first that has it. */
export interface Fonts {
  regular: readonly Uint8Array[];
  bold: readonly Uint8Array[];
}

/** A4, upright, in points (1/72 in). */
const SIZE: [number, number] = [595.28, 841.89];
export const MARGIN = 40;
export const WIDE = SIZE[0] - 2 * MARGIN;
const HIGH = SIZE[1] - 2 * MARGIN;

/** Points in a millimetre on paper. */
const LINE_HEIGHT = 1.35;

export const INK = rgb(0.11, 0.137, 0.129);
export const SOFT = rgb(0.333, 0.376, 0.357);
export const LINE = rgb(0.81, 0.835, 0.796);
export const PENCIL = rgb(0.784, 0.251, 0.122);

interface Say {
  size?: number;
  bold?: boolean;
  colour?: RGB;
  /** where the text stands from x on */
  align?: "left" | "right" | "centre";
}

/** A document of pages that fill from the top: y counts down from the page's upper margin, x from its left one. */
export class Paper {
  y = 0;
  private page!: PDFPage;
  private readonly widths = new Map<string, number>();
  private constructor(
    private readonly doc: PDFDocument,
    private readonly fonts: { regular: PDFFont[]; bold: PDFFont[] },
    private readonly has: Map<PDFFont, ReadonlySet<number>>,
  ) {
    this.next();
  }

  static async begin(fonts: Fonts, title: string): Promise<Paper> {
    const doc = await PDFDocument.create();
    doc.registerFontkit(fontkit);
    doc.setTitle(title);
    doc.setCreator("Oaken Bit");
    const embed = (files: readonly Uint8Array[]) => Promise.all(files.map((f) => doc.embedFont(f, { subset: true })));
    const own = { regular: await embed(fonts.regular), bold: await embed(fonts.bold) };
    const has = new Map([...own.regular, ...own.bold].map((f) => [f, new Set(f.getCharacterSet())]));
    return new Paper(doc, own, has);
  }

  next(): void {
    this.page = this.doc.addPage(SIZE);
    this.y = 0;
  }

  /** Makes sure that so much is left on the page; else goes on on the next. @returns whether it did */
  need(height: number): boolean {
    if (this.y + height <= HIGH) return false;
    this.next();
    return true;
  }

  /** Text in runs of letters that one font has; letters that none has become a question mark. */
  private runs(text: string, bold: boolean): { font: PDFFont; text: string }[] {
    const fonts = bold ? this.fonts.bold : this.fonts.regular;
    const out: { font: PDFFont; text: string }[] = [];
    for (const letter of text.normalize("NFC").replace(/\s+/g, " ")) {
      const font = fonts.find((f) => this.has.get(f)!.has(letter.codePointAt(0)!));
      const [of, shown] = [font ?? fonts[0], font ? letter : "?"];
      const last = out[out.length - 1];
      if (last?.font === of) last.text += shown;
      else out.push({ font: of, text: shown });
    }
    return out;
  }

  width(text: string, { size = 9, bold = false }: Say = {}): number {
    const key = `${bold} ${text}`;
    let one = this.widths.get(key);
    if (one === undefined) {
      one = this.runs(text, bold).reduce((sum, r) => sum + r.font.widthOfTextAtSize(r.text, 1), 0);
      this.widths.set(key, one);
    }
    return one * size;
  }

  /** One line of text, its base line at y. */
  text(x: number, y: number, text: string, say: Say = {}): void {
    const { size = 9, bold = false, colour = INK, align = "left" } = say;
    const wide = align === "left" ? 0 : this.width(text, say) * (align === "right" ? 1 : 0.5);
    let at = MARGIN + x - wide;
    for (const run of this.runs(text, bold)) {
      this.page.drawText(run.text, { x: at, y: this.up(y), size, font: run.font, color: colour });
      at += run.font.widthOfTextAtSize(run.text, size);
    }
  }

  /** Text broken into lines of at most `wide` points. */
  wrap(text: string, wide: number, say: Say = {}): string[] {
    const lines: string[] = [];
    let line = "";
    for (const word of text.split(/\s+/)) {
      const longer = line === "" ? word : `${line} ${word}`;
      if (line !== "" && this.width(longer, say) > wide) {
        lines.push(line);
        line = word;
      } else line = longer;
      // A word longer than the line is broken where it must.
      while (this.width(line, say) > wide && line.length > 1) {
        let fits = line.length - 1;
        while (fits > 1 && this.width(line.slice(0, fits), say) > wide) fits--;
        lines.push(line.slice(0, fits));
        line = line.slice(fits);
      }
    }
    return [...lines, line];
  }

  /** Paragraph at x; @returns how high it is */
  paragraph(x: number, y: number, wide: number, text: string, say: Say = {}): number {
    const size = say.size ?? 9;
    const lines = this.wrap(text, wide, say);
    lines.forEach((l, i) => this.text(x, y + size + i * size * LINE_HEIGHT, l, say));
    return lines.length * size * LINE_HEIGHT;
  }

  line(x0: number, y0: number, x1: number, y1: number, colour = LINE, dashed = false, thickness = 0.7): void {
    this.page.drawLine({
      start: { x: MARGIN + x0, y: this.up(y0) },
      end: { x: MARGIN + x1, y: this.up(y1) },
      color: colour,
      thickness,
      ...(dashed && { dashArray: [3, 2] }),
    });
  }

  box(x: number, y: number, wide: number, high: number, how: { fill?: RGB; edge?: RGB; dashed?: boolean } = {}): void {
    this.page.drawRectangle({
      x: MARGIN + x,
      y: this.up(y + high),
      width: wide,
      height: high,
      ...(how.fill && { color: how.fill }),
      ...(how.edge && { borderColor: how.edge, borderWidth: 0.7 }),
      ...(how.dashed && { borderDashArray: [3, 2] }),
    });
  }

  circle(x: number, y: number, radius: number, edge: RGB, fill?: RGB): void {
    this.page.drawCircle({
      x: MARGIN + x,
      y: this.up(y),
      size: radius,
      borderColor: edge,
      borderWidth: 0.9,
      ...(fill && { color: fill }),
    });
  }

  /** A closed outline, its points from (x, y) on, filled. */
  shape(x: number, y: number, points: readonly [number, number][], fill: RGB): void {
    const path = points.map(([px, py], i) => `${i === 0 ? "M" : "L"}${px.toFixed(2)} ${py.toFixed(2)}`).join(" ");
    this.page.drawSvgPath(`${path} Z`, { x: MARGIN + x, y: this.up(y), color: fill });
  }

  /** A PNG scaled to fit a box, in its middle. */
  async picture(png: Uint8Array, x: number, y: number, wide: number, high: number): Promise<void> {
    const image = await this.doc.embedPng(png);
    const k = Math.min(wide / image.width, high / image.height);
    const [w, h] = [image.width * k, image.height * k];
    this.page.drawImage(image, {
      x: MARGIN + x + (wide - w) / 2,
      y: this.up(y + (high + h) / 2),
      width: w,
      height: h,
    });
  }

  private up(y: number): number {
    return SIZE[1] - MARGIN - y;
  }

  /** The finished file; every page with its number. */
  async finish(foot: string): Promise<Uint8Array> {
    const pages = this.doc.getPages();
    pages.forEach((page, i) => {
      this.page = page;
      this.text(0, HIGH + 22, foot, { size: 8, colour: SOFT });
      this.text(WIDE, HIGH + 22, `${i + 1} of ${pages.length}`, { size: 8, colour: SOFT, align: "right" });
    });
    return this.doc.save();
  }
}
