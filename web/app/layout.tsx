import type { Metadata } from "next";
import type { ReactNode } from "react";
import "@/ui/everywhere";
import "./globals.css";

/** Every page is made when it is asked for: its scripts carry a word that is new each time (see proxy.ts). */
export const dynamic = "force-dynamic";

export const metadata: Metadata = { title: "Oaken Bit", description: "Turns a picture into a part." };

export default function Layout({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <body>{children}</body>
    </html>
  );
}
