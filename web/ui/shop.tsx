"use client";
import { createContext, type ReactNode, useContext } from "react";
import type { Shop } from "@oaken/core/shop/shop";

const ShopContext = createContext<Shop | null>(null);

/** The workshop's cutters, materials, machines and dialects, as the server knew them when the page was made. */
export function ShopProvider({ shop, children }: { shop: Shop; children: ReactNode }) {
  return <ShopContext value={shop}>{children}</ShopContext>;
}

export const useShop = (): Shop => useContext(ShopContext)!;
