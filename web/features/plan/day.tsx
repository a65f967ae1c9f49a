"use client";

import { type DayRecord, dayAt, type DayProduct as Making, type PlanningSettings, type ToLabel, timeOn, workOfDay } from "@hearth/core";
import { useEffect, useMemo, useState } from "react";
import { Chooser } from "@/forms/chooser";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { countRule, dayRule, massRule, percentRule } from "@/forms/rules";
import { Link, useRouter } from "@/ui/address";
import { Aside, Empty, HotWaxCaution, PageLayout, Warn } from "@/ui/side-notes";
import { useNow, useUnits } from "@/ui/units";
import type { DayProduct } from "./day-product";
import { parseTimeOfDay, typedMinutes } from "./day-rules";
import { DayShown } from "./day-shown";
import { DayFault, DayPapers, DayVerdict } from "./day-side";
import { DayTimes } from "./day-times";
import { type DayChanges, useDayChanges, useKeptDay } from "./use-day";

/** So many products stand there before one is looked for. */
const SHOWN = 8;

interface DayProps {
  on: string;
  products: DayProduct[];
  /** The day as it was left; null if nobody has planned it. */
  kept: DayRecord | null;
  version: number;
  /** Pieces by product that the plan puts on this day. */
  planned: Record<string, number>;
  settings: PlanningSettings;
  /** Batches whose cure is over by this day. */
  labels: ToLabel[];
}

/** The fields of a day: how many of each product, when it begins, and what it works with. */
function useDayFields({ products, kept, planned, settings }: DayProps, today: string) {
  const units = useUnits();
  const [added, setAdded] = useState<string[]>([]);
  const counts = kept?.counts ?? planned;
  const shown = products.filter((product, index) => index < SHOWN || added.includes(product.id) || counts[product.id]);
  const ids = shown.map((dayProduct) => dayProduct.id).join();
  const rules = useMemo(() => {
    const from = kept ?? { ...settings, begin: settings.hours.find((hour) => hour)?.from ?? 540 };
    return {
      ...Object.fromEntries(
        ids
          .split(",")
          .map((id) => [`count:${id}`, orNothing(countRule({ least: 1, most: 2_000, name: "pieces" }, counts[id] === undefined ? "" : String(counts[id])))]),
      ),
      on: dayRule(today, units),
      wanted: dayRule(today, units),
      begin: { initial: typedMinutes(from.begin), parse: parseTimeOfDay } satisfies FieldRule<number>,
      hands: countRule({ least: 1, most: 9, name: "people" }, String(from.hands)),
      burners: countRule({ least: 1, most: 20, name: "burners" }, String(from.burners)),
      pitchers: countRule({ least: 1, most: 40, name: "pitchers" }, String(from.pitchers)),
      pitcherMg: massRule(units, { initial: units.typed.about(from.pitcherMg) }),
      sparePpm: percentRule({ least: 0, most: 50, name: "the extra" }, String(from.sparePpm / 10_000)),
    } as Record<string, FieldRule<unknown>>;
  }, [ids, units, today, kept, settings, counts]);
  const fields = useFields(rules);
  const values = fields.values as Record<string, unknown>;
  const figure = (name: string): number | null => (typeof values[name] === "number" ? (values[name] as number) : null);
  return { shown, fields, values, figure, add: (all: readonly string[]) => setAdded((old) => [...old, ...all]) };
}
type DayFields = ReturnType<typeof useDayFields>;

/** Another day is another page: it is opened once its date has stood for a moment. */
function useOtherDay(on: string, asked: unknown): void {
  const router = useRouter();
  const goTo = typeof asked === "string" && asked !== on ? asked : null;
  useEffect(() => {
    if (!goTo) return;
    const timer = setTimeout(() => router.replace(`/plan/day?on=${goTo}`), 600);
    return () => clearTimeout(timer);
  }, [goTo, router]);
}

/** A day as its fields and steps say it: kept as it is typed, and the work that follows. `record` is null while a field cannot be read. */
function useDay(props: DayProps) {
  const { on, products, kept, version, planned } = props;
  const units = useUnits();
  const today = dayAt(useNow(60_000), units.zone);
  const form = useDayFields(props, today);
  const { shown, values, figure } = form;
  const day = useDayChanges({ held: kept?.held ?? {}, breaks: kept?.breaks ?? [], lost: kept?.lost ?? [], gone: kept?.gone ?? {} });
  useOtherDay(on, values.on);
  const typed = JSON.stringify({
    counts: Object.fromEntries(shown.flatMap((dayProduct) => (figure(`count:${dayProduct.id}`) ? [[dayProduct.id, figure(`count:${dayProduct.id}`)]] : []))),
    ...Object.fromEntries(["begin", "hands", "burners", "pitchers", "pitcherMg", "sparePpm"].map((name) => [name, figure(name)])),
  });
  const record = useMemo((): DayRecord | null => {
    const { counts: made, ...rest } = JSON.parse(typed) as Omit<DayRecord, keyof DayChanges>;
    return Object.values(rest).some((value) => value === null) ? null : { counts: made, ...rest, ...day.changes };
  }, [typed, day.changes]);
  const untouched = kept === null && Object.keys(planned).length === 0 && record !== null && Object.keys(record.counts).length === 0;
  const { message, kept: isKept } = useKeptDay(on, untouched ? null : record, { version, data: kept });

  const making = useMemo((): Making[] => products.map((product) => ({ ...product, productId: product.id })), [products]);
  const work = useMemo(() => (record ? workOfDay(record, making) : []), [record, making]);
  const wanted = typeof values.wanted === "string" ? new Date(timeOn(values.wanted, 0, units.zone)).toISOString() : null;
  const differs = kept !== null && Object.entries(planned).some(([id, count]) => (record?.counts[id] ?? 0) !== count);
  return { form, day, record, work, wanted, differs, message, isKept };
}

/** What is to be made on the day, and what one works with. */
function DayForm({ on, products, form: { fields, shown, add }, isKept }: { on: string; products: DayProps["products"]; form: DayFields; isKept: boolean }) {
  const units = useUnits();
  return (
    <form ref={fields.form} className="unprinted" onSubmit={(event) => event.preventDefault()}>
      <section className="sheet">
        <div className="mb-2 flex flex-wrap items-baseline gap-x-4">
          <h2>Products to make</h2>
          <span className="text-[14px] text-soft" role="status">
            {isKept ? "✓ kept" : ""}
          </span>
        </div>
        <ul aria-label="Products" className="grid grid-cols-2 items-end gap-x-5 lg:grid-cols-4">
          {shown.map((dayProduct) => (
            <li key={dayProduct.id}>
              <Field label={dayProduct.name} {...fields.bind(`count:${dayProduct.id}`)} inputMode="numeric" placeholder="none" />
            </li>
          ))}
        </ul>
        {products.length > shown.length ? (
          <div className="mt-2 max-w-[420px]">
            <Chooser
              label="Another product"
              value=""
              options={products.filter((product) => !shown.includes(product)).map((product) => ({ value: product.id, name: product.name }))}
              onValue={(id) => add([id])}
            />
          </div>
        ) : null}
      </section>
      <section className="sheet mt-5">
        <h2 className="mb-2">What you work with</h2>
        <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-4">
          <Field label="Day" {...fields.bind("on")} placeholder={units.onDate(on)} />
          <Field label="Start at" {...fields.bind("begin")} />
          <Field label="Due" {...fields.bind("wanted")} placeholder="no day" />
          <Field label="People" {...fields.bind("hands")} inputMode="numeric" />
          <Field label="Burners" {...fields.bind("burners")} inputMode="numeric" />
          <Field label="Pitchers" {...fields.bind("pitchers")} inputMode="numeric" />
          <Field label="A pitcher holds" unit={units.mass} {...fields.bind("pitcherMg")} inputMode="decimal" />
          <Field label="Extra" unit="%" {...fields.bind("sparePpm")} inputMode="decimal" />
        </div>
      </section>
    </form>
  );
}

/** Says that the plan puts other counts on this day, and takes them over. */
function OtherCounts({ products, planned, form: { fields, add } }: Pick<DayProps, "products" | "planned"> & { form: DayFields }) {
  const takeOver = () => {
    add(Object.keys(planned));
    fields.fill(Object.fromEntries(products.map((product) => [`count:${product.id}`, planned[product.id] === undefined ? "" : String(planned[product.id])])));
  };
  return (
    <div>
      <Warn>The plan has other counts for this day.</Warn>
      <button type="button" className="press mt-2" onClick={takeOver}>
        Use the plan's counts
      </button>
    </div>
  );
}

/** A day cannot be planned before there is a product. */
const NoProduct = () => (
  <PageLayout title="Day schedule" lead="When to do each step, so that no two pots need you at once.">
    <Empty
      title="No product yet"
      action={
        <Link className="action-button" href="/products/new" data-next-step>
          Make a product
        </Link>
      }
    >
      <p>A day is planned from products, each a formula in a vessel. Make one, and come back.</p>
    </Empty>
  </PageLayout>
);

/** From what is to be made to a day at the pots: which pots, what the people do when, and what cannot be at once. */
export function DayPlan(props: DayProps) {
  const { on, products, settings, labels } = props;
  const units = useUnits();
  const { form, day, record, work, wanted, differs, message, isKept } = useDay(props);
  if (products.length === 0) return <NoProduct />;
  return (
    <DayTimes {...{ on, record, work, wanted, settings, labels }} {...day}>
      <PageLayout
        title={`At the pots, ${units.onDay(on)}`}
        lead="Pots are scheduled so that no two need you at once, and each is poured while it is inside its range. Drag a step to another time, and the rest moves to fit."
        actions={
          <>
            <Link className="press" href="/plan/wanted">
              Demand
            </Link>
            <DayPapers on={on} />
          </>
        }
        side={
          <>
            {message ? <Warn>{message}</Warn> : null}
            <DayFault />
            {differs ? <OtherCounts {...props} form={form} /> : null}
            <DayVerdict />
            <HotWaxCaution />
            <Aside title="Assumptions">
              {units.say(
                "{A kilogram of wax takes about 37 minutes|A pound of wax takes about 17 minutes} to melt; a jar is poured in 20 seconds and wicked in 45; {a kilogram|two pounds} of wax cools halfway to room temperature in an hour. These are typical times: log a few batches and compare.",
              )}
            </Aside>
            <Aside title="Waits">
              Never leave a pot on the heat for another: if you have to leave, take it off first. A pot waits on its burner for at most 15 minutes. Between
              adding and pouring it waits until it is inside the pour range, and no longer than it stays there.
            </Aside>
          </>
        }
      >
        <DayForm on={on} products={products} form={form} isKept={isKept} />
        <DayShown products={products} />
      </PageLayout>
    </DayTimes>
  );
}
