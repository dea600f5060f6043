import { Problem } from "../problem.ts";
import { parseLength } from "../units.ts";
import { angleFrom, checkCutter, type Cutter, shoulderOf } from "./profile.ts";

/** A copy of the cutter with this id. @throws Problem `unknown-cutter` */
export function cutterIn(rack: readonly Cutter[], id: string): Cutter {
  const found = rack.find((c) => c.id === id);
  if (!found) {
    const known = rack.length > 0 ? ` Known: ${rack.map((c) => c.id).join(", ")}; or describe` : " Describe";
    throw new Problem("unknown-cutter", `No cutter "${id}" in the rack.${known} one, such as flat:3 or v:60:12.`);
  }
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
export const FORMS =
  "flat:D, ball:D, v:ANGLE:D[:TIP] or v:SHOULDERmm:D[:TIP], taper:TIPRADIUS:HALFANGLE:D, drill:D[:ANGLE], " +
  "form:RADIUS/HEIGHT:RADIUS/HEIGHT… or torch:KERF";
/** A length says its unit where an angle might stand: how far it is from a V's tip to its shoulder. */
const HAS_UNIT = /(mm|cm|in|")$/;

/**
 * A cutter from `flat:D`, `ball:D`, `v:ANGLE:D[:TIP]` (or, for its angle, how far it is from tip to shoulder, with a
 * unit), `taper:TIPRADIUS:HALFANGLE:D`, `drill:D[:ANGLE]`, `form:RADIUS/HEIGHT:…` (points of its edge, from its tip
 * to its rim), `torch:KERF`, or the id of one in the rack. Lengths in mm or with a unit.
 * @throws Problem `bad-cutter` or `unknown-cutter`
 */
export function parseCutter(spec: string, rack: readonly Cutter[] = []): Cutter {
  const [kind, ...rest] = spec.split(":");
  if (rest.length === 0) return cutterIn(rack, kind);
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
    const diameter = length(rest[1]);
    const tip = rest[2] === undefined ? 0 : length(rest[2]);
    const isMeasured = HAS_UNIT.test(rest[0]);
    const a = isMeasured ? angleFrom({ diameter, tip }, length(rest[0])) : angle(rest[0]);
    cutter = { kind, angle: a, diameter, tip, fluteLength: shoulderOf({ diameter, tip, angle: a }), ...base };
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
  } else if (kind === "form") {
    const edge = rest.map((point) => point.split("/").map(length));
    const [radius = 0, high = 0] = edge[edge.length - 1];
    if (edge.some((point) => point.length !== 2))
      throw new Problem(
        "bad-cutter",
        `"${spec}": each point of its edge is RADIUS/HEIGHT, such as form:0/0:2/0.5:6/4.`,
      );
    cutter = { kind, edge, diameter: 2 * radius, fluteLength: high, ...base };
  } else if (kind === "torch")
    cutter = { kind, diameter: length(rest[0]), flutes: 1, fluteLength: USUAL_TORCH_REACH, centreCutting: true };
  else throw new Problem("bad-cutter", `"${spec}" is not a cutter. Write ${FORMS}, or a rack id.`);
  checkCutter(cutter);
  return cutter;
}
