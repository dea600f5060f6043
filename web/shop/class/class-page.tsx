"use client";
import Link from "next/link";
import { useCallback, useState } from "react";
import { Download, OctagonX, UserPlus } from "lucide-react";
import { OPEN } from "@oaken/core/job/lock";
import type { StartRules } from "@oaken/core/job/document";
import { fileName } from "@oaken/core/output/gcode/names";
import { Desk } from "../../compute/desk.ts";
import type { ClassWall } from "../../server/class.ts";
import { api } from "../../ui/api.ts";
import { keep } from "../../ui/keep.ts";
import { LengthField } from "../../ui/length-field.tsx";
import { Pick } from "../../ui/pick.tsx";
import { useUnit } from "../../ui/use-unit.ts";
import { ProofPicture } from "../proof-picture.tsx";
import { ShopHeader } from "../shop-header.tsx";
import { PersonCard } from "./person-card.tsx";
import { type State, STATES, stateOf } from "./state.ts";
import { type ClassLayout, type ClassWritten, writeClass } from "./write-class.ts";

const LAYOUTS = [
  { value: "folders", label: "a folder a person" },
  { value: "together", label: "all in one folder" },
];

/** A wall of small proofs, one a person, with the starting job at its head. */
export function ClassPage({ first }: { first: ClassWall }) {
  const [wall, setWall] = useState(first);
  const [wrong, setWrong] = useState<string | null>(null);
  const [writing, setWriting] = useState<{ done: number; person: string } | null>(null);
  const [left, setLeft] = useState<ClassWritten["left"]>([]);
  const [layout, setLayout] = useState<ClassLayout>("folders");
  const { start, rules, people } = wall;
  const load = useCallback(async () => setWall(await api<ClassWall>(`/api/jobs/${start.id}/class`)), [start.id]);
  const act = (work: Promise<unknown>) =>
    work.then(load).then(
      () => setWrong(null),
      (e: Error) => setWrong(e.message),
    );
  const setRules = (next: StartRules) =>
    act(api(`/api/jobs/${start.id}/class`, { method: "PUT", json: { start: next } }));
  const writeAll = async () => {
    const desk = new Desk();
    setLeft([]);
    try {
      const said = (done: number, person: string) => setWriting({ done, person });
      const written = await writeClass(people, desk, said, layout);
      setLeft(written.left);
      const { zipSync } = await import("fflate");
      if (Object.keys(written.files).length > 0)
        keep(zipSync(written.files, { level: 6 }), `${fileName(start.name)}-class.zip`);
      await load();
    } catch (e) {
      setWrong((e as Error).message);
    } finally {
      desk.close();
      setWriting(null);
    }
  };
  const count = (state: State) => people.filter((p) => stateOf(p) === state).length;
  return (
    <div className="min-h-full">
      <ShopHeader here="jobs" />
      <main className="mx-auto max-w-[1180px] p-6">
        <Head wall={wall} setRules={setRules} />
        {wrong && (
          <p role="alert" className="mb-4 rounded-md border border-danger/40 bg-danger/5 p-3">
            {wrong}
          </p>
        )}
        <div className="mb-3 flex flex-wrap items-center gap-4">
          <h2 className="text-[19px]">
            {people.length} {people.length === 1 ? "person" : "people"}
          </h2>
          {(Object.keys(STATES) as State[]).map((s) =>
            count(s) > 0 ? (
              <span key={s} className={`${STATES[s]} font-semibold`}>
                {count(s)} {s}
              </span>
            ) : null,
          )}
          <span className="flex-1" />
          {writing ? (
            <p role="status" className="catching-up rounded-md border border-line px-3 py-1.5">
              {writing.done} of {people.length} written{writing.person && `, now ${writing.person}`}
            </p>
          ) : (
            <>
              <Pick
                label="Where everybody's files go"
                value={layout}
                options={LAYOUTS}
                onChange={(v) => setLayout(v as ClassLayout)}
              />
              <button
                className="btn btn-primary"
                disabled={!people.some((p) => p.hasPicture)}
                onClick={() => void writeAll()}
              >
                <Download size={16} /> Write everybody&apos;s programs
              </button>
            </>
          )}
        </div>
        {left.length > 0 && (
          <div className="mb-4 flex gap-2 rounded-md border border-amber/40 bg-amber/5 p-3">
            <OctagonX size={18} className="mt-0.5 shrink-0 text-amber" />
            <div>
              <p className="font-semibold">Nothing was written for:</p>
              <ul>
                {left.map((l) => (
                  <li key={l.person}>
                    {l.person}: {l.why}
                  </li>
                ))}
              </ul>
            </div>
          </div>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-4">
          {people.map((p) => (
            <PersonCard key={p.id} of={p} open={rules.open} changed={() => void act(Promise.resolve())} />
          ))}
        </ul>
        <AddPeople
          isFirst={people.length === 0}
          add={(list, name) =>
            act(api(`/api/jobs/${start.id}/class`, { method: "POST", json: { people: list, class: name } }))
          }
        />
      </main>
    </div>
  );
}

/** The starting job: what it looks like, what is open, what is locked. */
function Head({ wall: { start, rules }, setRules }: { wall: ClassWall; setRules(rules: StartRules): void }) {
  const [unit] = useUnit();
  const toggle = (what: keyof typeof OPEN) => {
    const open = rules.open.includes(what) ? rules.open.filter((o) => o !== what) : [...rules.open, what];
    setRules({ ...rules, open });
  };
  const limit = (key: "least" | "most", label: string, usual: number) => (
    <label className="flex items-center gap-2">
      {label}
      <LengthField
        label={`${label} width of the picture`}
        value={rules[key] ?? usual}
        unit={unit}
        min={1}
        max={10000}
        width={96}
        onChange={(v) => setRules({ ...rules, [key]: v })}
      />
    </label>
  );
  return (
    <section className="mb-6 flex gap-6">
      <Link href={`/job/${start.id}`} className="card w-[232px] shrink-0 overflow-hidden shadow-card">
        <ProofPicture id={start.id} revision={start.revision} name={start.name} />
      </Link>
      <div className="flex-1">
        <h1 className="text-[24px]">{start.name}</h1>
        <p className="mb-2 text-soft">
          A starting job: everybody begins from it as it is. Open to them is what is ticked; all else is locked: stock,
          zero, cutters, depths, feeds, machine.
        </p>
        <fieldset>
          <legend className="sr-only">What is open</legend>
          {(Object.keys(OPEN) as (keyof typeof OPEN)[]).map((o) => (
            <label key={o} className="flex min-h-[30px] items-center gap-2">
              <input
                type="checkbox"
                className="h-4 w-4 accent-spruce"
                checked={rules.open.includes(o)}
                onChange={() => toggle(o)}
              />
              {OPEN[o]}
            </label>
          ))}
        </fieldset>
        {rules.open.includes("size") && (
          <div className="mt-1 flex gap-5 text-soft">
            {limit("least", "Least", 20)}
            {limit("most", "Largest", 200)}
          </div>
        )}
        <Link href={`/job/${start.id}`} className="btn mt-3">
          Open the starting job
        </Link>
      </div>
    </section>
  );
}

/** Names as they are pasted, one a line. */
function AddPeople({ isFirst, add }: { isFirst: boolean; add(list: string, name: string): Promise<void> }) {
  const [list, setList] = useState("");
  const [name, setName] = useState("");
  const send = async () => {
    await add(list, name.trim());
    setList("");
  };
  return (
    <section aria-label="Add people" className="card mt-6 max-w-[560px] p-4">
      <h2 className="mb-1 text-[17px]">{isFirst ? "Who begins from it?" : "More people"}</h2>
      <p className="mb-2 text-soft">
        Paste names, one a line, or a table whose first column holds them. For pieces that were measured one by one put
        each one's size behind its name: Left door 400 x 300 x 17.9.
      </p>
      <textarea
        aria-label="Names"
        rows={5}
        className="box !h-auto w-full py-2 !font-sans"
        value={list}
        onChange={(e) => setList(e.target.value)}
      />
      <div className="mt-2 flex items-center gap-2">
        <label htmlFor="class-name" className="font-semibold">
          Class
        </label>
        <input
          id="class-name"
          className="box w-40 !font-sans"
          maxLength={100}
          placeholder="or group"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <span className="flex-1" />
        <button className="btn" disabled={list.trim() === ""} onClick={() => void send()}>
          <UserPlus size={16} /> A job for each
        </button>
      </div>
    </section>
  );
}
