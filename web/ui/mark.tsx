import Link from "next/link";

/** The mark: an acorn whose nut is a cutter's point. */
export function Mark({ size = 26 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true">
      <path d="M11 1h2v3h-2z" fill="#1c2321" />
      <path d="M4 9c0-4 3.5-6 8-6s8 2 8 6v1H4z" fill="#1f6b57" />
      <path d="M5.5 11h13c0 5-3 8-6.5 12C8.500 19 5.500 16 5.500 11z" fill="#1c2321" />
    </svg>
  );
}

export function HomeLink() {
  return (
    <Link href="/" className="flex items-center gap-2 font-head text-[17px] font-semibold" title="All jobs">
      <Mark />
      Oaken Bit
    </Link>
  );
}
