import { partNamed } from "@oaken/core/shop/parts";
import { listEntries } from "@/server/shop";
import { MachinesPage } from "@/shop/machines";

export default async function Page({ searchParams }: { searchParams: Promise<{ table?: string }> }) {
  const table = (await searchParams).table === "dialects" ? "dialects" : "machines";
  return <MachinesPage table={table} entries={await listEntries(partNamed(table))} />;
}
