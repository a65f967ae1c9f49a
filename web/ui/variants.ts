import { cva } from "class-variance-authority";

/** Styles of a notice beside the work or across the screen: “hot” and “safety” always ask for an action. */
export const notice = cva("px-3 py-2", {
  variants: {
    tone: { hot: "border-hot bg-hot-fill", safety: "border-safety bg-safety-fill", cool: "border-cool bg-cool-fill" },
    place: { side: "border-l-[6px]", strip: "unprinted border-b-[3px] !border-ink !px-4 font-semibold sm:!px-8" },
    size: { small: "text-[15px]", plain: "" },
  },
  defaultVariants: { tone: "hot", place: "side", size: "plain" },
});

/** A button that is not the next step: larger for gloves, smaller beside what it belongs to. */
export const press = cva("press", {
  variants: { size: { plain: "", gloved: "!min-h-[56px] text-[18px]", small: "!min-h-[34px] text-[15px]" } },
  defaultVariants: { size: "plain" },
});
