import { useEffect, useState } from "react";
import { differences } from "@oaken/core/job/difference";
import type { JobDocument } from "@oaken/core/job/document";
import { api } from "../../ui/api.ts";
import { useParts, useSpoken } from "../context.tsx";

/** Changes that are told one by one; more are counted. */
const SHOWN = 8;

/** What has changed since programs were last written: those on the machine's card do not know of it. */
export function SinceWritten() {
  const { id, whole, revision, written } = useParts("id", "whole", "revision", "written");
  const [before, setBefore] = useState<{ of: number; doc: JobDocument } | null>(null);
  const say = useSpoken();
  const isOlder = written !== null && written < revision;
  useEffect(() => {
    if (!isOlder) return;
    let wanted = true;
    api<JobDocument>(`/api/jobs/${id}/revisions/${written}`).then(
      (doc) => wanted && setBefore({ of: written, doc }),
      () => {},
    );
    return () => {
      wanted = false;
    };
  }, [id, isOlder, written]);
  if (!isOlder || before?.of !== written) return null;
  const all = differences(before.doc, whole);
  if (all.length === 0) return null;
  return (
    <section aria-label="Since the last programs" className="mb-4 rounded-md border border-amber/40 bg-amber/5 p-3">
      <p className="font-semibold">Programs were last written at revision {written}. Since then:</p>
      <ul className="mt-1 list-disc pl-5">
        {all.slice(0, SHOWN).map((d) => (
          <li key={d}>{say(d)}</li>
        ))}
        {all.length > SHOWN && <li>and {all.length - SHOWN} more</li>}
      </ul>
    </section>
  );
}
