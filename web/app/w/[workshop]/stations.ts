import { station as bench } from "@/stations/bench/station";
import { station as burn } from "@/stations/burn/station";
import { station as findings } from "@/stations/findings/station";
import { station as formulas } from "@/stations/formulas/station";
import { station as lookover } from "@/stations/lookover/station";
import { station as plan } from "@/stations/plan/station";
import { station as products } from "@/stations/products/station";
import { station as rack } from "@/stations/rack/station";
import { station as records } from "@/stations/records/station";
import { station as sell } from "@/stations/sell/station";
import { station as shelf } from "@/stations/shelf/station";
import { station as today } from "@/stations/today/station";

/** The stations in the order of work. A new one is its folder and a line here. */
export const STATIONS = [today, shelf, formulas, products, plan, bench, rack, lookover, burn, sell, records, findings];
