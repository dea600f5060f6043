import type { Column } from "./column.ts";

const MAYBE = { more: true, optional: true } as const;

/** What the shop knows of a dialect, in the order of its table. */
export const dialectColumns: readonly Column[] = [
  {
    key: "unit",
    label: "Unit",
    type: "choice",
    options: [
      { value: "mm", label: "mm" },
      { value: "in", label: "inch" },
    ],
  },
  { key: "decimals", label: "Decimals", type: "whole", least: 0, most: 6, help: "Digits after the point." },
  {
    key: "files",
    label: "Files",
    type: "choice",
    options: [
      { value: "cutter", label: "one a cutter" },
      { value: "all", label: "one with changes" },
    ],
  },
  { key: "arcs", label: "Arcs", type: "switch", help: "G2 and G3; without them curves are short lines." },
  {
    key: "arcForm",
    label: "Arcs by",
    type: "choice",
    ...MAYBE,
    options: [
      { value: "centre", label: "centre, I and J" },
      { value: "radius", label: "radius, R" },
    ],
    when: (e) => e.arcs === true,
  },
  {
    key: "change",
    label: "Cutter change",
    type: "choice",
    ...MAYBE,
    options: [
      { value: "tool", label: "T and M6" },
      { value: "pause", label: "pause with a message" },
    ],
    when: (e) => e.files === "all",
  },
  {
    key: "extension",
    label: "Extension",
    type: "text",
    pattern: { regex: "^[a-z0-9]{1,8}$", says: "write up to eight small letters or digits, such as nc." },
    help: "Of the files' names, such as nc.",
  },
  { key: "dwell", label: "Spindle wait", type: "number", unit: "s", least: 0, most: 86_400, help: "After it starts." },
  { key: "torchOn", label: "Torch on", type: "code", more: true },
  { key: "torchOff", label: "Torch off", type: "code", more: true },
  {
    key: "comments",
    label: "Comments",
    type: "choice",
    ...MAYBE,
    options: [
      { value: "round", label: "in round brackets" },
      { value: "semicolon", label: "after a semicolon" },
      { value: "none", label: "none" },
    ],
  },
  {
    key: "numbers",
    label: "Line numbers",
    type: "whole",
    least: 1,
    most: 1000,
    ...MAYBE,
    help: "The step between them.",
  },
  {
    key: "begin",
    lines: true,
    label: "Begin block",
    type: "code",
    ...MAYBE,
    help: "Lines after the modes at the top.",
  },
  {
    key: "end",
    lines: true,
    label: "End block",
    type: "code",
    ...MAYBE,
    help: "Lines that end a program; M5 and M30 when empty.",
  },
  {
    key: "mostLines",
    label: "Longest file",
    type: "whole",
    unit: "lines",
    least: 50,
    most: 100_000_000,
    ...MAYBE,
    help: "Longer programs go on in another file, from a lift.",
  },
];
