import { renameKeys } from "../../log/stored";
import { jarStatusesOf, looseOf } from "../jars";
import { abandonedAlready, batchEvent, notPoured, productOf } from "./event-type";

/** Pieces of a product were packed, with the packaging that was used. For a set from several batches each batch has its own entry. */
export const packed = batchEvent({
  kind: "packed",
  version: 2,
  onlyByCommand: "Packing is done and undone under Sell: unpack these packs there.",
  payload: ({ z }) =>
    z.object({
      packRun: z.uuid().describe("names the packs, so that every piece can be found again"),
      of: z.string().trim().min(1).max(120).describe("what it is sold as"),
      product: z.string().min(1).max(60).describe("its key within the batch"),
      jars: z.number().int().min(1, "At least 1 piece.").max(100_000),
      packs: z.number().int().min(1).max(100_000),
      /** Boxes, lids, labels that are booked here; those of a set stand with one of its batches. */
      parts: z.array(z.object({ id: z.uuid(), count: z.number().int().min(1).max(10_000_000) })).max(40),
    }),
  upcast: renameKeys({ packing: "packRun" }),
  validate: (state, payload, plan) => {
    const early = notPoured(state, "packed") ?? abandonedAlready(state);
    if (early) return early;
    if (!productOf(plan, payload.product)) return { field: "product", message: "This batch has no such product." };
    if (!state.released) return { field: "kind", message: "It is not released for sale yet: cure, inspect and release it first." };
    const loose = looseOf(plan, state, payload.product);
    if (payload.jars <= loose) return null;
    // A safety flaw that is found later does not unpack what was packed before.
    const isAdvisory = payload.jars <= jarStatusesOf(plan, state, payload.product).counts.rack;
    return {
      field: "jars",
      message: `${loose} ${loose === 1 ? "piece" : "pieces"} of it may be packed now. Pack fewer, or release more.`,
      ...(isAdvisory ? { advisory: true as const } : {}),
    };
  },
  apply: (state, { id, happenedAt, payload }) => {
    state.jarStatuses.push({
      eventId: id,
      at: happenedAt,
      product: payload.product,
      jars: payload.jars,
      from: "rack",
      to: "packed",
      whom: "",
      packRun: payload.packRun,
    });
  },
  stockUse: (_facts, payload) => payload.parts.map(({ id, count }) => ({ materialId: id, amount: count })),
  describe: (payload, plan) => ({
    what: `packed ${payload.jars} × ${productOf(plan, payload.product)?.name ?? "piece"}`,
    figure: `${payload.packs} × ${payload.of}`,
  }),
  columns: (payload, plan) => ({ what: `${payload.jars} × ${productOf(plan, payload.product)?.name ?? ""} packed as ${payload.packs} × ${payload.of}` }),
});
