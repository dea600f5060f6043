import { Slide } from "../../ui/slide.tsx";
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
          <Slide
            look="mat"
            label={`Light of the ${label}`}
            step={0.05}
            value={glow[key]}
            onChange={(v) => store.setState({ glow: { ...store.getState().glow, [key]: v } })}
          />
          <span className="w-11 text-[#b9c9bf]">{to}</span>
        </div>
      ))}
    </div>
  );
}
