import type { Rule } from "../finding.ts";

/** What the cuts themselves noticed while planning. */
export const planNotes: Rule = ({ build }) =>
  build.cuts
    .filter((c) => c.cut.on)
    .flatMap((c) =>
      c.notes.map(({ helper, ...n }) => ({
        ...n,
        cut: c.id,
        ...(helper && { cure: { id: c.id, helper: helper.kind, label: helper.label } }),
      })),
    );
