import { circlesOf, ROUND_SHARE } from "../../geometry/circles.ts";
import { parsePlaces } from "../../settings/places.ts";
import { NEAR, ToolpathWriter } from "../../toolpath/toolpath.ts";
import { shortOrder } from "../../toolpath/order.ts";
import { formatLength } from "../../units.ts";
import type { ArtInputs, Note, Planned } from "../kind.ts";
import { type DrillSettings, depthOf } from "./drill.ts";

/** Before the bottom of the last peck feeding begins again, mm. */
const PECK_GAP = 0.5;

export function plan(inputs: ArtInputs, s: DrillSettings): Planned {
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes: Note[] = [];
  const depth = depthOf(inputs, s);
  const places = s.circles ? circlesOf(inputs.reads.art.ink).filter((c) => 2 * c.r <= s.most) : [];
  for (const [x, y] of parsePlaces(s.at, "Holes")) places.push({ x, y, r: 0 });
  if (places.length === 0)
    notes.push({
      code: "nothing-to-drill",
      severity: "warning",
      message:
        `No circle up to ${formatLength(s.most)} mm is in the art and no place is marked: there is ` +
        "nothing to drill. Mark places on the stage, or allow larger circles.",
    });
  const small = places.filter((c) => c.r > 0 && 2 * c.r < inputs.cutter.diameter * (1 - ROUND_SHARE));
  if (small.length > 0)
    notes.push({
      code: "drill-too-wide",
      severity: "warning",
      message:
        `${small.length} ${small.length === 1 ? "circle is" : "circles are"} smaller than the ` +
        `${formatLength(inputs.cutter.diameter)} mm drill: the ` +
        `${small.length === 1 ? "hole comes" : "holes come"} out larger than drawn.`,
      at: { x: small[0].x, y: small[0].y },
    });
  const order = shortOrder(places.map((p) => ({ x0: p.x, y0: p.y, x1: p.x, y1: p.y })));
  const peck = s.peck > 0 ? s.peck : depth;
  for (const { index } of order) {
    const { x, y } = places[index];
    w.above(x, y);
    for (let z = -Math.min(peck, depth); ; z = Math.max(-depth, z - peck)) {
      w.plunge(z);
      if (z <= -depth + 1e-9) break;
      w.rapidTo(NEAR);
      w.rapidTo(Math.min(NEAR, z + PECK_GAP));
    }
  }
  return {
    toolpath: w.take(),
    notes,
    facts: { holes: places.length },
    marks: places.map((p) => ({ kind: "drill", x: p.x, y: p.y })),
  };
}
