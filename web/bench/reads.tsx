import type { JobMaking } from "@oaken/core/job/document";
import { makingsThatGive, upstreamOf } from "@oaken/core/job/graph";
import { makingKind } from "@oaken/core/makings/register";
import { Pick } from "../ui/pick.tsx";
import { useActions, useBench } from "./context.tsx";

/** What a making reads, by name, where there is a choice: none that is made from itself. */
export function Reads({ making }: { making: JobMaking }) {
  const doc = useBench((s) => s.doc);
  const { change } = useActions();
  const takes = Object.entries(makingKind(making.kind).reads);
  const read = (name: string, label: string, id: string) =>
    change(label.toLowerCase(), (d) => {
      const own = d.makings.find((n) => n.id === making.id)!;
      if (id === "none") delete own.reads[name];
      else own.reads[name] = id;
    });
  return takes.map(([name, take]) => {
    const others = makingsThatGive(doc, take.gives).filter(
      (n) => upstreamOf(doc, n.id, (m) => m.id === making.id) === undefined,
    );
    if (others.length < 2 && !take.optional) return null;
    return (
      <div
        key={name}
        className="mx-3 flex min-h-[50px] shrink-0 items-center justify-between gap-2 border-t border-line"
      >
        <span className="font-semibold">{take.label}</span>
        <Pick
          label={take.label}
          value={making.reads[name] ?? "none"}
          options={[
            ...(take.optional ? [{ value: "none", label: "none" }] : []),
            ...others.map((o) => ({ value: o.id, label: o.name })),
          ]}
          onChange={(id) => read(name, take.label, id)}
        />
      </div>
    );
  });
}
