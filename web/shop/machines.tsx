"use client";
import { useMemo } from "react";
import { useRouter } from "next/navigation";
import type { Entry } from "@oaken/core/shop/column";
import { sampleProgram } from "@oaken/core/output/gcode/sample";
import type { Dialect } from "@oaken/core/output/gcode/dialect";
import { partNamed } from "@oaken/core/shop/parts";
import { Toggle } from "../ui/toggle.tsx";
import type { Kept } from "../server/shop.ts";
import { ShopPage } from "./table/shop-page.tsx";

/** Lines of a program that are shown of its beginning and of its end. */
const SHOWN = 40;

/** What a dialect's figures do: a short program written so. */
function Preview({ entry }: { entry: Entry }) {
  const text = useMemo(() => {
    try {
      return sampleProgram(entry as unknown as Dialect);
    } catch (e) {
      return (e as Error).message;
    }
  }, [entry]);
  const lines = text.trimEnd().split("\n");
  const shown =
    lines.length <= 2 * SHOWN ? lines : [...lines.slice(0, SHOWN), "…", ...lines.slice(lines.length - SHOWN)];
  return (
    <pre
      tabIndex={0}
      aria-label="A short program in this dialect"
      className="num mb-3 max-h-[300px] overflow-auto rounded-md bg-mat p-3 !text-[12px] leading-[17px] text-[#eef3ea]"
    >
      {shown.join("\n")}
    </pre>
  );
}

const TABLES = [
  { value: "machines", label: "machines" },
  { value: "dialects", label: "dialects" },
] as const;
export type Table = (typeof TABLES)[number]["value"];

/** Machines with what they can do, and the dialects in which their programs are written. */
export function MachinesPage({ table, entries }: { table: Table; entries: readonly Kept[] }) {
  const router = useRouter();
  const show = (t: Table) => router.push(`/machines?table=${t}`);
  return (
    <ShopPage
      key={table}
      part={partNamed(table)}
      entries={entries}
      here="machines"
      hasUsual={table === "machines"}
      among={<Toggle label="Table" value={table} options={TABLES} onChange={show} />}
      picture={table === "dialects" ? (e) => <Preview entry={e} /> : undefined}
    />
  );
}
