/** While a page is fetched: quiet, and told to those who do not see it. */
export default function Loading() {
  return (
    <main className="grid h-full place-items-center" aria-busy="true">
      <p role="status" className="catching-up rounded-md border border-line bg-raised px-4 py-2 text-soft">
        Opening …
      </p>
    </main>
  );
}
