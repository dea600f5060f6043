"use client";
import { useEffect } from "react";
import Link from "next/link";

/** A page that broke while it was drawn: what is saved is safe, and there are two ways on. */
export default function Broken({ error, reset }: { error: Error; reset(): void }) {
  useEffect(() => console.error(error), [error]);
  return (
    <main className="grid h-full place-items-center p-8 text-center">
      <div>
        <h1 className="text-[22px]">This page stopped working</h1>
        <p className="my-3 max-w-lg">
          A fault in Oaken Bit. Everything that was saved is safe: jobs keep each of their changes. Try the page again;
          if it stops once more, the other jobs still open.
        </p>
        <div className="flex justify-center gap-3">
          <button type="button" className="btn btn-primary" onClick={reset}>
            Try again
          </button>
          <Link href="/" className="btn">
            All jobs
          </Link>
        </div>
      </div>
    </main>
  );
}
