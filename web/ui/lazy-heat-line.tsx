import type { HeatLineInput } from "./heat-layout";
import { lazy } from "./lazy";

/** A heat line that is loaded once the page can be used, in a space that is kept for it: its scales are a tenth of the script of a pot's page. */
export const LazyHeatLine = lazy<HeatLineInput & { height: number; label: string }>(async () => (await import("./heat-line")).HeatLine, {
  idle: true,
  Meanwhile: ({ height }) => <div className="bg-sheet" style={{ height }} />,
});
