"use client";
import { CircleAlert } from "lucide-react";
import { type ComponentType, type ReactNode, useState } from "react";
import { useBench } from "./context.tsx";
import { LOOK } from "./severity.ts";

/** The inspection: a count in the header, which opens the list of findings; that is loaded when it is first opened. */
export function Findings() {
  const built = useBench((s) => s.built);
  const [List, setList] = useState<ComponentType<{ opener: ReactNode }> | null>(null);
  const [isLost, setLost] = useState(false);
  const load = async () => {
    setLost(false);
    try {
      const { FindingsList } = await import("./findings-list.tsx");
      setList(() => FindingsList);
    } catch {
      // The next click tries again.
      setLost(true);
    }
  };
  const list = built?.findings ?? [];
  const worst = list[0]?.severity;
  const Icon = worst ? LOOK[worst].Icon : CircleAlert;
  const count = list.length === 0 ? "no findings" : `${list.length} ${list.length === 1 ? "finding" : "findings"}`;
  const opener = (
    <button
      type="button"
      aria-haspopup="dialog"
      className={`btn btn-plain ${worst ? LOOK[worst].colour : "!text-spruce"}`}
      onClick={List ? undefined : () => void load()}
    >
      {worst && <Icon size={16} />}
      {built ? count : "inspecting"}
    </button>
  );
  if (List) return <List opener={opener} />;
  return (
    <>
      {isLost && (
        <span role="alert" className="text-danger">
          The findings could not be loaded. Try again.
        </span>
      )}
      {opener}
    </>
  );
}
