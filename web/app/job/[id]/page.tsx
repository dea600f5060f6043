import { BenchPage } from "@/bench/bench";
import { shopNow } from "@/server/shop";
import { ShopProvider } from "@/ui/shop";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <ShopProvider shop={await shopNow()}>
      <BenchPage key={id} id={id} />
    </ShopProvider>
  );
}
