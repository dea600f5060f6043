import { copyOf } from "@oaken/core/copy";
import { describeCutters } from "@oaken/core/cutters/profile";
import type { Choice } from "@oaken/core/job/choose";
import type { Tried } from "@oaken/core/job/sets";
import type { BoardJob } from "@oaken/core/job/document";
import { takeCutters } from "@oaken/core/job/edit";
import type { BegunPlan } from "./begin-messages.ts";

/**
 * The two ways in which a cut can be made, where both can be: with its own cutter alone, and with the best of those
 * that come before it. None where its own cutter is chosen too, or only one way was found.
 */
export function plansOf(job: BoardJob, choice: Choice | undefined): BegunPlan[] {
  if (!choice || choice.own) return [];
  const [taken] = choice.tried;
  const alone = choice.tried.find((t) => t.cutters.length === 0);
  const helped = choice.tried.find((t) => t.cutters.length > 0);
  if (!alone || !helped) return [];
  const own = job.cuts.find((c) => c.id === choice.target)!.cutter;
  const plan = (t: Tried): BegunPlan => {
    const one = copyOf(job);
    takeCutters(
      one,
      one.cuts.find((c) => c.id === choice.target)!,
      choice,
      t.cutters,
    );
    const label = t === alone ? `${describeCutters([own])} alone` : `${describeCutters(t.cutters)} first`;
    return { label, seconds: t.seconds, cuts: one.cuts, isTaken: t === taken };
  };
  return [plan(helped), plan(alone)];
}
