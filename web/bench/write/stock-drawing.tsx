import { type StockSettings, zeroPoint } from "@oaken/core/job/document";
import type { WrittenBoard } from "../../compute/messages.ts";

/** The stock from above with its zero and the bounds of the cuts. */
export function StockDrawing({ stock, written }: { stock: StockSettings; written: WrittenBoard | null }) {
  const { width, height } = stock;
  const z = zeroPoint(stock);
  const b = written?.bounds;
  const pad = 0.09 * Math.max(width, height);
  const u = Math.max(width, height) / 100;
  return (
    <svg
      viewBox={`${-pad} ${-pad} ${width + 2 * pad} ${height + 2 * pad}`}
      className="w-full"
      role="img"
      aria-label="Stock from above with the work zero and the bounds of the cuts"
    >
      <rect width={width} height={height} fill="#efe3c8" stroke="#55605b" strokeWidth={0.5 * u} />
      {b && (
        <rect
          x={b.x0}
          y={height - b.y1}
          width={b.x1 - b.x0}
          height={b.y1 - b.y0}
          fill="#1f6b5722"
          stroke="#1f6b57"
          strokeWidth={0.5 * u}
          strokeDasharray={`${2 * u} ${1.5 * u}`}
        />
      )}
      <g transform={`translate(${z.x} ${height - z.y})`} stroke="#c8401f" strokeWidth={u} fill="none">
        <path d={`M${-4 * u} 0H${4 * u}M0 ${-4 * u}V${4 * u}`} />
        <circle r={2.4 * u} />
      </g>
      {written?.rings && (
        <path d={ringPath(written.rings, height)} fill="#1c2321" fillOpacity={0.55} fillRule="evenodd" />
      )}
    </svg>
  );
}

function ringPath(r: { xy: Float32Array; starts: Int32Array }, height: number): string {
  const parts: string[] = [];
  const every = Math.max(1, Math.round(r.xy.length / 40_000));
  for (let k = 0; k < r.starts.length - 1; k++) {
    for (let i = r.starts[k]; i < r.starts[k + 1]; i += every)
      parts.push(`${i === r.starts[k] ? "M" : "L"}${r.xy[2 * i].toFixed(2)} ${(height - r.xy[2 * i + 1]).toFixed(2)}`);
    parts.push("Z");
  }
  return parts.join("");
}
