"use client";
import { EyeOff, Pipette, Split, SquarePlus } from "lucide-react";
import type { BoardJob } from "@oaken/core/job/document";
import { addOutline } from "@oaken/core/job/edit";
import { placeIn } from "@oaken/core/outline/pieces";
import { formatLength } from "@oaken/core/units";
import { useActions, useBench, useParts, useBenchStore } from "./context.tsx";
import { appended, itemsOf, type Space, spaceOf, textOf } from "./tools/space.ts";
import { useTakeTool } from "./tools/take.ts";

/** Pieces listed before the rest is only counted. */
const LISTED = 24;

/** The colours found, each kept or left out by a click. */
export function ColourList({ part }: { part: string }) {
  const built = useBench((s) => s.built);
  const take = useTakeTool();
  const { change, select } = useActions();
  const colours = built?.shown.shapes?.colours;
  if (!colours) return null;
  const toggle = (hex: string) =>
    change(
      "colours kept",
      (d) =>
        void (d.makings.find((n) => n.id === part)!.settings.keep = colours
          .filter((c) => c.kept !== (c.hex === hex))
          .map((c) => c.hex)
          .join(",")),
    );
  const alone = (hex: string) => {
    let id = "";
    change("an outline of one colour", (d) => void (id = addOutline(d, part, { keep: hex }, `Colour ${hex}`)));
    select(id);
  };
  return (
    <section aria-label="Colours" className="px-3 pb-2">
      <div className="flex items-center justify-between">
        <h3 className="text-[14px]">Colours</h3>
        <button className="btn btn-plain !h-7 !px-1.5 text-spruce" onClick={() => take("colours", part)}>
          <Pipette size={14} /> on the picture
        </button>
      </div>
      <ul className="grid gap-1">
        {colours.map((c) => (
          <li key={c.hex} className="flex items-center">
            <button
              className="flex h-8 min-w-0 flex-1 items-center gap-2 rounded px-1 text-left hover:bg-sunk"
              aria-pressed={c.kept}
              onClick={() => toggle(c.hex)}
            >
              <span className="h-5 w-8 rounded border border-line" style={{ background: c.hex }} />
              <span className="num">{c.hex}</span>
              <span className="num text-soft">{(100 * c.share).toFixed(1)} %</span>
              <span className="flex-1 text-right text-[13px]">
                {c.kept ? "kept" : c.ground ? "ground" : "left out"}
              </span>
            </button>
            <button
              className="btn btn-plain !h-8 !w-8 !p-0"
              aria-label={`An outline of ${c.hex} alone`}
              title="An outline of this colour alone, for its own cut"
              onClick={() => alone(c.hex)}
            >
              <SquarePlus size={15} />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Separate pieces and islands with their sizes; any can be shown on the stage or hidden. */
export function PieceList({ part }: { part: string }) {
  const { built, doc, unit } = useParts("built", "doc", "unit");
  const store = useBenchStore();
  const { change } = useActions();
  const space = spaceOf(built);
  const outline = built?.shown.shapes?.outline;
  if (!outline) return null;
  // Pieces are hidden and split off where the picture is traced: by a place in it.
  const hands = built.shown.shapes?.isTraced ? space : null;
  const { pieces, loose } = outline.figures;
  const n = (v: number) => formatLength(v, unit, unit === "mm" ? 1 : 2);
  const hidden = itemsOf(String(doc.makings.find((q) => q.id === part)!.settings.hide ?? ""));
  const inside = (p: (typeof pieces)[number], picture: Space): string => {
    const { rings } = outline;
    const [x, y] = placeIn(
      { xy: Float64Array.from(rings.xy), starts: rings.starts, parent: new Int32Array(0) },
      p.ring,
    );
    return textOf(picture.toPixel(x, y));
  };
  const hideIn = (d: BoardJob, place: string) => {
    const s = d.makings.find((q) => q.id === part)!.settings;
    s.hide = appended(String(s.hide ?? ""), place);
  };
  const hide = (p: (typeof pieces)[number], picture: Space) =>
    change("hide a piece", (d) => hideIn(d, inside(p, picture)));
  const splitOff = (p: (typeof pieces)[number], picture: Space) =>
    change("split off a piece", (d) => {
      const place = inside(p, picture);
      addOutline(d, part, { only: place });
      hideIn(d, place);
    });
  return (
    <section aria-label="Pieces" className="border-t border-line px-3 py-2">
      <h3 className="text-[14px]">Pieces</h3>
      <p className="text-[12.5px] text-soft">
        {pieces.filter((p) => !p.hole).length} of ink (squares)
        {loose > 0 &&
          `, ${loose} ${loose === 1 ? "island (ring)" : "islands (rings)"} that would fall out if cut through`}
        {outline.bridges.length > 0 && ` · ${outline.bridges.length} bridges`}
      </p>
      <ul className="mt-1">
        {pieces.slice(0, LISTED).map((p) => (
          <li key={p.ring} className="flex h-7 items-center gap-2">
            <button
              className="flex h-7 min-w-0 flex-1 items-center gap-2 rounded px-1 text-left hover:bg-sunk"
              title="Show on the stage"
              onClick={() => store.setState({ target: { x: p.x, y: p.y, n: Date.now() } })}
            >
              <span className={`h-2.5 w-2.5 shrink-0 ${p.hole ? "rounded-full border-2 border-amber" : "bg-spruce"}`} />
              <span className="sr-only">{p.hole ? "island" : "ink"}</span>
              <span className="num whitespace-nowrap">
                {n(p.box.maxX - p.box.minX)} × {n(p.box.maxY - p.box.minY)}
              </span>
              {p.thinnest > 0 && (
                <span className="num ml-auto whitespace-nowrap text-soft" title="narrowest stroke">
                  ≥ {n(p.thinnest)}
                </span>
              )}
            </button>
            {hands && (
              <button
                className="btn btn-plain !h-7 !w-7 !p-0"
                aria-label={`Hide this ${p.hole ? "island" : "piece"}`}
                title="Hide"
                onClick={() => hide(p, hands)}
              >
                <EyeOff size={13} />
              </button>
            )}
            {hands && !p.hole && pieces.length > 1 && (
              <button
                className="btn btn-plain !h-7 !w-7 !p-0"
                aria-label="Split off this piece"
                title="Split off, as an outline of its own for its own cut"
                onClick={() => splitOff(p, hands)}
              >
                <Split size={13} />
              </button>
            )}
          </li>
        ))}
      </ul>
      {pieces.length > LISTED && <p className="text-[12.5px] text-soft">and {pieces.length - LISTED} smaller ones</p>}
      {hidden.length > 0 && (
        <button
          className="btn mt-1 !h-7"
          onClick={() =>
            change("show a hidden piece", (d) => {
              const s = d.makings.find((q) => q.id === part)!.settings;
              const rest = hidden.slice(0, -1);
              if (rest.length > 0) s.hide = rest.join("; ");
              else delete s.hide;
            })
          }
        >
          Show the last of {hidden.length} hidden
        </button>
      )}
    </section>
  );
}
