import { addOutline } from "@oaken/core/job/edit";
import { useActions, useBench } from "../context.tsx";

/** One more outline like this one, for another cut; nothing for shapes that were not traced. */
export function AnotherOutline({ part }: { part: string }) {
  const isTraced = useBench((s) => s.built?.shown.shapes?.isTraced ?? false);
  const { change, select } = useActions();
  if (!isTraced) return null;
  const add = () => {
    let id = "";
    change("add an outline", (d) => void (id = addOutline(d, part)));
    select(id);
  };
  return (
    <button
      className="btn !h-8 !px-2"
      title="One more outline of the same picture, with the same settings, for another cut"
      onClick={add}
    >
      Another outline
    </button>
  );
}
