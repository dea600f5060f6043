import { useSyncExternalStore } from "react";
import type { StageScene } from "./scene.ts";

/** Draws a component anew whenever the stage's view has moved: what lies over the stock follows it. */
export function useCamera(scene: StageScene): void {
  useSyncExternalStore(scene.eye.onMoved, () => scene.eye.moves);
}
