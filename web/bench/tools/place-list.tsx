import { LocateFixed, Trash2 } from "lucide-react";
import { aboutOf } from "@oaken/core/job/graph";
import { cropBox } from "@oaken/core/picture/frame";
import { makingKind } from "@oaken/core/makings/register";
import { LengthField } from "../../ui/length-field.tsx";
import { useActions, useBench, useBenchStore } from "../context.tsx";
import { type Ground, type Placed, placedBy, withItem } from "./placed.ts";
import { spaceOf } from "./space.ts";

/** Items listed before the rest is only counted. */
const LISTED = 12;

/** What a tool has placed, beside the stage: each moved by typing, shown and taken away. */
export function PlaceList({
  part,
  field,
  label,
  tool,
  value,
}: {
  part: string;
  field: string;
  label: string;
  tool: string;
  value: string;
}) {
  const ground = useGround(part);
  const store = useBenchStore();
  const { setting } = useActions();
  if (ground === "unknown") return null;
  const set = (k: number, text: string | null) =>
    setting(part, field, label.toLowerCase(), withItem(tool, value, k, text));
  const all = readable(() => placedBy(tool, value, ground));
  const show = ({ measures: [x, y] }: Placed) => store.setState({ target: { x: x.mm, y: y.mm, n: Date.now() } });
  return (
    <ul aria-label={label} className="mb-1 grid gap-1">
      {all.slice(0, LISTED).map((item, k) => (
        <li key={k} className="rounded-md border border-line bg-raised px-2 py-1">
          <div className="flex items-center">
            <span className="flex-1 text-[13px] font-semibold">{item.name}</span>
            <button
              className="btn btn-plain !h-7 !w-7 !p-0"
              aria-label={`Show ${item.name.toLowerCase()}`}
              title="Show on the stage"
              onClick={() => show(item)}
            >
              <LocateFixed size={14} />
            </button>
            <button
              className="btn btn-plain !h-7 !w-7 !p-0"
              aria-label={`Remove ${item.name.toLowerCase()}`}
              title="Remove"
              onClick={() => set(k, null)}
            >
              <Trash2 size={14} />
            </button>
          </div>
          <Measures item={item} set={(text) => set(k, text)} />
        </li>
      ))}
      {all.length > LISTED && <li className="text-[12.5px] text-soft">and {all.length - LISTED} more</li>}
    </ul>
  );
}

function Measures({ item, set }: { item: Placed; set(text: string): void }) {
  const unit = useBench((s) => s.unit);
  return (
    <div className="grid grid-cols-2 gap-x-2">
      {item.measures.map((m) => (
        <label key={m.label} className="block text-[12px] leading-4 text-soft">
          {m.label}
          <LengthField
            label={`${item.name} ${m.label}`}
            value={m.mm}
            unit={unit}
            min={m.least}
            max={100_000}
            width={112}
            onChange={(mm) => set(m.set(mm))}
          />
        </label>
      ))}
    </div>
  );
}

/** Where a part's places are measured: on the stock for a cut, in its picture for a making; unknown until built. */
function useGround(part: string): Ground | null | "unknown" {
  const built = useBench((s) => s.built);
  const doc = useBench((s) => s.doc);
  const making = doc.makings.find((m) => m.id === part);
  if (!making) return null;
  const space = spaceOf(built);
  if (!space) return "unknown";
  // A picture's own settings count from its uncropped corner, those of what is made from it from the cropped one's.
  const isPicture = makingKind(making.kind).gives === "raster";
  const crop = isPicture ? String(aboutOf(doc, part, "raster")?.settings.crop ?? "") : "";
  const { x, y } = readable(() => [cropBox(crop, 1e9, 1e9)])[0] ?? { x: 0, y: 0 };
  return { space, offset: [x, y] };
}

/** What a text says, nothing where it cannot be read: the build says what is wrong with it. */
function readable<T>(read: () => T[]): T[] {
  try {
    return read();
  } catch {
    return [];
  }
}
