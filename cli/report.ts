import { clearanceOf } from "@oaken/core/geometry/clearance/clearance";
import type { Finding } from "@oaken/core/inspect/finding";
import type { BuildResult } from "@oaken/core/job/build";
import { describeCutter } from "@oaken/core/cutters/profile";
import type { Choice } from "@oaken/core/job/choose";
import { rangeOf } from "@oaken/core/height/field";
import { type Drawn, mainHeights, mainShapes, mainTones, type Toned } from "@oaken/core/job/drawings";
import type { HeightsProduct } from "@oaken/core/makings/product";
import { stopWords, zeroPoint } from "@oaken/core/job/document";
import { outlineFigures } from "@oaken/core/outline/figures";
import type { HeightScale, Output } from "@oaken/core/job/outputs";

const to = (v: number, decimals: number): number => Math.round(v * 10 ** decimals) / 10 ** decimals;

/** The outline's figures as scripts read them, mm. */
export function outlineReport({ made: { product } }: Drawn) {
  const { shape, ink, lines, traced } = product;
  const f = outlineFigures(shape, ink, clearanceOf(ink), traced?.edge ?? new Float64Array(0));
  return {
    contours: shape.parent.length,
    nodes: f.nodes,
    arcs: f.arcs,
    maxDeviation: to(Math.max(traced?.result.maxDeviation ?? 0, 0), 5),
    meanDeviation: to(f.meanDeviation, 5),
    droppedSpecks: traced?.result.dropped ?? 0,
    pieces: f.pieces.filter((p) => !p.hole).length,
    holes: f.pieces.filter((p) => p.hole).length,
    loose: f.loose,
    thinnest: to(f.thinnest, 4),
    bridges: traced?.bridges.length ?? 0,
    lines: lines ? lines.closed.length : undefined,
    colours: traced?.colours?.swatches.map((s, i) => ({
      colour: s.hex,
      share: to(s.share, 4),
      kept: traced.colours!.kept[i],
    })),
  };
}

/** Where a surface lies, mm. */
function sizeOf(surface: HeightsProduct | null): { x: number; y: number; width: number; height: number } {
  if (!surface) return { x: 0, y: 0, width: 0, height: 0 };
  const { x0, y0, cell, width, height } = surface.field;
  return { x: x0, y: y0, width: width * cell, height: height * cell };
}

/** A wanted surface in figures, mm. */
function heightReport({ field }: HeightsProduct) {
  const { low, high } = rangeOf(field);
  return { width: field.width, height: field.height, cell: to(field.cell, 5), low: to(low, 4), high: to(high, 4) };
}

/** What grooves bare, as shares of the surface. */
const tonesReport = ({ least, most, spacing }: Toned["tones"]) => ({ least: to(least, 6), most: to(most, 6), spacing });

/** Sets of cutters that were tried, s, with what they leave, mm²; the one that was taken is the first. */
export const choiceReport = ({ tried, reason }: Choice) => ({
  tried: tried.map((t) => ({
    clear: t.cutters.map(describeCutter),
    seconds: to(t.seconds, 1),
    left: to(t.left.area, 1),
    missing: t.left.missing,
    planned: t.isPlanned,
  })),
  taken: tried[0].cutters.map(describeCutter),
  reason,
});

/** What a cut runs at: mm/min, 1/min and mm, each with its reason; those that it has. */
function feedsReport(resolved: BuildResult["cuts"][number]["resolved"]) {
  const keys = ["feed", "plunge", "spindle", "stepdown", "stepover"].filter((k) => resolved[k]);
  return {
    ...Object.fromEntries(keys.map((k) => [k, resolved[k].value])),
    reasons: Object.fromEntries(keys.map((k) => [k, resolved[k].reason])),
  };
}

/** A board with all that was made of it. */
export interface Made {
  build: BuildResult;
  findings: readonly Finding[];
  files: readonly Output[];
  heightScale: HeightScale;
}
export type BoardReport = ReturnType<typeof reportOf>;

/**
 * The report of a whole job: that of its board; where it has several, that of the first with what all of them come to,
 * and each by itself.
 */
export function wholeReport(boards: readonly BoardReport[]) {
  const [first] = boards;
  if (boards.length === 1) return first;
  return {
    ...first,
    files: boards.flatMap((b) => b.files),
    seconds: to(
      boards.reduce((sum, b) => sum + b.seconds, 0),
      1,
    ),
    findings: boards.flatMap((b) => b.findings.map((f) => ({ ...f, board: b.board }))),
    boards,
  };
}

/** The report that scripts read; lengths in mm, times in seconds, timings in ms. */
export function reportOf(
  { build, findings, files, heightScale }: Made,
  picture: { width: number; height: number } | null,
  decode: number,
) {
  const { job, proof } = build;
  const main = mainShapes(build);
  const surface = mainHeights(build);
  const toned = mainTones(build);
  const art = main?.art ?? toned?.art ?? sizeOf(surface);
  let zMin = 0;
  for (const z of proof.z) if (z < zMin) zMin = z;
  const on = build.cuts.filter((c) => c.cut.on);
  const lost = new Map(build.cuts.map((c, i) => [c.id, build.lost?.cuts[i] ?? null]));
  return {
    name: job.name,
    board: job.board.name,
    picture,
    artwork: { x: to(art.x, 4), y: to(art.y, 4), width: to(art.width, 4), height: to(art.height, 4) },
    stock: { ...job.stock, material: job.stock.material.id },
    zero: zeroPoint(job.stock),
    outline: main ? outlineReport(main) : undefined,
    height: surface ? heightReport(surface) : undefined,
    litho: surface?.litho ?? undefined,
    lines: toned ? tonesReport(toned.tones) : undefined,
    cuts: on.map((c) => {
      const { cutter } = c.cut;
      return {
        kind: c.cut.kind,
        name: c.cut.name,
        cutter: {
          kind: cutter.kind,
          diameter: cutter.diameter,
          angle: cutter.angle,
          tip: cutter.kind === "v" ? (cutter.tip ?? 0) : undefined,
          kerf: cutter.kind === "torch" ? cutter.diameter : undefined,
          tipRadius: cutter.tipRadius,
          halfAngle: cutter.halfAngle,
        },
        program: files.find((f) => f.program?.cuts.includes(c.id))?.name ?? null,
        moves: c.toolpath.kind.length,
        minZ: to(c.figures.minZ, 4),
        cutLength: to(c.figures.cutLength, 2),
        rapidLength: to(c.figures.rapidLength, 2),
        seconds: to(c.seconds, 1),
        stop: c.cut.stop && stopWords(c.cut.stop),
        left: ((l) =>
          l && {
            area: to(l.area, 2),
            lost: to(l.lost, 2),
            lostHeight: to(l.lostHeight, 3),
            uncut: to(l.uncut, 2),
            uncutHeight: to(l.uncutHeight, 3),
          })(lost.get(c.id)),
        facts: Object.fromEntries(Object.entries(c.facts).map(([k, v]) => [k, to(v, 4)])),
        feeds: feedsReport(c.resolved),
        settings: Object.fromEntries(
          Object.entries(c.resolved).map(([k, r]) => [k, { value: r.value, reason: r.reason }]),
        ),
      };
    }),
    seconds: to(build.seconds, 1),
    proof: {
      cell: proof.cell,
      width: proof.width,
      height: proof.height,
      zMin: to(zMin, 4),
      mmPerGreyStep: heightScale.mmPerStep,
      zOfBlack: heightScale.black,
    },
    files: files.map((f) => f.name),
    timings: Object.fromEntries(Object.entries({ decode, ...build.timings }).map(([k, v]) => [k, to(v, 1)])),
    findings: findings.map(({ code, severity, message, cut, at }) => ({
      code,
      severity,
      message,
      cut: build.cuts.find((c) => c.id === cut)?.cut.name,
      at,
    })),
  };
}
