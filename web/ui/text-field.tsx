import { useState } from "react";

interface TextFieldProps {
  label: string;
  value: string;
  /** takes what was typed; throws where it cannot be read */
  onTake(text: string): void;
  /** whether nothing is something: else an emptied field goes back to what it held */
  mayBeEmpty?: boolean;
  id?: string;
  most?: number;
  /** rows; with more than one, Enter begins a line and Ctrl Enter takes the text */
  lines?: number;
  placeholder?: string;
  className?: string;
}

/** Text that is taken when it is left or Enter is pressed; what cannot be read is said, and not taken. */
export function TextField(p: TextFieldProps) {
  const [wrong, setWrong] = useState<string | null>(null);
  const leave = (input: HTMLInputElement | HTMLTextAreaElement) => {
    const text = input.value.trim();
    setWrong(null);
    if (text === p.value) return;
    if (text === "" && !p.mayBeEmpty) {
      input.value = p.value;
      return;
    }
    try {
      p.onTake(text);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  const { lines = 1 } = p;
  const box = {
    id: p.id,
    "aria-label": p.label,
    "aria-invalid": wrong !== null,
    defaultValue: p.value,
    maxLength: p.most,
    placeholder: p.placeholder,
  };
  return (
    <>
      {lines > 1 ? (
        <textarea
          key={p.value}
          {...box}
          rows={Math.max(lines, p.value.split("\n").length)}
          className={`box !h-auto py-1.5 !font-sans ${p.className ?? "w-full"}`}
          onBlur={(e) => leave(e.target)}
          onKeyDown={(e) => e.key === "Enter" && (e.ctrlKey || e.metaKey) && e.currentTarget.blur()}
        />
      ) : (
        <input
          key={p.value}
          {...box}
          className={`box !font-sans ${p.className ?? "w-full"}`}
          onBlur={(e) => leave(e.target)}
          onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
        />
      )}
      {wrong && (
        <p role="alert" className="mt-1 text-[12.5px] leading-4 text-danger">
          {wrong}
        </p>
      )}
    </>
  );
}
