import { makingKind } from "@oaken/core/makings/register";
import { useActions, useBenchStore } from "../context.tsx";

/** Tools that work on the piece itself, not on the picture it came from. */
const ON_PIECE = ["tabs", "pierce", "drill"];
/** What makes a frame: squaring up begins without any of it. */
const FRAME = ["corners", "turn", "crop", "erase"];

/** Takes a tool of the stage in hand for a part, or puts it away: seen from above, with what it works on in view. */
export function useTakeTool(): (id: string, part: string) => void {
  const store = useBenchStore();
  const { change } = useActions();
  return (id, part) => {
    const { tool, doc } = store.getState();
    if (tool?.id === id && tool.part === part) return store.setState({ tool: null });
    const node = doc.makings.find((n) => n.id === part);
    if (id === "corners" && node && FRAME.some((k) => node.settings[k] !== undefined))
      change("unframe the picture", (d) => {
        for (const k of FRAME) delete d.makings.find((n) => n.id === part)!.settings[k];
      });
    const onPicture = node !== undefined && makingKind(node.kind).gives === "raster";
    store.setState({
      tool: { id, part },
      tilt: 0,
      ...(!ON_PIECE.includes(id) && { mixer: { picture: 1, outline: onPicture ? 0 : 1, paths: 0, proof: 0 } }),
    });
  };
}
