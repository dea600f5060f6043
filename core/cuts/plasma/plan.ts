import { thinParts } from "../vcarve/thin.ts";
import { ringArea, ringCount, type Rings } from "../../geometry/rings.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { parsePlaces } from "../../settings/places.ts";
import { unroll } from "../../toolpath/loops.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { begunAt, nearestPlace } from "../contour/gentle.ts";
import { type Lead, leadFrom, type LeadRules, placeLead } from "../contour/leads.ts";
import { type ContourLoop, contourLoops, contourOrder, joinedNote } from "../contour/loops.ts";
import type { ArtInputs, Freed, Mark, Note, Planned } from "../kind.ts";
import { type PlasmaSettings, usualPlasma } from "./fields.ts";
import { torchAlong } from "./torch.ts";

/** Holes narrower than this many sheet thicknesses come out conical and are cut slower. */
const SMALL_HOLE = 3;
/** A kerf that differs from the table's by more than this share is asked about. */
const KERF_OFF = 0.35;
/** Places by hand belong to a contour no farther off than this, mm. */
const BY_HAND = 60;

/** A deviation of the path that no controller's limit may force, mm. */
const MOST_STRAY = 0.5;
/** How closely the path is followed when nothing asks for fewer moves, mm. */
const FINE = 0.01;

export function plan(inputs: ArtInputs, s: PlasmaSettings): Planned {
  const { cutter, stock } = inputs;
  const { ink } = inputs.reads.art;
  const notes: Note[] = [];
  const kerf = cutter.diameter;
  if (ringCount(ink) === 0) return { toolpath: new ToolpathWriter(1, 1, 1).take(), notes, facts: {} };
  const { loops, waste, clearance, missed, joined } = contourLoops(inputs, s, kerf / 2);
  inputs.progress(0.4);
  if (missed.length > 0)
    notes.push({
      code: "narrower-than-kerf",
      severity: "warning",
      message:
        `${missed.length} ${missed.length === 1 ? "contour is" : "contours are"} narrower than the ` +
        `${formatLength(kerf)} mm kerf and will not be cut.`,
      at: { x: ink.xy[2 * ink.starts[missed[0]]], y: ink.xy[2 * ink.starts[missed[0]] + 1] },
    });
  if (joined.length > 0) notes.push(joinedNote(ink, joined, `${formatLength(kerf)} mm kerf`));
  const known = usualPlasma(inputs).kerf;
  if (known !== null && Math.abs(kerf - known) > KERF_OFF * known)
    notes.push({
      code: "kerf-unlike-table",
      severity: "note",
      message:
        `The torch is set to a kerf of ${formatLength(kerf)} mm; the table of ${inputs.material.name.toLowerCase()} ` +
        `gives ${formatLength(known)} mm for this sheet. Measure it on a test cut: every size depends on it.`,
    });
  if (clearance) {
    const thin = thinParts(clearance, kerf / 2);
    if (thin.area > kerf * kerf)
      notes.push({
        code: "strokes-lost-to-kerf",
        severity: "warning",
        message:
          `${thin.area.toFixed(1)} mm² of ${s.side === "inside" ? "strokes" : "gaps"} are narrower than the ` +
          `${formatLength(kerf)} mm kerf and close up. Widen them, or make the art larger.`,
        at: { x: thin.x, y: thin.y },
      });
  }
  const small = loops.filter(
    (l) =>
      ringArea({ xy: l.xy, starts: Int32Array.of(l.start, l.end), parent: ink.parent }, 0) > 0 &&
      widthOf(l) < 1.5 * stock.thickness,
  );
  if (small.length > 0)
    notes.push({
      code: "holes-too-small",
      severity: "warning",
      message:
        `${small.length} ${small.length === 1 ? "opening is" : "openings are"} narrower than one and a half ` +
        `sheet thicknesses: too small to come out clean. Drill ${small.length === 1 ? "it" : "them"}, or make ` +
        "the art larger.",
      at: { x: small[0].xy[2 * small[0].start], y: small[0].xy[2 * small[0].start + 1] },
    });
  if (s.side === "inside") droppers(ink, notes);

  const rules: LeadRules = {
    shape: s.shape as LeadRules["shape"],
    reach: s.lead,
    edges: new SegmentGrid(ink),
    away: kerf / 2,
    width: stock.width,
    height: stock.height,
  };
  const byHand = parsePlaces(s.leadsAt, "Pierces");
  const order = contourOrder(loops, 0, 0);
  let without = 0;
  let refused = 0;
  let firstWithout: { x: number; y: number } | undefined;
  const plans = order.map((i) => {
    const l = loops[i];
    const loop = unroll(l.xy, l.start, l.end, 0, false);
    const hand = byHand.find(([x, y]) => ownsPlace(loops, i, x, y));
    let lead: Lead | null = null;
    if (rules.shape !== "none" && rules.reach > 0) {
      if (hand) lead = leadFrom(loop, hand[0], hand[1], rules);
      if (hand && !lead) refused++;
      lead ??= placeLead(loop, rules);
      if (!lead) {
        without++;
        firstWithout ??= { x: loop.x[0], y: loop.y[0] };
      }
    }
    return {
      loop: lead ? begunAt(loop, lead.place) : loop,
      lead,
      slow: widthOf(l) < SMALL_HOLE * stock.thickness && !l.frees ? s.slowHoles : 1,
    };
  });
  if (without > 0)
    notes.push({
      code: "no-room-for-lead",
      severity: "warning",
      message:
        `${without} ${without === 1 ? "contour has" : "contours have"} no room for a lead: the pierce marks the ` +
        "edge there. Shorten the lead, or drag a pierce by hand.",
      at: firstWithout,
    });
  if (refused > 0)
    notes.push({
      code: "lead-into-part",
      severity: "warning",
      message:
        `${refused} ${refused === 1 ? "pierce" : "pierces"} placed by hand would cut into a part or leave the ` +
        "sheet; the automatic place is used there.",
    });

  const write = (stray: number): ToolpathWriter => {
    const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
    for (const p of plans) torchAlong(w, p.loop, p.lead, p.slow, s, stray);
    return w;
  };
  let stray = FINE;
  let w = write(stray);
  const most = s.linesMost;
  while (most > 0 && w.count > most && stray < MOST_STRAY) {
    stray *= 1.5;
    w = write(stray);
  }
  if (most > 0 && w.count > most)
    notes.push({
      code: "too-many-moves",
      severity: "stop",
      message:
        `The path has ${w.count} moves even when it strays ${formatLength(stray)} mm; the controller takes ` +
        `${most}. Cut fewer contours in one program.`,
    });
  else if (stray > FINE)
    notes.push({
      code: "path-thinned",
      severity: "note",
      message: `To keep to ${most} moves the path strays by up to ${formatLength(stray, "mm", 3)} mm.`,
    });
  const marks = plans.map((p): Mark => ({
    kind: "pierce",
    x: p.lead?.x0 ?? p.loop.x[0],
    y: p.lead?.y0 ?? p.loop.y[0],
  }));
  const off = marks.find((m) => m.x < 0 || m.y < 0 || m.x > stock.width || m.y > stock.height);
  if (off)
    notes.push({
      code: "pierce-off-sheet",
      severity: "stop",
      message: "A pierce lies beyond the sheet: the torch finds no metal there. Move the art inwards.",
      at: off,
    });
  const inset = (m: Mark) => Math.min(m.x, m.y, stock.width - m.x, stock.height - m.y);
  const atEdge = off ? undefined : marks.find((m) => inset(m) < kerf);
  if (atEdge)
    notes.push({
      code: "pierce-at-edge",
      severity: "warning",
      message:
        "A pierce lies on the sheet's edge: the arc blows out sideways there. Move the art inwards, or drag the " +
        "pierce.",
      at: atEdge,
    });
  const pieces = loops.filter((l) => l.frees);
  const smallest = Math.min(...pieces.map((l) => Math.max(...sidesOf(l))));
  const freed: Freed = { pieces: pieces.length, heldBy: "slats", ...(pieces.length > 0 && { smallest }) };
  return {
    toolpath: w.take(),
    notes,
    facts: { pierces: marks.length, pieces: freed.pieces, stray },
    freed,
    marks,
    ...(s.side !== "on" && { within: waste }),
  };
}

/** The narrower side of a contour's box, mm. */
const widthOf = (l: ContourLoop): number => Math.min(...sidesOf(l));

/** The sides of a contour's box, mm. */
function sidesOf(l: ContourLoop): [number, number] {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = l.start; i < l.end; i++) {
    x0 = Math.min(x0, l.xy[2 * i]);
    x1 = Math.max(x1, l.xy[2 * i]);
    y0 = Math.min(y0, l.xy[2 * i + 1]);
    y1 = Math.max(y1, l.xy[2 * i + 1]);
  }
  return [x1 - x0, y1 - y0];
}

/** Whether a place by hand belongs to contour i: the nearest one, and near enough. */
function ownsPlace(loops: readonly ContourLoop[], i: number, x: number, y: number): boolean {
  const distance = (l: ContourLoop) => nearestPlace(unroll(l.xy, l.start, l.end, 0, false), x, y).d;
  const mine = distance(loops[i]);
  return mine <= BY_HAND && loops.every((l, k) => k === i || distance(l) >= mine);
}

/** Islands in openings have nothing to hold them once the opening is cut. */
function droppers(ink: Rings, notes: Note[]): void {
  let count = 0;
  let at: { x: number; y: number } | undefined;
  for (let k = 0; k < ringCount(ink); k++) {
    if (ringArea(ink, k) >= 0) continue;
    count++;
    at ??= { x: ink.xy[2 * ink.starts[k]], y: ink.xy[2 * ink.starts[k] + 1] };
  }
  if (count > 0)
    notes.push({
      code: "pieces-drop-out",
      severity: "warning",
      message:
        `${count} ${count === 1 ? "island drops" : "islands drop"} out of the sheet: nothing holds ` +
        `${count === 1 ? "it" : "them"}. Set bridges on the outline's slip to tie ${count === 1 ? "it" : "them"}.`,
      at,
    });
}
