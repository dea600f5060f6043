"use client";
import { useEffect, useState } from "react";
import { ChevronDown, Keyboard, Redo2, Undo2 } from "lucide-react";
import { useRouter } from "next/navigation";
import { Dialog, DropdownMenu } from "radix-ui";
import { api } from "../ui/api.ts";
import { HomeLink } from "../ui/mark.tsx";
import { UnitToggle } from "../ui/unit-toggle.tsx";
import { BoardPick } from "./boards.tsx";
import { useActions, useBench, useParts, useBenchStore } from "./context.tsx";
import { Findings } from "./findings.tsx";
import { COMMANDS, FOCUS_KEYS, hint } from "./commands.ts";

/** A job's name has at most so many letters. */
const MOST_NAME = 200;

export function Header() {
  const { save, past, future, unit, revision, view, id, sheet } = useParts(
    "save",
    "past",
    "future",
    "unit",
    "revision",
    "view",
    "id",
    "sheet",
  );
  const name = useBench((s) => s.doc.name);
  const store = useBenchStore();
  const { undo, redo, change, unit: setUnit } = useActions();
  const [renaming, setRenaming] = useState(false);
  const show = (sheet: "keys" | "history" | null) => store.setState({ sheet });
  const time = save.at?.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  const said = {
    saved: `rev ${revision} · saved ${time}`,
    waiting: "changed …",
    saving: "saving …",
    failed: "not saved",
    stale: "changed elsewhere",
  }[save.state];
  const item = "flex h-8 cursor-pointer items-center rounded px-2 outline-none data-[highlighted]:bg-sunk";
  return (
    <header className="flex h-[44px] shrink-0 items-center gap-3 border-b border-line bg-raised px-3">
      <HomeLink />
      <span className="h-6 border-l border-line" />
      {renaming ? (
        <input
          autoFocus
          aria-label="Name of the job"
          className="box w-56 !font-sans"
          defaultValue={name}
          onBlur={(e) => {
            const typed = e.target.value.trim();
            if (typed) change("rename", (d) => void (d.name = typed.slice(0, MOST_NAME)));
            setRenaming(false);
          }}
          onKeyDown={(e) => {
            if (e.key === "Enter") e.currentTarget.blur();
            if (e.key === "Escape") setRenaming(false);
          }}
        />
      ) : (
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger
            className={
              "flex h-8 min-w-0 items-center gap-1 rounded px-1.5 font-head " +
              "text-[15px] font-semibold hover:bg-sunk"
            }
          >
            <span className="max-w-64 truncate">{name}</span> <ChevronDown size={14} className="shrink-0" />
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="start"
              sideOffset={4}
              className="z-50 w-56 rounded-md border border-line bg-raised p-1 shadow-card"
            >
              <DropdownMenu.Item className={item} onSelect={() => setTimeout(() => setRenaming(true))}>
                Rename
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} onSelect={() => show("history")}>
                History …
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} asChild>
                <a href={`/api/jobs/${id}/file`} download>
                  Export as a job file
                </a>
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} onSelect={() => show("keys")}>
                Keys
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
      <BoardPick />
      <span
        role="status"
        className={`num truncate ${save.state === "failed" || save.state === "stale" ? "text-danger" : "text-soft"}`}
        title={save.message}
      >
        {said}
      </span>
      <button
        className="btn btn-plain btn-icon"
        aria-label={past.length ? `Undo ${past[past.length - 1].name}` : "Undo"}
        title={past.length ? hint(COMMANDS.undo, `undo ${past[past.length - 1].name}`) : "Nothing to undo"}
        disabled={past.length === 0}
        onClick={undo}
      >
        <Undo2 size={17} />
      </button>
      <button
        className="btn btn-plain btn-icon -ml-2"
        aria-label={future.length ? `Redo ${future[future.length - 1].name}` : "Redo"}
        title={future.length ? hint(COMMANDS.redo, `redo ${future[future.length - 1].name}`) : "Nothing to redo"}
        disabled={future.length === 0}
        onClick={redo}
      >
        <Redo2 size={17} />
      </button>
      <span className="flex-1" />
      <button
        className="btn btn-plain btn-icon"
        aria-label="Keys"
        title={hint(COMMANDS.keys, "keys")}
        onClick={() => show("keys")}
      >
        <Keyboard size={17} />
      </button>
      <Findings />
      <UnitToggle unit={unit} onChange={setUnit} />
      {view === "bench" ? (
        <button className="btn btn-primary" onClick={() => store.setState({ view: "write" })}>
          Write programs
        </button>
      ) : (
        <button className="btn" onClick={() => store.setState({ view: "bench" })}>
          Back to the bench
        </button>
      )}
      <History open={sheet === "history"} onClose={() => show(null)} />
      <Sheet open={sheet === "keys"} title="Keys" onClose={() => show(null)}>
        <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1">
          {[...Object.values(COMMANDS).map((c) => [c.key, c.title] as const), ...FOCUS_KEYS].map(([k, what]) => (
            <div key={k + what} className="contents">
              <dt className="num self-start rounded bg-sunk px-2 text-center">{k}</dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
      </Sheet>
    </header>
  );
}

function Sheet({
  open,
  title,
  onClose,
  children,
}: {
  open: boolean;
  title: string;
  onClose(): void;
  children: React.ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className={
            "fixed left-1/2 top-12 z-50 max-h-[calc(100vh-64px)] w-[640px] -translate-x-1/2 overflow-auto " +
            "rounded-md border border-line bg-raised p-4 shadow-card"
          }
        >
          <Dialog.Title className="mb-3 text-[18px]">{title}</Dialog.Title>
          {children}
          <div className="mt-4 text-right">
            <Dialog.Close className="btn">Close</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface Revision {
  key: number;
  number: number;
  summary: string;
  refused: boolean;
  at: string;
}

/** Every saved state; any of them opens as a job of its own. */
function History({ open, onClose }: { open: boolean; onClose(): void }) {
  const id = useBench((s) => s.id);
  const router = useRouter();
  const [list, setList] = useState<Revision[] | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  useEffect(() => {
    if (open) api<Revision[]>(`/api/jobs/${id}/revisions`).then(setList, (e: Error) => setWrong(e.message));
  }, [open, id]);
  const openCopy = async (key: number) => {
    try {
      const made = await api<{ id: string }>(`/api/jobs/${id}/copy`, { method: "POST", json: { key } });
      router.push(`/job/${made.id}`);
      onClose();
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  return (
    <Sheet open={open} title="History" onClose={onClose}>
      {wrong && (
        <p role="alert" className="text-danger">
          {wrong}
        </p>
      )}
      {!list && !wrong && <p className="text-soft">Loading …</p>}
      <ul className="grid">
        {list?.map((r) => (
          <li key={r.key} className="flex items-center gap-3 border-b border-line py-1.5 last:border-0">
            <span className="num w-14 shrink-0">rev {r.number}</span>
            <span className="min-w-0 flex-1">
              <span className="block truncate">{r.summary}</span>
              <span className={`block text-[12.5px] ${r.refused ? "text-amber" : "text-soft"}`}>
                {r.refused ? "kept aside, from a window that was behind · " : ""}
                {new Date(r.at).toLocaleString()}
              </span>
            </span>
            <button className="btn" onClick={() => void openCopy(r.key)}>
              Open as a new job
            </button>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
