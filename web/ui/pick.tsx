"use client";
import { ChevronDown, Check } from "lucide-react";
import { Select } from "radix-ui";

/** Entries to pick from; one that is not among them, such as a job's own copy, stands first. */
export function choices(entries: readonly { id: string; name: string }[], own?: { id: string; name: string }) {
  const all = own && !entries.some((e) => e.id === own.id) ? [own, ...entries] : entries;
  return all.map((e) => ({ value: e.id, label: e.name }));
}

/** One of a list, by name. */
export function Pick({
  label,
  value,
  options,
  onChange,
  id,
  className = "",
}: {
  label: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChange(v: string): void;
  id?: string;
  className?: string;
}) {
  return (
    <Select.Root value={value} onValueChange={onChange}>
      <Select.Trigger
        id={id}
        aria-label={label}
        className={`box inline-flex max-w-full items-center gap-2 !font-sans ${className}`}
      >
        <span className="truncate">
          <Select.Value />
        </span>
        <Select.Icon className="shrink-0 text-faint">
          <ChevronDown size={14} />
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          className="z-50 max-h-80 overflow-auto rounded-md border border-line bg-raised p-1 shadow-card"
        >
          <Select.Viewport>
            {options.map((o) => (
              <Select.Item
                key={o.value}
                value={o.value}
                className={
                  "flex min-h-[30px] cursor-pointer items-center gap-2 rounded px-2 outline-none " +
                  "data-[highlighted]:bg-sunk"
                }
              >
                <span className="w-4">
                  <Select.ItemIndicator>
                    <Check size={14} />
                  </Select.ItemIndicator>
                </span>
                <Select.ItemText>{o.label}</Select.ItemText>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
