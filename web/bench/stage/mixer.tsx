import { makingKind } from "@oaken/core/makings/register";
import { Slide } from "../../ui/slide.tsx";
import { useParts, useBenchStore } from "../context.tsx";
import { type Mixer, SHOWN } from "../store.ts";

/** How strongly each layer of the stage shows; layers that this job does not have are left out. */
export function LayerMixer() {
  const store = useBenchStore();
  const { mixer, doc } = useParts("mixer", "doc");
  const setMixer = (m: Partial<Mixer>) => store.setState({ mixer: { ...store.getState().mixer, ...m } });
  const gives = new Set(doc.makings.map((m) => makingKind(m.kind).gives));
  const layers: (keyof Mixer)[] = [
    ...(gives.has("raster") ? (["picture"] as const) : []),
    ...(gives.has("shapes") ? (["outline"] as const) : []),
    "paths",
    "proof",
  ];
  return (
    <div className="absolute left-3 top-3 flex gap-1 rounded-md bg-[rgb(18_40_34/0.86)] p-1.5">
      {layers.map((k) => (
        <label key={k} className="flex w-[76px] flex-col gap-0.5 rounded px-2 py-0.5 text-[13px] text-[#eef3ea]">
          <button
            type="button"
            className="h-5 text-left"
            aria-pressed={mixer[k] > SHOWN}
            onClick={() => setMixer({ [k]: mixer[k] > SHOWN ? 0 : 1 })}
          >
            {k}
          </button>
          <Slide
            look="small"
            label={`How strongly the ${k} shows`}
            step={0.05}
            value={mixer[k]}
            onChange={(v) => setMixer({ [k]: v })}
          />
        </label>
      ))}
    </div>
  );
}
