import type { Clearance } from "@oaken/core/geometry/clearance/clearance";
import type { Finding } from "@oaken/core/inspect/finding";
import type { BuildResult } from "@oaken/core/job/build";
import type { ChainResult } from "@oaken/core/job/chain";
import { stopWords, zeroPoint } from "@oaken/core/job/document";
import { outlineFigures } from "@oaken/core/outline/figures";
import type { Outputs } from "@oaken/files/outputs";

const to = (v: number, decimals: number): number => Math.round(v * 10 ** decimals) / 10 ** decimals;

/** The outline's figures as scripts read them, mm. */
export function outlineReport(chain: ChainResult, clearance: Clearance) {
  const f = outlineFigures(chain.result.shape, chain.ink, clearance, chain.edge);
  return {
    contours: chain.result.shape.parent.length,
    nodes: f.nodes,
    arcs: f.arcs,
    maxDeviation: to(Math.max(chain.result.maxDeviation, 0), 5),
    meanDeviation: to(f.meanDeviation, 5),
    droppedSpecks: chain.result.dropped,
    pieces: f.pieces.filter((p) => !p.hole).length,
    holes: f.pieces.filter((p) => p.hole).length,
    loose: f.loose,
    thinnest: to(f.thinnest, 4),
    bridges: chain.bridges.length,
    lines: chain.lines ? chain.lines.closed.length : undefined,
    colours: chain.colours?.swatches.map((s, i) => ({
      colour: s.hex,
      share: to(s.share, 4),
      kept: chain.colours!.kept[i],
    })),
  };
}

/** The report that scripts read; lengths in mm, times in seconds, timings in ms. */
export function reportOf(
  build: BuildResult,
  findings: readonly Finding[],
  outputs: Outputs,
  picture: { width: number; height: number },
  decode: number,
  clearance: Clearance,
) {
  const { job, chain, proof } = build;
  let zMin = 0;
  for (const z of proof.z) if (z < zMin) zMin = z;
  const place = chain!.place;
  const on = build.cuts.filter((c) => c.cut.on);
  const lost = new Map(build.cuts.map((c, i) => [c.id, build.lost?.cuts[i] ?? null]));
  return {
    name: job.name,
    picture,
    artwork: { x: to(place.x0, 4), y: to(place.y0, 4), width: to(place.width, 4), height: to(place.height, 4) },
    stock: { ...job.stock },
    zero: zeroPoint(job.stock),
    outline: outlineReport(chain!, clearance),
    cuts: on.map((c, i) => {
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
        program: outputs.programs.find((p) => p.cuts.includes(i))?.name ?? null,
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
      mmPerGreyStep: outputs.heightScale.mmPerStep,
      zOfBlack: outputs.heightScale.black,
    },
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
