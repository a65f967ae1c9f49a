"use client";

import { DEFAULT_GRADES, DEFECTS, EXTENT_WORDS, EXTENTS, type Extent, type GradingRules } from "@hearth/core";
import { useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { saveGrades } from "@/server/findings/commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Aside, Caution, PageLayout } from "@/ui/side-notes";
import { toast } from "@/ui/toast";
import { WideTable } from "@/ui/wide-table";

const CHOICES = ["first", "second", "melt again"] as const;
type Choice = (typeof CHOICES)[number];
const CLASSES = ["cosmetic", "performance"] as const;

function Pick({ label, value, onValue, none }: { label: string; value: Choice | ""; onValue: (value: Choice | "") => void; none?: string }) {
  return (
    <select aria-label={label} className="entry !w-auto" value={value} onChange={(event) => onValue(event.target.value as Choice | "")}>
      {none ? <option value="">{none}</option> : null}
      {CHOICES.map((choice) => (
        <option key={choice} value={choice}>
          {choice}
        </option>
      ))}
    </select>
  );
}

/** By which rules jars are graded: by the kind of flaw and how far it goes; by the flaw, where that decides. */
export function Grades({ rules: kept, version }: { rules: GradingRules; version: number }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [rules, setRules] = useState(kept);
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const save = (next: GradingRules) =>
    start(async () => {
      const out = await callAction(saveGrades(workshop, { rules: next, version }));
      setMessage(out.ok ? "" : out.message);
      if (!out.ok) return;
      toast("Saved. All inspections use these rules, past ones too.");
      router.refresh();
    });
  const set = (of: (typeof CLASSES)[number], extent: Extent, value: Choice | "") => value && setRules({ ...rules, [of]: { ...rules[of], [extent]: value } });
  return (
    <PageLayout
      title="Grading rules"
      lead="The worst flaw of a jar decides."
      side={
        <>
          <Caution title="Never sold">
            Cracked glass, a wick at the wall and every other safety flaw are never sold, whatever is set here. Sweating candles are sold only if they stayed
            dry at a recheck.
          </Caution>
          <Aside title="Why rules">
            With the same rules, two people grade alike. Most makers sell frosted jars as first grade: frosting does not affect burning.
          </Aside>
        </>
      }
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save(rules);
        }}
      >
        <WideTable label="By class of flaw and extent" heads={["Class of flaw", ...EXTENTS.map((extent) => EXTENT_WORDS[extent])]} least={640}>
          {CLASSES.map((of) => (
            <tr key={of} className="border-t border-line">
              <th scope="row">{of}</th>
              {EXTENTS.map((extent) => (
                <td key={extent} className="py-1 pr-3">
                  <Pick label={`${of}, ${EXTENT_WORDS[extent]}`} value={rules[of][extent]} onValue={(value) => set(of, extent, value)} />
                </td>
              ))}
            </tr>
          ))}
        </WideTable>
        <h2 className="mt-6">Flaws with a grade of their own</h2>
        <ul className="mt-1 grid gap-x-6 sm:grid-cols-2">
          {DEFECTS.filter((defect) => defect.seen === "set" && !defect.classes.includes("S")).map((defect) => (
            <li key={defect.id} className="flex flex-wrap items-center gap-3 border-b border-line py-1">
              <span>{defect.name}</span>
              <span className="ml-auto">
                <Pick
                  label={defect.name}
                  none="by its class"
                  value={rules.own[defect.id] ?? ""}
                  onValue={(value) => {
                    const { [defect.id]: _old, ...own } = rules.own;
                    setRules({ ...rules, own: value ? { ...own, [defect.id]: value } : own });
                  }}
                />
              </span>
            </li>
          ))}
        </ul>
        <FormMessage className="mt-2">{message}</FormMessage>
        <div className="mt-4 flex flex-wrap gap-3">
          <button type="submit" className="action-button" disabled={busy}>
            Save rules
          </button>
          <button type="button" className="press" onClick={() => setRules(DEFAULT_GRADES)}>
            Reset to defaults
          </button>
        </div>
      </form>
    </PageLayout>
  );
}
