import { Suspense } from "react";
import { BeginPage } from "@/shop/begin";

export default function Page() {
  return (
    <Suspense>
      <BeginPage />
    </Suspense>
  );
}
