"use client";
import { useEffect, useMemo, useState } from "react";
import { Download } from "lucide-react";
import { boardJob, boardPrefixes } from "@oaken/core/job/boards";
import { type BoardJob, stopWords, takeMachine, zeroWords } from "@oaken/core/job/document";
import { fileName } from "@oaken/core/output/gcode/names";
import { dialectIn } from "@oaken/core/shop/shop";
import { formatLength } from "@oaken/core/units";
import type { Writing as HowWritten, WrittenBoard, WrittenFile } from "../../compute/messages.ts";
import { api } from "../../ui/api.ts";
import { keep } from "../../ui/keep.ts";
import { choices, Pick } from "../../ui/pick.tsx";
import { useShop } from "../../ui/shop.tsx";
import { useActions, useBench, useParts, useBenchStore, useDesk, useSpoken } from "../context.tsx";
import { BoardFiles, stopsOf, type Writing } from "./board-files.tsx";
import { type Extras, NamingCard, NO_EXTRAS } from "./naming.tsx";
import { SaveFolder } from "./save-folder.tsx";
import { SinceWritten } from "./since.tsx";
import { StockDrawing } from "./stock-drawing.tsx";

/** Programs and drawings of every board, ready to take to the machine. */
export function Write() {
  const { whole, doc, revision, id, save } = useParts("whole", "doc", "revision", "id", "save");
  const store = useBenchStore();
  const say = useSpoken();
  const shop = useShop();
  const { changeWhole } = useActions();
  const [extras, setExtras] = useState(NO_EXTRAS);
  const { boards, writingOf } = useWriting(extras);
  const desk = useDesk();
  const [wrong, setWrong] = useState<string | null>(null);
  const isOne = boards.length === 1;
  const isDone = boards.every((b) => b.written !== null);
  const isHeld = boards.some((b) => stopsOf(b).length > 0);
  const noteWritten = () => {
    store.setState({ written: revision });
    void api(`/api/jobs/${id}`, { method: "PATCH", json: { written: revision } }).catch(() => {});
  };
  const keepFile = (f: WrittenFile) => {
    keep(f.bytes, f.name);
    if (f.kind === "program") noteWritten();
  };
  const sheetName = (i: number) => `${writingOf(i).prefix}sheet.pdf`;
  const sheetOf = (b: Writing, i: number) => {
    const files = b.written?.files ?? [];
    const programs = files.flatMap((f) => (f.program ? [{ name: f.name, cuts: f.program.cuts }] : []));
    return desk.sheet(b.job, writingOf(i), programs);
  };
  /** Opens a board's setup sheet, to be read or printed. */
  const openSheet = async (b: Writing, i: number) => {
    try {
      const pdf = await sheetOf(b, i);
      const url = URL.createObjectURL(new Blob([pdf as BlobPart], { type: "application/pdf" }));
      // A window that the browser keeps from opening leaves the file.
      if (!window.open(url, "_blank")) keep(pdf, sheetName(i));
      setTimeout(() => URL.revokeObjectURL(url), 60_000);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  const saveAll = () => keepAll().catch((e: Error) => setWrong(e.message));
  const everything = async () => {
    const files = boards.flatMap((b) => b.written!.files.map((f) => [f.name, f.bytes] as const));
    const sheets = await Promise.all(boards.map(async (b, i) => [sheetName(i), await sheetOf(b, i)] as const));
    return [...files, ...sheets];
  };
  const keepAll = async () => {
    const { zipSync } = await import("fflate");
    const zip = zipSync(Object.fromEntries(await everything()));
    keep(zip, `${fileName(whole.name)}-rev${revision}.zip`);
    noteWritten();
  };
  return (
    <main className="flex min-h-0 flex-1 overflow-auto">
      <div className="mx-auto grid w-full max-w-[1120px] grid-cols-[1fr_360px] gap-6 p-6">
        <section>
          <h1 className="text-[22px]">Write</h1>
          <p className="mb-4 text-soft">
            {whole.name}, revision {revision}
            {save.state !== "saved" && " (saving)"}.
            {isOne ? ` Coordinates from the ${zeroWords(doc.stock.zero)}.` : " Each board from its own zero."}
          </p>
          <SinceWritten />
          {wrong && (
            <p role="alert" className="mb-4 rounded-md border border-danger/40 bg-danger/5 p-3">
              {wrong}
            </p>
          )}
          {boards.map((b, i) => (
            <BoardFiles
              key={b.job.board.id}
              of={b}
              title={isOne ? null : b.job.board.name}
              keep={keepFile}
              sheet={{
                name: sheetName(i),
                open: () => void openSheet(b, i),
                save: () =>
                  void sheetOf(b, i).then(
                    (pdf) => keep(pdf, sheetName(i)),
                    (e: Error) => setWrong(e.message),
                  ),
              }}
            />
          ))}
          {isDone && (
            <div className="flex flex-wrap gap-3">
              <button className="btn btn-primary" disabled={isHeld} onClick={() => void saveAll()}>
                <Download size={16} /> Save everything
              </button>
              <SaveFolder files={everything} isHeld={isHeld} done={noteWritten} />
              <a className="btn" href={`/api/jobs/${id}/file`} download>
                Job file, with its picture
              </a>
            </div>
          )}
        </section>
        <aside className="grid content-start gap-4">
          <div className="card p-4">
            <h2 className="mb-2 text-[15px]">The machine, and how it wants its programs</h2>
            <Pick
              label="Machine"
              className="mb-2 w-full justify-between"
              value={doc.machine.id}
              options={choices(shop.machines, doc.machine)}
              onChange={(v) => changeWhole("machine", (d) => takeMachine(d, v, shop))}
            />
            <Pick
              label="Dialect"
              className="w-full justify-between"
              value={doc.dialect.id}
              options={choices(shop.dialects, doc.dialect)}
              onChange={(v) => changeWhole("dialect", (d) => void (d.dialect = dialectIn(shop, v)))}
            />
            <p className="mt-2 text-[13px] text-soft">
              {doc.machine.name}: {say(`${Math.round(doc.machine.feedMost)} mm/min`)} at most
              {doc.machine.spindleMost > 1 ? `, ${Math.round(doc.machine.spindleMost / 1000)} 000/min spindle` : ""}.
            </p>
          </div>
          <NamingCard extras={extras} setExtras={setExtras} />
          {boards.map(({ job, written }) => (
            <OnMachine key={job.board.id} job={job} written={written} isOne={isOne} />
          ))}
        </aside>
      </div>
    </main>
  );
}

/** Every board of the job, written one after another; anew after each change. */
function useWriting({ frame, solid, tiff }: Extras): { boards: Writing[]; writingOf(board: number): HowWritten } {
  const { whole, revision } = useParts("whole", "revision");
  const desk = useDesk();
  const [answers, setAnswers] = useState<Record<string, WrittenBoard | string>>({});
  const writingOf = useMemo(() => {
    const now = new Date().toISOString();
    const prefixes = boardPrefixes(whole);
    return (board: number): HowWritten => ({
      from: `revision ${revision}, ${now.slice(0, 16).replace("T", " ")}`,
      date: now.slice(0, 10),
      prefix: prefixes[board],
      ...(frame !== "none" && { frame }),
      solid,
      tiff,
    });
  }, [whole, revision, frame, solid, tiff]);
  useEffect(() => {
    let wanted = true;
    setAnswers({});
    whole.boards.forEach(({ id }, i) => {
      const answer = (said: WrittenBoard | string) => wanted && setAnswers((before) => ({ ...before, [id]: said }));
      desk.outputs(boardJob(whole, id), writingOf(i)).then(answer, (e: Error) => answer(e.message));
    });
    return () => {
      wanted = false;
    };
  }, [whole, writingOf, desk]);
  const boards = useMemo(
    () =>
      whole.boards.map(({ id }): Writing => {
        const said = answers[id] ?? null;
        const isWrong = typeof said === "string";
        return { job: boardJob(whole, id), written: isWrong ? null : said, wrong: isWrong ? said : null };
      }),
    [whole, answers],
  );
  return { boards, writingOf };
}

/** What to do at the machine, with the stock as it lies there. */
function OnMachine({ job, written, isOne }: { job: BoardJob; written: WrittenBoard | null; isOne: boolean }) {
  const unit = useBench((s) => s.unit);
  const n = (v: number) => formatLength(v, unit);
  const { stock, board, cuts } = job;
  const size = [stock.width, stock.height, stock.thickness].map(n).join(" × ");
  return (
    <div className="card p-4">
      <h2 className="mb-2 text-[15px]">{isOne ? "On the machine" : `${board.name} on the machine`}</h2>
      <StockDrawing stock={stock} written={written} />
      <ol className="mt-3 list-decimal pl-5 text-[13px]">
        <li>{`Measure the stock: ${size} ${unit}, ${stock.material.name}.`}</li>
        <li>Zero at the {zeroWords(stock.zero)}.</li>
        <li>Run the programs in the order of their numbers.</li>
        {cuts
          .filter((c) => c.on && c.stop)
          .map((c) => (
            <li key={c.id}>
              Before {c.name}: <b>{stopWords(c.stop!)}</b>.
            </li>
          ))}
      </ol>
    </div>
  );
}
