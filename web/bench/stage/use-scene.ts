"use client";
import { type RefObject, useEffect, useState } from "react";
import { useBench, useBenchStore } from "../context.tsx";
import { follow } from "./follow.ts";
import { StageScene } from "./scene.ts";

/**
 * The scene on a canvas, as large as its box and following the bench; null until the first proof is there: until then
 * the picture of the last one stands there, and nothing slows the build.
 */
export function useScene(
  box: RefObject<HTMLDivElement | null>,
  canvas: RefObject<HTMLCanvasElement | null>,
): { scene: StageScene | null; failed: boolean } {
  const store = useBenchStore();
  const isReady = useBench((s) => s.built !== null);
  const [state, setState] = useState<{ scene: StageScene | null; failed: boolean }>({ scene: null, failed: false });
  useEffect(() => {
    if (!isReady) return;
    let scene: StageScene;
    try {
      scene = new StageScene(canvas.current!);
    } catch {
      setState({ scene: null, failed: true });
      return;
    }
    const fit = () => {
      const { width, height } = box.current!.getBoundingClientRect();
      scene.resize(width, height);
      scene.fit();
    };
    fit();
    const end = follow(scene, store);
    const watch = new ResizeObserver(fit);
    watch.observe(box.current!);
    setState({ scene, failed: false });
    return () => {
      watch.disconnect();
      end();
      scene.dispose();
      setState({ scene: null, failed: false });
    };
  }, [box, canvas, store, isReady]);
  return state;
}
