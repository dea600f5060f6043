import { partNamed } from "@oaken/core/shop/parts";
import { listEntries, shopNow } from "@/server/shop";
import { RackPage } from "@/shop/rack";

export default async function Page() {
  return <RackPage entries={await listEntries(partNamed("cutters"))} shop={await shopNow()} />;
}
