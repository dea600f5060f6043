import { CircleCheck, TriangleAlert } from "lucide-react";
import type { Cure } from "@oaken/core/picture/fitness";
import type { Begun } from "../compute/begin-messages.ts";

/** Changes that were taken on to make a picture fit, mm; the crop in pixels. */
export interface Cures {
  smooth?: number;
  grow?: number;
  even?: number;
  crop?: string;
}

interface Props {
  begun: Begun | null;
  /** what is said is of the picture before the last change */
  stale: boolean;
  cures: Cures;
  say(text: string): string;
  take(cure: Cure): void;
  undo(): void;
}

/** Whether the picture will work at this size, in plain words, with cures one click away. */
export function Fitness({ begun, stale, cures, say, take, undo }: Props) {
  const done = takenOn(cures);
  return (
    <>
      <h2 className="mb-2 text-[17px]">
        Will it work?{" "}
        {begun && stale && (
          <span role="status" className="ml-2 text-[13px] font-normal text-soft">
            looking again …
          </span>
        )}
      </h2>
      {!begun && <p className="text-soft">Looking at the picture …</p>}
      {begun?.problem && (
        <p role="alert" className="flex gap-2">
          <TriangleAlert size={18} className="mt-0.5 shrink-0 text-amber" /> {say(begun.problem)}
        </p>
      )}
      {done !== "" && (
        <p className="mb-2 flex items-center gap-2 text-spruce">
          {say(done)}
          <button className="underline" onClick={undo}>
            undo
          </button>
        </p>
      )}
      <ul className="grid gap-2" aria-busy={stale}>
        {begun?.judgement.map((j) => (
          <li key={j.text} className="flex gap-2">
            {j.good ? (
              <CircleCheck size={18} className="mt-0.5 shrink-0 text-spruce" aria-label="good" />
            ) : (
              <TriangleAlert size={18} className="mt-0.5 shrink-0 text-amber" aria-label="watch out" />
            )}
            <span>
              {say(j.text)}
              {j.cure && (
                <button
                  className={
                    "ml-1.5 rounded px-1 font-semibold text-spruce underline hover:bg-sunk disabled:text-soft " +
                    "disabled:no-underline"
                  }
                  disabled={stale}
                  onClick={() => take(j.cure!)}
                >
                  {say(j.cure.label)}
                </button>
              )}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

function takenOn({ smooth, grow, even, crop }: Cures): string {
  const done = [];
  if (smooth) done.push(`Smoothed over ${smooth} mm.`);
  if (even) done.push(`Light evened out in windows of ${even} mm.`);
  if (grow) done.push(`Lines thickened by ${(2 * grow).toFixed(2)} mm.`);
  if (crop) done.push("Cropped to the art.");
  return done.join(" ");
}
