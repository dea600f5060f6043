import { Problem } from "../problem.ts";
import { parseLength } from "../units.ts";
import { checkCutter, type Cutter } from "./profile.ts";

/** The cutters a new workshop starts with. */
export const RACK: readonly Cutter[] = [
  {
    id: "v60",
    name: "V 60° sign cutter",
    kind: "v",
    angle: 60,
    diameter: 12,
    tip: 0,
    flutes: 2,
    fluteLength: 10.4,
    centreCutting: true,
  },
  {
    id: "v90",
    name: "V 90° chamfer cutter",
    kind: "v",
    angle: 90,
    diameter: 16,
    tip: 0,
    flutes: 2,
    fluteLength: 8,
    centreCutting: true,
  },
  {
    id: "v30",
    name: "V 30° fine cutter",
    kind: "v",
    angle: 30,
    diameter: 6,
    tip: 0.2,
    flutes: 1,
    fluteLength: 10.8,
    centreCutting: true,
  },
  { id: "flat2", name: "Flat 2 mm", kind: "flat", diameter: 2, flutes: 2, fluteLength: 8, centreCutting: true },
  { id: "flat3", name: "Flat 3 mm", kind: "flat", diameter: 3, flutes: 2, fluteLength: 12, centreCutting: true },
  { id: "flat6", name: "Flat 6 mm", kind: "flat", diameter: 6, flutes: 2, fluteLength: 22, centreCutting: true },
  { id: "ball3", name: "Ball 3 mm", kind: "ball", diameter: 3, flutes: 2, fluteLength: 12, centreCutting: true },
  {
    id: "taper05",
    name: "Tapered ball R0.5",
    kind: "taper",
    tipRadius: 0.5,
    halfAngle: 5,
    diameter: 6,
    flutes: 2,
    fluteLength: 28,
    centreCutting: true,
  },
  { id: "flat10", name: "Flat 10 mm", kind: "flat", diameter: 10, flutes: 2, fluteLength: 30, centreCutting: false },
  {
    id: "point20",
    name: "Engraving point 20°",
    kind: "v",
    angle: 20,
    diameter: 3,
    tip: 0.1,
    flutes: 1,
    fluteLength: 8.2,
    centreCutting: true,
  },
  {
    id: "drill3",
    name: "Drill 3 mm",
    kind: "drill",
    diameter: 3,
    angle: 118,
    flutes: 2,
    fluteLength: 33,
    centreCutting: true,
  },
  {
    id: "drill5",
    name: "Drill 5 mm",
    kind: "drill",
    diameter: 5,
    angle: 118,
    flutes: 2,
    fluteLength: 52,
    centreCutting: true,
  },
  { id: "torch15", name: "Torch, 45 A", kind: "torch", diameter: 1.5, flutes: 1, fluteLength: 25, centreCutting: true },
];

/** @throws Problem `unknown-cutter` */
export function cutterFromRack(id: string): Cutter {
  const found = RACK.find((c) => c.id === id);
  if (!found)
    throw new Problem(
      "unknown-cutter",
      `No cutter "${id}" in the rack. Known: ${RACK.map((c) => c.id).join(", ")}; or describe one, such as ` +
        "flat:3 or v:60:12.",
    );
  return { ...found };
}

/** Flutes cut this many diameters deep when nothing else is said of a flat or ball cutter. */
const USUAL_FLUTE_DIAMETERS = 4;
const USUAL_DRILL_DIAMETERS = 10;
/** Point angle of a general-purpose twist drill (DIN 1414 type N), degrees. */
const USUAL_POINT = 118;
/** Thickest sheet a torch is taken to cut when nothing else is said, mm. */
const USUAL_TORCH_REACH = 25;

/** How a cutter is described by its numbers. */
export const FORMS = "flat:D, ball:D, v:ANGLE:D[:TIP], taper:TIPRADIUS:HALFANGLE:D, drill:D[:ANGLE] or torch:KERF";

/**
 * A cutter from `flat:D`, `ball:D`, `v:ANGLE:D[:TIP]`, `taper:TIPRADIUS:HALFANGLE:D`, `drill:D[:ANGLE]`, `torch:KERF`,
 * or a rack id. Lengths in mm or with a unit.
 * @throws Problem `bad-cutter` or `unknown-cutter`
 */
export function parseCutter(spec: string): Cutter {
  const [kind, ...rest] = spec.split(":");
  if (rest.length === 0) return cutterFromRack(kind);
  const angle = (text: string | undefined): number => {
    const v = Number((text ?? "").replace(/°|deg$/, ""));
    if (!Number.isFinite(v)) throw new Problem("bad-cutter", `"${spec}": "${text}" is not an angle in degrees.`);
    return v;
  };
  const length = (text: string | undefined): number => {
    if (text === undefined || text === "")
      throw new Problem("bad-cutter", `"${spec}" misses a length. Write ${FORMS}.`);
    return parseLength(text);
  };
  const base = { flutes: 2, centreCutting: true };
  let cutter: Cutter;
  if (kind === "flat" || kind === "ball") {
    const diameter = length(rest[0]);
    cutter = { kind, diameter, fluteLength: USUAL_FLUTE_DIAMETERS * diameter, ...base };
  } else if (kind === "v") {
    const a = angle(rest[0]);
    const diameter = length(rest[1]);
    const tip = rest[2] === undefined ? 0 : length(rest[2]);
    cutter = {
      kind,
      angle: a,
      diameter,
      tip,
      fluteLength: (diameter - tip) / 2 / Math.tan((a * Math.PI) / 360),
      ...base,
    };
  } else if (kind === "taper") {
    const tipRadius = length(rest[0]);
    const halfAngle = angle(rest[1]);
    const diameter = length(rest[2]);
    cutter = {
      kind,
      tipRadius,
      halfAngle,
      diameter,
      fluteLength: (diameter / 2 - tipRadius) / Math.tan((halfAngle * Math.PI) / 180) + tipRadius,
      ...base,
    };
  } else if (kind === "drill") {
    const diameter = length(rest[0]);
    cutter = {
      kind,
      diameter,
      angle: rest[1] === undefined ? USUAL_POINT : angle(rest[1]),
      fluteLength: USUAL_DRILL_DIAMETERS * diameter,
      ...base,
    };
  } else if (kind === "torch")
    cutter = { kind, diameter: length(rest[0]), flutes: 1, fluteLength: USUAL_TORCH_REACH, centreCutting: true };
  else throw new Problem("bad-cutter", `"${spec}" is not a cutter. Write ${FORMS}, or a rack id.`);
  checkCutter(cutter);
  return cutter;
}
