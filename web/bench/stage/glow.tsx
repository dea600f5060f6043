import { Slider } from "radix-ui";
import { useBench, useBenchStore } from "../context.tsx";
import type { Glow } from "../store.ts";

const LIGHTS = [
  { key: "lamp", label: "lamp", from: "off", to: "strong" },
  { key: "room", label: "room", from: "dark", to: "bright" },
] as const satisfies readonly { key: keyof Glow; label: string; from: string; to: string }[];

/** The lamp behind a sheet that glows, and the light of the room that it hangs in. */
export function GlowPlate() {
  const store = useBenchStore();
  const glow = useBench((s) => s.glow);
  return (
    <div className="plate absolute right-3 top-3 grid gap-1 px-3 py-2 text-[13px]">
      {LIGHTS.map(({ key, label, from, to }) => (
        <div key={key} className="flex items-center gap-2">
          <span className="w-10">{label}</span>
          <span className="w-9 text-right text-[#b9c9bf]">{from}</span>
          <Slider.Root
            min={0}
            max={1}
            step={0.05}
            value={[glow[key]]}
            onValueChange={([v]) => store.setState({ glow: { ...store.getState().glow, [key]: v } })}
            className="relative flex h-7 w-24 items-center"
          >
            <Slider.Track className="h-[3px] grow rounded bg-[#5c756b]">
              <Slider.Range className="absolute h-[3px] rounded bg-chalk" />
            </Slider.Track>
            <Slider.Thumb aria-label={`Light of the ${label}`} className="block h-4 w-4 rounded-full bg-chalk" />
          </Slider.Root>
          <span className="w-11 text-[#b9c9bf]">{to}</span>
        </div>
      ))}
    </div>
  );
}
