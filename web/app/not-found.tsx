import Link from "next/link";

/** Where nothing is, there is a way home. */
export default function NotFound() {
  return (
    <main className="grid h-full place-items-center p-8 text-center">
      <div>
        <h1 className="text-[22px]">There is nothing here</h1>
        <p className="my-3 max-w-lg">
          The job or class may have been put into the archive, or the address is mistyped.
        </p>
        <Link href="/" className="btn">
          All jobs
        </Link>
      </div>
    </main>
  );
}
