import { aboutOf } from "@oaken/core/job/graph";
import type { BoardJob } from "@oaken/core/job/document";
import type { Gives } from "@oaken/core/makings/product";
import type { Built, DrawnProduct, Shown } from "./messages.ts";

/** The picture, greys and shapes that a part of a job is about. */
export function shownOf(makings: Built["makings"], job: BoardJob, part: string): Shown {
  const find = <G extends Gives>(gives: G) => {
    const about = aboutOf(job, part, gives);
    const drawn = about && makings[about.id];
    return drawn?.is === gives ? (drawn as Extract<DrawnProduct, { is: G }>) : null;
  };
  return { raster: find("raster"), grey: find("grey"), shapes: find("shapes"), heights: find("heights") };
}
