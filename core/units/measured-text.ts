import { type LengthUnit, writeLength } from "./length";
import { type MassUnit, writeRoundedMass } from "./mass";
import { type CentiCelsius, type TemperatureUnit, writeTemperature } from "./temperature";

/** The units in which a workshop reads weights, temperatures and lengths. */
export interface UnitChoice {
  mass: MassUnit;
  temperature: TemperatureUnit;
  length: LengthUnit;
}

export const METRIC: UnitChoice = { mass: "g", temperature: "C", length: "mm" };
export const US_CUSTOMARY: UnitChoice = { mass: "oz", temperature: "F", length: "in" };

/** Returns whether a workshop reads what is measured in metric units. */
export const isMetric = (units: UnitChoice, measured: keyof UnitChoice): boolean => units[measured] === METRIC[measured];

const MEASURE = /\{([^{}|]*)\|([^{}|]*)\}/g;
const TEMPERATURE = /°C|degrees? C/;
const LENGTH = /\d\s*(mm|cm|m)\b|meter/;

/**
 * Returns a text of the program with its measures in the units of a workshop. Such a text holds each measure twice, the metric one first: "Trim the wick to
 * {6 mm|1/4 in}." Which of the two is taken follows from what the metric one measures: a temperature, a length, or else a weight or volume.
 */
export const inUnits = (text: string, units: UnitChoice): string =>
  text.replace(MEASURE, (_all, metric: string, us: string) => {
    const measured = TEMPERATURE.test(metric) ? "temperature" : LENGTH.test(metric) ? "length" : "mass";
    return isMetric(units, measured) ? metric : us;
  });

/** Returns a weight (milligrams), temperature (hundredths of °C) or length (micrometers) as `inUnits` reads it. */
export const massInBoth = (mg: number): string => `{${writeRoundedMass(mg, "g")}|${writeRoundedMass(mg, "oz")}}`;
export const temperatureInBoth = (centi: CentiCelsius): string => `{${writeTemperature(centi, "C")}|${writeTemperature(centi, "F")}}`;
export const lengthInBoth = (um: number): string => `{${writeLength(um, "mm")}|${writeLength(um, "in")}}`;
