import { rowAt } from "./rows.ts";

/** What a machine can do; a copy lives in every job. Speeds in mm/min and 1/min, acceleration in mm/s². */
export interface Machine {
  id: string;
  name: string;
  spindleLeast: number;
  spindleMost: number;
  /** the only speeds that its spindle has, 1/min, rising; any between its least and its most when not given */
  spindleSteps?: number[];
  /** power at the cutter, W */
  power: number;
  /** rows of speed, 1/min, and power at the cutter there, W, rising; the same at every speed when not given */
  powerBySpeed?: number[][];
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
  /** how far it travels, mm; not known when not given */
  travelX?: number;
  travelY?: number;
  travelZ?: number;
  /** where its operator usually sets the work zero, as a job writes it */
  zero?: string;
  /** id of the dialect that it reads */
  dialect?: string;
  /** the longest program that its controller takes, lines */
  mostLines?: number;
  /** the longest file name that its controller shows, letters */
  mostLetters?: number;
  /** of a torch's table: how far apart the slats lie that hold the sheet, mm */
  slatGap?: number;
  /**
   * how much faster or gentler than usual its operator cuts which materials, by their ids, such as "ash 1.2; mdf 0.9"
   */
  paces?: string;
  /** what the workshop wants to remember of it */
  note?: string;
}

/** A speed that the spindle has: its step next below the one wanted, or its lowest. */
export function spindleSpeed(machine: Machine, wanted: number): number {
  const steps = machine.spindleSteps ?? [];
  const below = steps.filter((s) => s <= wanted + 1e-9);
  if (steps.length > 0) return below.length > 0 ? below[below.length - 1] : steps[0];
  const within = Math.max(machine.spindleLeast, Math.min(machine.spindleMost, wanted));
  // A dial is set by hundreds; but never beyond what the spindle has.
  return Math.max(machine.spindleLeast, Math.min(machine.spindleMost, Math.round(within / 100) * 100));
}

/** Power at the cutter at a speed, W. */
export const powerAt = ({ power, powerBySpeed }: Machine, spindle: number): number =>
  powerBySpeed ? rowAt(powerBySpeed, spindle)[1] : power;

/** How much gentler or faster than usual anything is cut: beyond that a slip of the pen breaks a cutter. */
export const PACE = { least: 0.3, most: 2 } as const;

/** What {@link Machine.paces} looks like. */
export const PACES = "^[a-z0-9-]+ \\d+(\\.\\d+)?(; [a-z0-9-]+ \\d+(\\.\\d+)?)*$";

const pacesOf = ({ paces = "" }: Pick<Machine, "paces">): [material: string, pace: number][] =>
  paces
    .split(";")
    .map((part) => part.trim().split(" "))
    .filter((part) => part.length === 2 && Number(part[1]) >= PACE.least && Number(part[1]) <= PACE.most)
    .map(([material, pace]) => [material, Number(pace)]);

/** The pace that is remembered for a material; null where none is. */
export const paceIn = (machine: Pick<Machine, "paces">, material: string): number | null =>
  pacesOf(machine).find(([id]) => id === material)?.[1] ?? null;

/** Whether every pace that a machine remembers is one that anything is cut at. */
export const arePaces = (paces: string): boolean => pacesOf({ paces }).length === paces.split(";").length;

/** A machine with the pace for a material remembered; 1 is the usual one, and needs no remembering. */
export function withPace<M extends Pick<Machine, "paces">>(machine: M, material: string, pace: number): M {
  const { paces: _before, ...others } = machine;
  const now = pacesOf(machine).filter(([id]) => id !== material);
  if (pace !== 1) now.push([material, Math.round(pace * 100) / 100]);
  const paces = now.map((p) => p.join(" ")).join("; ");
  return { ...others, ...(paces !== "" && { paces }) } as M;
}
