import type { Space } from "./space.ts";
import type { Tool } from "./tools.ts";
import { type Hand, keyStep } from "./use-gesture.ts";

const CHALK = "#f2d45c";
/** Half the crosshair's width, px of the screen. */
const REACH = 9;
const CORNERS = ["Far left corner", "Far right corner", "Near right corner", "Near left corner"];

/** The gesture so far, drawn over the picture, with the keyboard's crosshair. */
export function DrawnGesture({
  hand,
  tool,
  gesture,
  mode,
  brush,
  proportion,
  space,
  onScreen,
}: {
  hand: Hand;
  tool: Tool;
  gesture: Tool["gesture"];
  mode: string;
  /** px of the picture */
  brush: number;
  /** proportion that a crop keeps, width over height; 0 for any */
  proportion: number;
  space: Space;
  onScreen(px: number, py: number): [number, number];
}) {
  const { points } = hand;
  const screen = Array.from({ length: points.length / 2 }, (_, i) => onScreen(points[2 * i], points[2 * i + 1]));
  const path = screen.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join("");
  const isLasso = mode === "lasso";
  const isBrush = mode === "brush";
  return (
    <>
      {gesture === "drag" && screen.length === 2 && tool.drawn === "line" && (
        <path d={path} stroke={CHALK} strokeWidth="2.5" />
      )}
      {gesture === "drag" && screen.length === 2 && tool.drawn !== "line" && (
        <Box from={screen[0]} to={screen[1]} proportion={mode === "proportion" ? proportion : 0} />
      )}
      {gesture === "stroke" && screen.length > 1 && (
        <path
          d={path + (isLasso ? "Z" : "")}
          fill={isLasso ? `${CHALK}22` : "none"}
          stroke={CHALK}
          strokeOpacity={isBrush ? 0.6 : 1}
          strokeWidth={isBrush ? Math.max(2, Math.abs(onScreen(brush * 2, 0)[0] - onScreen(0, 0)[0])) : 2}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
      {gesture === "corners" && screen.length === 4 && (
        <>
          <path d={path + "Z"} fill={`${CHALK}18`} stroke={CHALK} strokeWidth="2" />
          {screen.map(([x, y], i) => (
            <circle
              key={CORNERS[i]}
              cx={x}
              cy={y}
              r="9"
              fill="#23423a"
              stroke={CHALK}
              strokeWidth="3"
              role="slider"
              tabIndex={0}
              aria-label={CORNERS[i]}
              aria-valuenow={Math.round(points[2 * i])}
              aria-valuetext={placeSaid(space, points[2 * i], points[2 * i + 1])}
              className="outline-none focus-visible:stroke-[5px]"
              onKeyDown={(e) => {
                const step = keyStep(e, space);
                if (!step) return;
                hand.moveCorner(i, step.dx, step.dy);
                e.preventDefault();
                e.stopPropagation();
              }}
            />
          ))}
        </>
      )}
      {hand.cursor && <Crosshair at={onScreen(...hand.cursor)} />}
    </>
  );
}

/** A place of the picture in words: where it lies on the stock. */
export function placeSaid(space: Space, px: number, py: number): string {
  const [x, y] = space.toStock(px, py);
  return `x ${x.toFixed(1)}, y ${y.toFixed(1)} mm`;
}

function Box({ from, to, proportion }: { from: [number, number]; to: [number, number]; proportion: number }) {
  const width = Math.abs(to[0] - from[0]);
  return (
    <rect
      x={Math.min(from[0], to[0])}
      y={Math.min(from[1], to[1])}
      width={width}
      height={proportion > 0 ? width / proportion : Math.abs(to[1] - from[1])}
      fill={`${CHALK}22`}
      stroke={CHALK}
      strokeWidth="2"
      strokeDasharray="6 4"
    />
  );
}

export function Crosshair({ at: [x, y] }: { at: [number, number] }) {
  const d = `M${x - REACH} ${y}H${x + REACH}M${x} ${y - REACH}V${y + REACH}`;
  return (
    <g data-crosshair="" pointerEvents="none">
      <path d={d} stroke="#14231e" strokeWidth="4" />
      <path d={d} stroke={CHALK} strokeWidth="2" />
    </g>
  );
}
