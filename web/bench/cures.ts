import { useState } from "react";
import { choosable } from "@oaken/core/cuts/register";
import type { Finding } from "@oaken/core/inspect/finding";
import type { BoardJob } from "@oaken/core/job/document";
import { addUsualHelper } from "@oaken/core/job/edit";
import { useShop } from "../ui/shop.tsx";
import { areSame, cuttersOf, takeChosen } from "./chosen.ts";
import { useActions, useBenchStore, useDesk } from "./context.tsx";

/** Whether a finding's cure can be done at one click. */
export const isAtOnce = ({ cure }: Finding): boolean =>
  cure?.value !== undefined || cure?.helper !== undefined || cure?.chooses !== undefined;

const NONE_BETTER =
  "No other cutters of the rack do this. Put a smaller one that cuts at its centre on the rack, or change the shape.";

/** Does what cures a finding; choosing cutters takes a while, and may find none. */
export function useCures() {
  const store = useBenchStore();
  const desk = useDesk();
  const shop = useShop();
  const { change } = useActions();
  /** the cut that cutters are being chosen for, and what came of it where they were not */
  const [choosing, setChoosing] = useState<string | null>(null);
  const [told, setTold] = useState<{ id: string; message: string; of: BoardJob } | null>(null);

  const choose = async (id: string) => {
    setChoosing(id);
    const { doc } = store.getState();
    const tell = (message: string) => setTold({ id, message, of: doc });
    try {
      const way = choosable(doc.cuts.find((c) => c.id === id)!.kind)!;
      const best = (await desk.choose(doc, id, shop.cutters))?.tried[0];
      // Of sets that were planned and stopped only the estimates are left.
      const isBetter = best?.isPlanned && !areSame(best.cutters, cuttersOf(doc, id, way));
      if (!isBetter) tell(NONE_BETTER);
      // Meanwhile the cut may have been removed.
      else if (store.getState().doc.cuts.some((c) => c.id === id))
        change("cutters", (d) => takeChosen(d, id, way, best.cutters), `cure ${++cures}`);
    } catch (e) {
      tell((e as Error).message);
    }
    setChoosing(null);
  };

  const cure = ({ cure: by }: Finding) => {
    if (by?.chooses) return void choose(by.id);
    change("cure of a finding", (d) => {
      const { id, field, value, helper } = by!;
      const part = [...d.makings, ...d.cuts].find((p) => p.id === id);
      if (part && field !== undefined && value !== undefined) part.settings[field] = value;
      const cut = d.cuts.find((c) => c.id === id);
      if (cut && helper !== undefined) addUsualHelper(d, cut, helper, shop);
    });
  };
  // What was said of a job holds until it changes, and its findings with it.
  const wrong = told?.of === store.getState().doc ? told : null;
  return { cure, choosing, wrong };
}

/** Counts the choices that were taken: each is a step of undo. */
let cures = 0;
