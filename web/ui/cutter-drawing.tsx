import type { Cutter } from "@oaken/core/cutters/profile";
import { profileOf } from "@oaken/core/cutters/profile";
import { formatLength, type Unit } from "@oaken/core/units";

/** The drawing's box and what stands round the cutter in it, px. */
const BOX = { width: 268, height: 300, top: 14, bottom: 40, side: 74 };
/** Steps in which a cutter's edge is drawn. */
const STEPS = 60;
/** A torch's beam is drawn this long in kerfs. */
const BEAM = 14;

/** A cutter drawn from its numbers to scale: cutting edge, flutes, reach and shank, with its measures. */
export function CutterDrawing({ cutter, unit }: { cutter: Cutter; unit: Unit }) {
  let profile;
  try {
    profile = profileOf(cutter);
  } catch {
    return <p className="grid h-[300px] place-items-center text-soft">These numbers make no cutter.</p>;
  }
  const isTorch = cutter.kind === "torch";
  const R = cutter.diameter / 2;
  const cuts = cutter.kind === "v" ? profile.height : cutter.fluteLength;
  const edge = isTorch ? BEAM * R : cuts;
  const reach = Math.max(edge, cutter.reach ?? 0);
  const shank = (cutter.shank ?? cutter.diameter) / 2;
  const held = isTorch ? 0 : Math.max(0.5 * reach, 2 * shank);
  const room = { width: BOX.width - 2 * BOX.side, height: BOX.height - BOX.top - BOX.bottom };
  const k = Math.min(room.width / (2 * Math.max(R, shank)), room.height / (reach + held));
  const cx = BOX.width / 2;
  const bottom = BOX.height - BOX.bottom;
  const y = (h: number) => bottom - h * k;
  const x = (r: number) => cx + r * k;
  const say = (mm: number) => `${formatLength(mm, unit)} ${unit}`;
  const rs = Array.from({ length: STEPS + 1 }, (_, i) => (R * i) / STEPS);
  const right = rs.map((r) => `${x(r)} ${y(Math.min(edge, profile.h(r)))}`);
  const left = [...rs].reverse().map((r) => `${x(-r)} ${y(Math.min(edge, profile.h(r)))}`);
  const body = `M${x(-R)} ${y(edge)}L${left.join("L")}L${right.join("L")}L${x(R)} ${y(edge)}Z`;
  const line = { stroke: "#55605b", strokeWidth: 1 };
  return (
    <svg
      viewBox={`0 0 ${BOX.width} ${BOX.height}`}
      className="w-full"
      role="img"
      aria-label={`${cutter.name ?? cutter.kind}: ${say(cutter.diameter)} wide`}
    >
      {isTorch ? (
        <path d={`M${cx - 26} ${BOX.top}h52v${0.3 * room.height}l-14 40h-24l-14 -40z`} fill="#86938d" />
      ) : (
        <>
          <rect x={x(-shank)} y={y(reach + held)} width={2 * shank * k} height={held * k} fill="#a3aea8" />
          {reach > edge && <rect x={x(-R)} y={y(reach)} width={2 * R * k} height={(reach - edge) * k} fill="#86938d" />}
        </>
      )}
      <clipPath id="cutter-edge">
        <path d={body} />
      </clipPath>
      <path d={body} fill={isTorch ? "#c8401f" : "#4d5853"} />
      {!isTorch && (
        <g clipPath="url(#cutter-edge)" stroke="#8d9a94" strokeWidth={1.2}>
          {flutes(cutter, edge, k).map((h, i) => (
            <line key={i} x1={x(-R)} y1={y(h)} x2={x(R)} y2={y(h + slant(cutter) * R)} />
          ))}
        </g>
      )}
      <g fontSize={12} fill="#1c2321" fontFamily="var(--font-mono)">
        <line x1={x(-R)} x2={x(R)} y1={bottom + 14} y2={bottom + 14} {...line} />
        {[-R, R].map((r) => (
          <line key={r} x1={x(r)} x2={x(r)} y1={bottom + 9} y2={bottom + 19} {...line} />
        ))}
        <text x={cx} y={bottom + 33} textAnchor="middle">
          {say(cutter.diameter)}
          {cutter.angle !== undefined && ` · ${cutter.angle}°`}
        </text>
        {!isTorch && (
          <>
            <line x1={BOX.width - 62} x2={BOX.width - 62} y1={y(edge)} y2={bottom} {...line} />
            <line x1={BOX.width - 67} x2={BOX.width - 57} y1={y(edge)} y2={y(edge)} {...line} />
            <line x1={BOX.width - 67} x2={BOX.width - 57} y1={bottom} y2={bottom} {...line} />
            <text x={BOX.width - 52} y={(y(edge) + bottom) / 2 + 4}>
              {formatLength(edge, unit)}
            </text>
          </>
        )}
      </g>
    </svg>
  );
}

/** How steeply flutes are drawn: up-cut rises to the right, down-cut falls, straight ones stand. */
const slant = ({ spiral = "up" }: Cutter): number => (spiral === "down" ? -1.6 : spiral === "straight" ? 0 : 1.6);

/** Where the flutes' lines cross the axis, mm above the tip. */
function flutes({ diameter, flutes: n, spiral }: Cutter, edge: number, k: number): number[] {
  if (spiral === "straight") return [];
  const apart = Math.max(6 / k, (Math.PI * diameter) / (2 * n));
  return Array.from({ length: Math.ceil(edge / apart) + 4 }, (_, i) => (i - 2) * apart);
}
