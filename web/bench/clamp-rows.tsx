import { Plus, Trash2 } from "lucide-react";
import { type Clamp, MOST_CLAMPS } from "@oaken/core/job/document";
import { removeClamp } from "@oaken/core/job/edit";
import { LengthField } from "../ui/length-field.tsx";
import { useActions, useBench } from "./context.tsx";

/** A clamp and a screw as they usually are, mm. */
const CLAMP = { width: 40, height: 20, tall: 15 };
const SCREW = { width: 10, height: 10, tall: 3, round: true };

const FIELDS = [
  { key: "x", label: "from the left", least: -10000 },
  { key: "y", label: "from the front", least: -10000 },
  { key: "width", label: "wide", least: 0.5 },
  { key: "height", label: "deep", least: 0.5 },
  { key: "tall", label: "tall", least: 0 },
] as const;

/** What holds the stock down: cuts keep clear of it, rapids pass over it. */
export function ClampRows() {
  const clamps = useBench((s) => s.doc.stock.clamps) ?? [];
  const unit = useBench((s) => s.unit);
  const { change } = useActions();
  const edit = (what: string, work: (all: Clamp[]) => void) => change(what, (d) => work((d.stock.clamps ??= [])));
  const add = (like: typeof CLAMP | typeof SCREW, what: string) =>
    edit(`add a ${what}`, (all) => void all.push({ x: 0, y: 0, ...like }));
  return (
    <section aria-label="Clamps" className="border-t border-line py-2.5">
      <h3 className="text-[15px]">Clamps and screws</h3>
      <p className="text-[12.5px] leading-[17px] text-soft">
        Cuts that would run into one are found; rapids pass over the tallest.
      </p>
      {clamps.map((c, i) => {
        const name = `${c.round ? "Screw" : "Clamp"} ${i + 1}`;
        return (
          <div key={i} className="mt-2 rounded-md border border-line bg-raised p-2">
            <div className="flex items-center justify-between">
              <span className="font-semibold">{name}</span>
              <button
                className="btn btn-plain !h-7 !w-7 !p-0"
                aria-label={`Remove ${name.toLowerCase()}`}
                onClick={() => change(`remove ${name.toLowerCase()}`, (d) => removeClamp(d, i))}
              >
                <Trash2 size={14} />
              </button>
            </div>
            {FIELDS.filter((f) => !(c.round && f.key === "height")).map(({ key, label, least }) => (
              <div key={key} className="flex min-h-[34px] items-center justify-between gap-2">
                <span className="text-soft">{c.round && key === "width" ? "across" : label}</span>
                <LengthField
                  label={`${name} ${c.round && key === "width" ? "across" : label}`}
                  value={c[key]}
                  unit={unit}
                  min={least}
                  max={10000}
                  width={96}
                  onChange={(v) =>
                    edit(`${name.toLowerCase()} ${label}`, (all) => {
                      all[i][key] = v;
                      if (c.round && key === "width") all[i].height = v;
                    })
                  }
                />
              </div>
            ))}
          </div>
        );
      })}
      {clamps.length < MOST_CLAMPS && (
        <div className="mt-2 flex gap-2">
          <button className="btn !h-8" onClick={() => add(CLAMP, "clamp")}>
            <Plus size={14} /> Clamp
          </button>
          <button className="btn !h-8" onClick={() => add(SCREW, "screw")}>
            <Plus size={14} /> Screw
          </button>
        </div>
      )}
    </section>
  );
}
