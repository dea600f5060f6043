import { useBench } from "./context.tsx";

/**
 * The thin moving line of what is being computed, with its share done. It alone follows the progress: what holds it is
 * not drawn anew.
 * @param on whether a step of the work belongs here
 */
export function WorkingLine({ on, className }: { on: (step: string) => boolean; className: string }) {
  const share = useBench((s) => (s.working && on(s.working.step) ? Math.round(100 * s.working.share) : null));
  if (share === null) return null;
  return (
    <span aria-hidden="true" className={`absolute bottom-0 h-[2px] ${className}`}>
      <span className="catching-up block h-full" style={{ width: `${Math.max(LEAST_SEEN, share)}%` }} />
    </span>
  );
}
/** Work that has only begun is seen all the same, %. */
const LEAST_SEEN = 15;
