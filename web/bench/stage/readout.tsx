import { formatLength } from "@oaken/core/units";
import { useBench } from "../context.tsx";

/** What is under the pointer: its place, its depth and the cut that made it; the stock's size where that is nothing. */
export function Readout() {
  const spot = useBench((s) => s.spot);
  const { width, height, thickness } = useBench((s) => s.doc.stock);
  const unit = useBench((s) => s.unit);
  const by = useBench((s) => {
    const id = spot && spot.by > 0 ? s.built?.cuts[spot.by - 1]?.id : undefined;
    return s.doc.cuts.find((c) => c.id === id)?.name;
  });
  const n = (v: number) => formatLength(v, unit);
  const isOnStock = spot && spot.x >= 0 && spot.y >= 0 && spot.x <= width && spot.y <= height;
  return (
    <div
      className={
        "plate num absolute bottom-3 left-3 max-[1100px]:bottom-14 flex min-h-8 items-center whitespace-pre px-3"
      }
      data-testid="readout"
    >
      {isOnStock
        ? `x ${n(spot.x)}  y ${n(spot.y)}  depth ${n(-spot.z)}${by ? `  by ${by}` : ""}`
        : `${n(width)} × ${n(height)} × ${n(thickness)} ${unit}`}
    </div>
  );
}
