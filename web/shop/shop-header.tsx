"use client";
import Link from "next/link";
import type { ReactNode } from "react";
import { HomeLink } from "../ui/mark.tsx";

/** The rooms of the workshop, by the words that lead to them. */
const ROOMS = [
  { id: "jobs", title: "Jobs", href: "/" },
  { id: "rack", title: "Rack", href: "/rack" },
  { id: "materials", title: "Materials", href: "/materials" },
  { id: "machines", title: "Machines", href: "/machines" },
  { id: "heights", title: "Heights", href: "/heights" },
] as const;
export type Room = (typeof ROOMS)[number]["id"];

/** The mark, and beside it the rooms of the workshop in one quiet row. */
export function ShopHeader({ here, children }: { here: Room; children?: ReactNode }) {
  return (
    <header className="flex h-[44px] shrink-0 items-center gap-5 border-b border-line bg-raised px-4">
      <HomeLink />
      <nav aria-label="The shop" className="flex items-center gap-1">
        {ROOMS.map((r) => (
          <Link
            key={r.id}
            href={r.href}
            aria-current={r.id === here ? "page" : undefined}
            className={
              "rounded px-2.5 py-1 font-semibold text-soft hover:bg-sunk " +
              "aria-[current=page]:bg-sunk aria-[current=page]:text-ink"
            }
          >
            {r.title}
          </Link>
        ))}
      </nav>
      <span className="flex-1" />
      {children}
    </header>
  );
}
