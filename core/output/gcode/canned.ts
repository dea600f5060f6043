/** A drilling cycle as the words of a program give it; lengths in mm, heights from the program's zero. */
export interface Cycle {
  code: number;
  /** plane from which feeding begins */
  retract: number;
  bottom: number;
  /** depth of a peck; 0 for none */
  peck: number;
  dwell: number;
}

/** What a cycle does at one hole, height after height. */
export interface Stroke {
  z: number;
  rapid: boolean;
}

/** Cycles of RS-274: drill, drill with a wait, with chips broken, in pecks, bored out and tapped. */
export const CYCLES = new Set([73, 81, 82, 83, 84, 85, 86, 89]);

/** After a peck the cutter comes back to this far above where it had been; a chip is broken by going up as much. mm */
const PECK_CLEAR = 0.25;

/**
 * The heights of one hole, from the retract plane down and back to it (RS-274/NGC, T. Kramer et al. 2000, section
 * 3.5.16).
 */
export function strokesOf({ code, retract, bottom, peck }: Cycle): Stroke[] {
  const out: Stroke[] = [];
  if ((code === 83 || code === 73) && peck > 0)
    for (let z = retract; z > bottom + 1e-9;) {
      const next = Math.max(bottom, z - peck);
      if (z < retract) out.push({ z: Math.min(retract, z + PECK_CLEAR), rapid: true });
      out.push({ z: next, rapid: false });
      if (next > bottom + 1e-9)
        out.push({ z: code === 83 ? retract : Math.min(retract, next + PECK_CLEAR), rapid: true });
      z = next;
    }
  else out.push({ z: bottom, rapid: false });
  const feedsOut = code === 84 || code === 85 || code === 89;
  out.push({ z: retract, rapid: !feedsOut });
  return out;
}
