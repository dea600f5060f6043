import { type Column, type Entry, readFigure, sayFigure } from "@oaken/core/shop/column";
import { MM_PER_INCH, parseLength, type Unit } from "@oaken/core/units";

const isLength = (c: Column): boolean => c.unit === "mm" && c.type === "number";

/** Whether it is a number, which stands to the right. */
export const isNumber = (c: Column): boolean => c.type === "number" || c.type === "whole";

const YES_OR_NO = [
  { value: "yes", label: "yes" },
  { value: "no", label: "no" },
];

/** What a figure is chosen from; undefined where it is written. */
export const optionsOf = (c: Column): Column["options"] => (c.type === "switch" ? YES_OR_NO : c.options);

/** Whether a figure means something for an entry. */
export const means = (c: Column, entry: Entry): boolean => !c.when || c.when(entry);

/** The unit behind a figure, lengths in the person's own. */
export const unitOf = (c: Column, unit: Unit): string => (isLength(c) ? unit : (c.unit ?? ""));

const SCALE: Record<Unit, number> = { mm: 1, in: MM_PER_INCH };

/** A figure as a field shows it: lengths in the person's unit, as fine as they are kept, so none changes unseen. */
export function textOf(c: Column, value: unknown, unit: Unit): string {
  if (isLength(c) && typeof value === "number") return String(Math.round((value / SCALE[unit]) * 1e4) / 1e4);
  return sayFigure(c, value);
}

/** A figure as a table shows it: choices by their names. */
export function shownOf(c: Column, entry: Entry, unit: Unit): string {
  if (!means(c, entry)) return "";
  const value = entry[c.key];
  if (c.type === "choice") return c.options!.find((o) => o.value === value)?.label ?? "";
  return textOf(c, value, unit);
}

/** A figure from what was typed: lengths take arithmetic and either unit. @throws Problem */
export function figureFrom(c: Column, text: string, unit: Unit): unknown {
  const plain = text.trim();
  if (!isLength(c) || plain === "") return readFigure(c, plain);
  return readFigure(c, String(parseLength(plain, unit)));
}
