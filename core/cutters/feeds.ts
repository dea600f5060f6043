import type { Reasoned } from "../reasoned.ts";
import { formatLength } from "../units.ts";
import { bendPerNewton, MOST_BEND, toothForce } from "./bending.ts";
import { type Machine, powerAt, spindleSpeed } from "./machine.ts";
import type { Material } from "./materials.ts";
import type { Cutter } from "./profile.ts";
import { profileOf } from "./profile.ts";

/** Who cuts what on which machine. */
export interface Tooling {
  cutter: Cutter;
  material: Material;
  machine: Machine;
}

/** What a cutter takes at once, mm: how deep one pass is, and how wide sideways. */
export interface Bite {
  depth: number;
  width: number;
}

/** The thickest chip that a tooth takes, and between which it cuts well, mm. */
export interface Chip {
  value: number;
  /** a thinner one rubs, which heats and dulls */
  rubs: number;
  usual: number;
  /** a thicker one breaks teeth or bends the cutter too far */
  breaks: number;
}

export interface Feeds {
  /** diameter the cutter works at, mm: its own, or a pointed cutter's width at depth */
  workingDiameter: number;
  chip: Chip;
  spindle: Reasoned;
  feed: Reasoned;
  plunge: Reasoned;
}

/** Cutters below this working width would need speeds that no spindle has; feeds are figured as if this wide. mm */
const LEAST_WORKING = 1;
/** Shares of the usual chip at which a tooth rubs, and at which it is likely to break: usual practice. */
const RUBS = 0.35;
const BREAKS = 1.8;

const round = (v: number, to: number): number => Math.max(to, Math.round(v / to) * to);
/** Feeds are told to this, mm/min; slow ones to half of it, so that the chip stays what it is. */
const FEED_STEP = 10;
const SLOW = 200;
const roundFeed = (v: number): number => round(v, v < SLOW ? FEED_STEP / 2 : FEED_STEP);

/** The body of a point holds its tip: it takes the chip of a cutter at least this share of its diameter wide. */
const HELD_BY_BODY = 1 / 3;

/** The width that a cutter works at, mm: of a point or a ball the one at depth, where its fastest tooth cuts. */
function workingWidth(cutter: Cutter, depth: number): number {
  if (cutter.kind === "flat" || cutter.kind === "drill") return cutter.diameter;
  return Math.max(LEAST_WORKING, Math.min(cutter.diameter, 2 * profileOf(cutter).r(depth)));
}

/**
 * How much faster a cutter may go that engages sideways with less than its radius: its chip is thinner than the feed a
 * tooth by 2·√(a_e/D·(1 − a_e/D)) (Machinery's Handbook, radial chip thinning). At most doubled here.
 */
function thinningAt(width: number, working: number): number {
  const share = Math.max(0.02, Math.min(1, width / working));
  return share < 0.5 ? Math.min(2, 1 / (2 * Math.sqrt(share * (1 - share)))) : 1;
}

/** The chip that a tooth may take before the cutter bends too far, mm. */
const bendingChip = ({ cutter, material }: Tooling, depth: number): number =>
  MOST_BEND / (bendPerNewton(cutter) * toothForce(material, 1, Math.min(depth, cutter.fluteLength)));

/**
 * Spindle speed, feed and plunge for what a cutter takes at once.
 *
 * speed = surface speed / (π·D), as the spindle has it; feed = speed × flutes × chip × thinning (see above), where
 * the chip is the material's for that width (of a point at least {@link HELD_BY_BODY} of its body), thinner where the
 * cutter would bend by more than {@link MOST_BEND}. Held by power (at that speed) = removal rate × specific cutting
 * energy and by the machine's largest feed; where that one holds, the spindle slows with it, so that the chip stays
 * thick enough to carry the heat away.
 *
 * @param dial what a person set: times the usual chip (1 as it comes, more is faster), and the spindle speed, 1/min
 */
export function feedsFor(tooling: Tooling, bite: Bite, dial: { pace?: number; spindle?: number } = {}): Feeds {
  const { cutter, material, machine } = tooling;
  const working = workingWidth(cutter, bite.depth);
  const wanted = (material.surfaceSpeed * 1000) / (Math.PI * working);
  const pace = dial.pace ?? 1;
  let spindle = dial.spindle ?? spindleSpeed(machine, wanted);
  const wide = `${formatLength(working)} mm wide`;
  let spindleReason = `${material.surfaceSpeed} m/min in ${material.name.toLowerCase()} at ${wide}`;
  if (spindle < 0.95 * wanted)
    spindleReason =
      `${material.surfaceSpeed} m/min at ${wide} would need ${round(wanted, 100)}; ` +
      (machine.spindleSteps ? "the step below" : "this spindle's most");

  const isPoint = cutter.kind === "v" || cutter.kind === "taper" || cutter.kind === "form";
  const held = isPoint ? Math.max(working, HELD_BY_BODY * cutter.diameter) : working;
  const usual = Math.min(material.chipMost, material.chipPerDiameter * held);
  const bends = Math.max(RUBS * usual, bendingChip(tooling, bite.depth));
  const chip = Math.min(pace * usual, bends);
  const thinning = thinningAt(bite.width, working);
  let feed = spindle * cutter.flutes * chip * thinning;
  const flutes = `${cutter.flutes} ${cutter.flutes === 1 ? "flute" : "flutes"}`;
  const slows: string[] = [];
  if (chip < 0.999 * pace * usual) slows.push(`chip held so that the cutter bends no more than ${MOST_BEND} mm`);

  const area = Math.max(1e-6, Math.min(bite.width, working) * bite.depth);
  const holdByPower = () => {
    const power = powerAt(machine, spindle);
    const byPower = (power / material.specificEnergy / area) * 60;
    if (feed <= byPower) return;
    feed = byPower;
    slows.push(`held by ${Math.round(power)} W${machine.powerBySpeed ? ` at ${spindle}/min` : ""}`);
  };
  holdByPower();
  const said = `${formatLength(chip, "mm", 4)} mm chip × ${flutes} × `;
  let reason = `${said}${spindle}/min`;
  if (feed > machine.feedMost) {
    const slower = dial.spindle ?? spindleSpeed(machine, (spindle * machine.feedMost) / feed);
    const turning = slower < spindle ? ", the spindle slowed with it" : "";
    slows.push(`held to the machine's most${turning}`);
    if (slower < spindle) {
      spindleReason = `slowed from ${spindle}, so that the chip stays as thick at the machine's largest feed`;
      spindle = slower;
    }
    feed = machine.feedMost;
    // Slower it may have less power.
    holdByPower();
    reason = `${said}${spindle}/min`;
  }
  if (thinning > 1.01) reason += ` × ${thinning.toFixed(2)} for thin chips`;
  feed = roundFeed(feed);
  return {
    workingDiameter: working,
    chip: {
      value: feed / (spindle * cutter.flutes * thinning),
      rubs: RUBS * usual,
      usual,
      breaks: Math.max(usual, Math.min(BREAKS * usual, bends)),
    },
    spindle: { value: spindle, reason: spindleReason },
    feed: { value: feed, reason: [reason, ...slows].join("; ") },
    plunge: plungeFor(tooling, feed),
  };
}

/**
 * The chip that a tooth takes at a feed and spindle speed somebody set, beside what it may take.
 * @param rates mm/min and 1/min
 */
export function chipAt(tooling: Tooling, bite: Bite, rates: { feed: number; spindle: number }): Chip {
  const { chip, workingDiameter } = feedsFor(tooling, bite);
  const aTooth = rates.feed / (rates.spindle * tooling.cutter.flutes);
  return { ...chip, value: aTooth / thinningAt(bite.width, workingDiameter) };
}

/** How fast a cutter goes straight down, as a share of its feed: usual practice. */
const PLUNGES: Record<Cutter["kind"], [share: number, words: string]> = {
  flat: [1 / 3, "a third of the feed"],
  ball: [1 / 3, "a third of the feed"],
  taper: [1 / 3, "a third of the feed"],
  v: [1 / 2, "half the feed, for a point"],
  form: [1 / 3, "a third of the feed"],
  drill: [1 / 2, "half the feed, for a drill"],
  torch: [1, "the feed"],
};
/** A cutter that does not cut at its centre only sinks along its path; metals are entered slowly. */
const NO_CENTRE: [number, string] = [1 / 4, "a quarter of the feed, as it does not cut at its centre"];
const METAL: [number, string] = [1 / 5, "a fifth of the feed, in metal"];

function plungeFor({ cutter, material, machine }: Tooling, feed: number): Reasoned {
  const isMetal = material.family === "soft metal" || material.family === "steel";
  const [share, words] = isMetal ? METAL : cutter.centreCutting ? PLUNGES[cutter.kind] : NO_CENTRE;
  const value = roundFeed(Math.min(machine.plungeMost, feed * share));
  return { value, reason: `${words}${value === machine.plungeMost ? "; held to the machine's most" : ""}` };
}

/** How deep one pass usually goes: a share of the cutter, as far as it cuts and before it bends too far. */
export function usualStepdown({ cutter, material }: Pick<Tooling, "cutter" | "material">): Reasoned {
  const byMaterial = material.stepdown * cutter.diameter;
  const usual = Math.min(material.chipMost, material.chipPerDiameter * cutter.diameter);
  const byBending = MOST_BEND / (bendPerNewton(cutter) * toothForce(material, usual, 1));
  const most = Math.min(cutter.fluteLength, byMaterial, byBending);
  const value = Math.max(0.05, Math.round(most * 100) / 100);
  if (most === byBending && byBending < 0.99 * byMaterial)
    return { value, reason: `so that the cutter bends no more than ${MOST_BEND} mm` };
  if (most === cutter.fluteLength && most < byMaterial) return { value, reason: "as deep as its flutes cut" };
  return {
    value,
    reason: `${material.stepdown} × ${formatLength(cutter.diameter)} mm in ${material.name.toLowerCase()}`,
  };
}
