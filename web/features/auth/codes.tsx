"use client";

/** Printed codes, shown once: the only way back in where no mail server is set. */
export function Codes({ codes, onDone, to = "Go on" }: { codes: string[]; onDone: () => void; to?: string }) {
  return (
    <section className="sheet max-w-[560px]">
      <h2>Print these codes, or write them down</h2>
      <p className="mt-1">
        Each lets you back in once, should you lose your password or your authenticator. They are shown only now; keep them away from this machine.
      </p>
      <ul className="figure mt-3 grid gap-2 text-[21px] sm:grid-cols-2">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <div className="unprinted mt-4 flex flex-wrap gap-3">
        <button type="button" className="press" onClick={() => window.print()}>
          Print
        </button>
        <button type="button" className="act" onClick={onDone}>
          {to}
        </button>
      </div>
    </section>
  );
}
