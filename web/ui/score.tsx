"use client";

/** How strong something smells, from 0 to 10: one press. */
export function Score({ disabled, onScore }: { disabled: boolean; onScore: (score: number) => void }) {
  return (
    <div className="mt-1 grid grid-cols-6 gap-1 sm:grid-cols-11">
      {Array.from({ length: 11 }, (_, value) => (
        <button
          key={value}
          type="button"
          className="press !min-h-[56px] !px-0"
          disabled={disabled}
          aria-label={`Score ${value} of 10`}
          onClick={() => onScore(value)}
        >
          {value}
        </button>
      ))}
    </div>
  );
}
