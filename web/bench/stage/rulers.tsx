import { formatLength, MM_PER_INCH } from "@oaken/core/units";
import { useBench } from "../context.tsx";
import { useCamera } from "./camera.ts";
import type { StageScene } from "./scene.ts";

const STEPS = { mm: [1, 5, 10, 20, 50, 100, 200, 500, 1000], in: [0.25, 0.5, 1, 2, 5, 10, 20] };
/** Labels stand at least this far apart, pixels. */
const APART = 56;

/** Figures along the stock's near and left edges, seen from above. */
export function Rulers({ scene }: { scene: StageScene }) {
  const stock = useBench((s) => s.doc.stock);
  const unit = useBench((s) => s.unit);
  useCamera(scene);
  const a = scene.eye.project(0, 0, 0);
  const b = scene.eye.project(stock.width, 0, 0);
  const c = scene.eye.project(0, stock.height, 0);
  const scale = (b.x - a.x) / stock.width;
  if (!(scale > 0)) return null;
  const k = unit === "mm" ? 1 : MM_PER_INCH;
  const step = (STEPS[unit].find((s) => s * k * scale >= APART) ?? 1000) * k;
  const ticks = (length: number) => Array.from({ length: Math.floor(length / step + 1e-6) + 1 }, (_, i) => i * step);
  return (
    <svg
      aria-hidden="true"
      className="pointer-events-none absolute inset-0 h-full w-full overflow-visible"
      fontSize="11"
      fontFamily="var(--font-mono)"
      fill="#a9c0b5"
      stroke="none"
    >
      {ticks(stock.width).map((t) => (
        <g key={`x${t}`} transform={`translate(${a.x + t * scale} ${a.y})`}>
          <path d="M0 3V9" stroke="#a9c0b5" />
          <text y={21} textAnchor="middle">
            {formatLength(t, unit)}
          </text>
        </g>
      ))}
      {ticks(stock.height).map((t) => (
        <g key={`y${t}`} transform={`translate(${a.x} ${a.y - (t * (a.y - c.y)) / stock.height})`}>
          <path d="M-9 0H-3" stroke="#a9c0b5" />
          <text x={-12} y={4} textAnchor="end">
            {formatLength(t, unit)}
          </text>
        </g>
      ))}
    </svg>
  );
}
