import { fatesOf, looseOf } from "../jars";
import { abandonedAlready, batchKind, notPoured, productOf } from "./kind";

/** Pieces of a product went into packs, with what the packs took beside them. Of a set from several batches each has its own entry. */
export const packed = batchKind({
  kind: "packed",
  version: 1,
  own: "Packing is done and undone under Sell: unpack these packs there.",
  payload: ({ z }) =>
    z.object({
      packing: z.uuid().describe("names the packs, so that every piece can be found again"),
      of: z.string().trim().min(1).max(120).describe("what it is sold as"),
      product: z.string().min(1).max(60).describe("its key within the batch"),
      jars: z.number().int().min(1, "At least 1 piece.").max(100_000),
      packs: z.number().int().min(1).max(100_000),
      /** Boxes, lids, labels that are booked here; those of a set stand with one of its batches. */
      parts: z.array(z.object({ id: z.uuid(), count: z.number().int().min(1).max(10_000_000) })).max(40),
    }),
  refuse: (facts, one, plan) => {
    const early = notPoured(facts, "packed") ?? abandonedAlready(facts);
    if (early) return early;
    if (!productOf(plan, one.product)) return { field: "product", message: "This batch has no such product." };
    if (!facts.released) return { field: "kind", message: "It is not released for sale yet: cure, look over, and release it first." };
    const loose = looseOf(plan, facts, one.product);
    if (one.jars <= loose) return null;
    // A safety flaw that is found later does not unpack what was packed before.
    const isAdvisory = one.jars <= fatesOf(plan, facts, one.product).counts.rack;
    return {
      field: "jars",
      message: `${loose} ${loose === 1 ? "piece" : "pieces"} of it may be packed now. Pack fewer, or release more.`,
      ...(isAdvisory ? { advisory: true as const } : {}),
    };
  },
  apply: (facts, { id, happenedAt, payload: one }) => {
    facts.fates.push({ eventId: id, at: happenedAt, product: one.product, jars: one.jars, from: "rack", to: "packed", whom: "", packing: one.packing });
  },
  draws: (_facts, one) => one.parts.map(({ id, count }) => ({ materialId: id, amount: count })),
  told: (one, plan) => ({ what: `packed ${one.jars} × ${productOf(plan, one.product)?.name ?? "piece"}`, figure: `${one.packs} × ${one.of}` }),
  columns: (one, plan) => ({ what: `${one.jars} × ${productOf(plan, one.product)?.name ?? ""} packed as ${one.packs} × ${one.of}` }),
});
