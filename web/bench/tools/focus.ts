import { type RefObject, useEffect } from "react";

/** Gives an element the focus while it is there; what had it before has it again after. */
export function useFocusHeld(element: RefObject<HTMLElement | SVGElement | null>): void {
  useEffect(() => {
    const before = document.activeElement;
    element.current?.focus({ preventScroll: true });
    return () => {
      // Wherever the person has gone on to in the meantime, there they stay.
      const isElsewhere = document.activeElement && document.activeElement !== document.body;
      if (before instanceof HTMLElement && before.isConnected && !isElsewhere) before.focus({ preventScroll: true });
    };
  }, [element]);
}

/** The same for an element that is there all along: it has the focus while this is drawn. */
export function FocusHeld({ element }: { element: RefObject<HTMLElement | SVGElement | null> }): null {
  useFocusHeld(element);
  return null;
}
