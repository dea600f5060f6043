interface Place {
  x: number;
  y: number;
  z: number;
}

/** A straight piece of a program's way, mm. */
export interface Step {
  rapid: boolean;
  from: Place;
  to: Place;
}

/** Arcs are followed in steps of this, radians. */
const TURN = 0.02;

/**
 * The way of a program in millimetres with absolute places and arcs by their centres: as little of RS-274 as the
 * programs that tests read back have, in code that shares nothing with what wrote them.
 */
export function program(text: string): Step[] {
  const steps: Step[] = [];
  let at: Place = { x: 0, y: 0, z: 0 };
  let motion = 0;
  const go = (to: Place): void => {
    steps.push({ rapid: motion === 0, from: at, to });
    at = to;
  };
  for (const line of text.split("\n")) {
    const words = [...line.replace(/\([^)]*\)/g, "").matchAll(/([A-Z])\s*(-?[\d.]+)/g)];
    const of = (letter: string) => words.find(([, l]) => l === letter)?.[2];
    for (const [, letter, number] of words) if (letter === "G" && Number(number) <= 3) motion = Number(number);
    if (!["X", "Y", "Z"].some((l) => of(l) !== undefined)) continue;
    const to = { x: Number(of("X") ?? at.x), y: Number(of("Y") ?? at.y), z: Number(of("Z") ?? at.z) };
    if (motion < 2) {
      go(to);
      continue;
    }
    const [cx, cy] = [at.x + Number(of("I") ?? 0), at.y + Number(of("J") ?? 0)];
    const begin = Math.atan2(at.y - cy, at.x - cx);
    const radius = Math.hypot(at.x - cx, at.y - cy);
    let sweep = Math.atan2(to.y - cy, to.x - cx) - begin;
    if (motion === 2 && sweep >= -1e-9) sweep -= 2 * Math.PI;
    if (motion === 3 && sweep <= 1e-9) sweep += 2 * Math.PI;
    const parts = Math.ceil(Math.abs(sweep) / TURN);
    const z0 = at.z;
    for (let k = 1; k < parts; k++) {
      const turn = begin + (sweep * k) / parts;
      go({ x: cx + radius * Math.cos(turn), y: cy + radius * Math.sin(turn), z: z0 + ((to.z - z0) * k) / parts });
    }
    go(to);
  }
  return steps;
}
