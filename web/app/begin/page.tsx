import { Suspense } from "react";
import { shopNow } from "@/server/shop";
import { BeginPage } from "@/shop/begin";
import { ShopProvider } from "@/ui/shop";

export default async function Page() {
  return (
    <ShopProvider shop={await shopNow()}>
      <Suspense>
        <BeginPage />
      </Suspense>
    </ShopProvider>
  );
}
