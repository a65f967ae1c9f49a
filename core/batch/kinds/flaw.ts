import { defectNow, defectOf, howBad } from "../../defects/defects";
import { batchKind, closedAlready, productOf } from "./kind";

/** A flaw seen: which, where, how bad, on how many of which product. */
export const flaw = batchKind({
  kind: "flaw",
  version: 4,
  payload: ({ flaw }) => flaw,
  upcast: ({ vesselId, severity, defect, ...old }) => ({
    ...old,
    defect: defectNow(defect),
    ...("product" in old ? {} : { product: vesselId }),
    severity: severity === "plain" ? "clear" : severity === "bad" ? "severe" : severity,
  }),
  refuse: (facts, one, plan) => {
    if (Object.keys(facts.pours).length === 0) return { field: "kind", message: "Nothing is poured yet, so there is nothing to look over." };
    const product = productOf(plan, one.product);
    if (!product) return { field: "product", message: "This batch has no such product." };
    if (one.jars > product.count) return { field: "jars", message: `This batch has ${product.count} of ${product.name}, so ${one.jars} cannot be flawed.` };
    return closedAlready(facts);
  },
  apply: (facts, { id, happenedAt, payload: one }) => {
    facts.flaws.push({ eventId: id, at: happenedAt, flaw: one });
  },
  told: (one, plan) => {
    const known = defectOf(one.defect);
    const product = productOf(plan, one.product);
    return {
      what: `${howBad(one)} ${known?.name ?? one.defect} at the ${one.place}, ${product?.name ?? "vessel"}`,
      figure: `${one.jars} of ${product?.count ?? "?"}`,
      tone: known?.classes.includes("S") ? "safety" : "ink",
    };
  },
  columns: (one, plan) => ({
    what: `${one.defect}, ${one.place}, ${howBad(one)}, ${one.jars} × ${productOf(plan, one.product)?.name ?? ""}`,
  }),
});
