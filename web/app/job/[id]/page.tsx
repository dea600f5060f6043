import { BenchPage } from "@/bench/bench";
import { openJob } from "@/server/jobs";
import { served } from "@/server/served";
import { shopNow } from "@/server/shop";
import { ShopProvider } from "@/ui/shop";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [shop, opened] = await Promise.all([shopNow(), served(openJob(id))]);
  return (
    <ShopProvider shop={shop}>
      <BenchPage key={id} id={id} first={opened} />
    </ShopProvider>
  );
}
