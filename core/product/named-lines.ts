import { type FillPart, writePart } from "./parts";

interface Line {
  name: string;
  wicks: { name: string; count: number } | null;
  part?: FillPart | undefined;
  fillMg: number;
}

const ofWicks = ({ wicks }: Line): string => (wicks ? (wicks.count > 1 ? `${wicks.count} × ${wicks.name}` : wicks.name) : "no wick");
const ofPart = ({ part }: Line): string => (part ? writePart(part) : "full");

/**
 * Returns the products of a pot with names that tell them apart: where several are called alike, each is followed by what differs between them, its wick
 * and how far it is filled ("20 cl glass · 2 × flat 4 · half fill"). Names that are unlike stay as they are.
 */
export function namedLines<L extends Line>(lines: readonly L[]): L[] {
  return lines.map((line) => {
    const alike = lines.filter((other) => other.name === line.name);
    const marks = [ofWicks, ofPart].flatMap((of) => (new Set(alike.map(of)).size > 1 ? [of(line)] : []));
    return alike.length > 1 && marks.length > 0 ? { ...line, name: [line.name, ...marks].join(" · ") } : line;
  });
}
