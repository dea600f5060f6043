import { partNamed } from "@oaken/core/shop/parts";
import { listEntries } from "@/server/shop";
import { MaterialsPage } from "@/shop/materials";

export default async function Page() {
  return <MaterialsPage entries={await listEntries(partNamed("materials"))} />;
}
