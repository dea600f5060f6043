import { useCallback, useRef, useState } from "react";

/**
 * A value that events change and read: pointers move faster than the page is drawn, and what was drawn last is then
 * behind.
 * @returns the value as the page shows it, the value as the last event left it, and what sets both
 */
export function useHeld<T>(first: T) {
  const latest = useRef(first);
  const [drawn, draw] = useState(first);
  const set = useCallback((value: T) => {
    latest.current = value;
    draw(() => value);
  }, []);
  return { drawn, latest, set };
}
