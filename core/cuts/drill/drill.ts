import { ringCount, type Rings } from "../../geometry/rings.ts";
import { parsePlaces, placesField } from "../../settings/places.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { NEAR, ToolpathWriter } from "../../toolpath/toolpath.ts";
import { shortOrder } from "../../toolpath/order.ts";
import { formatLength } from "../../units.ts";
import { rateFields } from "../fields.ts";
import { ART, type CutContext, type ArtInputs, defineCut, type Note, type Planned } from "../kind.ts";
import { hypot } from "../../hypot.ts";

const biteOf = (c: CutContext) => ({ depth: 1, width: c.cutter.diameter });
/** How far a drill's point reaches beyond where it is full width, mm. */
const pointOf = (c: CutContext["cutter"]): number =>
  c.kind === "drill" ? c.diameter / 2 / Math.tan(((c.angle ?? 118) * Math.PI) / 360) : 0;
const depthOf = (c: CutContext, s: { through: boolean; past: number; depth: number }): number =>
  s.through ? c.stock.thickness + s.past + pointOf(c.cutter) : s.depth;
/**
 * A ring is a circle when no point of it is farther from its mean circle than this share of the radius, or this many
 * mm.
 */
const ROUND_SHARE = 0.06;
const ROUND_LEAST = 0.1;
/** Before the bottom of the last peck feeding begins again, mm. */
const PECK_GAP = 0.5;

const fields = fieldsFor<CutContext>()
  .switch("through", "Through the stock", {
    auto: (c) => ({ value: c.cutter.kind === "drill", reason: "a hole to hang or screw by" }),
  })
  .length("depth", "Depth", {
    min: 0.05,
    max: 200,
    step: 0.5,
    when: (s) => s.through === false,
    auto: (c) => ({
      value: Math.round(Math.min(10, c.stock.thickness / 2) * 10) / 10,
      reason: "half the stock, at most 10",
    }),
    consequence: (v, c) =>
      `leaves ${formatLength(Math.max(0, c.stock.thickness - v))} of ` + `${formatLength(c.stock.thickness)} mm`,
  })
  .length("past", "Past the underside", {
    help: "The full width goes this far beyond the stock; the point farther still.",
    min: 0,
    max: 10,
    step: 0.1,
    more: true,
    when: (s) => s.through === true,
    auto: () => ({ value: 0.5, reason: "a clean exit; needs a spoil board" }),
    consequence: (v, c) => `the point reaches ${formatLength(v + pointOf(c.cutter))} mm into the board below`,
  })
  .length("peck", "Peck", {
    help: "The drill comes out after this much to clear its chips. 0: in one go.",
    min: 0,
    max: 100,
    step: 0.5,
    auto: (c) => ({
      value: Math.round(2 * c.cutter.diameter * 10) / 10,
      reason: "two diameters at once keep the flutes free",
    }),
  })
  .switch("circles", "Circles of the art", {
    help: "A hole at the centre of every round piece of ink and every round hole in it.",
    auto: () => ({ value: true, reason: "drawn circles are holes" }),
  })
  .length("most", "Circles up to", {
    help: "Larger circles are no drill holes.",
    min: 0.1,
    max: 500,
    step: 0.5,
    when: (s) => s.circles === true,
    auto: (c) => ({ value: Math.max(3, Math.round(4 * c.cutter.diameter)), reason: "four times the drill" }),
  })
  .with(placesField("at", "Holes by hand", "More holes at these places on the stock, mm.", "drill"))
  .with(rateFields(biteOf));
type DrillSettings = SettingsOf<typeof fields>;

/** Drills at the centres of circles, and at places marked by hand, in pecks. */
export const drill = defineCut({
  kind: "drill",
  title: "Drill",
  about: "holes at circles or marks",
  cutters: ["drill", "flat", "v"],
  summary: (s, c) =>
    `${c.kind} ${formatLength(c.diameter)} mm · ` + `${s.through ? "through" : `${formatLength(s.depth)} mm deep`}`,
  fields,
  reads: ART,
  handles: { depth: "depth", unlimited: { field: "through", value: true }, marks: { drill: "at" } },
  intent: (s, c) => ({ depth: depthOf(c, s), through: s.through }),
  sample: { cutter: "drill:4", settings: { at: "50 50" } },
  plan,
});

function plan(inputs: ArtInputs, s: DrillSettings): Planned {
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

/** Rings that are circles, with centre and radius: every point within a share of the radius of the mean circle. */
export function circlesOf(r: Rings): { x: number; y: number; r: number }[] {
  const out: { x: number; y: number; r: number }[] = [];
  for (let k = 0; k < ringCount(r); k++) {
    const [s, e] = [r.starts[k], r.starts[k + 1]];
    if (e - s < 8) continue;
    // Centre of the outline, weighted by length, so that uneven points do not pull it.
    let [x, y, total] = [0, 0, 0];
    for (let i = s; i < e; i++) {
      const j = i + 1 < e ? i + 1 : s;
      const len = hypot(r.xy[2 * j] - r.xy[2 * i], r.xy[2 * j + 1] - r.xy[2 * i + 1]);
      x += (len * (r.xy[2 * i] + r.xy[2 * j])) / 2;
      y += (len * (r.xy[2 * i + 1] + r.xy[2 * j + 1])) / 2;
      total += len;
    }
    x /= total;
    y /= total;
    const radius = total / (2 * Math.PI);
    let worst = 0;
    for (let i = s; i < e; i++) worst = Math.max(worst, Math.abs(hypot(r.xy[2 * i] - x, r.xy[2 * i + 1] - y) - radius));
    if (worst <= Math.max(ROUND_LEAST, ROUND_SHARE * radius)) out.push({ x, y, r: radius });
  }
  return out;
}
