import type { Machine } from "../../cutters/feeds.ts";

/** The machines that a new workshop knows, the usual one first; a job keeps a copy of its own. */
export const MACHINES: readonly Machine[] = [
  {
    id: "desk-router",
    name: "Belt-driven router",
    spindleLeast: 8000,
    spindleMost: 24000,
    power: 500,
    feedMost: 3000,
    plungeMost: 900,
    rapid: 5000,
    rapidZ: 1500,
    acceleration: 400,
    accelerationZ: 200,
    junction: 0.02,
    spindleStart: 3,
    toolChange: 90,
  },
  {
    id: "plasma-table",
    name: "Plasma table",
    spindleLeast: 1,
    spindleMost: 1,
    power: 1,
    feedMost: 10000,
    plungeMost: 2500,
    rapid: 12000,
    rapidZ: 5000,
    acceleration: 1500,
    accelerationZ: 800,
    junction: 0.05,
    spindleStart: 0,
    toolChange: 0,
  },
];
