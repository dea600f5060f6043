import { Plus, Trash2 } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { JobMaking } from "@oaken/core/job/document";
import { addMaking, removeMaking } from "@oaken/core/job/edit";
import { upstreamOf } from "@oaken/core/job/graph";
import { ENDS } from "@oaken/core/makings/product";
import { kindsReading, makingKind } from "@oaken/core/makings/register";
import { TextField } from "../ui/text-field.tsx";
import { useActions, useBench } from "./context.tsx";

/** A making's name, itself out again where others are left, and what can be made from it. */
export function MakingHead({ making, children }: { making: JobMaking; children?: React.ReactNode }) {
  const doc = useBench((s) => s.doc);
  const ends = doc.makings.filter((n) => ENDS.has(makingKind(n.kind).gives));
  return (
    <div className="grid gap-1.5 px-3 pb-2">
      {ends.length > 1 && ends.includes(making) && <Name making={making} />}
      <div className="flex gap-1.5">
        <MakeMore making={making} />
        {children}
      </div>
    </div>
  );
}

function Name({ making: { id, name } }: { making: JobMaking }) {
  const { change } = useActions();
  const rename = (said: string) =>
    change(`rename ${name}`, (d) => void (d.makings.find((n) => n.id === id)!.name = said));
  return (
    <div className="flex gap-1.5">
      <TextField label="Name of the making" value={name} most={80} onTake={rename} className="min-w-0 flex-1" />
      <button
        className="btn btn-icon !h-8"
        aria-label={`Remove ${name}`}
        title="Take this out, with all that is made from it"
        onClick={() => change(`remove ${name}`, (d) => removeMaking(d, id))}
      >
        <Trash2 size={14} />
      </button>
    </div>
  );
}

/** The kinds of making that read what this one gives. */
function MakeMore({ making }: { making: JobMaking }) {
  const doc = useBench((s) => s.doc);
  const { change, select } = useActions();
  const kinds = kindsReading(makingKind(making.kind).gives);
  if (kinds.length === 0) return null;
  const add = (kind: (typeof kinds)[number]) => {
    const [first, second] = Object.values(kind.reads);
    // What takes two of a kind begins with both, where there is another.
    const other =
      second?.gives === first.gives
        ? doc.makings.find(
            (n) =>
              n !== making &&
              makingKind(n.kind).gives === first.gives &&
              upstreamOf(doc, making.id, (m) => m === n) === undefined,
          )
        : undefined;
    let id = "";
    change(
      `add a ${kind.title.toLowerCase()}`,
      (d) => void (id = addMaking(d, kind.kind, making.id, ...(other ? [other.id] : []))),
    );
    select(id);
  };
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="btn !h-8 !px-2" title={`What can be made from ${making.name}`}>
        <Plus size={15} /> Make from it
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-50 w-[272px] rounded-md border border-line bg-raised p-1 shadow-card"
        >
          {kinds.map((k) => (
            <DropdownMenu.Item
              key={k.kind}
              className="grid cursor-pointer rounded px-2 py-1.5 outline-none data-[highlighted]:bg-sunk"
              onSelect={() => add(k)}
            >
              <span className="font-semibold">{k.title}</span>
              <span className="text-[13px] leading-4 text-soft">{k.about}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
