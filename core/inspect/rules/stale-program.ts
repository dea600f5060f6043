import type { Finding, Inspected } from "../finding.ts";

/** Programs written from an earlier state of the job. */
export const staleProgram = ({ revision, written }: Pick<Inspected, "revision" | "written">): Finding[] =>
  written === undefined || revision === undefined || written >= revision
    ? []
    : [
        {
          code: "program-older",
          severity: "warning",
          message:
            `The programs on disk were written from revision ${written}; the job is now at revision ${revision}. ` +
            "Write them again before running them.",
        },
      ];
