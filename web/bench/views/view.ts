import type { ComponentType } from "react";
import type { BoardJob, JobMaking } from "@oaken/core/job/document";
import type { Gives } from "@oaken/core/makings/product";
import type { Resolved } from "@oaken/core/settings/fields";
import type { Unit } from "@oaken/core/units";
import type { DrawnProduct } from "../../compute/messages.ts";

/** A making on the bench, with what it gives as the page draws it; null until the build is there. */
export interface Seen<G extends Gives = Gives> {
  doc: BoardJob;
  making: JobMaking;
  drawn: Extract<DrawnProduct, { is: G }> | null;
  resolved: Record<string, Resolved> | undefined;
  /** whether there is a build that it may be missing from */
  isBuilt: boolean;
  unit: Unit;
  /** says lengths in the unit at hand */
  say(text: string): string;
}

/** How a kind of product is seen on the bench: whatever making gives it is drawn by this. */
export interface ProductView<G extends Gives = Gives> {
  /** the line under its name in the makings */
  about(seen: Seen<G>): string;
  /** the line under its name on the slip */
  figures(seen: Seen<G>): string;
  /** its small live picture */
  Thumbnail: ComponentType<Seen<G>>;
  /** beside what can be made from it */
  Beside?: ComponentType<{ part: string }>;
  /** what stands above its fields on the slip, and below them */
  Above: ComponentType<{ part: string }>;
  Below?: ComponentType<{ part: string }>;
}
