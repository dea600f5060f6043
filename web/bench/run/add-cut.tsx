"use client";
import { Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { CUTS } from "@oaken/core/cuts/register";
import { addCut } from "@oaken/core/job/edit";
import { useShop } from "../../ui/shop.tsx";
import { useActions, useBenchStore } from "../context.tsx";

/** One more cut at the end of the run, on the outline at hand. */
export function AddCut() {
  const store = useBenchStore();
  const { cutters } = useShop();
  const { change, select } = useActions();
  const add = (kind: string) => {
    let id = "";
    change(`add a cut`, (d) => void (id = addCut(d, kind, store.getState().selected, cutters)));
    select(id);
  };
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className={
          "grid h-[74px] w-11 shrink-0 place-items-center rounded-md border border-dashed border-line text-soft " +
          "hover:bg-sunk"
        }
        aria-label="Add a cut"
        title="Add a cut"
      >
        <Plus size={18} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          side="top"
          align="end"
          sideOffset={6}
          className="z-50 w-80 rounded-md border border-line bg-raised p-1 shadow-card"
        >
          {CUTS.filter((k) => !k.helps).map((k) => (
            <DropdownMenu.Item
              key={k.kind}
              className={
                "flex h-9 cursor-pointer items-center gap-2 rounded px-2 outline-none data-[highlighted]:bg-sunk"
              }
              onSelect={() => add(k.kind)}
            >
              <span className="w-24 shrink-0 font-semibold">{k.title}</span>
              <span className="text-[13px] text-soft">{k.about}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
