"use client";
import { useEffect } from "react";
import { Scan } from "lucide-react";
import { cropBox } from "@oaken/core/picture/frame";
import { useActions, useParts } from "../context.tsx";
import { loadOverlay } from "./load-overlay.ts";
import { spaceOf } from "./space.ts";
import { useTakeTool } from "./take.ts";
import { TOOLS } from "./tools.ts";

/** The tools that work on the picture itself, one click away. */
export function PictureTools({ part }: { part: string }) {
  const { tool, built, doc } = useParts("tool", "built", "doc");
  const { change } = useActions();
  const take = useTakeTool();
  useEffect(() => void loadOverlay(), []);
  const toContent = () => {
    const space = spaceOf(built);
    const outline = built?.shown.shapes?.outline;
    if (!space || !outline) return;
    const xy = outline.rings.xy;
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < xy.length; i += 2) {
      const [px, py] = space.toPixel(xy[i], xy[i + 1]);
      x0 = Math.min(x0, px);
      x1 = Math.max(x1, px);
      y0 = Math.min(y0, py);
      y1 = Math.max(y1, py);
    }
    const pad = 0.02 * Math.max(x1 - x0, y1 - y0);
    const own = cropBox((doc.makings.find((n) => n.id === part)!.settings.crop as string) ?? "", 1e9, 1e9);
    const crop = [
      own.x + Math.max(0, x0 - pad),
      own.y + Math.max(0, y0 - pad),
      Math.min(space.width, x1 + pad) - Math.max(0, x0 - pad),
      Math.min(space.height, y1 + pad) - Math.max(0, y0 - pad),
    ];
    change(
      "crop to the ink",
      (d) => void (d.makings.find((n) => n.id === part)!.settings.crop = crop.map((v) => Math.round(v)).join(",")),
    );
  };
  const tools = TOOLS.filter((t) => t.Icon);
  return (
    <div role="group" aria-label="Picture tools" className="grid grid-cols-2 gap-1.5 px-3 pb-3">
      {tools.map(({ id, title, Icon = Scan }) => (
        <button
          key={id}
          className="btn !h-8 !px-2 aria-pressed:!border-spruce aria-pressed:text-spruce"
          aria-pressed={tool?.id === id}
          onClick={() => take(id, part)}
        >
          <Icon size={14} /> {title}
        </button>
      ))}
      <button className="btn !h-8 !px-2" onClick={toContent}>
        <Scan size={14} /> Crop to ink
      </button>
    </div>
  );
}
