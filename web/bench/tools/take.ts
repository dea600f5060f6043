import { makingKind } from "@oaken/core/makings/register";
import { useActions, useBenchStore } from "../context.tsx";
import { toolById } from "./tools.ts";

/** Takes a tool of the stage in hand for a part, or puts it away: seen from above, with what it works on in view. */
export function useTakeTool(): (id: string, part: string) => void {
  const store = useBenchStore();
  const { change } = useActions();
  return (id, part) => {
    const { tool, doc } = store.getState();
    if (tool?.id === id && tool.part === part) return store.setState({ tool: null });
    const node = doc.makings.find((n) => n.id === part);
    const kind = toolById(id);
    const { clears = [] } = kind ?? {};
    if (node && clears.some((k) => node.settings[k] !== undefined))
      change("unframe the picture", (d) => {
        for (const k of clears) delete d.makings.find((n) => n.id === part)!.settings[k];
      });
    const onPicture = node !== undefined && makingKind(node.kind).gives === "raster";
    store.setState({
      tool: { id, part },
      tilt: 0,
      // Those that are in no list work on the piece itself, not on the picture it came from.
      ...(kind && { mixer: { picture: 1, outline: onPicture ? 0 : 1, paths: 0, proof: 0 } }),
    });
  };
}
