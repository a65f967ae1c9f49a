"use client";

import { useState } from "react";
import { Toggle } from "./toggle";

/** A scent score from 0 to 10 in halves: one press, or two for a half. */
export function Score({ disabled, onScore }: { disabled: boolean; onScore: (score: number) => void }) {
  const [isHalf, setIsHalf] = useState(false);
  return (
    <div className="mt-1 grid grid-cols-6 gap-1 sm:grid-cols-12">
      {Array.from({ length: 11 }, (_, value) => {
        const score = isHalf && value < 10 ? value + 0.5 : value;
        return (
          <button
            key={value}
            type="button"
            className="press !min-h-[56px] !px-0"
            disabled={disabled}
            aria-label={`Score ${score} of 10`}
            onClick={() => {
              setIsHalf(false);
              onScore(score);
            }}
          >
            {score === value ? value : `${value}½`}
          </button>
        );
      })}
      <Toggle on={isHalf} onPress={() => setIsHalf(!isHalf)} className="!min-h-[56px] !px-0">
        +½
      </Toggle>
    </div>
  );
}
