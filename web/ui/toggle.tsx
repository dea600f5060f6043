"use client";
import { ToggleGroup } from "radix-ui";

/** Two or three exclusive choices side by side. */
export function Toggle<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly { value: NoInfer<T>; label: string }[];
  onChange(v: NoInfer<T>): void;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(v) => v && onChange(v as T)}
      className="inline-flex overflow-hidden rounded-md border border-line bg-raised"
    >
      {options.map((o) => (
        <ToggleGroup.Item
          key={o.value}
          value={o.value}
          className={
            "h-[28px] whitespace-nowrap px-2.5 text-[13px] font-semibold data-[state=on]:bg-spruce " +
            "data-[state=on]:text-white"
          }
        >
          {o.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
