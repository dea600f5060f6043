import type { ReactNode } from "react";
import { X } from "lucide-react";
import { useBenchStore } from "../context.tsx";

/** The bar of the tool in hand: what it is, how it is used, what belongs to it, and a way to put it away. */
export function ToolBar({
  title,
  how,
  at,
  children,
}: {
  title?: string;
  how: string;
  /** where the keyboard's crosshair stands, in words */
  at?: string;
  children?: ReactNode;
}) {
  const store = useBenchStore();
  return (
    <div
      role="toolbar"
      aria-label="Tool"
      className={
        "absolute left-3 top-[62px] z-10 flex max-w-[calc(100%-112px)] flex-wrap items-center gap-x-3 gap-y-1 " +
        "rounded-md border border-line bg-raised px-3 py-1.5 shadow-card"
      }
    >
      {title && <b className="font-head">{title}</b>}
      <span className="text-[13px] text-soft">{how}</span>
      <span role="status" className="num text-[13px]">
        {at}
      </span>
      {children}
      <button
        className="btn btn-plain btn-icon"
        aria-label="Put the tool away"
        title="Put the tool away (Esc)"
        onClick={() => store.setState({ tool: null })}
      >
        <X size={16} />
      </button>
    </div>
  );
}
