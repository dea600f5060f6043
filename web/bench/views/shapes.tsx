import { useEffect, useRef } from "react";
import type { DrawnRings } from "../../compute/messages.ts";
import { useBench } from "../context.tsx";
import { Histogram } from "../histogram.tsx";
import { ColourList, PieceList } from "../outline-lists.tsx";
import { AnotherOutline } from "./another-outline.tsx";
import { SmallPicture } from "./small-picture.tsx";
import type { ProductView } from "./view.ts";

/** Closed shapes, however they were made. */
export const shapesView: ProductView<"shapes"> = {
  about({ drawn, isBuilt }) {
    if (!drawn) return isBuilt ? "no shapes" : "…";
    const { pieces } = drawn.outline;
    return `${pieces} ${pieces === 1 ? "contour" : "contours"}`;
  },
  figures({ drawn, say }) {
    if (!drawn) return "";
    const { nodes, maxDeviation } = drawn.outline;
    return drawn.isTraced ? say(`${nodes} nodes, off by at most ${maxDeviation.toFixed(3)} mm`) : `${nodes} nodes`;
  },
  Thumbnail: (seen) =>
    seen.isBuilt ? (
      <Silhouette rings={seen.drawn?.outline.rings ?? null} />
    ) : (
      <SmallPicture doc={seen.doc} making={seen.making} />
    ),
  Beside: AnotherOutline,
  Above,
  Below: ({ part }) => <PieceList part={part} />,
};

function Above({ part }: { part: string }) {
  const shapes = useBench((s) => s.built?.shown.shapes ?? null);
  return (
    <>
      {shapes?.isTraced && !shapes.colours && <Histogram />}
      <ColourList part={part} />
    </>
  );
}

/** Pixels of the small picture, twice over for sharp screens. */
const WIDE = 96;
const HIGH = 72;
const ROOM = 4;

function Silhouette({ rings }: { rings: DrawnRings | null }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const g = ref.current?.getContext("2d");
    if (!g || !rings) return;
    const { xy, starts } = rings;
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < xy.length; i += 2) {
      [minX, maxX] = [Math.min(minX, xy[i]), Math.max(maxX, xy[i])];
      [minY, maxY] = [Math.min(minY, xy[i + 1]), Math.max(maxY, xy[i + 1])];
    }
    const k = Math.min((WIDE - 2 * ROOM) / (maxX - minX || 1), (HIGH - 2 * ROOM) / (maxY - minY || 1));
    g.clearRect(0, 0, WIDE, HIGH);
    g.setTransform(k, 0, 0, -k, WIDE / 2 - (k * (minX + maxX)) / 2, HIGH / 2 + (k * (minY + maxY)) / 2);
    g.beginPath();
    for (let q = 0; q < starts.length - 1; q++) {
      for (let i = starts[q]; i < starts[q + 1]; i++)
        if (i === starts[q]) g.moveTo(xy[2 * i], xy[2 * i + 1]);
        else g.lineTo(xy[2 * i], xy[2 * i + 1]);
      g.closePath();
    }
    g.fillStyle = "#d5e6de";
    g.fill("evenodd");
    g.strokeStyle = "#1f6b57";
    g.lineWidth = 1.4 / k;
    g.stroke();
    g.setTransform(1, 0, 0, 1, 0, 0);
  }, [rings]);
  return <canvas ref={ref} width={WIDE} height={HIGH} className="h-full w-full" />;
}
