import type { Machine } from "../cutters/machine.ts";
import type { Material } from "../cutters/materials.ts";

/** What entries of the shop look like where they cross a boundary. Numbers beyond these limits are slips of the pen. */

const id = { type: "string", minLength: 1, maxLength: 60 };
const name = { type: "string", maxLength: 200 };
const positive = { type: "number", exclusiveMinimum: 0 };
const upTo = (maximum: number) => ({ ...positive, maximum });

export const cutterSchema = {
  type: "object",
  required: ["kind", "diameter", "flutes", "fluteLength", "centreCutting"],
  additionalProperties: false,
  properties: {
    kind: { enum: ["flat", "ball", "v", "taper", "drill", "torch"] },
    diameter: upTo(200),
    angle: { type: "number", minimum: 1, maximum: 179 },
    tip: { type: "number", minimum: 0, maximum: 50 },
    tipRadius: upTo(100),
    halfAngle: upTo(85),
    flutes: { type: "integer", minimum: 1, maximum: 12 },
    fluteLength: upTo(1000),
    centreCutting: { type: "boolean" },
    name,
    id,
  },
};

/** The most that any machine does, in the units of {@link Machine}. */
const machineMost = {
  spindleLeast: 200_000,
  spindleMost: 200_000,
  power: 100_000,
  feedMost: 100_000,
  plungeMost: 100_000,
  rapid: 200_000,
  rapidZ: 200_000,
  acceleration: 100_000,
  accelerationZ: 100_000,
  junction: 10,
} satisfies Partial<Machine>;
const seconds = { type: "number", minimum: 0, maximum: 86_400 };

export const machineSchema = {
  type: "object",
  required: ["id", "name", ...Object.keys(machineMost), "spindleStart", "toolChange"],
  additionalProperties: false,
  properties: {
    id,
    name,
    ...Object.fromEntries(Object.entries(machineMost).map(([k, maximum]) => [k, upTo(maximum)])),
    spindleStart: seconds,
    toolChange: seconds,
  },
};

const colour = { type: "array", minItems: 3, maxItems: 3, items: { type: "number", minimum: 0, maximum: 255 } };

/** The most that any material bears, in the units of {@link Material}. */
const materialMost = {
  chipPerDiameter: 1,
  chipMost: 10,
  stepdown: 20,
  stepover: 1,
  surfaceSpeed: 10_000,
  specificEnergy: 1000,
} satisfies Partial<Material>;

export const materialSchema = {
  type: "object",
  required: ["id", "name", "family", ...Object.keys(materialMost), "face", "cut", "grain"],
  additionalProperties: false,
  properties: {
    id,
    name,
    family: { enum: ["softwood", "hardwood", "sheet", "plastic", "soft metal", "steel"] },
    ...Object.fromEntries(Object.entries(materialMost).map(([k, maximum]) => [k, upTo(maximum)])),
    face: colour,
    cut: colour,
    grain: { type: "number", minimum: 0, maximum: 1 },
    lambda: upTo(50),
    plasma: upTo(100),
  },
};

/** What a program may hold: printable ASCII, since controllers know nothing else. */
const code = { type: "string", maxLength: 200, pattern: "^[ -~]*$" };

export const dialectSchema = {
  type: "object",
  required: ["id", "name", "unit", "decimals", "files", "arcs", "extension", "dwell", "torchOn", "torchOff"],
  additionalProperties: false,
  properties: {
    id,
    name,
    unit: { enum: ["mm", "in"] },
    decimals: { type: "integer", minimum: 0, maximum: 6 },
    files: { enum: ["cutter", "all"] },
    arcs: { type: "boolean" },
    extension: { type: "string", pattern: "^[a-z0-9]{1,8}$" },
    dwell: seconds,
    torchOn: code,
    torchOff: code,
  },
};
