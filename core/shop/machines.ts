import { PACES } from "../cutters/machine.ts";
import { MM_PER_INCH } from "../units.ts";
import type { Column } from "./column.ts";

/** Feeds beyond these are slips of the pen, mm/min. */
const MOST_FEED = 100_000;
const MOST_RAPID = 200_000;
const MOST_SPINDLE = 200_000;
/** Longer than any machine's bed: a hundred feet, mm. */
const MOST_TRAVEL = Math.round(1200 * MM_PER_INCH);

const above0 = (key: string, label: string, unit: string, most: number, more: Partial<Column> = {}): Column => ({
  key,
  label,
  type: "number",
  unit,
  least: 0,
  above: true,
  most,
  ...more,
});
const MORE = { more: true } as const;
const MAYBE = { more: true, optional: true } as const;

/** What the shop knows of a machine, in the order of its table. */
export const machineColumns: readonly Column[] = [
  above0("travelX", "Travel X", "mm", MOST_TRAVEL, { optional: true, help: "How far it reaches from left to right." }),
  above0("travelY", "Travel Y", "mm", MOST_TRAVEL, { optional: true, help: "… from front to back." }),
  above0("travelZ", "Travel Z", "mm", MOST_TRAVEL, { optional: true, help: "… from its lowest to its highest." }),
  above0("spindleLeast", "Slowest spindle", "/min", MOST_SPINDLE),
  above0("spindleMost", "Fastest spindle", "/min", MOST_SPINDLE),
  above0("power", "Power", "W", 100_000, { help: "At the cutter: about three quarters of what is on the plate." }),
  {
    key: "powerBySpeed",
    label: "Power by speed",
    type: "rows",
    parts: [above0("speed", "Speed", "/min", MOST_SPINDLE), above0("power", "Power", "W", 100_000)],
    ...MAYBE,
    help: "Where a spindle has less power when it turns slowly: a row for each speed; those between lie between.",
  },
  above0("feedMost", "Largest feed", "mm/min", MOST_FEED),
  above0("plungeMost", "Largest plunge", "mm/min", MOST_FEED, { help: "Straight down." }),
  above0("rapid", "Rapid", "mm/min", MOST_RAPID),
  above0("rapidZ", "Rapid Z", "mm/min", MOST_RAPID, MORE),
  above0("acceleration", "Acceleration", "mm/s²", 100_000, MORE),
  above0("accelerationZ", "Acceleration Z", "mm/s²", 100_000, MORE),
  above0("junction", "Corner deviation", "mm", 10, {
    more: true,
    help: "How far the controller may cut a corner: its speed through corners is worked out from that.",
  }),
  {
    key: "spindleSteps",
    label: "Spindle's steps",
    type: "numbers",
    unit: "/min",
    least: 0,
    above: true,
    most: MOST_SPINDLE,
    ...MAYBE,
    help: "The only speeds that it has, rising; empty where any is possible.",
  },
  { key: "spindleStart", label: "Spindle start", type: "number", unit: "s", least: 0, most: 86_400, ...MORE },
  { key: "toolChange", label: "Cutter change", type: "number", unit: "s", least: 0, most: 86_400, ...MORE },
  {
    key: "zero",
    label: "Usual zero",
    type: "text",
    pattern: {
      regex: "^(front|centre|back)-(left|centre|right)-(top|bed)$",
      says: "write where it is from front to back, from left to right, and top or bed, such as front-left-top.",
    },
    ...MAYBE,
    help: "Where the work zero is usually set, such as front-left-top.",
  },
  { key: "dialect", label: "Dialect", type: "text", ...MAYBE, help: "Id of the dialect that it reads." },
  { key: "mostLines", label: "Longest program", type: "whole", unit: "lines", least: 1, most: 100_000_000, ...MAYBE },
  { key: "mostLetters", label: "Longest file name", type: "whole", unit: "letters", least: 1, most: 255, ...MAYBE },
  above0("slatGap", "Between slats", "mm", 1000, {
    ...MAYBE,
    help: "Of a torch's table: how far apart the slats lie. Smaller pieces drop between them.",
  }),
  {
    key: "paces",
    label: "Pace by material",
    type: "text",
    pattern: { regex: PACES, says: "write materials' ids with a pace each, such as ash 1.2; mdf 0.9." },
    ...MAYBE,
    help: "How much faster or gentler than usual it cuts a material, by the material's id: ash 1.2; mdf 0.9.",
  },
  { key: "note", label: "Note", type: "text", ...MAYBE },
];
