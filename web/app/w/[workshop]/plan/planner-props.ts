import { namedIn } from "@hearth/core";
import { z } from "zod";
import type { PlannerProps } from "@/features/plan/use-planner";
import { readBatch } from "@/server/batches/batches";
import { learnedReserves } from "@/server/batches/molds";
import { formulaForPlan } from "@/server/formulas/formulas";
import { listProcesses, presetChoices } from "@/server/formulas/processes";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { pickList } from "@/server/inventory/shelf";
import { listProducts, readProduct, takenByProduct } from "@/server/products/products";
import { readRates } from "@/server/products/rates";
import { formulaNames } from "@/server/workshops/search-index";

const present = <T>(item: T | null): item is T => item !== null;

/** Returns what the planner shows by what its address asks for, with a key that changes when it begins anew. */
export async function plannerProps(searchParams: Promise<Record<string, string | string[]>>): Promise<{ key: string; props: PlannerProps }> {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, {
    formula: z.uuid(),
    product: z.uuid(),
    /** A batch to be made again. */
    again: z.uuid(),
    /** The formulas of further pots. */
    with: z.string().max(400),
    /** Counts brought along, as "vessel:count,vessel:count". */
    fill: z.string().max(8_000),
  });
  const [product, again] = await Promise.all([
    asked.product ? readProduct(db, workshop.id, asked.product) : null,
    asked.again ? readBatch(db, workshop.id, asked.again) : null,
  ]);
  const requested = asked.formula ?? product?.formulaId ?? again?.formulaId ?? null;
  const [names, processes, rates] = await Promise.all([
    formulaNames(db, workshop.id, 12, requested ? [requested] : []),
    listProcesses(db, workshop.id),
    readRates(db, workshop),
  ]);
  const first = requested && names.some((name) => name.id === requested) ? requested : names[0]?.id;
  const more = (asked.with ?? "").split(",").filter((text) => z.uuid().safeParse(text).success);
  const [formula, ...others] = await Promise.all([first, ...more].map((id) => (id ? formulaForPlan(db, workshop.id, id) : null)));
  const chosen = [...new Set([formula, ...others].flatMap((item) => (item ? [item.id] : [])))];
  const products = (await Promise.all(chosen.map((id) => listProducts(db, workshop.id, id)))).flat().filter((product) => !product.archived);
  const counts: Record<string, string> = Object.fromEntries(
    (asked.fill ?? "").split(",").flatMap((text) => (/^[0-9a-f-]{36}:\d{1,6}$/.test(text) ? [text.split(":") as [string, string]] : [])),
  );
  for (const product of again?.plan.products ?? []) counts[product.containerId] = String(product.count);
  const inPots = [formula, ...others].filter((item) => item !== undefined).filter(present);
  const few = await pickList(db, workshop, [...inPots.flatMap(({ spec }) => namedIn(spec)), ...products.flatMap(takenByProduct), ...Object.keys(counts)], 8);
  return {
    key: `${asked.product ?? ""} ${asked.again ?? ""} ${asked.fill ?? ""}`,
    props: {
      names,
      formula: formula ?? null,
      others: others.filter((item) => item !== undefined).filter(present),
      products,
      askedProduct: product?.id ?? null,
      few,
      processes,
      readyMade: presetChoices(workshop.temperatureUnit),
      counts,
      rates,
      reserves: await learnedReserves(
        db,
        workshop.id,
        few.shelf.molds.map((mold) => mold.id),
      ),
    },
  };
}
