"use client";
import { Ellipsis, Eye, EyeOff } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { cutKind } from "@oaken/core/cuts/register";
import { type JobCut, STOPS, type StopKind } from "@oaken/core/job/document";
import { duplicateCut, moveCut, removeCut } from "@oaken/core/job/edit";
import { formatTime } from "@oaken/core/units";
import type { DrawnCut } from "../../compute/messages.ts";
import { CutterShape } from "../../ui/cutter-shape.tsx";
import { useActions, useBench, useBenchStore, useParts, useSpoken } from "../context.tsx";
import { valuesOf } from "../values.ts";
import { WorkingLine } from "../working-line.tsx";
import type { Grips } from "./sorting.tsx";

/** Narrowest card, pixels: its text stays readable. */
export const LEAST_CARD = 158;

const item =
  "flex h-8 cursor-pointer items-center rounded px-2 outline-none data-[highlighted]:bg-sunk " +
  "data-[disabled]:text-faint";

/** One cut of the strip: number, cutter, time, state; dragged to reorder. */
export function CutCard({
  cut,
  index,
  result,
  grips,
  seeAfter,
}: {
  cut: JobCut;
  index: number;
  result: DrawnCut | undefined;
  grips: Grips;
  seeAfter(): void;
}) {
  const { selected, doc } = useParts("selected", "doc");
  const resolved = useBench((s) => s.built?.resolved[cut.id]);
  const say = useSpoken();
  const store = useBenchStore();
  const { select, change } = useActions();
  const groups = [...new Set(doc.cuts.map((c) => c.group).filter(Boolean))] as string[];
  const edit = (name: string, work: (c: JobCut) => void) =>
    change(name, (d) => work(d.cuts.find((c) => c.id === cut.id)!));
  const toggle = () =>
    change(`${cut.on ? "switch off" : "switch on"} ${cut.group ? `group ${cut.group}` : cut.name}`, (d) => {
      for (const c of d.cuts) if (c.id === cut.id || (cut.group && c.group === cut.group)) c.on = !cut.on;
    });
  return (
    <div
      data-cut={cut.id}
      className={
        "card relative flex h-[74px] items-center has-[>button:focus-visible]:outline-2 " +
        "has-[>button:focus-visible]:outline-offset-2 has-[>button:focus-visible]:outline-spruce " +
        "data-[dragging]:z-10 data-[dragging]:shadow-card " +
        `${selected === cut.id ? "!border-spruce ring-1 ring-spruce" : ""} ${cut.on ? "" : "opacity-60"}`
      }
      style={{
        flexGrow: cut.on && result ? Math.max(1, result.seconds) : 1,
        flexBasis: LEAST_CARD,
        minWidth: LEAST_CARD,
      }}
    >
      <button
        onPointerDown={(e) => grips.get(cut.id)?.onPointerDown?.(e)}
        onKeyDown={(e) => grips.get(cut.id)?.onKeyDown?.(e)}
        aria-roledescription="cut; hold and drag to move it in the order"
        className={
          "flex h-full min-w-0 flex-1 cursor-pointer items-center gap-2.5 rounded-md pl-2.5 text-left " +
          "focus-visible:outline-none"
        }
        aria-current={selected === cut.id}
        onClick={() => select(cut.id)}
      >
        <CutterShape cutter={cut.cutter} />
        <span className="min-w-0">
          <span className="block truncate font-semibold">
            {index + 1} · {cut.name}
          </span>
          <span className="block truncate text-[12.5px] leading-4 text-soft">
            {cut.group ? `${cut.group} · ` : ""}
            {result ? say(cutKind(cut.kind).summary(valuesOf(resolved, cut.settings), cut.cutter)) : "…"}
          </span>
          <span className="num block truncate leading-5">
            {cut.on
              ? result
                ? result.toolpath.kind.length > 0
                  ? formatTime(result.seconds)
                  : "no cuts"
                : ""
              : "off"}
          </span>
        </span>
      </button>
      <div className="flex flex-col justify-center self-stretch pr-0.5 text-soft">
        <button
          className="grid h-8 w-7 place-items-center rounded hover:bg-sunk"
          aria-label={`${cut.on ? "Switch off" : "Switch on"} ${cut.name}`}
          title={cut.on ? "Switch off" : "Switch on"}
          onClick={toggle}
        >
          {cut.on ? <Eye size={15} /> : <EyeOff size={15} />}
        </button>
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger
            className="grid h-8 w-7 place-items-center rounded hover:bg-sunk"
            aria-label={`More for ${cut.name}`}
            title="More"
          >
            <Ellipsis size={16} />
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="end"
              side="top"
              sideOffset={4}
              className="z-50 w-60 rounded-md border border-line bg-raised p-1 shadow-card"
            >
              <DropdownMenu.Item className={item} onSelect={seeAfter}>
                See the piece after it
              </DropdownMenu.Item>
              <DropdownMenu.Item
                className={item}
                onSelect={() =>
                  store.setState({ mixer: { picture: 0, outline: 0, paths: 1, proof: 0.6 }, selected: cut.id })
                }
              >
                Show its path alone
              </DropdownMenu.Item>
              <DropdownMenu.Separator className="my-1 border-t border-line" />
              <DropdownMenu.Item
                className={item}
                disabled={index === 0}
                onSelect={() => change(`move ${cut.name}`, (d) => moveCut(d, cut.id, index - 1))}
              >
                Move earlier
              </DropdownMenu.Item>
              <DropdownMenu.Item
                className={item}
                disabled={index === doc.cuts.length - 1}
                onSelect={() => change(`move ${cut.name}`, (d) => moveCut(d, cut.id, index + 1))}
              >
                Move later
              </DropdownMenu.Item>
              <DropdownMenu.Sub>
                <DropdownMenu.SubTrigger className={item}>Stop before it …</DropdownMenu.SubTrigger>
                <DropdownMenu.Portal>
                  <DropdownMenu.SubContent
                    className={"z-50 w-52 rounded-md border border-line bg-raised p-1 shadow-card"}
                  >
                    {(Object.keys(STOPS) as StopKind[]).map((k) => (
                      <DropdownMenu.Item
                        key={k}
                        className={item}
                        onSelect={() => {
                          edit(`stop before ${cut.name}`, (c) => void (c.stop = { what: k, note: c.stop?.note ?? "" }));
                          select(cut.id);
                        }}
                      >
                        {STOPS[k]}
                      </DropdownMenu.Item>
                    ))}
                  </DropdownMenu.SubContent>
                </DropdownMenu.Portal>
              </DropdownMenu.Sub>
              <DropdownMenu.Sub>
                <DropdownMenu.SubTrigger className={item}>Group</DropdownMenu.SubTrigger>
                <DropdownMenu.Portal>
                  <DropdownMenu.SubContent
                    className={"z-50 w-52 rounded-md border border-line bg-raised p-1 shadow-card"}
                  >
                    {groups
                      .filter((g) => g !== cut.group)
                      .map((g) => (
                        <DropdownMenu.Item
                          key={g}
                          className={item}
                          onSelect={() => edit(`group ${cut.name}`, (c) => void (c.group = g))}
                        >
                          Join {g}
                        </DropdownMenu.Item>
                      ))}
                    <DropdownMenu.Item
                      className={item}
                      onSelect={() => edit(`group ${cut.name}`, (c) => void (c.group = `group ${groups.length + 1}`))}
                    >
                      A new group
                    </DropdownMenu.Item>
                    <DropdownMenu.Item
                      className={item}
                      disabled={!cut.group}
                      onSelect={() => edit(`ungroup ${cut.name}`, (c) => void delete c.group)}
                    >
                      Leave its group
                    </DropdownMenu.Item>
                  </DropdownMenu.SubContent>
                </DropdownMenu.Portal>
              </DropdownMenu.Sub>
              <DropdownMenu.Separator className="my-1 border-t border-line" />
              <DropdownMenu.Item
                className={item}
                onSelect={() => change(`duplicate ${cut.name}`, (d) => void duplicateCut(d, cut.id))}
              >
                Duplicate
              </DropdownMenu.Item>
              <DropdownMenu.Item
                className={item}
                onSelect={() => change(`remove ${cut.name}`, (d) => removeCut(d, cut.id))}
              >
                Remove
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      <WorkingLine on={(step) => step === cut.id || (step === "proof" && !!result)} className="inset-x-1" />
    </div>
  );
}
