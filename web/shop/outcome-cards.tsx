import { useEffect, useRef } from "react";
import { CircleCheck, TriangleAlert } from "lucide-react";
import { type Outcome, outcomeById, OUTCOMES } from "@oaken/core/job/outcomes";
import { formatTime } from "@oaken/core/units";
import type { Begun, BegunOutcome, BegunPlan, Picked } from "../compute/begin-messages.ts";

interface OutcomesProps {
  begun: Begun | null;
  working: boolean;
  /** what somebody picked and waits for */
  picked: Picked | null;
  say(text: string): string;
  pick(made: BegunOutcome, plan?: BegunPlan): void;
}

/** What suits the picture first; what does not is folded below with its reason. */
export function Outcomes({ begun, working, picked, say, pick }: OutcomesProps) {
  const made = begun?.outcomes ?? [];
  const outcomes = begun?.order.length ? begun.order.map(outcomeById) : OUTCOMES;
  const all = outcomes.flatMap((outcome): { outcome: Outcome; made: BegunOutcome | undefined }[] => {
    const own = made.filter((m) => m.id === outcome.id);
    return own.length > 0 ? own.map((m) => ({ outcome, made: m })) : [{ outcome, made: undefined }];
  });
  // Sorted when all are there: cards that jump about while one reaches for them are missed.
  const isDone = begun?.done ?? false;
  const suits = all.filter((a) => !isDone || a.made?.suits?.good);
  const others = all.filter((a) => !suits.includes(a));
  const cards = (list: typeof all) => (
    <div className="grid grid-cols-4 gap-4 max-[1100px]:grid-cols-2">
      {list.map((a) => (
        <OutcomeCard
          key={a.outcome.id + (a.made?.prepared ? " prepared" : "")}
          {...a}
          working={working}
          isPicked={picked?.id === a.outcome.id && picked.isPrepared === Boolean(a.made?.prepared)}
          say={say}
          start={(plan) => a.made && pick(a.made, plan)}
        />
      ))}
    </div>
  );
  return (
    <>
      <h2 className="mb-3 mt-7 text-[17px]">What shall it become?</h2>
      {isDone && suits.length === 0 && (
        <p className="mb-3 text-soft">
          Nothing suits this picture as it is. Each card below says what stands against it.
        </p>
      )}
      {cards(suits)}
      {others.length > 0 && (
        <details className="mt-6" open={suits.length === 0}>
          <summary className="cursor-pointer text-[17px] font-semibold">
            {others.length === 1 ? "One that does not suit it" : `${others.length} that do not suit it`}
          </summary>
          <div className="mt-3">{cards(others)}</div>
        </details>
      )}
    </>
  );
}

interface Props {
  outcome: Outcome;
  made: BegunOutcome | undefined;
  working: boolean;
  /** somebody waits for it */
  isPicked: boolean;
  /** sentences in the person's unit */
  say(text: string): string;
  start(plan?: BegunPlan): void;
}

/** An outcome as a small proof of this very picture; choosing it begins the job. */
function OutcomeCard({ outcome, made, working, isPicked, say, start }: Props) {
  const title = made?.prepared ? `${outcome.title}, prepared` : outcome.title;
  return (
    <article className="card flex flex-col overflow-hidden shadow-card has-[button:enabled:hover]:ring-2 ring-spruce">
      <button
        disabled={!made || !!made.problem}
        onClick={() => start()}
        className="flex flex-1 flex-col justify-start text-left"
      >
        <span className="relative grid aspect-[3/2] w-full shrink-0 place-items-center bg-mat p-4">
          {made?.picture ? (
            <OutcomePicture picture={made.picture} label={`${title} of this picture`} />
          ) : (
            <span className="px-4 text-center text-[13px] text-[#a9c0b5]">
              {made?.problem ? say(made.problem) : "computing …"}
            </span>
          )}
          {working && <span className="catching-up absolute inset-x-0 bottom-0 h-[3px]" />}
        </span>
        <span className="block p-3">
          <span className="flex items-baseline justify-between gap-2">
            <span className="font-head text-[16px] font-semibold">{title}</span>
            <span className="num shrink-0 whitespace-nowrap text-soft">
              {made?.seconds ? formatTime(made.seconds) : ""}
            </span>
          </span>
          <span className="block text-soft">{made?.prepared ? say(whatWasDone(made.prepared)) : outcome.about}</span>
          {made && (isPicked || !made.isChosen) && (
            <span role={isPicked ? "status" : undefined} className="mt-1 block text-[13px] text-soft">
              {isPicked ? "Opens with its cutters, as soon as they are chosen …" : "choosing its cutters …"}
            </span>
          )}
          {made?.suits && (
            <Remark
              good={made.suits.good}
              text={`${made.suits.good ? "Suits it: " : "Think twice: "}${say(made.suits.why)}.`}
            />
          )}
          {made?.worst && <Remark good={false} text={say(made.worst)} />}
        </span>
      </button>
      {made && made.plans.length > 0 && <Plans plans={made.plans} say={say} start={start} />}
    </article>
  );
}

/** The ways in which it can be cut, side by side: choosing one begins the job with it. */
function Plans({ plans, say, start }: { plans: BegunPlan[]; say(text: string): string; start(plan: BegunPlan): void }) {
  return (
    <ul aria-label="Ways to cut it" className="border-t border-line px-1 py-1 text-[13px]">
      {plans.map((plan) => (
        <li key={plan.label}>
          <button
            className="flex min-h-[30px] w-full items-center justify-between gap-2 rounded px-2 text-left hover:bg-sunk"
            onClick={() => start(plan)}
          >
            <span className={plan.isTaken ? "font-semibold" : "text-soft"}>{say(plan.label)}</span>
            <span className="num shrink-0 text-soft">{formatTime(plan.seconds)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

function whatWasDone({ even, smooth }: NonNullable<BegunOutcome["prepared"]>): string {
  const done = [
    ...(even ? [`light evened out in windows of ${even} mm`] : []),
    ...(smooth ? [`noise smoothed over ${smooth} mm`] : []),
  ].join(", ");
  return `The same with the picture's ${done}.`;
}

function Remark({ good, text }: { good: boolean; text: string }) {
  const Icon = good ? CircleCheck : TriangleAlert;
  return (
    <span className={`mt-1 flex gap-1.5 text-[13px] ${good ? "text-spruce" : "text-amber"}`}>
      <Icon size={15} className="mt-0.5 shrink-0" />
      {text}
    </span>
  );
}

type Pixels = NonNullable<BegunOutcome["picture"]>;

function OutcomePicture({ picture, label }: { picture: Pixels; label: string }) {
  const ref = useRef<HTMLCanvasElement>(null);
  const { width, height, data } = picture;
  useEffect(() => {
    const image = new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height);
    ref.current?.getContext("2d")!.putImageData(image, 0, 0);
  }, [data, width, height]);
  return (
    <canvas
      ref={ref}
      role="img"
      aria-label={label}
      width={width}
      height={height}
      className="max-h-full max-w-full rounded-[2px] shadow-[4px_6px_14px_rgb(0_0_0/0.5)]"
    />
  );
}
