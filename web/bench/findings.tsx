"use client";
import { CircleAlert, Info, OctagonX, TriangleAlert } from "lucide-react";
import { Popover } from "radix-ui";
import type { Finding } from "@oaken/core/inspect/finding";
import { useActions, useBench, useBenchStore, useSpoken } from "./context.tsx";
import { isAtOnce, useCures } from "./cures.ts";

const LOOK = {
  stop: { Icon: OctagonX, colour: "text-danger", word: "stops" },
  warning: { Icon: TriangleAlert, colour: "text-amber", word: "warning" },
  note: { Icon: Info, colour: "text-soft", word: "note" },
};

/** The inspection: a count in the header, the list below it, each finding with its place and its cure. */
export function Findings() {
  const built = useBench((s) => s.built);
  const store = useBenchStore();
  const { select } = useActions();
  const { cure, choosing, wrong } = useCures();
  const list = built?.findings ?? [];
  const worst = list[0]?.severity;
  const show = (f: Finding) => {
    const id = f.cure?.id ?? f.cut;
    if (id) select(id);
    if (f.at) store.setState({ target: { ...f.at, n: Date.now() } });
  };
  const say = useSpoken();
  const Icon = worst ? LOOK[worst].Icon : CircleAlert;
  return (
    <Popover.Root>
      <Popover.Trigger className={`btn btn-plain ${worst ? LOOK[worst].colour : "!text-spruce"}`}>
        {worst && <Icon size={16} />}
        {!built
          ? "inspecting"
          : list.length === 0
            ? "no findings"
            : `${list.length} ${list.length === 1 ? "finding" : "findings"}`}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          className="z-50 max-h-[70vh] w-[420px] overflow-auto rounded-md border border-line bg-raised p-2 shadow-card"
          aria-label="Findings"
        >
          {list.length === 0 && (
            <p className="p-2">Nothing stands against cutting this. Look at the piece at a low angle all the same.</p>
          )}
          {list.map((f, i) => {
            const L = LOOK[f.severity];
            return (
              <div key={i} className="flex gap-2 border-b border-line p-2 last:border-0">
                <L.Icon size={18} className={`mt-0.5 shrink-0 ${L.colour}`} aria-label={L.word} />
                <div>
                  <p>{say(f.message)}</p>
                  <div className="mt-1 flex gap-2">
                    {(f.at || f.cure || f.cut) && (
                      <button className="btn btn-plain !h-7 !px-1 !text-spruce" onClick={() => show(f)}>
                        Show
                      </button>
                    )}
                    {f.cure && isAtOnce(f) && (
                      <button className="btn !h-7" onClick={() => cure(f)} disabled={choosing !== null}>
                        {f.cure.chooses && choosing === f.cure.id ? "Trying the rack …" : say(f.cure.label ?? "")}
                      </button>
                    )}
                  </div>
                  {f.cure?.chooses && wrong?.id === f.cure.id && (
                    <p role="alert" className="mt-1 text-danger">
                      {wrong.message}
                    </p>
                  )}
                </div>
              </div>
            );
          })}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
