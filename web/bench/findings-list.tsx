"use client";
import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import type { Finding } from "@oaken/core/inspect/finding";
import { useActions, useBench, useBenchStore, useSpoken } from "./context.tsx";
import { isAtOnce, useCures } from "./cures.ts";
import { LOOK } from "./severity.ts";

/** The findings, each with its place and its cure, below what opened them. */
export function FindingsList({ opener }: { opener: ReactNode }) {
  const built = useBench((s) => s.built);
  const store = useBenchStore();
  const { select } = useActions();
  const { cure, choosing, wrong } = useCures();
  const list = built?.findings ?? [];
  const show = (f: Finding) => {
    const id = f.cure?.id ?? f.cut;
    if (id) select(id);
    if (f.at) store.setState({ target: { ...f.at, n: Date.now() } });
  };
  const say = useSpoken();
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger asChild>{opener}</Popover.Trigger>
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
