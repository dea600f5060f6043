import type { Cutter } from "@oaken/core/cutters/profile";

/** A cutter drawn from its numbers: shank above, cutting profile below, to scale within the box. */
export function CutterShape({ cutter, width = 26, height = 44 }: { cutter: Cutter; width?: number; height?: number }) {
  const r = cutter.diameter / 2;
  const cone = cutter.kind === "v" ? (r - (cutter.tip ?? 0) / 2) / Math.tan(((cutter.angle ?? 60) * Math.PI) / 360) : 0;
  const flute = cutter.kind === "v" ? cone : Math.max(cutter.fluteLength, cutter.kind === "form" ? 0 : r);
  const k = Math.min((width - 4) / cutter.diameter, (height * 0.62) / flute);
  const R = Math.max(2.5, r * k);
  const F = Math.min(height * 0.62, Math.max(6, flute * k));
  const c = width / 2;
  const bottom = height - 1;
  const top = bottom - F;
  const tip = ((cutter.tip ?? 0) / 2) * k;
  const body =
    cutter.kind === "flat"
      ? `M${c - R} ${top}H${c + R}V${bottom}H${c - R}Z`
      : cutter.kind === "ball"
        ? `M${c - R} ${top}H${c + R}V${bottom - R}A${R} ${R} 0 0 1 ${c - R} ${bottom - R}Z`
        : cutter.kind === "v"
          ? `M${c - R} ${top}H${c + R}L${c + tip} ${bottom}H${c - tip}Z`
          : cutter.kind === "drill"
            ? `M${c - R} ${top}H${c + R}V${bottom - R * 0.6}L${c} ${bottom}L${c - R} ${bottom - R * 0.6}Z`
            : cutter.kind === "form"
              ? formBody(cutter, c, bottom, top, R / r, F / flute)
              : `M${c - R} ${top}H${c + R}L${c + 1.5} ${bottom - 1.5}A1.5 1.5 0 0 1 ${c - 1.5} ${bottom - 1.5}Z`;
  if (cutter.kind === "torch")
    return (
      <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden="true" className="shrink-0">
        <path
          d={`M${c - 7} 0H${c + 7}V${height * 0.42}L${c + 3} ${height * 0.6}H${c - 3}L${c - 7} ${height * 0.42}Z`}
          fill="#86938d"
        />
        <path d={`M${c - 2} ${height * 0.6}H${c + 2}L${c + 0.8} ${height - 1}H${c - 0.8}Z`} fill="#c8401f" />
      </svg>
    );
  const shank = Math.max(3, Math.min(R, 6));
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden="true" className="shrink-0">
      <rect x={c - shank} y={0} width={2 * shank} height={top} fill="#86938d" />
      <path d={body} fill="#4d5853" />
    </svg>
  );
}

/** Half an edge given by points, and its mirror image. */
function formBody({ edge = [] }: Cutter, c: number, bottom: number, top: number, kx: number, ky: number): string {
  const right = edge.map(([r, h]) => `${c + r * kx} ${bottom - h * ky}`);
  const left = edge.map(([r, h]) => `${c - r * kx} ${bottom - h * ky}`).reverse();
  const [rim] = edge[edge.length - 1] ?? [0];
  return `M${c + rim * kx} ${top}H${c - rim * kx}L${[...left, ...right].join("L")}Z`;
}
