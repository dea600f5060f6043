import { useContext, useRef } from "react";
import { ChartArea, Check, Columns2, Maximize, Palette } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { Slide } from "../../ui/slide.tsx";
import { COMMANDS, hint } from "../commands.ts";
import { BenchContext, useBench, useParts } from "../context.tsx";
import { acrossMiddle } from "./section-line.tsx";
import type { Colouring } from "../store.ts";

const SHOWN: readonly (readonly [Colouring, string])[] = [
  ["material", "as it lies on a table"],
  ["depth", "by depth"],
  ["cut", "by the cut that made it"],
  ["left", "what is left standing"],
  ["glow", "with a lamp behind it"],
];

/** How the stage is looked at: colours, wipe, all of it, tilt. */
export function StageBar() {
  const { bench } = useContext(BenchContext)!;
  const { store } = bench;
  const isWiped = useBench((s) => s.wipe !== null);
  const bar = useRef<HTMLDivElement>(null);
  const toggleWipe = () => store.setState({ wipe: isWiped ? null : bar.current!.parentElement!.clientWidth / 2 });
  const { colouring, tilt, section } = useParts("colouring", "tilt", "section");
  const stock = useBench((s) => s.doc.stock);
  const canGlow = useBench((s) => !!s.built?.litho);
  return (
    <div ref={bar} className="plate absolute bottom-3 right-3 flex items-center gap-3 px-3 py-1 text-[13px]">
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          className="grid h-7 w-7 place-items-center rounded hover:bg-white/10"
          title="How the piece is coloured"
          aria-label="How the piece is coloured"
        >
          <Palette size={16} color={colouring !== "material" ? "#f2d45c" : "currentColor"} />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            side="top"
            align="end"
            sideOffset={6}
            className="z-50 w-60 rounded-md border border-line bg-raised p-1 shadow-card"
          >
            <DropdownMenu.RadioGroup
              value={colouring}
              onValueChange={(v) => store.setState({ colouring: v as Colouring })}
            >
              {SHOWN.filter(([k]) => k !== "glow" || canGlow).map(([k, label]) => (
                <DropdownMenu.RadioItem
                  key={k}
                  value={k}
                  className={
                    "flex h-8 cursor-pointer items-center gap-2 rounded px-2 outline-none " +
                    "data-[highlighted]:bg-sunk"
                  }
                >
                  <span className="grid w-4 place-items-center">
                    <DropdownMenu.ItemIndicator>
                      <Check size={14} />
                    </DropdownMenu.ItemIndicator>
                  </span>
                  {label}
                </DropdownMenu.RadioItem>
              ))}
            </DropdownMenu.RadioGroup>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <button
        className="grid h-7 w-7 place-items-center rounded hover:bg-white/10"
        title="Wipe between picture and proof"
        aria-label="Wipe between picture and proof"
        aria-pressed={isWiped}
        onClick={toggleWipe}
      >
        <Columns2 size={16} color={isWiped ? "#f2d45c" : "currentColor"} />
      </button>
      <button
        className="grid h-7 w-7 place-items-center rounded hover:bg-white/10"
        title="Section: cut the piece open along a line"
        aria-label="Section"
        aria-pressed={section !== null}
        onClick={() => store.setState({ section: section ? null : { line: acrossMiddle(stock), share: null } })}
      >
        <ChartArea size={16} color={section ? "#f2d45c" : "currentColor"} />
      </button>
      <button
        className="grid h-7 w-7 place-items-center rounded hover:bg-white/10"
        title={hint(COMMANDS.fit)}
        aria-label="Show all"
        onClick={() => COMMANDS.fit.run(bench)}
      >
        <Maximize size={16} />
      </button>
      <span>above</span>
      <Slide look="mat" label="Tilt" step={0.01} value={tilt} onChange={(v) => store.setState({ tilt: v })} />
      <span>low</span>
    </div>
  );
}
