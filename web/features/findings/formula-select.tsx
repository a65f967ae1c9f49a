"use client";

/** A labeled choice of one formula among those named; nothing where there are none to choose from. */
export function FormulaSelect({
  label,
  formulas,
  value,
  onChange,
}: {
  label: string;
  formulas: readonly string[];
  value: string;
  onChange: (formula: string) => void;
}) {
  if (formulas.length === 0) return null;
  return (
    <label className="block">
      {label}{" "}
      <select aria-label={label} className="entry !w-auto max-w-[320px]" value={value} onChange={(event) => onChange(event.target.value)}>
        {formulas.map((formula) => (
          <option key={formula} value={formula}>
            {formula}
          </option>
        ))}
      </select>
    </label>
  );
}
