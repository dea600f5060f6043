import type { Column, Entry } from "./column.ts";

const isKind =
  (...kinds: string[]) =>
  (e: Entry) =>
    kinds.includes(e.kind as string);

/** What the rack knows of a cutter, in the order of its table. */
export const cutterColumns: readonly Column[] = [
  {
    key: "kind",
    label: "Kind",
    type: "choice",
    options: [
      { value: "flat", label: "flat" },
      { value: "ball", label: "ball" },
      { value: "v", label: "V" },
      { value: "taper", label: "tapered ball" },
      { value: "drill", label: "drill" },
      { value: "form", label: "form, by points" },
      { value: "torch", label: "torch" },
    ],
  },
  {
    key: "diameter",
    label: "Diameter",
    type: "number",
    unit: "mm",
    least: 0,
    above: true,
    most: 200,
    help: "At its widest; of a torch, the width of its kerf; of a form, twice its outermost point's radius.",
  },
  {
    key: "angle",
    label: "Angle",
    type: "number",
    unit: "°",
    least: 1,
    most: 179,
    optional: true,
    when: isKind("v", "drill"),
    help: "Included angle of a V, point angle of a drill.",
  },
  {
    key: "tip",
    label: "Flat tip",
    type: "number",
    more: true,
    unit: "mm",
    least: 0,
    most: 50,
    optional: true,
    when: isKind("v"),
    help: "Width of the flat at a V's point; 0 when it is sharp.",
  },
  {
    key: "tipRadius",
    label: "Tip radius",
    type: "number",
    more: true,
    unit: "mm",
    least: 0,
    above: true,
    most: 100,
    optional: true,
    when: isKind("taper"),
  },
  {
    key: "halfAngle",
    label: "Half angle",
    type: "number",
    more: true,
    unit: "°",
    least: 0,
    above: true,
    most: 85,
    optional: true,
    when: isKind("taper"),
    help: "From the axis to the flank.",
  },
  {
    key: "edge",
    label: "Edge",
    type: "rows",
    more: true,
    optional: true,
    when: isKind("form"),
    parts: [
      { key: "radius", label: "Radius", type: "number", unit: "mm", least: 0, most: 100 },
      { key: "height", label: "Height", type: "number", unit: "mm", least: 0, most: 200 },
    ],
    help:
      "Points along half of its edge, from the tip to the rim: how far each lies from the axis, and how far above " +
      "the tip. Between them the edge is straight.",
  },
  { key: "flutes", label: "Flutes", type: "whole", least: 1, most: 12 },
  {
    key: "fluteLength",
    label: "Cutting length",
    type: "number",
    unit: "mm",
    least: 0,
    above: true,
    most: 1000,
    help: "How deep its flutes cut.",
  },
  {
    key: "reach",
    label: "Reach",
    type: "number",
    unit: "mm",
    least: 0,
    above: true,
    most: 1000,
    optional: true,
    more: true,
    help: "How far it stands out below its shank or holder: longer bends more. As far as it cuts when left empty.",
  },
  {
    key: "shank",
    label: "Shank",
    type: "number",
    unit: "mm",
    least: 0,
    above: true,
    most: 200,
    optional: true,
    more: true,
  },
  {
    key: "spiral",
    label: "Spiral",
    type: "choice",
    optional: true,
    more: true,
    options: [
      { value: "up", label: "up-cut" },
      { value: "down", label: "down-cut" },
      { value: "compression", label: "compression" },
      { value: "straight", label: "straight" },
    ],
    help: "Up-cut lifts chips out and lifts the edge with them; down-cut leaves a clean top edge.",
  },
  {
    key: "centreCutting",
    label: "Cuts at centre",
    type: "switch",
    help: "It may go straight down. One that does not sinks along a ramp or helix only.",
  },
  {
    key: "owned",
    label: "Owned",
    type: "whole",
    least: 0,
    most: 10000,
    optional: true,
    help: "How many there are. One of which there are none is never chosen by itself.",
  },
  { key: "note", label: "Note", type: "text", optional: true, help: "Coating, wear: whatever is worth remembering." },
];

/** Figures that a kind of cutter needs, as they usually are. */
const USUAL: Record<string, Record<string, number>> = {
  v: { angle: 60, tip: 0 },
  drill: { angle: 118 },
  taper: { tipRadius: 0.5, halfAngle: 5 },
};

/** A cutter whose kind may have changed: what means nothing for it is left out, what it needs is as usual. */
export function suitedCutter(entry: Entry): Entry {
  const out: Entry = { ...entry };
  for (const c of cutterColumns) if (c.when && !c.when(out)) delete out[c.key];
  for (const [key, value] of Object.entries(USUAL[String(out.kind)] ?? {})) out[key] ??= value;
  if (out.kind === "form") suitEdge(out);
  return out;
}

/** A form cutter is as wide as its edge says; without points its edge is a straight bevel. */
function suitEdge(form: Entry): void {
  const radius = Number(form.diameter) / 2;
  const edge = (form.edge ??= [
    [0, 0],
    [radius, radius],
  ]) as number[][];
  form.diameter = 2 * edge[edge.length - 1][0];
}
