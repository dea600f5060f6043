import { useState } from "react";
import { Slider } from "radix-ui";

/** Counts the ways of all sliders. */
let ways = 0;

/** How a slider looks: on a panel's paper, short in a bar, on the dark mat, or small there under its own name. */
const LOOKS = {
  paper: {
    root: "my-1 h-6",
    track: "h-1 bg-line",
    range: "h-1 bg-spruce",
    thumb: "h-4 w-4 border-2 border-spruce bg-white",
  },
  short: {
    root: "h-6 w-24",
    track: "h-1 bg-line",
    range: "h-1 bg-spruce",
    thumb: "h-4 w-4 border-2 border-spruce bg-white",
  },
  mat: { root: "h-7 w-24", track: "h-[3px] bg-[#5c756b]", range: "h-[3px] bg-chalk", thumb: "h-4 w-4 bg-chalk" },
  small: { root: "h-3", track: "h-[3px] bg-[#5c756b]", range: "h-[3px] bg-chalk", thumb: "h-3 w-3 bg-chalk" },
} as const;

interface SlideProps {
  label: string;
  value: number;
  min?: number;
  max?: number;
  step: number;
  look: keyof typeof LOOKS;
  /** @param way the same from the moment that it is gripped until it is left: one step of undo */
  onChange(v: number, way: string): void;
  /** it was let go of */
  onRest?(): void;
}

/** A number moved along a line. */
export function Slide({ label, value, min = 0, max = 1, step, look, onChange, onRest }: SlideProps) {
  const [way] = useState(() => ({ n: ++ways }));
  const begin = () => void (way.n = ++ways);
  const { root, track, range, thumb } = LOOKS[look];
  return (
    <Slider.Root
      min={min}
      max={max}
      step={step}
      value={[value]}
      onPointerDownCapture={begin}
      onBlur={begin}
      onValueChange={([v]) => onChange(v, `${way.n}`)}
      onValueCommit={onRest}
      className={`relative flex items-center ${root}`}
    >
      <Slider.Track className={`grow rounded ${track}`}>
        <Slider.Range className={`absolute rounded ${range}`} />
      </Slider.Track>
      <Slider.Thumb aria-label={label} className={`block rounded-full ${thumb}`} />
    </Slider.Root>
  );
}
