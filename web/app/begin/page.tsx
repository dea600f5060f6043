import { notFound } from "next/navigation";
import { assetInfo } from "@/server/assets";
import { served } from "@/server/served";
import { shopNow } from "@/server/shop";
import { BeginPage } from "@/shop/begin";
import { ShopProvider } from "@/ui/shop";

export default async function Page({ searchParams }: { searchParams: Promise<{ asset?: string }> }) {
  const { asset = "" } = await searchParams;
  const picture = await served(assetInfo(asset));
  if (!picture) notFound();
  return (
    <ShopProvider shop={await shopNow()}>
      <BeginPage asset={picture.value} />
    </ShopProvider>
  );
}
