"use client";

import { bandsOf, stepTypeOf } from "@hearth/core";
import type { CustomProcess } from "@/server/formulas/processes";
import { Link } from "@/ui/address";
import { HeatLine } from "@/ui/heat-line";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";

/** The processes that this workshop keeps, and the way to make one. */
export function ProcessList({ processes }: { processes: CustomProcess[] }) {
  const add = (
    <Link className="action-button" href="/formulas/processes/new" data-next-step>
      Make a process
    </Link>
  );
  return (
    <PageLayout
      title="Processes"
      lead="How a wax is worked: steps, their order and temperatures."
      actions={
        <>
          <Link className="press" href="/formulas">
            Formulas
          </Link>
          {processes.length > 0 ? add : null}
        </>
      }
      side={<Aside title="Versions">A change makes the next version. Formulas and batches keep the one they were made with.</Aside>}
    >
      {processes.length === 0 ? (
        <Empty title="No process of your own yet" action={add}>
          <p>Formulas can use ready-made processes. If you work another way, make your own here: move steps, add waits or a second pour, change the ranges.</p>
        </Empty>
      ) : (
        <ul>
          {processes.map((process) => (
            <li key={process.id} className="grid items-center gap-x-6 border-b border-line py-3 sm:grid-cols-[minmax(0,1fr)_132px]">
              <div>
                <Link href={`/formulas/processes/${process.id}`} className="text-[19px] font-bold">
                  {process.name}
                </Link>
                <div className="text-soft">version {process.number}</div>
                <div className="text-[15px]">{process.process.steps.map((step) => stepTypeOf(step.kind).verb).join(" › ")}</div>
              </div>
              <HeatLine thumb height={44} bands={bandsOf(process.process)} ceiling={process.process.ceiling} marks={[]} label={`Ranges of ${process.name}`} />
            </li>
          ))}
        </ul>
      )}
    </PageLayout>
  );
}
