/** The head of a slip: what it is of, and a line about it. */
export function Head({ title, about, shape }: { title: string; about: string; shape?: React.ReactNode }) {
  return (
    <div className="flex items-center gap-3 px-3 pb-2 pt-3">
      {shape}
      <div className="min-w-0">
        <h2 className="truncate text-[17px]">{title}</h2>
        <p className="truncate text-[13px] text-soft">{about}</p>
      </div>
    </div>
  );
}
