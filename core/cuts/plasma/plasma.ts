import { formatLength } from "../../units.ts";
import { ART, defineCut } from "../kind.ts";
import { plasmaFields } from "./fields.ts";
import { later } from "../../later.ts";

const work = later(() => import("./plan.ts"));

/** Cuts sheet metal with a torch, half a kerf into the waste, each contour pierced and led into from there. */
export const plasma = defineCut({
  kind: "plasma",
  cutsOut: true,
  title: "Plasma",
  about: "torch through sheet metal",
  cutters: ["torch"],
  summary: (s, c) => `kerf ${formatLength(c.diameter)} mm · lead ${formatLength(s.lead)} mm`,
  fields: plasmaFields,
  reads: ART,
  handles: { marks: { pierce: "leadsAt" } },
  intent: (_s, c) => ({ depth: c.stock.thickness, through: true }),
  sample: { cutter: "torch:1.5" },
  plan: work("plan"),
});
