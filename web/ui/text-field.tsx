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
  placeholder?: string;
  className?: string;
}

/** A line of text that is taken when it is left or Enter is pressed; what cannot be read is said, and not taken. */
export function TextField(p: TextFieldProps) {
  const [wrong, setWrong] = useState<string | null>(null);
  const leave = (input: HTMLInputElement) => {
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
  return (
    <>
      <input
        id={p.id}
        key={p.value}
        aria-label={p.label}
        aria-invalid={wrong !== null}
        className={`box !font-sans ${p.className ?? "w-full"}`}
        defaultValue={p.value}
        maxLength={p.most}
        placeholder={p.placeholder}
        onBlur={(e) => leave(e.target)}
        onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
      />
      {wrong && (
        <p role="alert" className="mt-1 text-[12.5px] leading-4 text-danger">
          {wrong}
        </p>
      )}
    </>
  );
}
