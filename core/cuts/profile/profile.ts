import { formatLength } from "../../units.ts";
import { ART, defineCut } from "../kind.ts";
import { depthOf, profileFields } from "./fields.ts";
import { later } from "../../later.ts";

const work = later(() => import("./plan.ts"));

/** Cuts along the shapes, on either side or on the line, what lies inside a ring before the ring. */
export const profile = defineCut({
  kind: "profile",
  cutsOut: true,
  title: "Cut out",
  about: "along the shape, through or not",
  cutters: ["flat", "ball"],
  summary: (s, c) => {
    const side = { outside: "", inside: " · inside", on: " · on the line" }[s.side];
    return `${c.kind} ${formatLength(c.diameter)} mm${side}${s.tabs > 0 ? ` · ${s.tabs} tabs` : ""}`;
  },
  fields: profileFields,
  reads: ART,
  handles: {
    depth: "depth",
    unlimited: { field: "through", value: true },
    tabs: { field: "tabs", usual: 4 },
    marks: { tab: "tabsAt" },
  },
  intent: (s, c) => ({ depth: depthOf(c, s), through: s.through }),
  sample: { cutter: "flat:6" },
  estimate: work("profileSeconds"),
  left: work("profileLeft"),
  plan: work("plan"),
});
