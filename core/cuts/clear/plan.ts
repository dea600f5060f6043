import { profileOf } from "../../cutters/profile.ts";
import { ringCount } from "../../geometry/rings.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { Ground } from "../area/ground.ts";
import { type AreaPlan, levels as levelsTo } from "../area/level.ts";
import { isDone, type Reach, type Reached, reachedBy } from "../area/reached.ts";
import { clearRests } from "../area/rests.ts";
import { clearRings } from "../area/rings.ts";
import { areaSeconds, type AreaWork, restAtLeast } from "../area/seconds.ts";
import { safeStepover, slopeOf } from "../fields.ts";
import { settingsOf, type Note, type Planned } from "../kind.ts";
import { carveRegion } from "../vcarve/border.ts";
import type { CarveInputs } from "../vcarve/reads.ts";
import { CLEAR } from "../vcarve/clearing.ts";
import { type ClearSettings, carvedBy } from "./clear.ts";

/** The ground that it clears: the carve's region. @returns null where there is none */
function toClear(
  inputs: CarveInputs,
  s: ClearSettings,
  { settings, profile: carve, floor }: NonNullable<ReturnType<typeof carvedBy>>,
  notes: Note[],
): AreaWork | null {
  const region = carveRegion(inputs, settings);
  if (!region || ringCount(region) === 0) return null;
  const c = inputs.clearance(region);
  const { radius } = profileOf(inputs.cutter);
  const before = inputs.earlier.flatMap((e) => {
    const own = settingsOf(CLEAR, e);
    return own ? [{ radius: profileOf(e.cutter).radius, stepdown: own.stepdown, leave: own.leave }] : [];
  });
  // The wall slopes, so that each depth has its own reach.
  const reachesAt = (depth: number): Reach[] =>
    before.map((q) => ({
      radius: q.radius,
      from: carve.r(levelBelow(floor, q.stepdown, depth)) + q.radius + q.leave,
    }));
  const openedAt = (depth: number) => reachedBy(c, reachesAt(depth));
  const opened = new Map<number, Reached | null>();
  const reachedAt = (depth: number): Reached | null => {
    if (!opened.has(depth)) opened.set(depth, openedAt(depth));
    return opened.get(depth)!;
  };
  const isLater = reachedAt(floor) !== null;
  const area: AreaPlan = {
    c,
    radius,
    stepover: safeStepover(inputs, s, notes, "Clear"),
    slope: slopeOf(s),
    entry: s.entry,
    centre: inputs.cutter.centreCutting,
    conventional: s.direction === "conventional",
    ...(isLater && {
      before: reachesAt(floor),
      done(x, y, d, level) {
        const reached = reachedAt(-level.z1);
        return reached === null ? -Infinity : isDone(reached, radius, x, y, d);
      },
    }),
  };
  // The first cutter goes farther out where it is shallower. What later ones did there the V cutter would do again on
  // its way along the wall: they keep to the floor that is left.
  const from = (depth: number) => carve.r(isLater ? floor : depth) + radius + s.leave;
  return { region, area, levels: levelsTo(floor, s.stepdown, from) };
}

/** How long it would take, without planning it, s. */
export function estimate(inputs: CarveInputs, s: ClearSettings): number {
  const carved = carvedBy(inputs);
  // Its flutes end above the floor: the shank would rub.
  if (carved && inputs.cutter.fluteLength < carved.floor) return Infinity;
  const ground = carved && toClear(inputs, s, carved, []);
  return ground ? areaSeconds(inputs, s, ground) : 0;
}

/** How long it would take at least, s. */
export function atLeast(inputs: CarveInputs, s: ClearSettings): number {
  const carved = carvedBy(inputs);
  const ground = carved && toClear(inputs, s, carved, []);
  return ground ? restAtLeast(inputs, s, ground) : 0;
}

export function plan(inputs: CarveInputs, s: ClearSettings): Planned {
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes: Note[] = [];
  const carved = carvedBy(inputs);
  if (!carved)
    return {
      toolpath: w.take(),
      notes: [
        {
          code: "clear-without-carve",
          severity: "warning",
          message: "This clearing cut has no carve to clear for. Add a carve or remove it.",
        },
      ],
      facts: {},
    };
  const to = toClear(inputs, s, carved, notes);
  if (!to) return { toolpath: w.take(), notes, facts: {} };
  inputs.progress(0.4);
  const { region, area, levels } = to;
  const ground = new Ground(w, area, new SegmentGrid(region));
  let any = false;
  // Where no floor can be reached, ledges above it are not worth a cutter: the V cutter takes them on its way.
  const reachesFloor = levels[levels.length - 1].from < area.c.widest;
  if (reachesFloor && area.done) any = clearRests(ground, levels, inputs.kept);
  else if (reachesFloor) any = clearRings(ground, levels, null, (share) => inputs.progress(0.4 + 0.6 * share));
  notes.push(...ground.notes("Clear"));
  if (!any)
    notes.push({
      code: "nothing-to-clear",
      severity: "note",
      message:
        `No floor is wide enough for the ${formatLength(inputs.cutter.diameter)} mm clearing cutter; the V ` +
        "cutter takes it all. A smaller clearing cutter might help.",
    });
  return { toolpath: w.take(), notes, facts: {}, within: region };
}

/** The level at or below a depth that a cutter with its own stepdown works at. */
function levelBelow(floor: number, stepdown: number, depth: number): number {
  const n = Math.max(1, Math.ceil(floor / stepdown - 1e-6));
  return (floor * Math.min(n, Math.ceil((depth * n) / floor - 1e-6))) / n;
}
