import { section as bench } from "@/features/bench/section";
import { section as burn } from "@/features/burn/section";
import { section as findings } from "@/features/findings/section";
import { section as formulas } from "@/features/formulas/section";
import { section as inspect } from "@/features/inspect/section";
import { section as plan } from "@/features/plan/section";
import { section as products } from "@/features/products/section";
import { section as rack } from "@/features/rack/section";
import { section as records } from "@/features/records/section";
import { section as sell } from "@/features/sell/section";
import { section as shelf } from "@/features/shelf/section";
import { section as today } from "@/features/today/section";

/** The sections in the order of work. A new one is its folder and a line here. */
export const SECTIONS = [today, shelf, formulas, products, plan, bench, rack, inspect, burn, sell, records, findings];
