import type { BoardJob, JobMaking } from "@oaken/core/job/document";
import { upstreamOf } from "@oaken/core/job/graph";

/** The picture itself; faded where it stands for what is still being made from it. */
export function SmallPicture({ doc, making }: { doc: BoardJob; making: JobMaking }) {
  const from = upstreamOf(doc, making.id, (n) => n.asset !== undefined);
  if (!from?.asset) return null;
  const look = `h-full w-full object-cover ${from === making ? "" : "opacity-40 grayscale"}`;
  return <img src={`/api/assets/${from.asset.sha}/picture?side=120`} alt="" className={look} />;
}
