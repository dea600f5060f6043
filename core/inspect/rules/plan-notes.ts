import type { Rule } from "../finding.ts";

/** What the cuts themselves noticed while planning. */
export const planNotes: Rule = ({ build }) =>
  build.cuts.filter((c) => c.cut.on).flatMap((c) => c.notes.map((n) => ({ ...n, cut: c.id })));
