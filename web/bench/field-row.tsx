"use client";
import { lazy, Suspense, useState } from "react";
import { ChartLine, CircleHelp, RotateCcw } from "lucide-react";
import { Switch, Tooltip } from "radix-ui";
import { type Field, type Gauge, type Resolved, type Setting } from "@oaken/core/settings/fields";
import { LengthField } from "../ui/length-field.tsx";
import { Pick } from "../ui/pick.tsx";
import { Slide } from "../ui/slide.tsx";
import { TextField } from "../ui/text-field.tsx";
import { Toggle } from "../ui/toggle.tsx";
import { useActions, useBench, useBenchStore, useDesk, useSpoken } from "./context.tsx";
import { CurveField, GREY } from "./curve-field.tsx";
import { NumberField } from "./number-field.tsx";
import { PlaceList } from "./tools/place-list.tsx";
import { isListed } from "./tools/placed.ts";
import { useTakeTool } from "./tools/take.ts";

/** A setting: its label, its value, where it came from, and back to automatic. */
export function FieldRow({
  part,
  f,
  value,
  own,
  r,
}: {
  part: string;
  f: Field;
  value: Setting;
  own: Setting | undefined;
  r: Resolved;
}) {
  const unit = useBench((s) => s.unit);
  const { setting } = useActions();
  const store = useBenchStore();
  const desk = useDesk();
  const set = (v: Setting | undefined, gesture?: string) => setting(part, f.key, f.label.toLowerCase(), v, gesture);
  /** A slider in motion: contours at once, the rest behind them. */
  const slide = (v: number, gesture: string) => {
    set(v, gesture);
    const doc = store.getState().doc;
    if (doc.makings.some((n) => n.id === part)) desk.preview(doc, part);
  };
  const isSet = own !== undefined;
  const say = useSpoken();
  const label = `${part}-${f.key}`;
  return (
    <div className="border-t border-line py-2.5">
      <div className="flex min-h-[30px] items-center justify-between gap-2">
        <label htmlFor={label} className="flex items-center gap-1 font-semibold">
          {f.label}
          {f.help && <Help text={f.help} />}
        </label>
        {f.type === "choice" ? (
          f.options!.length <= 3 && f.options!.map((o) => o.label).join("").length < 22 ? (
            <Toggle label={f.label} value={value as string} options={f.options!} onChange={(v) => set(v)} />
          ) : (
            <Pick id={label} label={f.label} value={value as string} options={f.options!} onChange={(v) => set(v)} />
          )
        ) : f.type === "switch" ? (
          <Switch.Root
            id={label}
            checked={value as boolean}
            onCheckedChange={(v) => set(v)}
            className="h-[28px] w-11 rounded-full border border-line bg-sunk p-0.5 data-[state=checked]:bg-spruce"
          >
            <Switch.Thumb
              className={
                "block h-[20px] w-[20px] translate-x-0.5 rounded-full bg-white shadow transition-transform " +
                "duration-100 data-[state=checked]:translate-x-[18px]"
              }
            />
          </Switch.Root>
        ) : f.drawn ? null : f.type === "text" ? (
          <TextState part={part} f={f} value={value as string} />
        ) : f.type === "length" ? (
          <LengthField
            id={label}
            label={f.label}
            value={value as number}
            unit={unit}
            min={f.min}
            max={f.max}
            onChange={(v) => set(v)}
            marked={isSet}
          />
        ) : (
          <NumberField id={label} f={f} value={value as number} onChange={(v) => set(v)} marked={isSet} />
        )}
      </div>
      {(f.drawn === "words" || f.drawn === "lines") && (
        <TextField
          id={label}
          lines={f.drawn === "lines" ? 2 : 1}
          label={f.label}
          value={value as string}
          placeholder={f.example}
          mayBeEmpty
          onTake={(text) => {
            f.check?.(text);
            set(text === "" ? undefined : text);
          }}
        />
      )}
      {f.tool && isListed(f.tool) && value !== "" && (
        <PlaceList part={part} field={f.key} label={f.label} tool={f.tool} value={value as string} />
      )}
      {f.drawn === "curve" && <CurveField value={value as string} across={f.across ?? GREY} onChange={set} />}
      {f.slider && (
        <FieldSlider f={f} value={value as number} auto={isSet ? null : (r.value as number)} onSlide={slide} />
      )}
      {r.gauge && <ChipGauge gauge={r.gauge} feed={value as number} />}
      <div className="flex items-start justify-between gap-2 text-[12.5px] leading-[17px] text-soft">
        <span>
          {r.consequence && <span className="text-ink">{say(r.consequence)}. </span>}
          {isSet ? "Set by you." : `${say(r.reason)}.`}
        </span>
        {isSet && (
          <button
            className="-my-1 flex h-7 shrink-0 items-center gap-1 rounded px-1 text-spruce hover:bg-sunk"
            title={say(r.reason)}
            onClick={() => set(undefined)}
          >
            <RotateCcw size={12} /> automatic
          </button>
        )}
      </div>
    </div>
  );
}

/** Charts are loaded when the first is looked at. */
const ChipChart = lazy(() => import("./chip-chart.tsx"));

/** Where a feed's chip stands between rubbing and breaking: in a word, and as a chart when it is asked for. */
function ChipGauge({ gauge, feed }: { gauge: Gauge; feed: number }) {
  const [isOpen, setIsOpen] = useState(false);
  const { value, rubs, breaks } = gauge;
  const share = Math.max(0, Math.min(1, (value - rubs) / (breaks - rubs)));
  const isWell = value >= rubs && value <= breaks * 1.05;
  return (
    <>
      <button
        type="button"
        aria-expanded={isOpen}
        className="flex h-7 w-full items-center gap-2 text-left text-[12.5px] text-soft hover:text-ink"
        onClick={() => setIsOpen(!isOpen)}
      >
        rubs
        <span className="relative h-1.5 flex-1 rounded bg-spruce/25" aria-hidden>
          <span
            className={`absolute -top-[3px] h-3 w-1 rounded-sm ${isWell ? "bg-spruce" : "bg-danger"}`}
            style={{ left: `calc(${100 * share}% - 2px)` }}
          />
        </span>
        breaks
        <ChartLine size={14} aria-label="as a chart" />
      </button>
      {isOpen && (
        <Suspense fallback={<p className="text-soft">Drawing …</p>}>
          <ChipChart gauge={gauge} feed={feed} />
        </Suspense>
      )}
    </>
  );
}

/** A setting made by hand on the stage: how much of it there is, and the tool that makes more. */
function TextState({ part, f, value }: { part: string; f: Field; value: string }) {
  const take = useTakeTool();
  const on = useBench((s) => s.tool?.id === f.tool);
  const many = value.includes(";") ? value.split(";").length : value.split(",").length;
  const said = f.tool === "crop" || f.tool === "corners" ? "set" : `${many}`;
  return (
    <span className="flex items-center gap-2">
      <span className="text-[13px] text-soft">{value === "" ? "none" : said}</span>
      {f.tool && (
        <button
          className="btn !h-7"
          aria-pressed={on}
          aria-label={`${f.label} on the stage`}
          onClick={() => take(f.tool!, part)}
        >
          {on ? "put away" : "on the stage"}
        </button>
      )}
    </span>
  );
}

function Help({ text }: { text: string }) {
  return (
    <Tooltip.Root delayDuration={150}>
      <Tooltip.Trigger asChild>
        <button type="button" className="grid h-7 w-6 place-items-center text-faint" aria-label={text}>
          <CircleHelp size={14} />
        </button>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          side="left"
          sideOffset={4}
          className="z-50 max-w-64 rounded-md bg-ink px-3 py-2 text-[13px] text-film shadow-card"
        >
          {text}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}

/** Sliders of lengths run on a scale that gives small values room. */
function FieldSlider({
  f,
  value,
  auto,
  onSlide,
}: {
  f: Field;
  value: number;
  auto: number | null;
  onSlide(v: number, gesture: string): void;
}) {
  // Around nought both ways: a little to either side is what is wanted.
  const around = f.type === "length" && (f.min ?? 0) < 0;
  const top = around
    ? Math.max(10 * (f.step ?? 0.1), 2 * Math.abs(value))
    : f.type === "length"
      ? Math.min(f.max ?? 100, Math.max(10 * (f.step ?? 0.1), 3 * (auto ?? value), 1.5 * value))
      : (f.max ?? 1);
  const [most, setMost] = useState(top);
  const max = Math.max(most, Math.abs(value));
  const low = around ? -max : (f.min ?? 0);
  return (
    <Slide
      look="paper"
      label={`${f.label} slider`}
      min={low}
      max={max}
      step={f.step ?? 0.01}
      value={value}
      onRest={() => setMost(top)}
      onChange={(v, way) => onSlide(Math.max(low, v), `${f.key} ${way}`)}
    />
  );
}
