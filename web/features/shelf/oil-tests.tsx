"use client";

import { bad, good, OIL_TEST_VERDICTS, type OilTest, type OilTestVerdict, parseCount, parseDay, ratioOf } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { Chooser } from "@/forms/chooser";
import { choiceRule, Field, type FieldRule, useFields, words } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { deleteOilTest, saveOilTest } from "@/server/formulas/oil-test-commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";

const VERDICT_WORDS: Record<OilTestVerdict, string> = { good: "good", bad: "not good", open: "not decided yet" };
/** A blend is tried with at most so many further oils. */
const MORE_OILS = 3;

interface OilTestsProps {
  oil: { id: string; name: string };
  oils: readonly { id: string; name: string }[];
  tests: readonly OilTest[];
}

/** One test as a line, with the way to delete it. */
function TestRow({ test, nameOf }: { test: OilTest; nameOf: (id: string) => string }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const remove = async (deleted: boolean) => {
    const outcome = await callAction(deleteOilTest(workshop, { id: test.id, gone: deleted }));
    if (!outcome.ok) return toast(outcome.message);
    if (deleted) toast("Test deleted.", { action: { label: "Undo", onClick: () => void remove(false) } });
    router.refresh();
  };
  return (
    <li className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-line py-2">
      <span>
        <strong>{test.kind === "mixing" ? "Mixing test, 3 parts mineral oil to 1" : test.parts.map((part) => nameOf(part.id)).join(" + ")}</strong>
        {test.kind === "swab" ? (
          <span className="text-soft">
            {" "}
            {test.parts.map((part) => part.drops).join(" + ")} drops, {ratioOf(test.parts.map((part) => part.drops))}
          </span>
        ) : null}
        <span className="text-soft">, {units.day(`${test.on}T12:00:00Z`)}</span>
        {test.note ? <span className="block">{test.note}</span> : null}
      </span>
      <span className="flex items-center gap-3">
        <span className={`font-semibold ${test.verdict === "good" ? "text-inside" : test.verdict === "bad" ? "text-hot" : "text-soft"}`}>
          {test.verdict === "good" ? "✓ " : test.verdict === "bad" ? "▲ " : ""}
          {VERDICT_WORDS[test.verdict]}
        </span>
        <button type="button" className="press" onClick={() => void remove(true)}>
          Delete
        </button>
      </span>
    </li>
  );
}

/** Tests of an oil before any wax is melted: its blends in drops on swabs, and its mixing test for gel. */
export function OilTests({ oil, oils, tests }: OilTestsProps) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const [id, setId] = useState(() => v7());
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const today = units.today ?? "";
  const rules = useMemo((): Record<string, FieldRule<unknown>> => {
    const drops = { initial: "1", parse: (text: string) => parseCount(text, { least: 1, most: 1_000, name: "drops" }) };
    return {
      kind: choiceRule("swab"),
      drops,
      ...Object.fromEntries(
        Array.from({ length: MORE_OILS }, (_, n) => [
          [`oil${n}`, choiceRule()],
          [`drops${n}`, drops],
        ]).flat(),
      ),
      on: {
        initial: "",
        parse: (text) => {
          if (text.trim() === "") return good(today);
          const day = parseDay(text, today, units.locale);
          return day ? good(day) : bad("not-understood", "Give the day, or leave it empty for today.");
        },
      },
      verdict: choiceRule("open"),
      note: words("", 2_000) as FieldRule<unknown>,
    };
  }, [today, units.locale]);
  const fields = useFields(rules);
  const isMixing = fields.text("kind") === "mixing";
  const nameOf = (of: string) => oils.find((other) => other.id === of)?.name ?? "an oil no longer here";
  const others = oils.filter((other) => other.id !== oil.id).map((other) => ({ value: other.id, name: other.name }));
  const shown = Array.from({ length: MORE_OILS }, (_, n) => n).filter((n) => n === 0 || fields.text(`oil${n - 1}`) !== "");
  const save = () => {
    const all = fields.check();
    if (!all) return;
    const more = isMixing ? [] : shown.flatMap((n) => (all[`oil${n}`] ? [{ id: all[`oil${n}`] as string, drops: all[`drops${n}`] as number }] : []));
    start(async () => {
      const outcome = await callAction(
        saveOilTest(workshop, {
          ...{ id, kind: all.kind, on: all.on, verdict: all.verdict, note: all.note },
          parts: [{ id: oil.id, drops: isMixing ? 1 : (all.drops as number) }, ...more],
        }),
      );
      if (!outcome.ok) {
        fields.refuse(outcome.fields);
        return setMessage(outcome.message);
      }
      setMessage("");
      setId(v7());
      fields.fill({ oil0: "", oil1: "", oil2: "", note: "", verdict: "open" });
      router.refresh();
    });
  };
  return (
    <section className="mt-7" aria-label="Tests before wax" id="tests">
      <h2 className="border-b-[3px] border-ink pb-1">Tests before wax</h2>
      {tests.length === 0 ? (
        <p className="mt-2 text-soft">None yet. Try a new blend on swabs shut in a bag for a day, and an oil for gel in mineral oil.</p>
      ) : null}
      <ul>
        {tests.map((test) => (
          <TestRow key={test.id} test={test} nameOf={nameOf} />
        ))}
      </ul>
      <form
        ref={fields.form}
        className="sheet mt-3"
        aria-label="Record a test"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <div className="grid gap-x-4 sm:grid-cols-2">
          <Field
            label="Test"
            {...fields.bind("kind")}
            options={[
              { value: "swab", label: "a blend in drops, on swabs in a bag" },
              { value: "mixing", label: "mixing test for gel: 3 parts mineral oil to 1" },
            ]}
            hint={isMixing ? "Stir, and look after an hour: tiny droplets mean a cloudy candle." : "Smell it after a day, and again after a week."}
          />
          {isMixing ? null : <Field label={`Drops of ${oil.name}`} {...fields.bind("drops")} inputMode="numeric" />}
          {isMixing
            ? null
            : shown.flatMap((n) => [
                <Chooser
                  key={`oil${n}`}
                  label={n === 0 ? "With" : `With, ${n + 1}`}
                  value={fields.text(`oil${n}`)}
                  options={[{ value: "", name: "none" }, ...others]}
                  onValue={(value) => fields.set(`oil${n}`, value)}
                />,
                <Field key={`drops${n}`} label={n === 0 ? "Drops of it" : `Drops of it, ${n + 1}`} {...fields.bind(`drops${n}`)} inputMode="numeric" />,
              ])}
          <Field label="Verdict" {...fields.bind("verdict")} options={OIL_TEST_VERDICTS.map((value) => ({ value, label: VERDICT_WORDS[value] }))} />
          <Field label="Day" {...fields.bind("on")} placeholder="today" />
        </div>
        <Field label="What you noticed" {...fields.bind("note")} lines={2} />
        <FormMessage>{message}</FormMessage>
        <button type="submit" className="press mt-2" disabled={busy}>
          Save test
        </button>
      </form>
    </section>
  );
}
