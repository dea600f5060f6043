import type { Reasoned } from "../reasoned.ts";
import { formatLength } from "../units.ts";
import type { Cutter } from "./profile.ts";
import { profileOf } from "./profile.ts";
import type { Material } from "./materials.ts";

/** What the machine can do; a copy lives in every job. Speeds in mm/min and 1/min, acceleration in mm/s². */
export interface Machine {
  id: string;
  name: string;
  spindleLeast: number;
  spindleMost: number;
  /** power at the cutter, W */
  power: number;
  feedMost: number;
  plungeMost: number;
  rapid: number;
  rapidZ: number;
  acceleration: number;
  accelerationZ: number;
  /** path deviation that corner speed may be computed from, mm (junction deviation) */
  junction: number;
  /** seconds from standstill to speed */
  spindleStart: number;
  toolChange: number;
}

export interface Feeds {
  /** diameter the cutter works at, mm: its own, or a pointed cutter's width at depth */
  workingDiameter: number;
  spindle: Reasoned;
  feed: Reasoned;
  plunge: Reasoned;
  stepdown: Reasoned;
}

/** Cutters below this working width would need speeds that no spindle has; feeds are figured as if this wide. mm */
const LEAST_WORKING = 1;
const round = (v: number, to: number): number => Math.max(to, Math.round(v / to) * to);

/**
 * Spindle speed, feed and plunge for a cutter at a depth and sideways engagement.
 *
 * speed = surface speed / (π·D), within the spindle's range; feed = speed × flutes × chip load; thin engagement
 * (a_e < D/2) thins the chip by 2·√(a_e/D·(1 − a_e/D)) (Machinery's Handbook, radial chip thinning), at most
 * doubled here; limited by the machine's feed and by power = removal rate × specific cutting energy.
 *
 * @param depth of one pass, mm
 * @param engagement sideways, mm
 */
export function feedsFor(
  cutter: Cutter,
  material: Material,
  machine: Machine,
  depth: number,
  engagement: number,
): Feeds {
  const p = profileOf(cutter);
  // A point works at its width halfway down the cut: that is where its mean chip is made.
  const working =
    cutter.kind === "flat" ? cutter.diameter : Math.max(LEAST_WORKING, Math.min(cutter.diameter, 2 * p.r(depth / 2)));
  const wanted = (material.surfaceSpeed * 1000) / (Math.PI * working);
  const spindle = round(Math.max(machine.spindleLeast, Math.min(machine.spindleMost, wanted)), 100);
  const spindleReason =
    wanted > machine.spindleMost
      ? `${material.surfaceSpeed} m/min at ${formatLength(working)} mm wide would need ` +
        `${Math.round(wanted / 100) * 100}; this spindle's most`
      : `${material.surfaceSpeed} m/min in ${material.name.toLowerCase()} at ${formatLength(working)} mm wide`;

  const chip = Math.min(material.chipMost, material.chipPerDiameter * working);
  const share = Math.max(0.02, Math.min(1, engagement / working));
  const thinning = share < 0.5 ? Math.min(2, 1 / (2 * Math.sqrt(share * (1 - share)))) : 1;
  let feed = spindle * cutter.flutes * chip * thinning;
  let reason =
    `${formatLength(chip, "mm", 4)} mm chip × ${cutter.flutes} ${cutter.flutes === 1 ? "flute" : "flutes"} × ` +
    `${spindle}/min${thinning > 1.01 ? ` × ${thinning.toFixed(2)} for thin chips` : ""}`;
  if (feed > machine.feedMost) {
    feed = machine.feedMost;
    reason += `; held to the machine's most`;
  }
  const area = Math.max(1e-6, Math.min(engagement, working) * depth);
  const byPower = (machine.power / material.specificEnergy / area) * 60;
  if (feed > byPower) {
    feed = byPower;
    reason += `; held by ${machine.power} W`;
  }
  feed = round(feed, 10);
  const plungeShare = material.family === "soft metal" || material.family === "steel" ? 0.2 : 1 / 3;
  const plunge = round(Math.min(machine.plungeMost, feed * plungeShare), 10);
  const stepdown = Math.max(
    0.05,
    Math.round(Math.min(cutter.fluteLength, material.stepdown * cutter.diameter) * 100) / 100,
  );
  return {
    workingDiameter: working,
    spindle: { value: spindle, reason: spindleReason },
    feed: { value: feed, reason },
    plunge: {
      value: plunge,
      reason:
        `${plungeShare === 0.2 ? "a fifth" : "a third"} of the ` +
        `feed${plunge === machine.plungeMost ? "; held to the machine's most" : ""}`,
    },
    stepdown: {
      value: stepdown,
      reason: `${material.stepdown} × ${formatLength(cutter.diameter)} mm in ${material.name.toLowerCase()}`,
    },
  };
}
