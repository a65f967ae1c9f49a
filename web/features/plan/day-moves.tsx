"use client";

interface Move {
  number: number;
  step: string;
  from: number;
  to: number;
}
const SHOWN = 10;

/** What moved with the last change of a timetable, and the way back. */
export function DayMoves({ moves, clock, canUndo, onUndo }: { moves: Move[]; clock: (minutes: number) => string; canUndo: boolean; onUndo: () => void }) {
  if (!canUndo) return null;
  return (
    <section aria-label="What changed" className="unprinted text-[15px]">
      <h2 className="text-[17px]">What changed</h2>
      {moves.length === 0 ? (
        <p className="mt-1 text-soft">No other step moved.</p>
      ) : (
        <ul className="mt-1">
          {moves.slice(0, SHOWN).map((move) => (
            <li key={`${move.number} ${move.step} ${move.from}`}>
              pot {move.number}, {move.step}: <span className="figure text-[17px]">{clock(move.from)}</span> →{" "}
              <strong className="figure text-[17px]">{clock(move.to)}</strong>
            </li>
          ))}
          {moves.length > SHOWN ? <li className="text-soft">and {moves.length - SHOWN} more</li> : null}
        </ul>
      )}
      <button type="button" className="press mt-2" onClick={onUndo}>
        Undo the last change
      </button>
    </section>
  );
}
