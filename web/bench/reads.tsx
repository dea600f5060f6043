import type { JobNode } from "@oaken/core/job/document";
import { makingsThatGive, upstreamOf } from "@oaken/core/job/graph";
import { makingKind } from "@oaken/core/makings/register";
import { Pick } from "../ui/pick.tsx";
import { useActions, useBench } from "./context.tsx";

/** What a making reads, by name, where there is a choice: none that is made from itself. */
export function Reads({ making }: { making: JobNode }) {
  const doc = useBench((s) => s.doc);
  const { change } = useActions();
  const takes = Object.entries(makingKind(making.kind).reads);
  const read = (at: number, id: string) =>
    change(takes[at][1].label.toLowerCase(), (d) => {
      const own = d.nodes.find((n) => n.id === making.id)!;
      own.reads = id === "none" ? own.reads.slice(0, at) : Object.assign([...own.reads], { [at]: id });
    });
  return takes.map(([name, take], at) => {
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
          value={making.reads[at] ?? "none"}
          options={[
            ...(take.optional ? [{ value: "none", label: "none" }] : []),
            ...others.map((o) => ({ value: o.id, label: o.name })),
          ]}
          onChange={(id) => read(at, id)}
        />
      </div>
    );
  });
}
