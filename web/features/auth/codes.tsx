"use client";

/** Printed codes, shown once: the only way back in where no mail server is set. */
export function Codes({ codes, onDone, to = "Go on" }: { codes: string[]; onDone: () => void; to?: string }) {
  return (
    <section className="sheet max-w-[560px]">
      <h2>Print or write down these codes</h2>
      <p className="mt-1">Each lets you in once if you lose your password or authenticator. They are shown only now. Keep them away from this computer.</p>
      <ul className="figure mt-3 grid gap-2 text-[21px] sm:grid-cols-2">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <div className="unprinted mt-4 flex flex-wrap gap-3">
        <button type="button" className="press" onClick={() => window.print()}>
          Print
        </button>
        <button type="button" className="action-button" onClick={onDone}>
          {to}
        </button>
      </div>
    </section>
  );
}
