import { type Light, USUAL_LIGHT } from "@oaken/core/proof/shading";
import { arrowMove } from "../../ui/arrows.ts";
import { useBench, useBenchStore } from "../context.tsx";

/** The dome's radius, and how near to its rim the light may stand, as a share of it. */
const RADIUS = 30;
const LOWEST = 0.97;
/** How far an arrow key moves the light, as a share of the radius. */
const STEP = 0.08;

/** A place on the dome as a direction: its middle is straight above, its rim level with the board. */
function lightAt(x: number, y: number): Light {
  const far = Math.hypot(x, y);
  const k = far > LOWEST ? LOWEST / far : 1;
  return { x: k * x, y: k * y, z: Math.sqrt(1 - k * k * far * far) };
}

/** The same as a place on the dome, which directions of any length have. */
function placeOf({ x, y, z }: Light): { x: number; y: number } {
  const length = Math.hypot(x, y, z);
  return { x: x / length, y: y / length };
}

const SIDES = ["right", "back right", "back", "back left", "left", "front left", "front", "front right"];

/** Where the light comes from, in words. */
function said(light: Light): string {
  const { x, y } = placeOf(light);
  const height = Math.round((Math.acos(Math.min(1, Math.hypot(x, y))) * 180) / Math.PI);
  if (height > 80) return "light from above";
  const side = SIDES[(Math.round((Math.atan2(y, x) * 4) / Math.PI) + SIDES.length) % SIDES.length];
  return `light from the ${side}, ${height}° high`;
}

/** The sky over the board seen from above: the light is the spot on it. */
export function LightDome() {
  const store = useBenchStore();
  const light = useBench((s) => s.light);
  const spot = placeOf(light);
  const set = (to: Light) => store.setState({ light: to });
  const drag = (e: React.PointerEvent<SVGSVGElement>) => {
    const r = e.currentTarget.getBoundingClientRect();
    set(lightAt((e.clientX - r.left - r.width / 2) / RADIUS, (r.top + r.height / 2 - e.clientY) / RADIUS));
  };
  const side = 2 * RADIUS + 8;
  return (
    <div className="plate absolute right-3 top-3 p-1">
      <svg
        width={side}
        height={side}
        viewBox={`${-side / 2} ${-side / 2} ${side} ${side}`}
        role="slider"
        tabIndex={0}
        aria-label="Light"
        aria-valuenow={Math.round((Math.atan2(spot.y, spot.x) * 180) / Math.PI)}
        aria-valuemin={-180}
        aria-valuemax={180}
        aria-valuetext={said(light)}
        className="block cursor-pointer touch-none rounded"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          drag(e);
        }}
        onPointerMove={(e) => e.buttons && drag(e)}
        onDoubleClick={() => set(USUAL_LIGHT)}
        onKeyDown={(e) => {
          const way = arrowMove(e.key, STEP);
          if (way) set(lightAt(spot.x + way.dx, spot.y + way.dy));
          else if (e.key === "Home") set(USUAL_LIGHT);
          else return;
          e.preventDefault();
          e.stopPropagation();
        }}
      >
        <title>{`${said(light)}; drag the spot, double-click to put it back`}</title>
        <circle r={RADIUS} fill="#1c352f" stroke="#5c756b" />
        <circle r={RADIUS * 0.62} fill="none" stroke="#3d5a50" />
        <path d={`M${-RADIUS} 0H${RADIUS}M0 ${-RADIUS}V${RADIUS}`} stroke="#3d5a50" />
        <rect x="-9" y="-6" width="18" height="12" rx="1" fill="#9fb5aa" />
        <line x2={spot.x * RADIUS} y2={-spot.y * RADIUS} stroke="#f2d45c" strokeWidth="1" opacity="0.6" />
        <circle cx={spot.x * RADIUS} cy={-spot.y * RADIUS} r="5.5" fill="#f2d45c" />
      </svg>
    </div>
  );
}
