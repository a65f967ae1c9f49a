import { useId } from "react";

/** A labeled choice by which a list is narrowed; the empty value stands for all. */
export function FilterSelect({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: readonly { value: string; label: string }[];
  value: string;
  onChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-[14px] text-soft">
        {label}
      </label>
      <select id={id} className="entry !min-h-[40px] !w-auto max-w-[260px] !py-0" value={value} onChange={(event) => onChange(event.target.value)}>
        {options.map((item) => (
          <option key={item.value} value={item.value}>
            {item.label}
          </option>
        ))}
      </select>
    </div>
  );
}
