import { useEffect, useState } from "react";
import { WifiOff } from "lucide-react";
import { api } from "../ui/api.ts";
import { useActions, useBench } from "./context.tsx";

/** How often an open bench asks whether the server is there, s; and how soon again after no answer. */
const LOOK_S = 10;
const AGAIN_S = 4;

/** In plain sight while the server does not answer or does not save: what is kept, and when it is tried again. */
export function Reach() {
  const save = useBench((s) => s.save);
  const actions = useActions();
  const [away, setAway] = useState<string | null>(null);
  const [left, setLeft] = useState(LOOK_S);
  const wrong = save.state === "failed" ? (save.message ?? null) : away;
  useEffect(() => {
    const tick = setInterval(() => setLeft((s) => s - 1), 1000);
    return () => clearInterval(tick);
  }, []);
  useEffect(() => {
    if (left > 0) return;
    setLeft(away ? AGAIN_S : LOOK_S);
    api("/api/alive").then(
      () => setAway(null),
      (e: Error) => {
        setAway(e.message);
        setLeft(AGAIN_S);
      },
    );
  }, [left, away]);
  if (!wrong) return null;
  const kept =
    save.state === "saved" ? "Everything up to now is saved." : "Your changes are kept in this window: leave it open.";
  const tryNow = () => {
    if (save.state === "saved") setLeft(0);
    else void actions.save();
  };
  return (
    <div role="alert" className="flex items-center gap-3 border-b border-danger/40 bg-danger/5 px-4 py-2">
      <WifiOff size={18} className="shrink-0 text-danger" />
      <span className="flex-1">
        {wrong} <strong className="font-semibold">{kept}</strong> It is tried again every {AGAIN_S} seconds.
      </span>
      <button className="btn !h-7" onClick={tryNow}>
        Try now
      </button>
    </div>
  );
}
