import { Combine, Trash2 } from "lucide-react";
import { addCombination, addOutline, removeMaking } from "@oaken/core/job/edit";
import { makingsThatGive } from "@oaken/core/job/graph";
import { useActions, useBench } from "../context.tsx";

/** The name of shapes, more of them from the same picture, two of them as one, or these out again. */
export function ShapesHead({ part }: { part: string }) {
  const doc = useBench((s) => s.doc);
  const isTraced = useBench((s) => s.built?.shown.shapes?.isTraced ?? false);
  const { change, select } = useActions();
  const making = doc.makings.find((n) => n.id === part)!;
  const all = makingsThatGive(doc, "shapes");
  const several = all.length > 1;
  const add = (name: string, work: (d: typeof doc) => string) => {
    let id = "";
    change(name, (d) => void (id = work(d)));
    select(id);
  };
  const other = all.find((n) => n.id !== part && !Object.values(n.reads).includes(part))?.id;
  return (
    <div className="grid gap-1.5 px-3 pb-2">
      {several && (
        <div className="flex gap-1.5">
          <input
            aria-label="Name of the shapes"
            className="box min-w-0 flex-1 !font-sans"
            key={making.name}
            defaultValue={making.name}
            maxLength={80}
            onBlur={(e) => {
              const name = e.target.value.trim();
              if (!name || name === making.name) return;
              change("rename shapes", (d) => void (d.makings.find((n) => n.id === part)!.name = name));
            }}
            onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
          />
          <button
            className="btn btn-icon !h-8"
            aria-label={`Remove ${making.name}`}
            title="Remove these shapes"
            onClick={() => change(`remove ${making.name}`, (d) => removeMaking(d, part))}
          >
            <Trash2 size={14} />
          </button>
        </div>
      )}
      <div className="flex gap-1.5">
        {isTraced && (
          <button
            className="btn !h-8 !px-2"
            title="One more outline of the same picture, for another cut"
            onClick={() => add("add an outline", (d) => addOutline(d, part))}
          >
            Another outline
          </button>
        )}
        <button
          className="btn !h-8 !px-2"
          title="Add to these shapes, take others away from them, or move their edges: as shapes of their own"
          onClick={() => add("combine shapes", (d) => addCombination(d, part, other))}
        >
          <Combine size={15} /> Combine
        </button>
      </div>
    </div>
  );
}
